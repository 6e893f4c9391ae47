"""Plans: a day's stops and rods, worked out with progress, shown as stops by rods, and to carry."""

import json
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any
from urllib.parse import parse_qsl

import gpxpy.gpx
from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from heathdrop.answers.own import Own
from heathdrop.answers.plan import Plan
from heathdrop.api.planning import PlanAnswer, TiedAnswer, written
from heathdrop.conditions.plan import MOST_RODS, MOST_STOPS, PlanRequest, RodBody, stop_water
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import check
from heathdrop.conditions.validation import bad_input
from heathdrop.day.plan import call_off, job_of, the_stops
from heathdrop.errors import BadInput
from heathdrop.reading import number_of
from heathdrop.store import plans, scenarios
from heathdrop.store.database import Database
from heathdrop.store.files.rodline import rod_line, rods_in
from heathdrop.store.models import SavedPlan, SavedScenario
from heathdrop.web.plan.deckcard import deck_card, printed_card
from heathdrop.web.plan.shown import planned_of, stop_section
from heathdrop.web.sheet.state import address
from heathdrop.web.shell.assets import asset
from heathdrop.web.shell.deps import Db, Form, Mine, OwnForm, is_htmx, writing
from heathdrop.web.shell.fields import body_from, values_from, values_of
from heathdrop.web.shell.refusal import in_words, plain_words
from heathdrop.web.shell.rendering import KEPT_WATER, page, problem

router = APIRouter(include_in_schema=False)
writes = writing()
#: What a new plan starts from.
EMPTY: dict[str, Any] = {"version": 1, "date": "", "box": "standard", "schools": {}, "rods": 4, "stops": []}
PLAN_GONE = "There is no such plan."


def _written(body: dict[str, Any], plan: Plan) -> PlanAnswer:
    """A plan as its JSON answer, which the page, the card and the print show."""
    return written(PlanRequest.model_validate(body).day(), plan)


def _shown(row: SavedPlan, own: Own) -> dict[str, Any]:
    """What the page shows of a plan: its answer, or how far it is."""
    body = plans.body_of(row)
    context: dict[str, Any] = {"plan": row, "body": body, "job": None, "planned": None, "refusal": ""}
    context["each"] = _rods_said(body)
    context["waters"] = [_stop_address(body, k) for k in range(len(body["stops"]))]
    if not body["stops"]:
        return context
    try:
        job = job_of(body, own)
    except ValidationError as error:
        return {**context, "refusal": plain_words(bad_input(error.errors()))}
    context["job"], context["refusal"] = job, plain_words(job.fault) if job.fault else job.refusal
    if job.answer is not None:
        context["planned"] = planned_of(_written(body, job.answer), body, _stop_address)
    return context


def _not_changed(
    request: Request, database: Database, own: Own, id_: int, refusal: BadInput, typed: Form
) -> Response:
    """A refused change: the sentence above the stops, the page and what was typed as they are; without
    scripts the page anew, the sentence in it."""
    if is_htmx(request):
        return problem(request, refusal, at="#plan-refusal")
    context = _context(database, own, id_) | {"not_done": plain_words(refusal), "typed": typed.texts}
    return page(request, "plan/page.html", context, 422)


def _rods_said(body: dict[str, Any]) -> str:
    """The plan's rods as lines of text; nothing where it only says how many."""
    if isinstance(body["rods"], int):
        return ""
    return "\n".join(rod_line(RodBody.model_validate(r)) for r in body["rods"])


def _stop_address(body: dict[str, Any], k: int, pick: str = "", rod: TiedAnswer | None = None) -> str:
    """The sheet of a stop's water as the plan has it: box and schools, with a rig on its rod."""
    stop = body["stops"][k]
    gear = {"cast_ft": stop.get("cast_ft", 80.0), "rod_tip_height_ft": stop.get("rod_tip_height_ft", 2.0)}
    if rod is not None:
        gear |= {"line": rod.line, "reel": {"inches_per_turn": rod.inches_per_turn}}
        gear |= {"rod": asdict(rod.rod)} if rod.rod else {}
    plain = {
        "box": body.get("box", "standard"),
        "schools": body.get("schools", {}),
        "targets": stop.get("targets"),
    }
    return address(values_of({"conditions": stop["conditions"], "gear": gear, **plain}, pick))


