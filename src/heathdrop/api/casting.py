"""Casts from the water: kept once each, mended, taken back, and what to throw next at a stop."""

from __future__ import annotations

import uuid
from dataclasses import dataclass, replace

from pydantic import BaseModel, ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.answers.deck import NextUp, OnRod, next_up
from heathdrop.answers.own import Own
from heathdrop.answers.plan import Rod, Stop, head_said, tail_said
from heathdrop.answers.rods_to_hand import Told
from heathdrop.answers.search import MOST_CASTS
from heathdrop.api.planning import IfAnswer, RigFields, the_stops
from heathdrop.api.searching import CastAnswer, SearchAnswer, written
from heathdrop.conditions.gear import Line, Reel
from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.conditions.plan import StopBody
from heathdrop.conditions.scenario import Scenario
from heathdrop.conditions.trip import TripBody, TripStop
from heathdrop.errors import BadInput
from heathdrop.measures import IMPERIAL, said_in, sentence
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.store import casts, plans, trips
from heathdrop.store.models import SavedPlan
from heathdrop.validation import water_of


class KeptAnswer(BaseModel):
    """Every id that was sent, in order: each is kept, whether now or before."""

    kept: list[str]


class GoneAnswer(BaseModel):
    """A cast that was taken back; ``was_there`` is false when it had been already."""

    id: str
    was_there: bool


class SaidAnswer(BaseModel):
    """A cast in words and figures ready to show, in the units asked for."""

    rig: str
    line: str
    count: str
    turns: str
    runs: str
    why: str


class NextCast(CastAnswer):
    """A cast of the order as the deck takes it: the rod (empty: tied on none), whether the lure lies on the
    bottom after the count, how it is worked, its rig and line, its words."""

    rod: str
    lands: bool
    work: str
    rig: RigFields
    line: Line
    said: SaidAnswer


class NextAnswer(SearchAnswer):
    """The next casts at a stop; the smallest change when the last cast went wrong; cautions that apply."""

    stop: str
    casts: list[NextCast]  # type: ignore[assignment]
    mend: IfAnswer | None
    left: str
    cautions: list[str]
    made: int
    thrown: str


def keep_casts(session: Session, made: MadeCasts) -> KeptAnswer:
    """Keep what was sent; sent twice it is kept once, and the answer is the same. Raises BadInput."""
    casts.keep(session, [_filled(session, c) for c in made.root])
    return KeptAnswer(kept=[str(c.id) for c in made.root])


def mend_cast(session: Session, id_: uuid.UUID, cast: MadeCast) -> KeptAnswer:
    """Write a cast anew, or keep it when it is not there. Raises BadInput when it names another id."""
    if cast.id != id_:
        raise BadInput("id", str(cast.id), f"{id_}, as in the address")
    casts.mend(session, _filled(session, cast))
    return KeptAnswer(kept=[str(id_)])


def _filled(session: Session, cast: MadeCast) -> MadeCast:
    """A cast of the trip under way with the conditions of its stop as they are now, or as they were kept with
    it before; what it says itself counts first."""
    under_way = trips.current(session)
    stop = under_way[1].stop(cast.stop) if under_way and cast.trip == under_way[0].name else None
    before = casts.find(session, cast.id)
    known = before.conditions if before and before.conditions else stop.conditions if stop else None
    if known is None:
        return cast
    # The bottom as driven is the stop's, and too long to stand with every cast.
    own = {k: v for k, v in {**known, **(cast.conditions or {})}.items() if k != "bottom_ft"}
    return cast.model_copy(update={"conditions": own})


def take_back(session: Session, id_: uuid.UUID) -> GoneAnswer:
    """Take a cast back; asked twice it is taken back once."""
    return GoneAnswer(id=str(id_), was_there=casts.withdraw(session, str(id_)))


@dataclass(frozen=True)
class Here:
    """A stop as it is fished: its water, the rods with their rigs, what was thrown there."""

    name: str
    scenario: Scenario
    rods: tuple[OnRod, ...]
    made: tuple[MadeCast, ...]


def scenario_of(stop: TripStop, body: TripBody) -> Scenario:
    """The water of a trip's stop. Raises BadInput."""
    return water_of(stop.conditions, stop.cast_ft, stop.rod_tip_height_ft, body.schools, body.box)


def rods_of(body: TripBody) -> tuple[OnRod, ...]:
    """A trip's rods with their rigs. Raises BadInput."""
    catalog = catalogue.load()
    return tuple(
        OnRod(
            Rod(r.name, r.line, Reel(inches_per_turn=r.inches_per_turn), r.rod),
            RigName.parse(r.rig).rig(catalog),
        )
        for r in body.rods
    )


