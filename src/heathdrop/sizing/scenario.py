"""What the angler says of the day: conditions, cover and gear, in anglers' units."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.errors import BadInput, require_between

SEASONS = ("winter", "pre-spawn", "spawn", "post-spawn", "summer", "fall")
TRENDS = ("rising", "steady", "falling")
LIGHTS = ("sunny", "mixed", "overcast", "low")
#: How the bottom runs under the cast, shallower toward the angler.
BOTTOMS = ("level", "slope", "steps")
FORAGES = ("crawfish", "bluegill", "baitfish")
DENSITIES = ("sparse", "moderate", "thick")

#: field: (lowest, highest, unit), the same for the page, the API and the command line
RANGES: dict[str, tuple[float, float, str]] = {
    "water_temp_f": (32.0, 100.0, "°F"),
    "activity": (0.0, 4.0, "(0 dormant to 4 chasing)"),
    "clarity_ft": (0.1, 60.0, "ft of visibility"),
    "wind_mph": (0.0, 40.0, "mph"),
    "bottom_depth_ft": (1.0, 60.0, "ft"),
    "fish_depth_ft": (0.0, 60.0, "ft"),
    "top_depth_ft": (0.0, 60.0, "ft"),
    "inches_per_turn": (10.0, 45.0, "in of line per handle turn"),
    "cast_ft": (15.0, 180.0, "ft"),
    "rod_tip_height_ft": (0.0, 12.0, "ft"),
}


@dataclass(frozen=True)
class Cover:
    """Cover by kind, with how deep its top is (ft) and how dense it stands."""

    kind: str = "open"
    top_depth_ft: float | None = None
    density: str = "moderate"


@dataclass(frozen=True)
class Conditions:
    """The water today. ``activity`` None means: judge it from the rest."""

    water_temp_f: float
    bottom_depth_ft: float
    fish_depth_ft: float
    clarity_ft: float = 4.0
    trend: str = "steady"
    activity: float | None = None
    season: str = "fall"
    light: str = "mixed"
    wind_mph: float = 5.0
    forage: str = "bluegill"
    cover: Cover = Cover()
    bottom_shape: str = "level"


@dataclass(frozen=True)
class Gear:
    """Line (by material and pound test), reel (inches of line per turn), cast and rod tip (ft)."""

    line_material: str = "fluorocarbon"
    line_test_lb: float = 15.0
    inches_per_turn: float = 29.0
    cast_ft: float = 80.0
    rod_tip_height_ft: float = 2.0

    def turns_per_s(self, pace_ft_s: float) -> float:
        """Handle turns per second for a pace in ft/s."""
        return pace_ft_s * 12.0 / self.inches_per_turn


@dataclass(frozen=True)
class Scenario:
    """One question: which rigs, for this water, with this gear."""

    conditions: Conditions
    gear: Gear = Gear()
    families: tuple[str, ...] = ("swim-jig", "bladed-jig")
    depth_band_ft: tuple[float, float] | None = None


def _within(path: str, name: str, value: float | None) -> None:
    if value is not None:
        low, high, unit = RANGES[name]
        require_between(f"{path}.{name}" if path else name, value, low, high, unit)


def check(scenario: Scenario) -> None:
    """Raise BadInput for the first thing in the scenario that cannot be."""
    c, g = scenario.conditions, scenario.gear
    for name in ("water_temp_f", "activity", "clarity_ft", "wind_mph", "bottom_depth_ft", "fish_depth_ft"):
        _within("conditions", name, getattr(c, name))
    if c.fish_depth_ft > c.bottom_depth_ft:
        raise BadInput("conditions.fish_depth_ft", c.fish_depth_ft, f"no deeper than the bottom at {c.bottom_depth_ft:g} ft")
    _check_cover(c)
    for name in ("inches_per_turn", "cast_ft", "rod_tip_height_ft"):
        _within("gear", name, getattr(g, name))
    if scenario.depth_band_ft is not None:
        top, low = scenario.depth_band_ft
        require_between("depth_band_ft.top", top, 0.0, c.bottom_depth_ft, "ft")
        require_between("depth_band_ft.low", low, top, c.bottom_depth_ft, "ft")


def _check_cover(c: Conditions) -> None:
    if c.cover.kind == "open":
        return
    if c.cover.top_depth_ft is None:
        raise BadInput("conditions.cover.top_depth_ft", None, f"given in feet for {c.cover.kind}")
    _within("conditions.cover", "top_depth_ft", c.cover.top_depth_ft)
    if c.cover.top_depth_ft > c.bottom_depth_ft:
        raise BadInput(
            "conditions.cover.top_depth_ft",
            c.cover.top_depth_ft,
            f"no deeper than the bottom at {c.bottom_depth_ft:g} ft",
        )
