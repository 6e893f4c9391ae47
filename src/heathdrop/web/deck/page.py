"""The deck: a trip begun from a plan or the sheet's water, its water changed, its casts read and mended."""

import uuid
from typing import Any
from urllib.parse import parse_qsl, quote, urlencode

from fastapi import APIRouter, Request
from fastapi.responses import FileResponse, JSONResponse, RedirectResponse, Response
from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.answers.last_time import thrown_said
from heathdrop.answers.own import Own
from heathdrop.answers.plan import rig_said
from heathdrop.answers.search import best_few
from heathdrop.api.casting import next_casts
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.trip import TripBody
from heathdrop.conditions.validation import bad_input, stop_scenario
from heathdrop.day.deck import trip_of_plan, trip_of_water
from heathdrop.day.log import last_time
from heathdrop.errors import BadInput
from heathdrop.measures import sentence, system
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.reading import read, row_number
from heathdrop.store import casts, plans, trips
from heathdrop.store.files.entry import typed_rig
from heathdrop.units import counted
from heathdrop.web.deck.shown.deck import (
    ANSWERS,
    RARE,
    SOUNDED,
    WATER,
    conditions_with,
    deck_data,
    last_rigs,
    stop_data,
)
from heathdrop.web.shell.assets import static_file
from heathdrop.web.shell.deps import Db, Form, Mine, OwnForm, writing
from heathdrop.web.shell.fields import body_from, values_from
from heathdrop.web.shell.refusal import in_words, plain_words
from heathdrop.web.shell.rendering import KEPT_WATER, page, problem

router = APIRouter(include_in_schema=False)
writes = writing()
#: Casts of each stop's order; rigs offered from the box.
ORDER, FROM_BOX = 6, 6
#: Casts on one page of the record.
CASTS_A_PAGE = 40
PLAN_GONE = "There is no such plan."
NO_TRIP = "No trip is under way: begin one on the deck."


@router.get("/deck")
def deck(request: Request, database: Db, own: Mine) -> Response:
    """The trip under way; where there is none, what to take along."""
    with database.session() as session:
        trip_now = trips.current(session)
        if trip_now is None:
            ready = [(p.id, p.name, plans.body_of(p)) for p in plans.listed(session)]
            planned = [(i, n, len(b["stops"]), b.get("date", "")) for i, n, b in ready if b["stops"]]
            return page(request, "deck/begin.html", {"plans": planned, "page": "deck"})
        row, body = trip_now
        try:
            stops = [_stop_data(session, body, k, own) for k in range(len(body.stops))]
        except BadInput as refusal:
            broken = {"plans": [], "page": "deck", "broken": row.name, "refusal": plain_words(refusal)}
            return page(request, "deck/begin.html", broken)
        made = casts.listed(session, trip=row.name)
        said = {r.rig: rig_said(RigName.parse(r.rig).rig(catalogue.load())) for r in body.rods}
        data = deck_data(
            row.name, body, stops=stops, said=said, made=made, instruments=request.app.state.feed is not None
        )
        name = row.name
    return page(
        request,
        "deck/page.html",
        {"data": data, "trip": name, "page": "deck", "answers": ANSWERS, "rare": RARE},
    )


@router.get("/deck-worker.js")
def worker() -> Response:
    """The script that brings the deck back on a reload without a line; at the top, so that it serves it."""
    headers = {"Cache-Control": "no-cache"}
    return FileResponse(static_file("deck/worker.js"), media_type="text/javascript", headers=headers)


def _stop_data(session: Session, body: TripBody, k: int, own: Own, rig: str = "") -> dict[str, Any]:
    stop = body.stops[k]
    return stop_data(stop, next_casts(session, stop.name, own=own, limit=ORDER, rig=rig, units=system()))


