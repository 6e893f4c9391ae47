"""The log with the data file: what it teaches, and the days most like a stop's water."""

from collections import Counter

from sqlalchemy.orm import Session

from heathdrop.answers.last_time import DAYS, LIKE, Day, apart, days_like
from heathdrop.answers.lessons import Lessons, lessons_of
from heathdrop.answers.own import Own
from heathdrop.answers.year import Missed, Piece, Year, missed_of, year_of
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.scenario import Scenario
from heathdrop.day.deck import here_of
from heathdrop.sizing.memory import Memory
from heathdrop.store import casts, fish, items

#: Lessons of the log as it stands, so that looking again asks nothing new.
LESSONS: Memory[tuple[list[MadeCast], Lessons]] = Memory(4)


def lessons_at(session: Session, stop: str = "") -> Lessons:
    """The lessons of everything that was kept, with the days most like a stop. Raises BadInput for a stop
    that nobody has."""
    today, made = here_of(session, stop).scenario if stop else None, casts.listed(session)
    # The same casts are the same objects as long as they are remembered; what is kept here keeps them.
    key = today, tuple(map(id, made))
    return LESSONS.all_of([key], lambda _: [(made, lessons_of(made, today))])[0][1]


def agree(session: Session, about: str) -> bool:
    """Use what the log says now of a shift (by what it is of) or a school (``topic/school``); whether it says
    that."""
    lessons = lessons_at(session)
    for shift in lessons.own:
        if shift.sure and shift.what == about:
            fish.agree(session, shift)
            return True
    for trial in lessons.schools:
        if trial.words != "too few" and trial.ratio > 0.0 and about == f"{trial.topic}/{trial.school}":
            fish.hold(session, trial)
            return True
    return False


def year_at(session: Session, year: str, own: Own) -> tuple[Year, list[Missed]] | None:
    """A year of the log, and what its waters wanted that the box does not hold; None for a year without
    casts."""
    made = casts.of_days(session, f"{year}-01-01", f"{year}-12-31")
    if not made:
        return None
    return year_of(year, made, _pieces(session)), missed_of(made, own)


def _pieces(session: Session) -> list[Piece]:
    """The heads and trailers of the box, those that are alike counted together."""
    pieces: Counter[tuple[str, str, float]] = Counter()
    for body in (item.body for item in items.light_items(session)):
        if isinstance(body, items.HeadItem):
            pieces[body.kind, body.family, body.weight_oz] += body.quantity
        elif isinstance(body, items.TrailerItem):
            pieces[body.kind, body.shape, body.length_in] += body.quantity
    return [Piece(*named, quantity) for named, quantity in pieces.items()]


def last_time(session: Session, water: Scenario) -> list[Day]:
    """The days most like a water, the nearest first; none where nothing is like it."""
    first = ((apart(c, water)[0], c.time.date().isoformat(), c.stop) for c in casts.first_of_stops(session))
    near = {(date, stop) for distance, date, stop in sorted(first)[:DAYS] if distance <= LIKE}
    made = [
        c
        for date in sorted({date for date, _ in near})
        for c in casts.of_days(session, date, date)
        if (date, c.stop) in near
    ]
    return days_like(made, water) if made else []
