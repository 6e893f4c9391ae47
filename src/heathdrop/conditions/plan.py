"""A plan as people write it: the day's rods and stops. Saved plans hold one."""

import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Discriminator, Field, Tag

from heathdrop.conditions.gear import Line, Rod
from heathdrop.conditions.request import Body, Id, Number, TargetsBody
from heathdrop.errors import BadInput, plain_text

#: Rods and stops of a day at most.
MOST_RODS, MOST_STOPS = 12, 24


class RodBody(Body):
    """A rod to hand: its line, the line that a turn takes in, and what is written on it."""

    name: Annotated[str, Field(min_length=1, max_length=40), AfterValidator(plain_text)]
    line: Line = Line()
    inches_per_turn: Number = 29.0
    rod: Rod | None = None


class PositionBody(Body):
    lat: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)]
    lon: Annotated[float, Field(ge=-180, le=180, allow_inf_nan=False)]


class StopBody(Body):
    """A stop: its water as in a size request, minutes, and how much it matters."""

    name: Annotated[str, Field(min_length=1, max_length=60), AfterValidator(plain_text)]
    minutes: Annotated[float, Field(ge=5, le=720, allow_inf_nan=False)] = 60.0
    importance: Annotated[float, Field(ge=0.1, le=10, allow_inf_nan=False)] = 1.0
    position: PositionBody | None = None
    conditions: dict[str, Any]
    cast_ft: Number = 80.0
    rod_tip_height_ft: Number = 2.0
    targets: TargetsBody | None = None
    note: Annotated[str, Field(max_length=400), AfterValidator(plain_text)] = ""


def stop_water(asked: dict[str, Any]) -> dict[str, Any]:
    """What a stop keeps of the body of a size request: its water, cast (ft), rod tip (ft), own targets."""
    gear = asked.get("gear") or {}
    conditions = {
        "conditions": asked["conditions"],
        "cast_ft": gear.get("cast_ft", 80.0),
        "rod_tip_height_ft": gear.get("rod_tip_height_ft", 2.0),
    }
    return conditions | ({"targets": asked["targets"]} if asked.get("targets") else {})


def _rods_tag(value: Any) -> str:
    return "each-rod" if isinstance(value, list) else "how-many"


#: How many rods, or each with its line.
RodsBody = Annotated[
    Annotated[Annotated[int, Field(ge=1, le=MOST_RODS)], Tag("how-many")]
    | Annotated[Annotated[list[RodBody], Field(min_length=1, max_length=MOST_RODS)], Tag("each-rod")],
    Discriminator(_rods_tag),
]


class PlanRequest(Body):
    """A day: rods (how many, or each with its line) and stops in order."""

    version: Literal[1] = 1
    date: str = ""
    box: Literal["standard", "mine", "both"] = "standard"
    schools: Annotated[dict[Id, Id], Field(max_length=40)] = Field(default_factory=dict)
    rods: RodsBody = 5
    stops: Annotated[list[StopBody], Field(min_length=1, max_length=MOST_STOPS)]

    def day(self) -> str:
        """The date, checked. Raises BadInput."""
        if self.date:
            try:
                datetime.date.fromisoformat(self.date)
            except ValueError as error:
                raise BadInput("date", self.date, "a day such as 2027-04-03") from error
        return self.date