@writes.post("/deck")
def begin(request: Request, form: OwnForm, database: Db, own: Mine) -> Response:
    """Begin a trip with a plan (its id), or with the water that the sheet showed last."""
    try:
        with database.session() as session:
            name, body = _planned(session, form, own) if form.get("plan") else _of_sheet(request, own)
            trips.begin(session, name, body)
    except BadInput as refusal:
        return problem(request, refusal)
    return RedirectResponse("/deck", 303)


def _planned(session: Session, form: Form, own: Own) -> tuple[str, TripBody]:
    """The plan that was asked for, as a trip. Raises BadInput."""
    row = plans.fetch(session, row_number(form.get("plan")))
    if row is None:
        raise BadInput("plan", form.get("plan"), PLAN_GONE)
    return trip_of_plan(row, own)


def _of_sheet(request: Request, own: Own) -> tuple[str, TripBody]:
    """The sheet's last water as a trip. Raises BadInput."""
    values = values_from(dict(parse_qsl(request.cookies.get(KEPT_WATER, ""))))
    try:
        return trip_of_water(body_from(values), own)
    except BadInput as refusal:
        raise BadInput("the sheet's water", in_words(refusal, values), "mended on the sheet first") from None


@writes.post("/deck/end")
def end(request: Request, database: Db) -> Response:
    """The trip is over; its casts stay. Its day is shown at a glance."""
    with database.session() as session:
        trip_now = trips.current(session)
        if trip_now is None:
            return RedirectResponse("/deck", 303)
        trips.write(trip_now[0], trip_now[1].model_copy(update={"ended": True}))
        made = casts.listed(session, trip=trip_now[0].name)
    return RedirectResponse(f"/log/day/{made[-1].time.date()}" if made else "/deck", 303)


@writes.post("/deck/water")
def water(request: Request, form: OwnForm, database: Db, own: Mine) -> Response:
    """One condition of a stop changed, by hand or by the sounder: the stop anew, as JSON for the deck's
    script. Nothing is changed when it cannot be."""
    with database.session() as session:
        trip_now = trips.current(session)
        stop = trip_now[1].stop(form.get("stop")) if trip_now else None
        if trip_now is None or stop is None:
            return JSONResponse({"detail": NO_TRIP, "field": "trip"}, 404)
        row, body = trip_now
        name = form.get("name")
        if name not in WATER:
            return JSONResponse({"detail": f"{name[:40]} is not changed on the deck.", "field": "name"}, 422)
        values = conditions_with(stop, name, form.get("value"), form.get("units"))
        by = "sounder" if form.get("by") == "sounder" and name in SOUNDED else "typed"
        changed = stop.model_copy(
            update={"conditions": body_from(values)["conditions"], "by": {**stop.by, name: by}}
        )
        try:
            stop_scenario(changed, body)
        except BadInput as refusal:
            return JSONResponse({"detail": in_words(refusal, values), "field": refusal.field}, 422)
        stops = [changed if s.name == stop.name else s for s in body.stops]
        body = body.model_copy(update={"stops": stops})
        trips.write(row, body)
        session.flush()
        return JSONResponse(_stop_data(session, body, stops.index(changed), own, form.get("rig")))


def _rig_data(rig: Rig) -> dict[str, str]:
    return {"rig": name_of(rig).text(), "said": sentence(rig_said(rig))}


@router.get("/deck/box")
def from_box(database: Db, own: Mine, stop: str) -> Response:
    """The best rigs of the angler's own box for a stop, as JSON for the deck's script."""
    with database.session() as session:
        trip_now = trips.current(session)
        at = trip_now[1].stop(stop) if trip_now else None
        if trip_now is None or at is None:
            return JSONResponse({"detail": NO_TRIP}, 404)
        of_box = trip_now[1].model_copy(update={"box": "mine"})
        try:
            rigs = best_few(stop_scenario(at, of_box), own, FROM_BOX)
        except BadInput as refusal:
            return JSONResponse({"detail": plain_words(refusal)}, 422)
        return JSONResponse([_rig_data(rig) for rig in rigs])


