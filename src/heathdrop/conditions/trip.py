"""A trip as it is kept: the rods as tied on and the stops with their water."""

import datetime
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from heathdrop.conditions.plan import MOST_RODS, MOST_STOPS, PositionBody, RodBody
from heathdrop.conditions.request import Body, Id, Number, TargetsBody
from heathdrop.errors import plain_text

RigText = Annotated[str, Field(min_length=5, max_length=200)]


class TiedRod(RodBody):
    """A rod with the rig on it, by the rig's name (``swim-jig:0.5:craw``)."""

    rig: RigText


class TripStop(Body):
    """A stop: its water now. ``by`` says of a condition that it was typed on the deck, or came from
    the boat's sounder."""

    name: Annotated[str, Field(min_length=1, max_length=60), AfterValidator(plain_text)]
    conditions: dict[str, Any]
    cast_ft: Number = 80.0
    rod_tip_height_ft: Number = 2.0
    targets: TargetsBody | None = None
    position: PositionBody | None = None
    by: Annotated[dict[Id, Literal["typed", "sounder"]], Field(max_length=40)] = Field(default_factory=dict)


class TripBody(Body):
    """A day on the water. ``ended`` trips are over: the deck asks for the next one."""

    version: Literal[1] = 1
    date: datetime.date
    box: Literal["standard", "mine", "both"] = "standard"
    schools: Annotated[dict[Id, Id], Field(max_length=40)] = Field(default_factory=dict)
    rods: Annotated[list[TiedRod], Field(max_length=MOST_RODS)] = Field(default_factory=list)
    stops: Annotated[list[TripStop], Field(min_length=1, max_length=MOST_STOPS)]
    ended: bool = False

    def stop(self, name: str) -> TripStop | None:
        """The stop of a name."""
        return next((s for s in self.stops if s.name == name), None)
