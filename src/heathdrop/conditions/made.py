"""A cast that was made, as phones, files and programs hand it over: what was thrown, what it came to."""

import json
import uuid
from datetime import datetime
from typing import Annotated, Any

from pydantic import AfterValidator, Field, RootModel, field_validator, model_validator

from heathdrop.conditions.gear import Line
from heathdrop.conditions.given import RigGiven
from heathdrop.conditions.outcome import OUTCOMES
from heathdrop.conditions.request import Body, Id, Moment, Number
from heathdrop.errors import BadInput, plain_text

#: The most text of a cast's conditions, characters of JSON.
MOST_CONDITIONS = 1500
Words = Annotated[str, Field(max_length=200), AfterValidator(plain_text)]


#: Conditions are nested no deeper.
DEEPEST = 4
#: No figure of a condition is larger, or it is none: a whole number has no end, and no page could draw it.
MOST = 1e9


def _flat(value: Any, left: int = DEEPEST) -> bool:
    """Whether a value is no deeper than conditions are, and every number in it finite and within bounds."""
    if isinstance(value, dict):
        return left > 0 and all(_flat(v, left - 1) for v in value.values())
    if isinstance(value, list):
        return left > 0 and all(_flat(v, left - 1) for v in value)
    if isinstance(value, int):
        return abs(value) <= MOST
    return not isinstance(value, float) or abs(value) <= MOST


class FishBody(Body):
    """A fish: its length, its weight where it was weighed."""

    length_in: Annotated[float, Field(ge=1, le=60)] | None = None
    weight_lb: Annotated[float, Field(ge=0, le=60)] | None = None


class MadeCast(RigGiven):
    """One cast. ``id`` is the client's own: sent twice it is kept once. ``at_s`` is the second after the
    splash at which it came to its outcome, ``count_s`` the count that was in fact thrown."""

    id: uuid.UUID
    time: Moment
    trip: Words = ""
    stop: Words = ""
    lat: Annotated[float, Field(ge=-90, le=90)] | None = None
    lon: Annotated[float, Field(ge=-180, le=180)] | None = None
    head_oz: Annotated[float, Field(ge=1 / 32, le=4.0)]
    trailer_length_in: Annotated[float, Field(ge=0, le=10)] = 0.0
    line: Line | Words | None = None
    countdown_s: Annotated[float, Field(ge=0, le=120)]
    pace_ft_s: Annotated[float, Field(ge=0, le=15)]
    rod_tip_height_ft: Annotated[float, Field(ge=0, le=12)] | None = None
    work: Id = ""
    outcome: str
    at_s: Annotated[float, Field(ge=0, le=600)] | None = None
    count_s: Annotated[float, Field(ge=0, le=600)] | None = None
    fish: FishBody | None = None
    conditions: dict[str, Any] | None = None
    note: Words = ""
    turns_per_s: Number | None = None

    @field_validator("time")
    @classmethod
    def _with_offset(cls, value: datetime) -> datetime:
        if value.tzinfo is None:
            raise BadInput("time", value.isoformat(), "with its offset: 2027-04-03T06:12:00+01:00")
        return value

    @field_validator("outcome")
    @classmethod
    def _known(cls, value: str) -> str:
        if value not in OUTCOMES:
            raise BadInput("outcome", value, "one of " + ", ".join(OUTCOMES))
        return value

    @field_validator("conditions")
    @classmethod
    def _short(cls, value: dict[str, Any] | None) -> dict[str, Any] | None:
        if value is not None and not _flat(value):
            raise BadInput("conditions", "too deep, or not finite", "the conditions of a size request")
        if value is not None and len(json.dumps(value)) > MOST_CONDITIONS:
            raise BadInput("conditions", "too long", f"at most {MOST_CONDITIONS} characters of JSON")
        return value


class MadeCasts(RootModel[Annotated[list[MadeCast], Field(min_length=1, max_length=500)]]):
    """One cast, or a list of them."""

    @model_validator(mode="before")
    @classmethod
    def _listed(cls, data: Any) -> Any:
        return data if isinstance(data, list) else [data]
