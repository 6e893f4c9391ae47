"""The sheet: one page, one state in the address; scenarios saved from it, schools held from it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any
from urllib.parse import urlencode

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.advice.change import MOST_MISSED_FT
from heathdrop.answers.own import Own
from heathdrop.answers.water import call_of, family_called, sizing_of
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.sizing.program import WAY
from heathdrop.sizing.schools import chosen
from heathdrop.store import scenarios, settings
from heathdrop.store.database import Database
from heathdrop.units import M_PER_IN
from heathdrop.validation import bad_input
from heathdrop.web.deps import Db, Mine, OwnForm, is_htmx, writing
from heathdrop.web.fields import (
    BY_NAME,
    CALLED,
    CONTROLS,
    DEFAULTS,
    body_from,
    control_for,
    number_or_none,
    schools_in,
    values_from,
    values_of,
)
from heathdrop.web.presenters.calling import SHOWN, sides_of
from heathdrop.web.presenters.casting import Choices
from heathdrop.web.presenters.sheet import Sheet, present
from heathdrop.web.rendering import page
from heathdrop.web.views import VIEW_IDS

router = APIRouter(include_in_schema=False)
writes = writing()


def address(values: dict[str, str]) -> str:
    """The shareable address of a state: only what differs from the defaults."""
    differing = {k: v for k, v in values.items() if v != DEFAULTS.get(k, "")}
    return "/" + (f"?{urlencode(differing)}" if differing else "")


def scenario_from(values: dict[str, str], own: Own) -> Scenario:
    """The scenario of a state, its family called when left to us. Raises BadInput.

    The schools that the angler holds to apply unless the state names others.
    """
    body = body_from(values)
    body["schools"] = {**dict(own.schools), **body["schools"]}
    try:
        scenario = SizeRequest.model_validate(body).scenario()
    except ValidationError as error:
        raise bad_input(error.errors()) from error
    if values["family"] != CALLED:
        return scenario
    return replace(scenario, families=(family_called(scenario, own),))


def sheet_for(values: dict[str, str], own: Own) -> Sheet:
    """Size the state and make it ready to show. Raises BadInput."""
    if values["view"] not in VIEW_IDS:
        raise BadInput("view", values["view"], "one of " + ", ".join(VIEW_IDS))
    scenario = scenario_from(values, own)
    call = call_of(scenario, own, places=SHOWN) if values["view"] == "water" else None

    def link(**changed: str) -> str:
        return address({**values, **changed})

    return present(
        catalogue.load(), sizing_of(scenario, own), own.tackle, values, choices_from(values), link, call
    )


def choices_from(values: dict[str, str]) -> Choices:
    """How the lure is worked, from the address. Raises BadInput."""
    if values["way"] and values["way"] not in WAY:
        raise BadInput("way", values["way"], "one of " + ", ".join(WAY))
    lift = number_or_none("lift_in", values["lift_in"], 0.5, 120.0, "in")
    hold = number_or_none("hold_s", values["hold_s"], 0.0, 30.0, "s")
    return Choices(
        values["way"],
        None if lift is None else lift * M_PER_IN,
        hold,
        (values["vs1"], values["vs2"]),
        number_or_none("count_s", values["count_s"], 0.3, 120.0, "s"),
        number_or_none("pace_ft_s", values["pace_ft_s"], 0.2, 8.0, "ft/s"),
        number_or_none("missed_ft", values["missed_ft"], 0.1, MOST_MISSED_FT, "ft"),
    )


def _context(values: dict[str, str], own: Own) -> dict[str, Any]:
    """What every rendering of the page needs, with the answer or the refusal."""
    found: dict[str, Any] = {
        "values": values,
        "controls": CONTROLS,
        "control": BY_NAME,
        "families": [(CALLED, "call it for me")]
        + [(f.id, f.name) for f in catalogue.load().families.values()],
        "address": address(values),
        "errors": {},
        "sheet": None,
        "page": "sheet",
    }
    try:
        found["sheet"] = sheet_for(values, own)
    except BadInput as refusal:
        found["errors"] = {control_for(refusal, values): str(refusal)}
    return found


def _saved(database: Database) -> list[dict[str, Any]]:
    with database.session() as session:
        return [
            {
                "id": r.id,
                "name": r.name,
                "note": r.note,
                "address": address(values_of(scenarios.body_of(r), r.pick)),
            }
            for r in scenarios.listed(session)
        ]


@router.get("/")
def sheet(request: Request, database: Db, own: Mine) -> Response:
    """The page, or just its answer when htmx asks."""
    values = values_from(request.query_params)
    context = _context(values, own)
    status = 422 if context["errors"] else 200
    if is_htmx(request) and request.headers.get("hx-target") in (None, "answer"):
        headers = {"HX-Reswap": "none"} if context["errors"] else {"HX-Push-Url": context["address"]}
        return page(request, "sheet/update.html", context, status, headers)
    context["saved"] = _saved(database)
    context["worked"] = [(w["name"], w["note"], address(values_of(w["body"]))) for w in ashmoor.worked()]
    return page(request, "sheet/page.html", context, status)


@dataclass(frozen=True)
class Outcome:
    """What a change of the saved list came to, in words."""

    said: str = ""
    undo: int | None = None
    problem: str = ""
    status: int = 200


def _list(request: Request, database: Database, outcome: Outcome) -> Response:
    """The list of saved scenarios after a change, for htmx; a redirect for everybody else."""
    if not is_htmx(request) and not outcome.problem:
        return RedirectResponse("/", 303)
    context = {"saved": _saved(database), "outcome": outcome}
    return page(request, "sheet/saved.html", context, outcome.status)


@writes.post("/scenarios")
def save(request: Request, form: OwnForm, database: Db, own: Mine) -> Response:
    """Save the state in the form under a name."""
    values = values_from(form.texts)
    try:
        body = body_from(values)
        scenario_from(values, own)
        with database.session() as session:
            row = scenarios.save(session, form.get("name"), body, values["pick"])
    except BadInput as refusal:
        return _list(request, database, Outcome(problem=str(refusal), status=422))
    return _list(request, database, Outcome(f"Saved “{row.name}”."))


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
    """Keep the schools in the form as this angler's own."""
    wanted = schools_in(values_from(form.texts))
    try:
        chosen(catalogue.load(), tuple(wanted.items()))
    except BadInput as refusal:
        return _list(request, database, Outcome(problem=str(refusal), status=422))
    with database.session() as session:
        settings.keep(session, settings.SCHOOLS, {**settings.read(session, settings.SCHOOLS, {}), **wanted})
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
