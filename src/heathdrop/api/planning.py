"""A plan as JSON: rods and stops in, rods as tied and stops as fished out."""

from typing import Any

from pydantic import BaseModel, Field

from heathdrop import catalog as catalogue
from heathdrop.answers.day_table import Tell
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.plan import Plan, Served, StopPlan
from heathdrop.api.searching import CastAnswer, casts_written
from heathdrop.conditions.gear import Line
from heathdrop.conditions.gear import Rod as GearRod
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.wanted import Wanted
from heathdrop.day.plan import planned
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName, given_of, name_of
from heathdrop.sizing.hits import hits_of
from heathdrop.units import feet


class RigFields(BaseModel):
    """A rig field by field, all of them said, as a cast's record carries it."""

    family: str
    head_oz: float
    head_material: str
    trailer: str
    trailer_length_in: float
    skirt: str
    head_shape: str
    blades: str | None = None
    plastic: str
    softness: str
    orientation: str
    fused: bool | None = None
    head_g: float | None = None
    trailer_g: float | None = None
    width: float | None = None


class RigOnRod(RigFields):
    name: str


class TiedAnswer(BaseModel):
    name: str
    line: dict[str, Any]
    inches_per_turn: float
    rod: GearRod | None = None
    rig: RigOnRod
    adds: float


class WithAnswer(BaseModel):
    rod: str
    rig: RigOnRod
    change: str
    countdown_s: float
    pace_ft_s: float
    turns_per_s: float
    runs_ft: float
    fit: float
    way: str
    cadence: str
    adds: float = 0.0
    for_ft: tuple[float, float] | None = None
    hits: dict[str, bool] = {}


class IdealAnswer(BaseModel):
    rig: RigOnRod
    fit: float


class IfAnswer(BaseModel):
    symptom: str
    change: str
    effect: str


class PlannedStop(BaseModel):
    name: str
    water: str
    minutes: float
    importance: float
    position: dict[str, float] | None
    with_: WithAnswer = Field(serialization_alias="with")
    ideal: IdealAnswer
    served: bool
    also: list[WithAnswer]
    if_: list[IfAnswer] = Field(serialization_alias="if")
    search: list[CastAnswer]
    cautions: list[str]


class PlanAnswer(BaseModel):
    """The day. ``total`` of ``bound``: shares of a day on which every stop is fished at its best."""

    date: str
    rods: list[TiedAnswer]
    stops: list[PlannedStop]
    bag: list[str]
    buy: list[str]
    total: float
    bound: float
    seconds: float


def plan_answer(request: PlanRequest, own: Own = STRANGER, tell: Tell = lambda _s, _w: None) -> PlanAnswer:
    """The plan of a request as its JSON answer. Raises BadInput."""
    return written(request.day(), planned(request, own, tell))


def written(day: str, plan: Plan) -> PlanAnswer:
    """A plan as its JSON answer."""
    return PlanAnswer(
        date=day,
        rods=[
            TiedAnswer(
                name=t.rod.name,
                line=_line(t.rod.line),
                inches_per_turn=t.rod.reel.inches_per_turn,
                rod=t.rod.rated,
                rig=rig_on_rod(t.rig),
                adds=_r(t.adds, 4),
            )
            for t in plan.rods
        ],
        stops=[_stop(plan, s) for s in plan.stops],
        bag=list(plan.bag),
        buy=list(plan.buy),
        total=_r(plan.total, 4),
        bound=_r(plan.bound, 4),
        seconds=_r(plan.seconds, 2),
    )


def _stop(plan: Plan, s: StopPlan) -> PlannedStop:
    others = sorted((e for e in s.each if e is not s.served), key=lambda e: -e.worth)
    rods = {e.rated.key: plan.rods[e.rod].rod.name for e in (*s.each, s.served)}
    at = s.stop.position
    return PlannedStop(
        name=s.stop.name,
        water=s.stop.scenario.said,
        minutes=s.stop.minutes,
        importance=s.stop.importance,
        position=None if at is None else {"lat": at[0], "lon": at[1]},
        with_=_with(plan, s.served, s.stop.scenario.wanted),
        ideal=IdealAnswer(rig=rig_on_rod(s.ideal.rig), fit=_r(s.ideal_worth)),
        served=s.well,
        also=[_with(plan, e, s.stop.scenario.wanted) for e in others],
        if_=[IfAnswer(symptom=a, change=b, effect=c) for a, b, c in s.troubles],
        search=[
            cast.model_copy(update={"rod": rods.get(cast.name, "")})
            for cast in casts_written(s.search, s.stop.scenario.gear.rod_tip_height_ft)
        ],
        cautions=list(s.cautions),
    )


def _with(plan: Plan, e: Served, wanted: Wanted) -> WithAnswer:
    rod = plan.rods[e.rod].rod
    pace = feet(e.rated.tuned.pace_m_s)
    return WithAnswer(
        rod=rod.name,
        rig=rig_on_rod(e.rated.rig),
        change=e.change,
        countdown_s=_r(e.rated.countdown_s, 2),
        pace_ft_s=_r(pace),
        turns_per_s=_r(pace * 12.0 / rod.reel.inches_per_turn),
        runs_ft=_r(feet(e.rated.tuned.mean_m), 2),
        fit=_r(e.worth),
        way=e.rated.way,
        cadence=e.rated.cadence.way if e.rated.cadence else "",
        adds=_r(e.adds),
        for_ft=None if e.for_ft is None else (_r(e.for_ft[0], 1), _r(e.for_ft[1], 1)),
        hits=hits_of(wanted, e.rated),
    )


def _line(line: Line) -> dict[str, Any]:
    line_fields: dict[str, Any] = {"material": line.material, "test_lb": line.test_lb}
    if line.leader is not None:
        tied = line.leader
        line_fields["leader"] = {
            "material": tied.material,
            "test_lb": tied.test_lb,
            "length_ft": tied.length_ft,
        }
    return line_fields


def rig_on_rod(rig: Rig) -> RigOnRod:
    """A rig's fields with its name."""
    return RigOnRod(**rig_written(rig).model_dump(), name=name_of(rig).text())


def rig_written(rig: Rig) -> RigFields:
    """A rig's fields as a cast's record carries them."""
    return RigFields(**given_of(rig))


def as_tied(cast: CastAnswer, rod: str) -> WithAnswer:
    """A cast of a stop's order as its rod is worked; on ``rod`` where it names none."""
    fields = cast.model_dump(include={"countdown_s", "pace_ft_s", "turns_per_s", "runs_ft", "way", "cadence"})
    rig = rig_on_rod(RigName.parse(cast.name).rig(catalogue.load()))
    return WithAnswer(rod=cast.rod or rod, rig=rig, change="none", fit=0.0, **fields)


def _r(value: float, digits: int = 3) -> float:
    return round(float(value), digits)
