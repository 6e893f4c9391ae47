"""The log: the days on the water, one day stop by stop, and what they teach."""

import uuid
from collections import Counter
from collections.abc import Sequence
from datetime import date
from typing import Any
from zlib import crc32

from fastapi import APIRouter, Request
from fastapi.responses import PlainTextResponse, RedirectResponse, Response

from heathdrop import catalog as catalogue
from heathdrop.answers.last_time import Day, thrown_said
from heathdrop.answers.thrown import rig_of
from heathdrop.answers.year import CASTS_A_TRAILER, FISH_A_TRAILER
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.day.log import agree, last_time, lessons_at, year_at
from heathdrop.day.made import bring_back, keep_typed, last_away, take_day_back
from heathdrop.errors import BadInput
from heathdrop.measures import system
from heathdrop.physics.rig_name import name_of
from heathdrop.store import casts, fish, settings
from heathdrop.store.files.dayline import line_of, typed_day, typed_parts
from heathdrop.units import counted
from heathdrop.web.deck.shown.deck import ANSWERS
from heathdrop.web.log.shown import (
    day_rows,
    last_rows,
    month_rows,
    stops_of_day,
    typed_said,
    years_of,
)
from heathdrop.web.log.taught import first_of, fits_said, looks_of, sayings_of, traits_of
from heathdrop.web.sheet.state import address, scenario_from
from heathdrop.web.shell.deps import Db, Mine, OwnForm, is_htmx, writing
from heathdrop.web.shell.fields import values_from, values_of
from heathdrop.web.shell.refusal import plain_words
from heathdrop.web.shell.rendering import page, problem

router = APIRouter(include_in_schema=False)
writes = writing()
#: Days on one page; the shortest count that the sheet takes, s.
SHOWN, LEAST_COUNT_S = 20, 0.3


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
    fold = f"last-{crc32(str(request.query_params).encode()):x}"
    shown = last_rows(days, lambda **new: address(values | new))
    return page(request, "log/last.html", {"days": shown, "fold": fold})


@router.get("/log")
def log(request: Request, database: Db, before: str = "", gone: str = "", find: str = "") -> Response:
    """Days, the newest first, a page at a time; those alone whose date or stops have the words of ``find``.
    What they teach is asked for by the page once it stands."""
    with database.session() as session:
        days = casts.days(session)
        taken = last_away(session) if gone else None
        asked = find[:60].lower().split()
        named = [d for d in days if all(word in f"{d.date} {d.stops.lower()}" for word in asked)]
        shown = [d for d in named if not before or d.date < before[:10]]
        some = shown[:SHOWN]
        dates = [d.date for d in some]
        made = casts.of_days(session, dates[-1], dates[0], dates) if dates else []
    context = {
        "days": day_rows(made),
        "found": len(named),
        "all_days": len(days),
        "find": find[:60],
        "more": shown[SHOWN - 1].date if len(shown) > SHOWN else "",
        "years": years_of(days),
        "gone": taken,
        "casts": sum(d.casts for d in days),
        "bites": sum(d.bites for d in days),
        "page": "log",
    }
    return page(request, "log/page.html", context)


@writes.post("/log/typed")
def typed(request: Request, database: Db, form: OwnForm) -> Response:
    """A day typed in afterwards: read back first, kept when that is agreed to, in place of the casts of
    another line (``instead``, a cast of it on the day ``was``) where it is said otherwise; refused beside
    its field."""
    line, on, instead = form.get("line"), form.get("date"), form.get("instead")
    hidden = {"instead": instead, "was": form.get("was")}
    try:
        day_ = typed_day(catalogue.load(), line, _date(on), system())
        made = day_.made(line)
        if form.get("do") != "keep":
            shown = {"line": line, "date": on, "said": typed_said(day_), "page": "log", **hidden}
            return page(request, "log/typed.html", shown)
        with database.session() as session:
            new = keep_typed(session, made, form.get("was") or f"{day_.begun.date()}", instead)
    except BadInput as refusal:
        shown = {"line": line, "date": on, "wrong": plain_words(refusal), "page": "log", **hidden}
        return page(request, "log/typed.html", shown, 422)
    if not new:
        shown = {
            "line": line,
            "date": on,
            "wrong": "That line is on record for that day already.",
            "page": "log",
        }
        return page(request, "log/typed.html", shown, 422)
    return RedirectResponse(f"/log/day/{day_.begun.date()}", 303)


def _date(text: str) -> date:
    """A day as typed; today for none. Raises BadInput."""
    try:
        return date.fromisoformat(text) if text else date.today()
    except ValueError as error:
        raise BadInput("the day", text[:20], "a date: 2026-04-11") from error


@router.get("/log/taught")
def taught(request: Request, database: Db) -> Response:
    """What the whole log teaches: a part of the log's page, or a page of its own."""
    with database.session() as session:
        lessons = lessons_at(session)
        said = sayings_of(lessons, fish.shifts(session), settings.schools(session))
    looks = looks_of(lessons.rates)
    context = {
        "first": first_of(looks),
        "looks": [*looks, *looks_of(lessons.fit)],
        "sayings": said,
        "traits": traits_of(lessons),
        "among": lessons.among,
        "page": "log",
    }
    return page(request, "log/taught.html" if is_htmx(request) else "log/taught_page.html", context)


@router.get("/log/fits")
def fits(database: Db) -> Response:
    """What a fit of 90 and of 70 have meant in the log: a line in the key of the sheet's figure."""
    with database.session() as session:
        return PlainTextResponse(fits_said(lessons_at(session)))


