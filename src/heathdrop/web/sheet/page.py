"""The sheet: one page, one state in the address; scenarios saved from it, schools held from it."""

import json
import math
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any
from urllib.parse import parse_qsl

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from heathdrop import catalog as catalogue
from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.change import MOST_MISSED_FT
from heathdrop.answers.lens import LENS
from heathdrop.answers.own import Own
from heathdrop.answers.search import search_water
from heathdrop.answers.water import call_of, gives_of, sizing_of
from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.program import WAY
from heathdrop.sizing.schools import chosen
from heathdrop.store import scenarios, settings
from heathdrop.store.database import Database
from heathdrop.units import M_PER_IN, TURNS_IN_S
from heathdrop.web.sheet.shown.calling import SHOWN, Link, sides_of
from heathdrop.web.sheet.shown.casting import Choices
from heathdrop.web.sheet.shown.chart import chart_page
from heathdrop.web.sheet.shown.printed import card_of, said_of
from heathdrop.web.sheet.shown.searching import Searching, searching_of, told_in
from heathdrop.web.sheet.shown.sheet import Sheet, present
from heathdrop.web.sheet.state import address, faults_of, scenario_from, schools_for
from heathdrop.web.shell.deps import Db, Mine, OwnForm, is_htmx, writing
from heathdrop.web.shell.fields import (
    ANSWERS,
    BY_NAME,
    CALLED,
    CONTROLS,
    GIVEN,
    SCHOOL,
    VIEW,
    body_from,
    control_for,
    given_in,
    number_or_none,
    schools_in,
    values_from,
    values_of,
)
from heathdrop.web.shell.refusal import in_words, plain_words
from heathdrop.web.shell.rendering import KEPT_S, KEPT_WATER, page, problem
from heathdrop.web.shell.views import VIEW_IDS

router = APIRouter(include_in_schema=False)
#: The longest address kept for the way back, characters.
LONGEST_KEPT = 2000
writes = writing()


def _sheet_for(values: dict[str, str], own: Own) -> Sheet:
    """Size the state and make it ready to show. Raises BadInput."""
    if values["view"] not in VIEW_IDS:
        raise BadInput("view", values["view"], "one of " + ", ".join(VIEW_IDS))
    places = {"water": SHOWN, "search": catalogue.load().search.grid.rods}.get(values["view"], 1)
    scenario = scenario_from(values, own, places)
    call = call_of(scenario, own, places=SHOWN) if values["view"] == "water" else None

    def link(**changed: str) -> str:
        return address({**values, **changed})

    searching = _search_shown(values, own, link) if values["view"] == "search" else None
    choices, picked = choices_from(values), values
    if searching is not None:
        # The sheet shows the cast that is next.
        cast, picked = searching.cast, {**values, "pick": searching.cast.rig}
        choices = replace(choices, count_s=cast.count_s, pace_ft_s=cast.pace_ft_s)
    sizing = sizing_of(scenario, own)
    return present(
        catalogue.load(),
        sizing,
        tackle=own.tackle,
        values=picked,
        choices=choices,
        link=link,
        call=call,
        searching=searching,
        gives=gives_of(replace(scenario, families=()) if values["family"] == CALLED else scenario, own) or "",
    )


def _search_shown(values: dict[str, str], own: Own, link: Link) -> Searching:
    """The Search view of a state: the best few rigs of the call, or the one lure that was chosen. Raises
    BadInput."""
    catalog = catalogue.load()
    casts = told_in(catalog, values["tried"])
    scenario = scenario_from(values, own, catalog.search.grid.rods)
    if values["family"] == CALLED:
        scenario = replace(scenario, families=())
    rods = [RigName.parse(values["pick"]).rig(catalog)] if values["pick"] else []
    return searching_of(catalog, search_water(scenario, own, rods, casts), casts, link)


