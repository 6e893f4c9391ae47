"""The sheet: one page, one state in the address; scenarios saved from it."""

from __future__ import annotations

from typing import Annotated, Any
from urllib.parse import urlencode

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response

from heathdrop import catalog as catalogue
from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.sizing.program import WAY
from heathdrop.sizing.schools import chosen
from heathdrop.store import scenarios, settings
from heathdrop.store.database import Database
from heathdrop.store.mine import Mine
from heathdrop.units import M_PER_IN
from heathdrop.web.fields import (
    BY_NAME,
    CALLED,
    CONTROLS,
    DEFAULTS,
    VIEWS,
    body_from,
    control_for,
    number_or_none,
    schools_in,
    values_from,
    values_of,
)
from heathdrop.web.forms import mine, templates
from heathdrop.web.presenters.calling import sides_of
from heathdrop.web.presenters.casting import Choices
from heathdrop.web.presenters.sheet import Sheet, present
from heathdrop.web.security import form_token, token_matches
from heathdrop.web.sized import scenario_from, sized, the_call

router = APIRouter(include_in_schema=False)


def address(values: dict[str, str]) -> str:
    """The shareable address of a state: only what differs from the defaults."""
    differing = {k: v for k, v in values.items() if v != DEFAULTS.get(k, "")}
    return "/" + (f"?{urlencode(differing)}" if differing else "")


def sheet_for(values: dict[str, str], own: Mine) -> Sheet:
    """Size the state and make it ready to show. Raises BadInput."""
    if values["view"] not in VIEWS:
        raise BadInput("view", values["view"], "one of " + ", ".join(VIEWS))
    scenario = scenario_from(values, own)
    call = the_call(scenario, own) if values["view"] == "water" else None

    def link(**changed: str) -> str:
        return address({**values, **changed})

    return present(catalogue.load(), sized(scenario, own), own.tackle, values, choices_from(values), link, call)


def choices_from(values: dict[str, str]) -> Choices:
    """How the lure is worked, from the address. Raises BadInput."""
    if values["way"] and values["way"] not in WAY:
        raise BadInput("way", values["way"], "one of " + ", ".join(WAY))
    lift = number_or_none("lift_in", values["lift_in"], 0.5, 120.0, "in")
    hold = number_or_none("hold_s", values["hold_s"], 0.0, 30.0, "s")
    return Choices(values["way"], None if lift is None else lift * M_PER_IN, hold, (values["vs1"], values["vs2"]))


def _context(request: Request, values: dict[str, str]) -> dict[str, Any]:
    """What every rendering of the page needs, with the answer or the refusal."""
    found: dict[str, Any] = {
        "values": values,
        "controls": CONTROLS,
        "control": BY_NAME,
        "families": [(CALLED, "call it for me")] + [(f.id, f.name) for f in catalogue.load().families.values()],
        "address": address(values),
        "errors": {},
        "sheet": None,
        "demo": request.app.state.demo,
        "read_only": request.app.state.database.read_only,
        "page": "sheet",
        "token": form_token(request.app.state.secret),
    }
    try:
        found["sheet"] = sheet_for(values, mine(request))
    except BadInput as refusal:
        found["errors"] = {control_for(refusal, values["cover"]): str(refusal)}
    return found


def _saved(request: Request) -> list[dict[str, Any]]:
    database: Database = request.app.state.database
    with database.session() as session:
        return [
            {"id": row.id, "name": row.name, "note": row.note, "address": address(values_of(row.body, row.pick))}
            for row in scenarios.listed(session)
        ]


@router.get("/")
def sheet(request: Request) -> Response:
    """The page, or just its answer when htmx asks."""
    values = values_from(request.query_params)
    context = _context(request, values)
    status = 422 if context["errors"] else 200
    partial = request.headers.get("hx-target") in (None, "answer")
    if request.headers.get("hx-request") == "true" and partial:
        headers = {"HX-Reswap": "none"} if context["errors"] else {"HX-Push-Url": context["address"]}
        return templates.TemplateResponse(request, "update.html", context, status, headers)
    context["saved"] = _saved(request)
    context["worked"] = [(w["name"], w["note"], address(values_of(w["body"]))) for w in ashmoor.worked()]
    return templates.TemplateResponse(request, "page.html", context, status)


