"""The bottom as driven: recorded while idling over a break, drawn live, made into a stop's own bottom."""

import json
from typing import Any
from urllib.parse import parse_qsl

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.validation import bad_input
from heathdrop.errors import BadInput
from heathdrop.feeds.driven import Track, driven_of, from_gpx, to_gpx
from heathdrop.reading import number_of, row_number
from heathdrop.store import plans, trips
from heathdrop.web.deck.shown.bottom import drawing_of
from heathdrop.web.sheet.state import address
from heathdrop.web.shell.deps import Db, Form, OwnForm, writing
from heathdrop.web.shell.fields import DRIVEN, profile_text, values_from
from heathdrop.web.shell.rendering import KEPT_WATER, page, problem

router = APIRouter(include_in_schema=False)
writes = writing()
Profile = tuple[tuple[float, float], ...]
#: Where the boat lies when it casts: the end of the run, or its start.
ENDS = (("end", "where the run ended"), ("start", "where it began"))


def _track_of(request: Request) -> Track:
    """The run of this installation; its own where no instruments are read (a file may fill it)."""
    state = request.app.state
    track: Track = state.feed.track if state.feed is not None else state.track
    return track


def _targets(session: Session) -> list[tuple[str, str]]:
    """What a run can be the bottom of: stops of the trip under way, of the newest plan, the sheet's water."""
    targets = [("sheet", "the water on the sheet")]
    under_way = trips.current(session)
    if under_way is not None:
        targets = [(f"trip:{s.name}", f"{s.name}, today") for s in under_way[1].stops] + targets
    for row in reversed(plans.listed(session)):
        targets += [(f"plan:{row.id}:{k}", f"{s['name']}, {row.name}") for k, s in _stops(row)]
    return targets


def _stops(row: Any) -> list[tuple[int, dict[str, Any]]]:
    return list(enumerate(plans.body_of(row)["stops"]))


@router.get("/bottom")
def bottom(request: Request, database: Db) -> Response:
    """The run so far, drawn; while it is recorded the drawing is asked again every second."""
    track = _track_of(request)
    with database.session() as session:
        targets = _targets(session)
    context = {
        "drawing": drawing_of(list(track.soundings)),
        "recording": track.recording,
        "live": request.app.state.feed is not None,
        "count": len(track.soundings),
        "targets": targets,
        "ends": ENDS,
        "page": "deck",
    }
    return page(request, "deck/bottom.html", context)


@router.get("/bottom/track.gpx")
def track_file(request: Request) -> Response:
    """The run as a GPX track."""
    headers = {"Content-Disposition": 'attachment; filename="bottom.gpx"'}
    return Response(
        to_gpx(list(_track_of(request).soundings)), media_type="application/gpx+xml", headers=headers
    )


@writes.post("/bottom")
def change(request: Request, form: OwnForm, database: Db) -> Response:
    """Record, stop, take a GPX file in, or make the run a stop's bottom: ``do`` says which."""
    track, do = _track_of(request), form.get("do")
    try:
        if do == "begin" and request.app.state.feed is not None:
            track.begin()
        elif do == "end":
            track.end()
        elif do == "file":
            track.take(from_gpx(_text(form)))
        elif do == "use":
            return _used(request, form, database, track)
        else:
            raise BadInput("do", do, "one of begin (with a sounder), end, file, use")
    except BadInput as refusal:
        return problem(request, refusal)
    return RedirectResponse("/bottom", 303)


def _text(form: Form) -> str:
    try:
        return form.file.decode("utf-8")
    except UnicodeDecodeError as error:
        raise BadInput("the file", form.file_name, "a GPX file") from error


def _used(request: Request, form: Form, database: Any, track: Track) -> Response:
    """The run made the bottom of what was chosen. Raises BadInput; then nothing is changed."""
    driven = driven_of(list(track.soundings))
    end, to = form.get("boat_at") or "end", form.get("to")
    if to == "sheet":
        values = values_from(dict(parse_qsl(request.cookies.get(KEPT_WATER, ""))))
        try:
            cast = number_of(values["cast_ft"])
        except ValueError as error:
            raise BadInput("the sheet's cast", values["cast_ft"], "mended on the sheet first") from error
        profile = driven.profile(cast, end)
        values |= {DRIVEN: profile_text(profile), "bottom_depth_ft": f"{deepest(profile):g}"}
        return RedirectResponse(address(values), 303)
    kind, _, rest = to.partition(":")
    with database.session() as session:
        if kind == "trip":
            _to_trip(session, rest, driven, end)
            return RedirectResponse("/deck", 303)
        id_, _, k = rest.partition(":")
        row = plans.fetch(session, row_number(id_)) if kind == "plan" else None
        body = json.loads(json.dumps(plans.body_of(row))) if row is not None else {"stops": []}
        if row is None or not 0 <= row_number(k) < len(body["stops"]):
            raise BadInput("to", to, "one of the stops shown")
        stop = body["stops"][int(k)]
        stop["conditions"] = over(stop["conditions"], driven.profile(stop.get("cast_ft", 80.0), end))
        try:
            PlanRequest.model_validate(body)
        except ValidationError as error:
            raise bad_input(error.errors()) from error
        plans.change(session, row.id, body)
    return RedirectResponse(f"/plan/{id_}", 303)


def _to_trip(session: Session, name: str, driven: Any, end: str) -> None:
    trip = trips.current(session)
    stop = trip[1].stop(name) if trip else None
    if trip is None or stop is None:
        raise BadInput("to", name, "one of the stops shown")
    conditions = over(stop.conditions, driven.profile(stop.cast_ft, end))
    changed = stop.model_copy(
        update={"conditions": conditions, "by": {**stop.by, "bottom_depth_ft": "sounder"}}
    )
    stops = [changed if s.name == name else s for s in trip[1].stops]
    trips.write(trip[0], trip[1].model_copy(update={"stops": stops}))


def deepest(profile: Profile) -> float:
    """The deepest water of a profile, ft."""
    return max(deep for _, deep in profile)


def over(conditions: dict[str, Any], profile: Profile) -> dict[str, Any]:
    """Conditions over a driven bottom: what was on the old one is on the new, what would be below it comes
    up."""
    low = deepest(profile)
    was = conditions.get("bottom_depth_ft")
    conditions_run = {**conditions, "bottom_ft": [list(p) for p in profile], "bottom_depth_ft": low}
    fish = conditions.get("fish_depth_ft")
    if isinstance(fish, int | float):
        conditions_run["fish_depth_ft"] = low if fish == was or fish > low else fish
    elif isinstance(fish, dict):
        conditions_run["fish_depth_ft"] = {k: min(v, low) for k, v in fish.items()}
    cover = dict(conditions.get("cover") or {})
    if isinstance(cover.get("top_depth_ft"), int | float):
        conditions_run["cover"] = {**cover, "top_depth_ft": min(cover["top_depth_ft"], low)}
    return conditions_run
