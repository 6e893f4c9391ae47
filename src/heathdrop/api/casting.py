"""Casts from the water and what to throw next at a stop, as JSON."""

from pydantic import BaseModel
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.answers.deck import NextUp
from heathdrop.answers.own import Own
from heathdrop.answers.plan import rig_said
from heathdrop.answers.thrown import rig_of
from heathdrop.api.planning import IfAnswer, RigFields, rig_written
from heathdrop.api.searching import CastAnswer, SearchAnswer, casts_written, written
from heathdrop.conditions.gear import Line
from heathdrop.day.deck import Here, next_at
from heathdrop.measures import IMPERIAL, said_in, sentence
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.sizing.cadence import work_in
from heathdrop.units import count_said, turns_said


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
    """The next casts at a stop; the first cast of each rod to hand, for who picks another one than the order
    names; the smallest change when the last cast went wrong; cautions that apply."""

    stop: str
    casts: list[NextCast]  # type: ignore[assignment]
    each_rod: list[NextCast]
    mend: IfAnswer | None
    left: str
    cautions: list[str]
    made: int
    thrown: str


def next_casts(
    session: Session, stop: str, own: Own, limit: int, rig: str = "", units: str = IMPERIAL
) -> NextAnswer:
    """The next casts at a stop after what was thrown there; with ``rig`` (by its name) with that one alone.
    Raises BadInput when there is no such stop or rig."""
    here, up = next_at(session, stop, own, limit, rig)
    with said_in(units):
        return _written(here, up)


def _written(here: Here, up: NextUp) -> NextAnswer:
    answer = written(up.search)
    fields = answer.model_dump(exclude={"casts"})
    return NextAnswer(
        **fields,
        stop=here.name,
        casts=[_cast(here, up, c) for c in answer.casts],
        each_rod=[
            _cast(here, up, c)
            for c in casts_written(up.search.each, up.search.scenario.gear.rod_tip_height_ft)
        ],
        mend=None
        if up.mend is None
        else IfAnswer(
            symptom=up.mend.symptom,
            change=sentence(up.mend.change),
            effect=sentence(up.mend.effect),
        ),
        left=sentence(up.left),
        cautions=[sentence(c) for c in up.cautions],
        made=len(here.made),
        thrown=name_of(rig_of(here.made[-1])).text() if here.made else "",
    )


def _cast(here: Here, up: NextUp, cast: CastAnswer) -> NextCast:
    tied = up.rod_of(cast.name)
    rig = tied.rig if tied else RigName.parse(cast.name).rig(catalogue.load())
    line = tied.rod.line if tied else here.scenario.gear.line
    family = rig.family
    work = work_in(family, catalogue.load().cadences.get(cast.cadence))
    lands = work in ("bottom", "drop")
    return NextCast(
        **cast.model_dump(exclude={"rod"}),
        rod=tied.rod.name if tied else "",
        lands=lands,
        work=cast.cadence or family.work,
        rig=rig_written(rig),
        line=line,
        said=SaidAnswer(
            rig=sentence(rig_said(rig)),
            line=sentence(line.said),
            count=f"{cast.countdown_s:.1f}" if lands else count_said(cast.countdown_s),
            turns="shake it" if work == "hang" else turns_said(cast.turns_per_s),
            runs=sentence(f"{cast.runs_ft:.1f} ft"),
            why=sentence(cast.why),
        ),
    )