def choices_from(values: dict[str, str]) -> Choices:
    """How the lure is worked, from the address. Raises BadInput."""
    if values["lens"] not in LENS:
        raise BadInput("lens", values["lens"], "one of " + ", ".join(LENS))
    if values["way"] and values["way"] not in WAY:
        raise BadInput("way", values["way"], "one of " + ", ".join(WAY))
    lift = number_or_none("lift_in", values["lift_in"], 0.5, 120.0, "in")
    hold = number_or_none("hold_s", values["hold_s"], 0.0, 30.0, "s")
    return Choices(
        way=values["way"],
        lift_m=None if lift is None else lift * M_PER_IN,
        hold_s=hold,
        against=tuple(k for k in values["compare"].split(",") if k),
        count_s=number_or_none("count_s", values["count_s"], 0.0, 120.0, "s"),
        pace_ft_s=_pace_from(values),
        seen=number_or_none("seen", values["seen"], 0.2, 5.0, "times") or 1.0,
        missed_ft=number_or_none("missed_ft", values["missed_ft"], 0.1, MOST_MISSED_FT, "ft"),
    )


def _pace_from(values: dict[str, str]) -> float | None:
    """A pace (ft/s) of the angler's own, typed as turns of the handle in 20 s or as it is; None: as sized.
    Raises BadInput."""
    turns = number_or_none("turns", values["turns"], 1.0, 60.0, "turns")
    reel = number_or_none("inches_per_turn", values["inches_per_turn"], 1.0, 100.0, "in/turn")
    if turns is not None and reel is not None:
        return turns / TURNS_IN_S * reel / 12.0
    return number_or_none("pace_ft_s", values["pace_ft_s"], 0.2, 8.0, "ft/s")


@dataclass(frozen=True)
class Held:
    """A school held to: its topic and name in words, whether it is kept or this address's, the address
    without it, what chose it where that was the log."""

    topic: str
    about: str
    name: str
    kept: bool
    usual: str
    without: str
    said: str = ""


def _context(values: dict[str, str], own: Own) -> dict[str, Any]:
    """What every rendering of the page needs, with the answer or the refusal."""
    context: dict[str, Any] = {
        "values": values,
        "given": given_in(values),
        "answers": ANSWERS,
        "held": _held_of(values, own),
        "title": "Heathdrop: head weight and trailer bulk for today's water",
        "controls": CONTROLS,
        "control": BY_NAME,
        "families": [(CALLED, "call it for me")]
        + [(f.id, f.name) for f in catalogue.load().families.values()],
        "address": address(values),
        "errors": {},
        "beside": {},
        "opened": None,
        "card": ("/order" if values["view"] == "search" else "/card") + address(values)[1:],
        "chart": "/chart" + address(values)[1:],
        "sheet": None,
        "page": "sheet",
    }
    try:
        context["sheet"] = _sheet_for(values, own)
    except BadInput as refusal:
        context |= _refused(refusal, values, own)
    else:
        context["title"] = context["sheet"].title
    return context


def _refused(refusal: BadInput, values: dict[str, str], own: Own) -> dict[str, Any]:
    """A refused state's sentences, one beside each control at fault, and those controls' labels."""
    errors: dict[str, str] = {}
    for fault in faults_of(values, own) or [refusal]:
        errors.setdefault(control_for(fault, values), in_words(fault, values))
    labels = {"family": "Lure"} | {name: control.label for name, control in BY_NAME.items()}
    return {"errors": errors, "beside": {name: labels[name] for name in errors if name in labels}}


def _before(request: Request, own: Own) -> dict[str, Any]:
    """The answer to this browser's last good water, to stand beside a refusal; nothing without one."""
    cookie = request.cookies.get(KEPT_WATER, "")
    if not cookie:
        return {}
    values = values_from(dict(parse_qsl(cookie)))
    try:
        return {"sheet": _sheet_for(values, own), "address": address(values)}
    except BadInput:
        return {}


def _held_of(values: dict[str, str], own: Own) -> list[Held]:
    """The schools in force that are not the usual ones, with where each came from: the address, the angler,
    the angler's log."""
    topics, own_schools = catalogue.load().topics, dict(own.schools)
    held = []
    for topic, school in schools_for(values, own).items():
        if topic in topics and school in topics[topic].schools and school != topics[topic].default:
            in_use = own_schools.get(topic) == school
            schools, without = topics[topic], {k: v for k, v in values.items() if k != SCHOOL + topic}
            held.append(
                Held(
                    topic=topic,
                    about=schools.name,
                    name=schools.schools[school].name,
                    kept=in_use,
                    said=_spoken(dict(own.spoken).get(topic)) if in_use else "",
                    usual=schools.default,
                    without=address(without),
                )
            )
    return held


