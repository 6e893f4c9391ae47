"""The JSON doors: simulate, size, search."""

import uuid
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Depends, Query, Request

from heathdrop.answers.own import Own
from heathdrop.api.answers import schools_answer, simulate_answer, size_answer
from heathdrop.api.casting import (
    GoneAnswer,
    KeptAnswer,
    NextAnswer,
    next_casts,
)
from heathdrop.api.changing import ChangesAnswer, ChangesRequest, changes_answer
from heathdrop.api.drilling import DrillAnswer, DrillRequest, MarkAnswer, drill_answer, marked_answer
from heathdrop.api.feeding import FeedAnswer, feed_answer
from heathdrop.api.heavy import heavy, quick
from heathdrop.api.lessons import LessonsAnswer, lessons_of_log
from heathdrop.api.planning import PlanAnswer, plan_answer
from heathdrop.api.reading import ReadAnswer, ReadRequest, read_answer
from heathdrop.api.responses import Refusal, SchoolsAnswer, SimulateAnswer, SizeAnswer
from heathdrop.api.schemas import SimulateRequest
from heathdrop.api.searching import SearchAnswer, SearchRequest, search_answer
from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.day.made import keep_casts, mend_cast, take_back
from heathdrop.measures import said_in
from heathdrop.store.files.exchange import file_schema
from heathdrop.store.own import own_of

router = APIRouter(prefix="/api/v1", tags=["heathdrop"])
REFUSED: dict[int | str, dict[str, Any]] = {
    413: {"model": Refusal, "description": "The body is too large"},
    422: {"model": Refusal, "description": "One field was wrong"},
}


BUSY: dict[int | str, dict[str, Any]] = {503: {"model": Refusal, "description": "Too much at once"}}


def own(request: Request) -> Own:
    """The angler's own, as the data file has it now."""
    with request.app.state.database.session() as session:
        return own_of(session)


@router.post("/simulate", responses=REFUSED)
def simulate(request: SimulateRequest) -> SimulateAnswer:
    """Simulate one cast."""
    return simulate_answer(request)


@router.post("/size", responses=REFUSED | BUSY, dependencies=[Depends(quick)])
def size(request: SizeRequest, owned: Annotated[Own, Depends(own)]) -> SizeAnswer:
    """Rank rigs for a scenario, from the standard set, the box kept here, or both.

    What the angler's drop tests taught here counts, as it does on the page; schools are the request's own.
    """
    return size_answer(request, owned)


@router.post("/search", responses=REFUSED | BUSY, dependencies=[Depends(quick)])
def search(request: SearchRequest, owned: Annotated[Own, Depends(own)]) -> SearchAnswer:
    """The next casts where the fish's depth is not known, or nothing bites: belief, order and reasons."""
    return search_answer(request, owned)


@router.post("/read", responses=REFUSED)
def read(request: ReadRequest) -> ReadAnswer:
    """What lines of text name: pieces of tackle, rods, fish and casts; nothing is kept."""
    return read_answer(request)


@router.post("/changes", responses=REFUSED | BUSY, dependencies=[Depends(quick)])
def changes(request: ChangesRequest, owned: Annotated[Own, Depends(own)]) -> ChangesAnswer:
    """What to change first after a cast that went wrong, from how it was fished and what was seen of it."""
    return changes_answer(request, owned)


@router.post("/plan", responses=REFUSED | BUSY, dependencies=[Depends(heavy)])
def plan(request: PlanRequest, owned: Annotated[Own, Depends(own)]) -> PlanAnswer:
    """Which few rigs to tie on for a day of stops, and how each stop is fished with them."""
    return plan_answer(request, owned)


@router.post("/casts", responses=REFUSED)
def casts(request: Request, made: MadeCasts) -> KeptAnswer:
    """Keep casts that were made, one or a list. Each has its client's id: sent twice it is kept once."""
    with request.app.state.database.session() as session:
        return KeptAnswer(kept=keep_casts(session, made))


@router.put("/casts/{id_}", responses=REFUSED)
def cast(request: Request, id_: uuid.UUID, made: MadeCast) -> KeptAnswer:
    """Write a cast anew: mended, or brought back after it was taken back; kept when it is not there yet."""
    with request.app.state.database.session() as session:
        return KeptAnswer(kept=[mend_cast(session, id_, made)])


@router.delete("/casts/{id_}", responses=REFUSED)
def no_cast(request: Request, id_: uuid.UUID) -> GoneAnswer:
    """Take a cast back. Asked twice it is taken back once; PUT brings it back."""
    with request.app.state.database.session() as session:
        return GoneAnswer(id=str(id_), was_there=take_back(session, id_))


@router.get("/next", responses=REFUSED)
def next_(
    request: Request,
    owned: Annotated[Own, Depends(own)],
    stop: Annotated[str, Query(max_length=200)],
    limit: Annotated[int, Query(ge=1, le=20)] = 4,
    rig: Annotated[str, Query(max_length=200)] = "",
    units: Annotated[Literal["imperial", "metric"], Query()] = "imperial",
) -> NextAnswer:
    """The next casts at a stop of the trip under way (or of a saved plan), after the casts that were kept
    there; ``rig`` asks for that rig alone, ``units`` are those of the words."""
    with request.app.state.database.session() as session:
        return next_casts(session, stop, own=owned, limit=limit, rig=rig, units=units)


@router.get("/lessons", responses=REFUSED)
def lessons(request: Request, stop: Annotated[str, Query(max_length=200)] = "") -> LessonsAnswer:
    """What the log supports: bites an hour by what was different, schools on trial, one's own fish; with a
    ``stop`` of the trip under way or of a saved plan also the days most like it."""
    with request.app.state.database.session() as session:
        return lessons_of_log(session, stop)


@router.get("/drill", responses=REFUSED)
def drill(
    request: Request,
    kind: Annotated[str, Query(max_length=20)] = "",
    topic: Annotated[str, Query(max_length=40)] = "",
    seed: Annotated[int | None, Query(ge=0, lt=10**6)] = None,
) -> DrillAnswer:
    """The trainer's next question: of a ``kind`` (count, pace, eye, call, repair), a ``topic`` and a ``seed``
    where they are given, else the most overdue; what is due, and the counting hand."""
    with request.app.state.database.session() as session:
        return drill_answer(session, kind, topic, seed)


@router.post("/drill/answer", responses=REFUSED | BUSY, dependencies=[Depends(quick)])
def drilled(request: Request, given: DrillRequest) -> MarkAnswer:
    """Mark an answer and keep it."""
    with request.app.state.database.session() as session:
        return marked_answer(session, given)


@router.get("/feed")
def feed(
    request: Request, units: Annotated[Literal["imperial", "metric"], Query()] = "imperial"
) -> FeedAnswer:
    """What the boat's instruments say now, each figure with its age; ``units`` are those of the words."""
    with said_in(units):
        return feed_answer(request.app.state.feed)


@router.get("/schools")
def schools() -> SchoolsAnswer:
    """Where good anglers disagree: topics, their schools and the defaults."""
    return schools_answer()


@router.get("/schema/{name}")
def schema(name: Literal["scenarios", "plans", "trips"]) -> dict[str, Any]:
    """The JSON Schema of a scenarios, plans or trips file."""
    return file_schema(name)