def _context(database: Database, own: Own, id_: int | None) -> dict[str, Any]:
    with database.session() as session:
        rows = list(plans.listed(session))
        row = next((r for r in rows if r.id == id_), rows[0] if rows and id_ is None else None)
        saved = [s.name for s in scenarios.listed(session)]
        shown = _shown(row, own) if row is not None else {"plan": None, "job": None, "planned": None}
    return {"rows": rows, "saved": saved, "page": "plan", **shown}


@router.get("/plan")
def first(request: Request, database: Db, own: Mine) -> Response:
    """The first plan, or an invitation to make one."""
    return page(request, "plan/page.html", _context(database, own, None))


@router.get("/plan/{id_}")
def one(request: Request, id_: int, database: Db, own: Mine) -> Response:
    """A plan: its page, or its answer when htmx asks for the progress."""
    context = _context(database, own, id_)
    if context["plan"] is None:
        return problem(request, PLAN_GONE, 404)
    part = "plan/answer.html" if request.headers.get("hx-target") == "planned" else "plan/page.html"
    return page(request, part, context)


@router.get("/plan/{id_}/stop/{k}")
def section(
    request: Request, id_: int, k: int, database: Db, own: Mine, rig: str = "", line: str = ""
) -> Response:
    """The section of a stop with a rig's cast on its line (``material:test``), for the board's panel."""
    with database.session() as session:
        row = plans.fetch(session, id_)
        body = plans.body_of(row) if row is not None else None
    if body is None or not 0 <= k < len(body["stops"]):
        return problem(request, PLAN_GONE, 404)
    try:
        shown = stop_section(the_stops(PlanRequest.model_validate(body))[k], rig, line, own)
    except ValidationError as error:
        return problem(request, bad_input(error.errors()))
    except BadInput as refusal:
        return problem(request, refusal)
    return page(request, "plan/section.html", {"stop": body["stops"][k]["name"], "sections": shown})


@router.get("/plan/{id_}/{name}")
def carried(request: Request, id_: int, name: str, database: Db, own: Mine) -> Response:
    """A plan to carry: deck-card.html, print.html, plan.json, spots.gpx."""
    with database.session() as session:
        row = plans.fetch(session, id_)
        body, named = (plans.body_of(row), row.name) if row is not None else (None, "")
    if body is None or name not in ("deck-card.html", "print.html", "plan.json", "spots.gpx"):
        return problem(request, PLAN_GONE, 404)
    if name == "plan.json":
        return _file(json.dumps(body, indent=1), "application/json", name)
    if name == "spots.gpx":
        return _file(_gpx(body), "application/gpx+xml", name)
    try:
        job = job_of(body, own)
    except ValidationError as error:
        return problem(request, bad_input(error.errors()))
    except BadInput as refusal:
        return problem(request, refusal)
    if job.answer is None:
        return problem(request, "The plan is still being worked out: try again in a moment.", 409)
    answer = _written(body, job.answer)
    if name == "print.html":
        return Response(
            printed_card(answer, named, asset("plan/plancard.css"), asset("shell/mark.svg")),
            media_type="text/html",
        )
    return _file(deck_card(answer), "text/html", name)


def _file(content: str, kind: str, name: str) -> Response:
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(content, media_type=kind, headers=headers)


def _gpx(body: dict[str, Any]) -> str:
    """The stops that have a position, as waypoints."""
    gpx = gpxpy.gpx.GPX()
    for stop in body["stops"]:
        at = stop.get("position")
        if at:
            gpx.waypoints.append(gpxpy.gpx.GPXWaypoint(at["lat"], at["lon"], name=stop["name"]))
    return str(gpx.to_xml(version="1.1"))


