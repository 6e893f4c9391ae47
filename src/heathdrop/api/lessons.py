"""Lessons of the log as JSON."""

from collections.abc import Mapping

from pydantic import BaseModel
from sqlalchemy.orm import Session

from heathdrop.answers.last_time import Day
from heathdrop.answers.lessons import Lessons
from heathdrop.day.log import lessons_at
from heathdrop.store import fish


class LikeAnswer(BaseModel):
    """A day at a stop that was like this one."""

    date: str
    stop: str
    distance: float
    alike: list[str]
    differs: list[str]
    casts: int
    bites: int
    bit: list[str]
    in_vain: list[str]


class RateAnswer(BaseModel):
    """Bites an hour of a bin, shrunk toward the whole log, with its 80 % interval; ``minutes`` are those
    among the fish (by the clock where no cast's water is known); ``differs`` says better, worse or
    nothing."""

    by: str
    bin: str
    casts: int
    minutes: float
    bites: int
    per_hour: float
    low: float
    high: float
    enough: bool
    differs: str


class TrialAnswer(BaseModel):
    """A school against its topic's default: natural log of the likelihood ratio, and what that says."""

    topic: str
    school: str
    ratio: float
    words: str
    casts: int


class OwnAnswer(BaseModel):
    """How one's own fish differ from the tables, with its 80 % interval: a ``factor`` (1: as tabled),
    ``steps`` of the mood (0) or a ``share`` as ``unit`` says; ``table`` is what the tables have, ``in_use``
    where the angler agreed to it: until then the tables stand."""

    what: str
    unit: str
    table: float
    shift: float
    low: float
    high: float
    casts: int
    in_use: bool


class LessonsAnswer(BaseModel):
    """What the log supports."""

    casts: int
    bites: int
    like_today: list[LikeAnswer]
    rates: list[RateAnswer]
    schools: list[TrialAnswer]
    own: list[OwnAnswer]


def lessons_of_log(session: Session, stop: str = "") -> LessonsAnswer:
    """The lessons of everything that was kept. Raises BadInput for a stop that nobody has."""
    return _lessons_answer(lessons_at(session, stop), fish.shifts(session))


NONE_USED: Mapping[str, fish.AgreedShift] = {}
DIFFERS = {1: "better", -1: "worse", 0: ""}


def _lessons_answer(lessons: Lessons, used: Mapping[str, fish.AgreedShift] = NONE_USED) -> LessonsAnswer:
    """Lessons as their JSON answer, with the shifts that are in use."""
    return LessonsAnswer(
        casts=lessons.casts,
        bites=lessons.bites,
        like_today=[_like(day) for day in lessons.like_today],
        rates=[
            RateAnswer(
                by=r.effort.by,
                bin=r.effort.bin,
                casts=r.effort.casts,
                minutes=round(60.0 * r.effort.hours, 1),
                bites=r.effort.bites,
                per_hour=round(r.per_hour, 3),
                low=round(r.low, 3),
                high=round(r.high, 3),
                enough=r.enough,
                differs=DIFFERS[r.differs],
            )
            for r in (*lessons.rates, *lessons.fit)
        ],
        schools=[
            TrialAnswer(topic=t.topic, school=t.school, ratio=round(t.ratio, 3), words=t.words, casts=t.casts)
            for t in lessons.schools
        ],
        own=[
            OwnAnswer(
                what=s.what,
                unit=s.unit,
                table=s.table,
                shift=round(s.value, 3),
                low=round(s.low, 3),
                high=round(s.high, 3),
                casts=s.casts,
                in_use=s.what in used,
            )
            for s in lessons.own
        ],
    )


def _like(day: Day) -> LikeAnswer:
    return LikeAnswer(
        date=day.date,
        stop=day.stop,
        distance=round(day.distance, 3),
        alike=list(day.alike),
        differs=list(day.differs),
        casts=day.casts,
        bites=day.bites,
        bit=list(day.bit),
        in_vain=list(day.in_vain),
    )