def _list(request: Request, said: str = "", undo: int | None = None, problem: str = "", status: int = 200) -> Response:
    """The list of saved scenarios after a change, for htmx; a redirect for everybody else."""
    context = {
        "saved": _saved(request),
        "said": said,
        "undo": undo,
        "problem": problem,
        "token": form_token(request.app.state.secret),
    }
    if request.headers.get("hx-request") != "true" and not problem:
        return RedirectResponse("/", 303)
    return templates.TemplateResponse(request, "saved.html", context, status)


@router.post("/scenarios")
async def save(request: Request) -> Response:
    """Save the state in the form under a name."""
    form = {k: v for k, v in (await request.form()).items() if isinstance(v, str)}
    if not token_matches(request.app.state.secret, form.get("token", "")):
        return _list(request, problem="This form is from an older page: reload and try again.", status=403)
    values = values_from(form)
    database: Database = request.app.state.database
    try:
        body = body_from(values)
        scenario_from(values, mine(request))
        with database.session() as session:
            row = scenarios.save(session, form.get("name", ""), body, values["pick"])
    except BadInput as refusal:
        return _list(request, problem=str(refusal), status=422)
    return _list(request, said=f"Saved “{row.name}”.")


@router.post("/scenarios/{id_}/delete")
def delete(request: Request, id_: int, token: Annotated[str, Form()] = "") -> Response:
    """Delete a scenario; the answer offers to undo it."""
    if not token_matches(request.app.state.secret, token):
        return _list(request, problem="This form is from an older page: reload and try again.", status=403)
    database: Database = request.app.state.database
    with database.session() as session:
        row = scenarios.delete(session, id_)
    if row is None:
        return _list(request, problem="That scenario is already gone.", status=404)
    return _list(request, said=f"Deleted “{row.name}”.", undo=row.id)


@router.post("/scenarios/{id_}/undelete")
def undelete(request: Request, id_: int, token: Annotated[str, Form()] = "") -> Response:
    """Take a deletion back."""
    if not token_matches(request.app.state.secret, token):
        return _list(request, problem="This form is from an older page: reload and try again.", status=403)
    database: Database = request.app.state.database
    with database.session() as session:
        row = scenarios.undelete(session, id_)
    if row is None:
        return _list(request, problem="There is no such scenario.", status=404)
    return _list(request, said=f"“{row.name}” is back.")


@router.post("/schools")
async def keep_schools(request: Request) -> Response:
    """Keep the schools in the form as this angler's own."""
    form = {k: v for k, v in (await request.form()).items() if isinstance(v, str)}
    if not token_matches(request.app.state.secret, form.get("token", "")):
        return _list(request, problem="This form is from an older page: reload and try again.", status=403)
    wanted = schools_in(values_from(form))
    try:
        chosen(catalogue.load(), tuple(wanted.items()))
    except BadInput as refusal:
        return _list(request, problem=str(refusal), status=422)
    database: Database = request.app.state.database
    with database.session() as session:
        settings.keep(session, settings.SCHOOLS, {**settings.read(session, settings.SCHOOLS, {}), **wanted})
    return Response(status_code=204)


@router.get("/both/{topic}")
def both(request: Request, topic: str) -> Response:
    """Every school of a topic answering the same water, side by side."""
    values = values_from(request.query_params)
    catalog = catalogue.load()
    try:
        own = mine(request)
        sizing = sized(scenario_from(values, own), own)
        sides = sides_of(catalog, sizing, topic, lambda scenario: sized(scenario, own))
        context = {"topic": catalog.pick("topics", "topic", topic), "sides": sides}
    except BadInput as refusal:
        return templates.TemplateResponse(request, "halt.html", {"errors": {"both": str(refusal)}}, 422)
    return templates.TemplateResponse(request, "both.html", context)
