"""The JSON doors: POST /api/v1/simulate and POST /api/v1/size."""

from __future__ import annotations

from typing import Any

from fastapi import APIRouter
from pydantic import BaseModel

from heathdrop.api.answers import schools_answer, simulate_answer, size_answer
from heathdrop.api.schemas import SimulateRequest, SizeRequest

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
def size(request: SizeRequest) -> dict[str, Any]:
    """Rank rigs for a scenario."""
    return size_answer(request)


@router.get("/schools")
def schools() -> dict[str, Any]:
    """Where good anglers disagree: topics, their schools and the defaults."""
    return schools_answer()