@writes.post("/log/taught")
def use_taught(database: Db, form: OwnForm) -> Response:
    """Use a shift or hold to a school that the log speaks for, or go back to the tables; what the log does
    not say, nobody can agree to."""
    about = form.get("about")
    with database.session() as session:
        if form.get("do") == "withdraw":
            fish.withdraw(session, about)
        else:
            agree(session, about)
    return RedirectResponse("/log/taught", 303)


@router.get("/log/year/{year}")
def year(request: Request, database: Db, own: Mine, year: str) -> Response:
    """A year in sight: months, stops, what to buy, what is worn, lost, was carried for nothing; prints
    well."""
    if not (year.isdecimal() and len(year) == 4):
        return problem(request, "A year is four figures: 2026.", 404)
    with database.session() as session:
        looked_back = year_at(session, year, own)
    if looked_back is None:
        return problem(request, f"Nothing is on record for {year}.", 404)
    sight, missed = looked_back
    context = {
        "y": sight,
        "months": month_rows(sight),
        "noted": any(m.noted for m in sight.months),
        "missed": missed,
        "boxed": bool(own.tackle.heads or own.tackle.trailers),
        "casts_each": CASTS_A_TRAILER,
        "fish_each": FISH_A_TRAILER,
        "page": "log",
    }
    return page(request, "log/year.html", context)


@router.get("/log/day/{on}")
def day(request: Request, database: Db, on: str, gone: str = "", cast_gone: str = "") -> Response:
    """One day: its stops in order, each cast at the depth it ran at, what bit, what was tried in vain."""
    with database.session() as session:
        made = casts.of_days(session, on[:10], on[:10])
        taken = last_away(session) if gone else None
    if not made:
        return problem(request, "Nothing is on record for that day.", 404)
    stops = [(stop, *_again(stop.casts)) for stop in stops_of_day(made)]
    context = {"date": on[:10], "stops": stops, "typed": _typed(made), "gone": taken, "page": "log"}
    return page(request, "log/day.html", context | {"cast_gone": cast_gone[:36]})


@router.get("/log/cast/{id_}")
def cast(request: Request, database: Db, id_: uuid.UUID) -> Response:
    """One cast of a day, to be read and corrected beneath its stop's drawing, with the ones beside it."""
    with database.session() as session:
        one = casts.of_id(session, id_)
        on = "" if one is None else one.time.date().isoformat()
        of_day = casts.of_days(session, on, on) if on else []
    if one is None:
        return problem(request, "That cast is not on record.", 404)
    of_stop = [c.id for c in of_day if c.stop == one.stop]
    at = of_stop.index(id_)
    context = {
        "c": one,
        "day": on,
        "thrown": thrown_said(one),
        "came": OUTCOME[one.outcome].button,
        "counted": counted,
        "answers": ANSWERS,
        "earlier": of_stop[at - 1] if at else None,
        "later": of_stop[at + 1] if at + 1 < len(of_stop) else None,
    }
    return page(request, "log/cast.html", context)


def _typed(made: Sequence[MadeCast]) -> list[tuple[str, str]]:
    """What was typed in of a day: the first cast's id and the line of each part."""
    return [(str(part[0].id), line_of(catalogue.load(), part)) for part in typed_parts(made)]


@router.get("/log/typed")
def typed_otherwise(request: Request, database: Db, was: str = "", instead: str = "") -> Response:
    """The form with a typed line in it, to be said otherwise; without one it is the log's own."""
    if not instead:
        return RedirectResponse("/log", 303)
    with database.session() as session:
        lines = dict(_typed(casts.of_days(session, was[:10], was[:10])))
    if instead not in lines:
        return problem(request, "That line is not on record any more.", 404)
    shown = {"line": lines[instead], "date": was[:10], "was": was[:10], "instead": instead, "page": "log"}
    return page(request, "log/typed.html", shown)


@writes.post("/log/away")
def away(database: Db, form: OwnForm) -> Response:
    """Take a day back, or what was typed in with one line; undone from the page that follows."""
    on = form.get("date")[:10]
    with database.session() as session:
        take_day_back(session, on, form.get("typed"))
        left = casts.of_days(session, on, on)
    return RedirectResponse(f"/log/day/{on}?gone=1" if left else "/log?gone=1", 303)


@writes.post("/log/back")
def back(request: Request, database: Db) -> Response:
    """Undo that."""
    with database.session() as session:
        returned = bring_back(session)
    if returned is None:
        return problem(request, "Nothing is there to be undone.", 404)
    return RedirectResponse(f"/log/day/{returned.on}", 303)


def _again(made: Sequence[MadeCast]) -> tuple[str, str]:
    """The sheet's address with the water of a stop and the rig and count that were bitten most there, and
    what the way there is called; empty where the water is not on record."""
    conditions: dict[str, Any] | None = next((c.conditions for c in made if c.conditions), None)
    if not conditions:
        return "", ""
    bitten = Counter(
        (name_of(rig_of(c)).text(), c.countdown_s, c.pace_ft_s) for c in made if OUTCOME[c.outcome].bitten
    )
    if not bitten:
        return address(values_of({"conditions": conditions})), "This water on the sheet"
    (rig, count, pace), _ = bitten.most_common(1)[0]
    values = values_of({"conditions": conditions}, rig)
    swum = catalogue.load().families[rig.split(":")[0]].work == "swim"
    presentation = (
        {"count_s": f"{count:g}", "pace_ft_s": f"{pace:g}"} if swum and count >= LEAST_COUNT_S else {}
    )
    return address(values | {"family": rig.split(":")[0], "view": "cast", **presentation}), "Fish this again"