@writes.post("/plan")
def make(request: Request, form: OwnForm, database: Db) -> Response:
    """A new plan, or one from a file's text."""
    try:
        body = _read(form) if form.file_name else dict(EMPTY)
        with database.session() as session:
            row = plans.keep(session, form.get("name") or body.get("date") or "A day", body)
            id_ = row.id
    except BadInput as refusal:
        return problem(request, refusal)
    return RedirectResponse(f"/plan/{id_}", 303)


def _read(form: Form) -> dict[str, Any]:
    """A plan file, checked. Raises BadInput."""
    try:
        body = json.loads(form.file)
        PlanRequest.model_validate(body).day()
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    except (ValueError, RecursionError) as error:
        raise BadInput("the file", form.file_name, "a plan as JSON") from error
    plan_body: dict[str, Any] = body
    return plan_body


@writes.post("/plan/{id_}")
def change(request: Request, id_: int, form: OwnForm, database: Db, own: Mine) -> Response:
    """One change of a plan: ``do`` says which. Nothing is changed when it cannot be."""
    do = form.get("do")
    with database.session() as session:
        row = plans.fetch(session, id_)
        if row is None:
            return problem(request, PLAN_GONE, 404)
        body = json.loads(json.dumps(plans.body_of(row)))
        try:
            if do == "copy":
                id_ = _copied(session, row.name, body)
            elif do == "delete":
                plans.delete(session, id_)
                return RedirectResponse("/plan", 303)
            else:
                changed = _changed(session, body, form, request.cookies.get(KEPT_WATER, ""))
                plans.change(session, id_, changed, form.get("name") or None)
        except BadInput as refusal:
            refused = refusal
        else:
            return RedirectResponse(f"/plan/{id_}", 303)
    return _not_changed(request=request, database=database, own=own, id_=id_, refusal=refused, typed=form)


def _copied(session: Any, name: str, body: dict[str, Any]) -> int:
    return plans.keep(session, f"{name} again"[: plans.LONGEST_NAME], body).id


@writes.post("/plan/{id_}/cancel")
def cancel(request: Request, id_: int, database: Db, own: Mine) -> Response:
    """Call the working out off."""
    with database.session() as session:
        row = plans.fetch(session, id_)
        if row is None:
            return problem(request, PLAN_GONE, 404)
        call_off(plans.body_of(row), own)
    return page(request, "plan/off.html", {"plan": row})


def _sheets_water(cookie: str) -> dict[str, Any]:
    """The water that the sheet showed last, as a stop has it. Raises BadInput."""
    values = values_from(dict(parse_qsl(cookie)))
    asked = body_from(values)
    try:
        check(SizeRequest.model_validate(asked | {"families": ["swim-jig"]}).scenario())
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    except BadInput as refusal:
        raise BadInput("the sheet's water", in_words(refusal, values), "mended on the sheet first") from None
    return stop_water(asked)


def _saved_called(saved: Sequence[SavedScenario], typed: str) -> SavedScenario:
    """The saved water of an id or a name, or the only one with what was typed in its name. Raises
    BadInput."""
    asked = typed.strip().lower()
    alike = [s for s in saved if asked in s.name.lower()] if asked else []
    called = [s for s in saved if asked in (str(s.id), s.name.lower())] or alike
    if len(called) == 1:
        return called[0]
    which = ", ".join(s.name for s in alike[:4])
    raise BadInput("scenario", typed[:60], f"one of {which}" if alike else "one of those saved on the sheet")