def _spoken(ratio: float | None) -> str:
    """How loudly the log spoke for a school; nothing where it did not choose it."""
    return "" if ratio is None else f"your log's choice, {min(999.0, math.exp(min(ratio, 9.0))):.0f} to 1"


def _saved(database: Database) -> list[dict[str, Any]]:
    with database.session() as session:
        return [
            {
                "id": r.id,
                "name": r.name,
                "note": r.note,
                "address": address(values_of(scenarios.body_of(r), r.pick) | {"scenario": str(r.id)}),
            }
            for r in scenarios.listed(session)
        ]


def _opened(saved: list[dict[str, Any]], values: dict[str, str]) -> dict[str, Any] | None:
    """The saved scenario that the state was opened from, and whether it was changed since."""
    opened = next((s for s in saved if str(s["id"]) == values["scenario"]), None)
    if opened is None:
        return None
    plain = {k: v for k, v in values.items() if k not in VIEW and not k.startswith(SCHOOL)}
    then = values_from(dict(parse_qsl(opened["address"][2:])))
    changed = any(then.get(k, "") != v for k, v in plain.items() if k != GIVEN)
    return {**opened, "changed": changed}


@router.get("/")
def sheet(request: Request, database: Db, own: Mine) -> Response:
    """The page, or just its answer when htmx asks."""
    values = values_from(request.query_params)
    context = _context(values, own)
    saved = _saved(database)
    opened = _opened(saved, values)
    if opened:
        context |= {"opened": opened, "title": f"{opened['name']}: {context['title']}"}
    status = 422 if context["errors"] else 200
    if is_htmx(request) and request.headers.get("hx-target") in (None, "answer"):
        way = "HX-Replace-Url" if request.headers.get("x-step") else "HX-Push-Url"
        headers = {"HX-Reswap": "none"} if context["errors"] else {way: context["address"]}
        return _remembered(page(request, "sheet/update.html", context, status, headers), context)
    if context["errors"]:
        context |= _before(request, own)
    context["saved"] = saved
    context["worked"] = [(w["name"], w["note"], address(values_of(w["body"]))) for w in ashmoor.worked()]
    return _remembered(page(request, "sheet/page.html", context, status), context)


def _remembered(answer: Response, context: dict[str, Any]) -> Response:
    """The answer, its water kept by this browser for the way back from other pages."""
    at = context["address"].partition("?")[2]
    if not context["errors"] and len(at) <= LONGEST_KEPT:
        answer.set_cookie(KEPT_WATER, at, max_age=KEPT_S, samesite="lax")
    return answer


@dataclass(frozen=True)
class Outcome:
    """What a change of the saved list came to, in words."""

    said: str = ""
    undo: int | None = None
    problem: str = ""
    status: int = 200
    replace: str = ""


def _list(request: Request, database: Database, outcome: Outcome) -> Response:
    """The list of saved scenarios after a change, for htmx; a redirect for everybody else."""
    if not is_htmx(request) and not outcome.problem:
        cookie = request.cookies.get(KEPT_WATER, "")
        return RedirectResponse("/" + (f"?{cookie}" if cookie else ""), 303)
    context = {"saved": _saved(database), "outcome": outcome}
    return page(request, "sheet/saved.html", context, outcome.status)


@router.get("/card")
def card(request: Request, database: Db, own: Mine) -> Response:
    """The state's printed card. Raises BadInput."""
    values = values_from(request.query_params)
    opened = _opened(_saved(database), values)
    try:
        sizing = sizing_of(scenario_from(values, own), own)
        name = opened["name"] if opened else ""
        shown = card_of(
            catalogue.load(),
            sizing,
            pick=values["pick"],
            choices=choices_from(values),
            name=name,
            day=datetime.now().date(),
        )
    except BadInput as refusal:
        return problem(request, in_words(refusal, values))
    return page(request, "sheet/card.html", {"card": shown, "back": address(values), "page": "sheet"})


@router.get("/chart")
def chart(request: Request, database: Db, own: Mine) -> Response:
    """The depth chart of the state's rig, to be printed."""
    values = values_from(request.query_params)
    opened = _opened(_saved(database), values)
    try:
        sizing = sizing_of(scenario_from(values, own), own)
        shown = chart_page(sizing, values["pick"], datetime.now().date())
    except BadInput as refusal:
        return problem(request, in_words(refusal, values))
    context = {"chart": shown, "name": opened["name"] if opened else "", "back": address(values)}
    return page(request, "sheet/chart.html", context | {"page": "sheet"})