def here_of(session: Session, stop: str) -> Here:
    """A stop of the trip under way, else of the newest plan that has it (its casts are those of the last day
    that has any). Raises BadInput for a stop that neither has."""
    under_way = trips.current(session)
    if under_way is not None:
        row, body = under_way
        at = body.stop(stop)
        if at is not None:
            made = casts.listed(session, stop, row.name)[-MOST_CASTS:]
            return Here(stop, scenario_of(at, body), rods_of(body), tuple(made))
    for plan in reversed(plans.listed(session)):
        for named, found in _stops_of(plan):
            if named.name == stop:
                made = casts.listed(session, stop)
                today = [c for c in made if c.time.date() == made[-1].time.date()][-MOST_CASTS:]
                return Here(stop, found.scenario, (), tuple(today))
    raise BadInput("stop", stop, "the name of a stop of the trip under way, or of a saved plan")


def _stops_of(plan: SavedPlan) -> list[tuple[StopBody, Stop]]:
    """A plan's stops, as they were written and as the core takes them; none of one that cannot be worked out
    (without a stop yet, for one)."""
    try:
        request = plans.request_of(plan)
        return list(zip(request.stops, the_stops(request), strict=True))
    except (ValidationError, BadInput):
        return []


def next_casts(
    session: Session, stop: str, own: Own, limit: int, rig: str = "", units: str = IMPERIAL
) -> NextAnswer:
    """The next casts at a stop after what was thrown there; with ``rig`` (by its name) with that one alone.
    Raises BadInput when there is no such stop or rig."""
    here = here_of(session, stop)
    told = [_told(c) for c in here.made]
    only = _only(here, rig) if rig else None
    found = next_up(here.scenario, own, here.rods, told, limit, only)
    with said_in(units):
        return _written(here, found)


def _told(c: MadeCast) -> Told:
    """A kept cast as the search takes it: by the count that was thrown, where it was taken."""
    count = c.countdown_s if c.count_s is None else min(round(2.0 * c.count_s) / 2.0, 120.0)
    cadence = c.work if c.work in catalogue.load().cadences else ""
    return Told(casts.rig_of(c), count, c.pace_ft_s, c.outcome, c.at_s, cadence)


def _only(here: Here, rig: str) -> OnRod:
    """The rod that a rig is on; one that is tied on none goes on the stop's own line."""
    wanted = RigName.parse(rig)
    for tied in here.rods:
        if RigName.parse(rig).rig(catalogue.load()) == tied.rig:
            return tied
    gear = here.scenario.gear
    line = here.rods[0].rod if here.rods else Rod("", gear.line, gear.reel)
    return OnRod(replace(line, name=""), wanted.rig(catalogue.load()))


def _written(here: Here, found: NextUp) -> NextAnswer:
    answer = written(found.search)
    fields = answer.model_dump(exclude={"casts"})
    return NextAnswer(
        **fields,
        stop=here.name,
        casts=[_cast(here, found, c) for c in answer.casts],
        mend=None
        if found.mend is None
        else IfAnswer(
            symptom=found.mend.symptom,
            change=sentence(found.mend.change),
            effect=sentence(found.mend.effect),
        ),
        left=sentence(found.left),
        cautions=[sentence(c) for c in found.cautions],
        made=len(here.made),
        thrown=name_of(casts.rig_of(here.made[-1])).text() if here.made else "",
    )


def _cast(here: Here, found: NextUp, cast: CastAnswer) -> NextCast:
    tied = found.rod_of(cast.name)
    rig = tied.rig if tied else RigName.parse(cast.name).rig(catalogue.load())
    line = tied.rod.line if tied else here.scenario.gear.line
    family = rig.family
    return NextCast(
        **cast.model_dump(exclude={"rod"}),
        rod=tied.rod.name if tied else "",
        lands=family.work != "swim",
        work=cast.cadence or family.work,
        rig=rig_written(rig),
        line=line,
        said=SaidAnswer(
            rig=sentence(rig_said(rig)),
            line=sentence(line.said),
            count=f"{cast.countdown_s:g}",
            turns=f"{10 * cast.turns_per_s:.0f}",
            runs=sentence(f"{cast.runs_ft:.0f} ft"),
            why=sentence(cast.why),
        ),
    )


def rig_said(rig: Rig) -> str:
    """A rig in words: ``3/8 oz swim jig, craw 4 in``."""
    return ", ".join(part for part in (head_said(rig), tail_said(rig)) if part)


def rig_written(rig: Rig) -> RigFields:
    """A rig's fields as a cast's record carries them."""
    return RigFields(
        family=rig.family.id,
        head_oz=rig.head_oz,
        head_material=rig.head_material.id,
        trailer=rig.trailer.id,
        trailer_length_in=0.0 if rig.trailer.bare else rig.trailer_length_in,
        skirt=rig.skirt.id,
        plastic=rig.plastic.id,
        orientation=rig.orientation.id,
        blades=rig.blades.id if rig.blades else None,
    )