def _position(text: str) -> dict[str, float] | None:
    """A typed position, ``50.1012, -4.0031``; None for none. Raises BadInput."""
    if not text.strip():
        return None
    parts = text.replace(";", ",").replace(",", " ").split()
    try:
        lat, lon = (float(part) for part in parts)
    except ValueError as error:
        wanted = "two numbers of degrees, north and east: 50.1012, -4.0031"
        raise BadInput("position", text[:40], wanted) from error
    return {"lat": lat, "lon": lon}


def _changed(session: Any, body: dict[str, Any], form: Form, cookie: str) -> dict[str, Any]:
    """The plan's body after one change; ``cookie``: the water that the sheet showed last. Raises BadInput."""
    do, stops = form.get("do"), body["stops"]
    if do == "day":
        _change_day(body, form)
    elif do in ("add", "sheet"):
        if len(stops) >= MOST_STOPS:
            raise BadInput("stops", f"{len(stops)} already", f"at most {MOST_STOPS}")
        named, water = f"Stop {len(stops) + 1}", {}
        if do == "sheet":
            water = _sheets_water(cookie)
        else:
            saved = _saved_called(scenarios.listed(session), form.get("scenario"))
            named, water = saved.name[:60], stop_water(scenarios.body_of(saved))
        stops.append({"name": named, "minutes": 60.0, "importance": 1.0, **water})
    elif do in STOP_CHANGES:
        _change_stop(do, stops, _whole("stop", form.get("stop"), 0, len(stops) - 1), form, cookie)
    else:
        raise BadInput("do", do, f"one of day, add, sheet, {', '.join(STOP_CHANGES)}")
    if stops:
        try:
            PlanRequest.model_validate(body).day()
        except ValidationError as error:
            raise bad_input(error.errors()) from error
    return body


def _change_day(body: dict[str, Any], form: Form) -> None:
    """The plan's date, box and rods. What the rods are goes before how many: their number follows what was
    typed; without a line the number alone is left."""
    body["date"], body["box"] = form.get("date"), form.get("box") or "standard"
    count, each = _whole("rods", form.get("rods"), 1, MOST_RODS), form.get("each")
    if "each" in form.texts and each.split() != _rods_said(body).split():
        typed = rods_in(each) if each.strip() else []
        body["rods"] = [r.model_dump(exclude_none=True, mode="json") for r in typed] or count
    elif isinstance(body["rods"], int) or count != len(body["rods"]):
        body["rods"] = count


#: What may be done to one stop.
STOP_CHANGES = ("stop", "water", "up", "down", "move", "twice", "off")


def _change_stop(do: str, stops: list[dict[str, Any]], k: int, form: Form, cookie: str) -> None:
    """Stop ``k`` after one change."""
    if do == "off":
        stops.pop(k)
    elif do == "twice":
        stops.insert(k + 1, json.loads(json.dumps(stops[k])))
    elif do == "stop":
        stops[k]["minutes"] = _number("minutes", form.get("minutes"), 5, 720)
        stops[k]["importance"] = _number("importance", form.get("importance"), 0.1, 10)
        stops[k]["name"] = form.get("stop_name") or stops[k]["name"]
        if "position" in form.texts:
            stops[k]["position"] = _position(form.get("position"))
    elif do == "water":
        stops[k] = {n: v for n, v in stops[k].items() if n != "targets"} | _sheets_water(cookie)
    else:
        ways = {"up": k - 1, "down": k + 1}
        to = ways[do] if do in ways else _whole("to", form.get("to"), 0, len(stops) - 1)
        stops.insert(max(0, to), stops.pop(k))


def _number(name: str, text: str, low: float, high: float) -> float:
    try:
        value = number_of(text)
    except ValueError as error:
        raise BadInput(name, text, f"a number from {low:g} to {high:g}") from error
    if not low <= value <= high:
        raise BadInput(name, text, f"a number from {low:g} to {high:g}")
    return value


def _whole(name: str, text: str, low: int, high: int) -> int:
    value = _number(name, text, low, high)
    if value != int(value):
        raise BadInput(name, text, f"a whole number from {low} to {high}")
    return int(value)
