"""The log: the days on the water, one day stop by stop, and what they teach."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop.answers.lessons import Day
from heathdrop.conditions.made import MadeCast
from heathdrop.day.log import last_time, lessons_at
from heathdrop.errors import BadInput
from heathdrop.store import casts
from heathdrop.web.log.shown import (
    day_rows,
    last_rows,
    looks_of,
    sayings_of,
    stops_of_day,
    years_of,
)
from heathdrop.web.sheet.state import address, scenario_from
from heathdrop.web.shell.deps import Db, Mine, is_htmx
from heathdrop.web.shell.fields import values_from, values_of
from heathdrop.web.shell.rendering import page, problem

router = APIRouter(include_in_schema=False)
#: Days on one page.
SHOWN = 20


@router.get("/last")
def last(request: Request, database: Db, own: Mine) -> Response:
    """The days most like the water on the sheet, and what bit then: a part of the sheet, empty when nothing
    in the log is like it."""
    values = values_from(request.query_params)
    days: list[Day] = []
    with database.session() as session:
        try:
            days = last_time(session, scenario_from(values, own))
        except BadInput:
            days = []  # the sheet itself says what is wrong with its water
    return page(request, "log/last.html", {"days": last_rows(days, lambda **new: address(values | new))})


@router.get("/log")
def log(request: Request, database: Db, before: str = "") -> Response:
    """Days, the newest first, a page at a time. What they teach is asked for by the page once it stands."""
    with database.session() as session:
        days = casts.days(session)
        shown = [d for d in days if not before or d.date < before[:10]]
        some = shown[:SHOWN]
        made = casts.of_days(session, some[-1].date, some[0].date) if some else []
    context = {
        "days": day_rows(made),
        "more": shown[SHOWN - 1].date if len(shown) > SHOWN else "",
        "years": years_of(days),
        "casts": sum(d.casts for d in days),
        "bites": sum(d.bites for d in days),
        "page": "log",
    }
    return page(request, "log/page.html", context)


@router.get("/log/taught")
def taught(request: Request, database: Db) -> Response:
    """What the whole log teaches: a part of the log's page, or a page of its own."""
    with database.session() as session:
        found = lessons_at(session)
    context = {
        "looks": looks_of(found),
        "sayings": sayings_of(found),
        "among": found.among,
        "page": "log",
    }
    return page(request, "log/taught.html" if is_htmx(request) else "log/taught_page.html", context)


@router.get("/log/day/{date}")
def day(request: Request, database: Db, date: str) -> Response:
    """One day: its stops in order, each cast at the depth it ran at, what bit, what was tried in vain."""
    with database.session() as session:
        made = casts.of_days(session, date[:10], date[:10])
    if not made:
        return problem(request, "Nothing is on record for that day.", 404)
    stops = [(stop, _again(stop.casts)) for stop in stops_of_day(made)]
    return page(request, "log/day.html", {"date": date[:10], "stops": stops, "page": "log"})


def _again(made: Sequence[MadeCast]) -> str:
    """The sheet's address with the water of a stop; empty where it is not on record."""
    known: dict[str, Any] | None = next((c.conditions for c in made if c.conditions), None)
    return address(values_of({"conditions": known})) if known else ""