@router.get("/deck/last")
def last_here(database: Db, stop: str) -> Response:
    """The rigs that bit when it was like this, as JSON for the deck's script."""
    with database.session() as session:
        trip_now = trips.current(session)
        at = trip_now[1].stop(stop) if trip_now else None
        if trip_now is None or at is None:
            return JSONResponse({"detail": NO_TRIP}, 404)
        try:
            days = last_time(session, stop_scenario(at, trip_now[1]))
        except BadInput as refusal:
            return JSONResponse({"detail": plain_words(refusal)}, 422)
    rigs = last_rigs(days)
    if not rigs:
        return JSONResponse({"detail": "Nothing on record that bit was in water like this."}, 422)
    return JSONResponse(rigs)


@router.get("/deck/typed")
def typed(rig: str) -> Response:
    """The rig that a typed line names, as JSON for the deck's script."""
    try:
        return JSONResponse([_rig_data(typed_rig(catalogue.load(), rig, system()))])
    except BadInput as refusal:
        return JSONResponse({"detail": plain_words(refusal)}, 422)


@router.get("/deck/record")
def record(request: Request, database: Db, day: str = "", after: int = 0, gone: str = "") -> Response:
    """The casts of the trip under way, of the last one, or of a day, the newest first and some at a time:
    read, mended, taken back."""
    with database.session() as session:
        trip_now = trips.current(session)
        row = trip_now[0] if trip_now else next(iter(reversed(trips.listed(session))), None)
        if day:
            made = casts.of_days(session, day[:10], day[:10])
        else:
            made = casts.listed(session, trip=row.name) if row else []
        context = {
            "trip": day[:10] or (row.name if row else ""),
            "day": day[:10],
            "whole": len(made),
            "made": list(reversed(made))[max(0, after) : max(0, after) + CASTS_A_PAGE],
            "after": max(0, after),
            "gone": gone[:36],
            "a_page": CASTS_A_PAGE,
            "answers": ANSWERS,
            "said": dict(ANSWERS),
            "counted": counted,
            "page": "deck",
            "rigs": {c.id: thrown_said(c) for c in made},
        }
    return page(request, "deck/record.html", context)


@writes.post("/deck/record/{id_}")
def mend(request: Request, id_: uuid.UUID, form: OwnForm, database: Db) -> Response:
    """Mend a cast (what it came to, its fish, a note), or take it back; nothing where it cannot be."""
    day, gone = form.get("day")[:10], {}
    if form.get("do") == "back":
        gone = {"cast_gone" if form.get("log") else "gone": str(id_)}
    of_day = {} if form.get("log") or not day else {"day": day}
    back = f"/log/day/{quote(day, safe='')}" if form.get("log") else "/deck/record"
    back += f"?{urlencode(of_day | gone)}" if of_day | gone else ""
    with database.session() as session:
        if gone:
            casts.withdraw(session, str(id_))
            return RedirectResponse(back, 303)
        if form.get("do") == "undo":
            casts.back(session, [str(id_)])
            return RedirectResponse(back, 303)
        cast = casts.of_id(session, id_)
        if cast is None:
            return problem(request, "That cast is not there.", 404)
        try:
            casts.mend(session, _mended(cast, form))
        except ValidationError as error:
            return problem(request, bad_input(error.errors()))
        except BadInput as refusal:
            return problem(request, refusal)
    return RedirectResponse(back, 303)


def _mended(cast: MadeCast, form: Form) -> MadeCast:
    """A cast with what the form says of it. Raises BadInput or ValidationError."""
    body = cast.model_dump(mode="json", exclude_none=True)
    body["outcome"], body["note"] = form.get("outcome"), form.get("note")
    fish = {}
    for name, unit in (("length_in", "in"), ("weight_lb", "lb")):
        text = form.get(name)
        if text:
            try:
                fish[name] = read(text, unit)
            except ValueError as error:
                raise BadInput(name, text, f"a number of {unit}") from error
    body["fish"] = fish or None
    return MadeCast.model_validate(body)
