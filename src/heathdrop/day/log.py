"""The log with the data file: what it teaches, and the days most like a stop's water."""

from __future__ import annotations

from sqlalchemy.orm import Session

from heathdrop.answers.lessons import Day, Lessons, days_like, lessons_of
from heathdrop.conditions.scenario import Scenario
from heathdrop.day.deck import here_of
from heathdrop.store import casts


def lessons_at(session: Session, stop: str = "") -> Lessons:
    """The lessons of everything that was kept, with the days most like a stop. Raises BadInput for a stop
    that nobody has."""
    today = here_of(session, stop).scenario if stop else None
    return lessons_of(casts.listed(session), today)


def last_time(session: Session, water: Scenario) -> list[Day]:
    """The days most like a water, the nearest first; none where nothing is like it."""
    made = casts.listed(session)
    return days_like(made, water) if made else []


__all__ = ["last_time", "lessons_at"]