@router.get("/order")
def order(request: Request, database: Db, own: Mine) -> Response:
    """The state's search order on one page, with room for a pencil."""
    values = values_from(request.query_params)
    opened = _opened(_saved(database), values)
    try:
        scenario = scenario_from(values, own)
        context = {
            "search": _search_shown(values, own, lambda **_: ""),
            "name": opened["name"] if opened else "",
            "water": said_of(scenario, "conditions"),
            "day": f"{datetime.now():%-d %B %Y}",
            "cautions": [c.text for c in cautions_for(catalogue.load(), scenario)],
            "back": address({**values, "view": "search"}),
            "page": "sheet",
        }
    except BadInput as refusal:
        return problem(request, in_words(refusal, values))
    return page(request, "sheet/order.html", context)


@writes.post("/scenarios")
def save(request: Request, form: OwnForm, database: Db, own: Mine) -> Response:
    """Save the state in the form under a name."""
    values = values_from(form.texts)
    try:
        body = body_from(values)
        scenario_from(values, own)
        if values["pick"]:
            RigName.parse(values["pick"])
        with database.session() as session:
            if scenarios.named(session, form.get("name")) and form.get("replace") != "yes":
                name = " ".join(form.get("name").split())
                asked = f"There is a scenario named “{name}” already."
                return _list(request, database, Outcome(problem=asked, status=409, replace=name))
            row = scenarios.save(session, form.get("name"), body, values["pick"])
    except BadInput as refusal:
        return _list(request, database, Outcome(problem=in_words(refusal, values), status=422))
    if not is_htmx(request):
        return RedirectResponse(address(values | {"scenario": str(row.id)}), 303)
    answer = _list(request, database, Outcome(f"Saved “{row.name}”."))
    answer.headers["HX-Trigger-After-Swap"] = json.dumps({"scenario-saved": {"id": str(row.id)}})
    return answer


@writes.post("/scenarios/{id_}/delete")
def delete(request: Request, id_: int, database: Db) -> Response:
    """Delete a scenario; the answer offers to undo it."""
    with database.session() as session:
        row = scenarios.delete(session, id_)
    if row is None:
        return _list(request, database, Outcome(problem="That scenario is already gone.", status=404))
    return _list(request, database, Outcome(f"Deleted “{row.name}”.", row.id))


@writes.post("/scenarios/{id_}/undelete")
def undelete(request: Request, id_: int, database: Db) -> Response:
    """Take a deletion back."""
    with database.session() as session:
        row = scenarios.undelete(session, id_)
    if row is None:
        return _list(request, database, Outcome(problem="There is no such scenario.", status=404))
    return _list(request, database, Outcome(f"“{row.name}” is back."))


@writes.post("/schools")
def keep_schools(request: Request, form: OwnForm, database: Db) -> Response:
    """Keep the school that was chosen as this angler's own; the usual one is held to by keeping none."""
    wanted = schools_in(values_from(form.texts))
    try:
        chosen(catalogue.load(), tuple(wanted.items()))
    except BadInput as refusal:
        return _list(request, database, Outcome(problem=plain_words(refusal), status=422))
    topics = catalogue.load().topics
    with database.session() as session:
        held = {} if form.get("reset") == "all" else settings.schools(session)
        held = {t: s for t, s in {**held, **wanted}.items() if t in topics and s != topics[t].default}
        settings.keep(session, settings.SCHOOLS, held)
    if form.get("back").startswith("/?") or form.get("back") == "/":
        return RedirectResponse(form.get("back"), 303)
    return Response(status_code=204)


@router.get("/both/{topic}")
def both(request: Request, topic: str, own: Mine) -> Response:
    """Every school of a topic answering the same water, side by side."""
    values = values_from(request.query_params)
    catalog = catalogue.load()
    try:
        sizing = sizing_of(scenario_from(values, own), own)
        sides = sides_of(catalog, sizing, topic, lambda scenario: sizing_of(scenario, own))
        context = {"topic": catalog.pick(catalog.topics, "topic", topic), "sides": sides}
    except BadInput as refusal:
        return page(request, "sheet/halt.html", {"errors": {"both": str(refusal)}, "oob": False}, 422)
    return page(request, "sheet/both.html", context)
