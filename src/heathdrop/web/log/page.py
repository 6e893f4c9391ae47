"""The log: the days on the water, and what they teach."""

from __future__ import annotations

from itertools import groupby

from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop.answers.lessons import Day, lessons_of
from heathdrop.day.log import last_time
from heathdrop.errors import BadInput
from heathdrop.store import casts
from heathdrop.web.log.shown import day_rows, last_rows, looks_of, sayings_of
from heathdrop.web.sheet.state import address, scenario_from
from heathdrop.web.shell.deps import Db, Mine
from heathdrop.web.shell.fields import values_from
from heathdrop.web.shell.rendering import page

router = APIRouter(include_in_schema=False)


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


#: Days on one page.
SHOWN = 30


@router.get("/log")
def log(request: Request, database: Db, before: str = "") -> Response:
    """Days, the newest first, a page at a time; what the whole log teaches beside them."""
    with database.session() as session:
        made = casts.listed(session)
    days = [(day, list(some)) for day, some in groupby(made, key=lambda c: c.time.date().isoformat())]
    found = lessons_of(made)
    shown = [d for d in reversed(days) if not before or d[0] < before[:10]]
    context = {
        "days": day_rows(shown[:SHOWN]),
        "more": shown[SHOWN - 1][0] if len(shown) > SHOWN else "",
        "looks": looks_of(found),
        "sayings": sayings_of(found),
        "casts": found.casts,
        "bites": found.bites,
        "page": "log",
    }
    return page(request, "log/page.html", context)
