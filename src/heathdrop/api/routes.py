"""The JSON doors: POST /api/v1/simulate and POST /api/v1/size."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter, Request
from pydantic import BaseModel

from heathdrop.api.answers import schools_answer, simulate_answer, size_answer
from heathdrop.api.exchange import scenario_schema
from heathdrop.api.schemas import SimulateRequest, SizeRequest
from heathdrop.store.mine import mine_of

router = APIRouter(prefix="/api/v1", tags=["heathdrop"])


class Refusal(BaseModel):
    """What was wrong with a request: one sentence, and the field it names."""

    detail: str
    field: str


REFUSED: dict[int | str, dict[str, Any]] = {
    413: {"model": Refusal, "description": "The body is too large"},
    422: {"model": Refusal, "description": "One field was wrong"},
}


@router.post("/simulate", responses=REFUSED)
def simulate(request: SimulateRequest) -> dict[str, Any]:
    """Simulate one cast."""
    return simulate_answer(request)


@router.post("/size", responses=REFUSED)
def size(request: SizeRequest, http: Request) -> dict[str, Any]:
    """Rank rigs for a scenario, from the standard set, the box kept here, or both.

    The standard set is the catalogue as it ships: the same input gives the same output on any machine.
    The box brings what its owner measured and learned.
    """
    if request.box == "standard":
        return size_answer(request)
    own = mine_of(http.app.state.database)
    return size_answer(request, own.learned, own.tackle)


@router.get("/schools")
def schools() -> dict[str, Any]:
    """Where good anglers disagree: topics, their schools and the defaults."""
    return schools_answer()


@router.get("/schema/scenarios")
def scenarios_schema() -> dict[str, Any]:
    """The JSON Schema of a scenarios file."""
    return scenario_schema()
