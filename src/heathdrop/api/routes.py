"""The JSON doors: simulate, size, search."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Depends, Query, Request

from heathdrop.answers.own import Own
from heathdrop.api.answers import schools_answer, simulate_answer, size_answer
from heathdrop.api.casting import KeptAnswer, keep_casts, next_casts
from heathdrop.api.feeding import FeedAnswer, feed_answer
from heathdrop.api.planning import PlanAnswer, plan_answer
from heathdrop.api.responses import Refusal, SchoolsAnswer, SimulateAnswer, SizeAnswer
from heathdrop.api.schemas import SimulateRequest
from heathdrop.api.searching import SearchAnswer, SearchRequest, search_answer
from heathdrop.conditions.made import MadeCasts
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.store.files.exchange import scenario_schema
from heathdrop.store.own import own_of

router = APIRouter(prefix="/api/v1", tags=["heathdrop"])
REFUSED: dict[int | str, dict[str, Any]] = {
    413: {"model": Refusal, "description": "The body is too large"},
    422: {"model": Refusal, "description": "One field was wrong"},
}


def own(request: Request) -> Own:
    """The angler's own, as the data file has it now."""
    with request.app.state.database.session() as session:
        return own_of(session)


@router.post("/simulate", responses=REFUSED)
def simulate(request: SimulateRequest) -> SimulateAnswer:
    """Simulate one cast."""
    return simulate_answer(request)


@router.post("/size", responses=REFUSED)
def size(request: SizeRequest, mine: Annotated[Own, Depends(own)]) -> SizeAnswer:
    """Rank rigs for a scenario, from the standard set, the box kept here, or both.

    What the angler's drop tests taught here counts, as it does on the page; schools are the request's own.
    """
    return size_answer(request, mine)


@router.post("/search", responses=REFUSED)
def search(request: SearchRequest, mine: Annotated[Own, Depends(own)]) -> SearchAnswer:
    """The next casts where the fish's depth is not known, or nothing bites: belief, order and reasons."""
    return search_answer(request, mine)


@router.post("/plan", responses=REFUSED)
def plan(request: PlanRequest, mine: Annotated[Own, Depends(own)]) -> PlanAnswer:
    """Which few rigs to tie on for a day of stops, and how each stop is fished with them."""
    return plan_answer(request, mine)


@router.post("/casts", responses=REFUSED)
def casts(request: Request, made: MadeCasts) -> KeptAnswer:
    """Keep casts that were made, one or a list. Each has its client's id: sent twice it is kept once."""
    with request.app.state.database.session() as session:
        return keep_casts(session, made)


@router.get("/next", responses=REFUSED)
def next_(
    request: Request,
    mine: Annotated[Own, Depends(own)],
    stop: Annotated[str, Query(max_length=200)],
    limit: Annotated[int, Query(ge=1, le=20)] = 4,
) -> SearchAnswer:
    """The next casts at a stop of a saved plan, after the casts that were kept there."""
    with request.app.state.database.session() as session:
        return next_casts(session, stop, mine, limit)


@router.get("/feed")
def feed(request: Request) -> FeedAnswer:
    """What the boat's instruments say now, each figure with its age."""
    return feed_answer(request.app.state.feed)


@router.get("/schools")
def schools() -> SchoolsAnswer:
    """Where good anglers disagree: topics, their schools and the defaults."""
    return schools_answer()


@router.get("/schema/scenarios")
def scenarios_schema() -> dict[str, Any]:
    """The JSON Schema of a scenarios file."""
    return scenario_schema()
