"""Gear as the angler says it, a row each: line and leader, reel, cast and rod tip."""

from dataclasses import dataclass
from typing import Annotated

from heathdrop.conditions.cover import KIND
from heathdrop.conditions.quantity import STRICT, Quantity, same
from heathdrop.units import ounces_as_written

LINES = same("fluorocarbon", "nylon", "braid")
LEADERS = same("fluorocarbon", "nylon")
RODS = same("casting", "spinning")
POWERS = same("light", "medium-light", "medium", "medium-heavy", "heavy", "extra-heavy")
#: What is written on most rods of a power, ounces from and to (practice): where a rod is told without.
RATED_OZ = {
    "light": (0.0625, 0.3125),
    "medium-light": (0.125, 0.375),
    "medium": (0.25, 0.625),
    "medium-heavy": (0.25, 1.0),
    "heavy": (0.375, 1.5),
    "extra-heavy": (0.5, 2.5),
}


@dataclass(frozen=True, kw_only=True)
class Leader:
    """What is tied between the line and the lure."""

    __pydantic_config__ = STRICT

    material: Annotated[
        str, Quantity("Leader", words=LEADERS, group="gear", blank="none", start="", control="leader")
    ] = "fluorocarbon"
    test_lb: Annotated[
        float,
        Quantity(
            "Leader test",
            "lb",
            1,
            100,
            group="gear",
            start=12.0,
            checked=False,
            control="leader_lb",
            needs="leader",
        ),
    ] = 12.0
    length_ft: Annotated[
        float,
        Quantity(
            "Leader length", "ft", 0.5, 60, group="gear", start=8.0, control="leader_ft", needs="leader"
        ),
    ] = 8.0


@dataclass(frozen=True, kw_only=True)
class Line:
    """The line on the reel, by material and pound test, with or without a leader."""

    __pydantic_config__ = STRICT

    material: Annotated[str, Quantity("Line", words=LINES, group="gear", fact="line")] = "fluorocarbon"
    test_lb: Annotated[float, Quantity("Test", "lb", 1, 100, group="gear", fact="test_lb", checked=False)] = (
        15.0
    )
    leader: Leader | None = None

    @property
    def said(self) -> str:
        """The line in words: ``20 lb braid with an 8 ft leader of 10 lb fluorocarbon``."""
        own = f"{self.test_lb:g} lb {self.material}"
        if self.leader is None:
            return own
        tied = self.leader
        return f"{own} with {tied.length_ft:g} ft of {tied.test_lb:g} lb {tied.material} leader"


@dataclass(frozen=True, kw_only=True)
class Reel:
    """The reel, by the line that one turn of the handle takes in."""

    __pydantic_config__ = STRICT

    inches_per_turn: Annotated[float, Quantity("Reel", "in/turn", 10, 45, group="gear")] = 29.0


@dataclass(frozen=True, kw_only=True)
class Rod:
    """The rod, as written on it: casting or spinning, its power, the weights it is rated for."""

    __pydantic_config__ = STRICT

    kind: Annotated[
        str,
        Quantity("Rod", words=RODS, group="gear", blank="not said", start="", control="rod"),
    ] = "casting"
    power: Annotated[str, Quantity("Power", words=POWERS, group="gear", control="rod_power", needs="rod")] = (
        "medium-heavy"
    )
    low_oz: Annotated[
        float, Quantity("Rated from", "oz", 0.02, 4, 0.125, group="gear", control="rod_low_oz", needs="rod")
    ] = 0.25
    high_oz: Annotated[
        float, Quantity("Rated to", "oz", 0.05, 8, 0.125, group="gear", control="rod_high_oz", needs="rod")
    ] = 1.0

    @property
    def spinning(self) -> bool:
        """Whether it is a spinning rod."""
        return self.kind == "spinning"

    @property
    def said(self) -> str:
        """The rod in words: ``medium spinning rod, 1/8 to 1/2 oz``."""
        low, high = ounces_as_written(self.low_oz), ounces_as_written(self.high_oz)
        return f"{self.power.replace('-', ' ')} {self.kind} rod, {low} to {high} oz"


#: Every kind of cover: a gear's control is asked in all of them.
ANYWHERE = tuple(KIND)


@dataclass(frozen=True, kw_only=True)
class OtherCast:
    """A second cast that was measured, with another weight, in still air: it teaches what the line costs."""

    __pydantic_config__ = STRICT

    cast_ft: Annotated[
        float,
        Quantity(
            "Other cast",
            "ft",
            10,
            250,
            5,
            group="gear",
            optional=ANYWHERE,
            optional_control="other_cast_ft",
            optional_blank="not measured",
            optional_from="cast_ft",
            about="A second cast paced out with another weight teaches how far yours go.",
        ),
    ]
    cast_oz: Annotated[
        float,
        Quantity(
            "Thrown with", "oz", 0.03, 4, 0.125, group="gear", control="other_cast_oz", needs="other_cast_ft"
        ),
    ] = 0.25


@dataclass(frozen=True, kw_only=True)
class Gear:
    """Line, reel, how far the cast goes with which weight, and how high the rod tip is held."""

    __pydantic_config__ = STRICT

    line: Line = Line()
    reel: Reel = Reel()
    rod: Rod | None = None
    cast_ft: Annotated[float, Quantity("Cast", "ft", 15, 180, 5, group="gear")] = 80.0
    cast_oz: Annotated[
        float,
        Quantity(
            "Cast said for",
            "oz",
            0.03,
            4,
            0.125,
            group="gear",
            about="Lighter and bulkier lures fly less far than the one you had in mind, heavier ones more.",
        ),
    ] = 0.5
    other_cast: OtherCast | None = None
    rod_tip_height_ft: Annotated[float, Quantity("Rod tip", "ft up", 0, 12, 0.5, group="gear")] = 2.0

    def turns_per_s(self, pace_ft_s: float) -> float:
        """Handle turns per second for a pace in ft/s."""
        return pace_ft_s * 12.0 / self.reel.inches_per_turn


#: What is fished where nobody said.
USUAL_GEAR = Gear()
