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
TEXTURES = ("duckweed", "algae", "milfoil", "hydrilla", "hyacinth", "reeds")
DETAILS = {"wood": ("laydown", "brush", "standing-timber"), "rock": ("gravel", "chunk", "riprap", "bluff")}
#: Where the fish are in the water; auto judges it from depth and cover.
POSTURES = ("auto", "on-bottom", "suspended", "under-cover", "cruising-high")
MAKEUPS = ("sand", "mud", "gravel", "rock", "grass")
FRONTS = ("none", "coming", "passed")
PRESSURES = ("light", "normal", "heavy")
#: What is sized: the standard set, the angler's own box, or both.
BOXES = ("standard", "mine", "both")
#: Cover whose top depth must be told.
WITH_TOP = ("submerged-grass",)

#: Fish this close to the bottom are on it; fish this shallow cruise high (ft).
ON_BOTTOM_FT, CRUISING_FT = 0.5, 2.0

#: field: (lowest, highest, unit), the same for the page, the API and the command line
RANGES: dict[str, tuple[float, float, str]] = {
    "water_temp_f": (32.0, 100.0, "°F"),
    "activity": (0.0, 4.0, "(0 dormant to 4 chasing)"),
    "clarity_ft": (0.1, 60.0, "ft of visibility"),
    "wind_mph": (0.0, 40.0, "mph"),
    "bottom_depth_ft": (1.0, 60.0, "ft"),
    "fish_depth_ft": (0.0, 60.0, "ft"),
    "top_depth_ft": (0.0, 60.0, "ft"),
    "thickness_in": (0.5, 36.0, "in"),
    "inches_per_turn": (10.0, 45.0, "in of line per handle turn"),
    "cast_ft": (15.0, 180.0, "ft"),
    "rod_tip_height_ft": (0.0, 12.0, "ft"),
}


@dataclass(frozen=True)
class Cover:
    """Cover by kind: how deep its top is (ft), how dense it stands, a mat's thickness (in) and texture, wood's or rock's kind."""

    kind: str = "open"
    top_depth_ft: float | None = None
    density: str = "moderate"
    thickness_in: float | None = None
    texture: str | None = None
    detail: str | None = None


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
    posture: str = "auto"
    bottom: str = "sand"
    front: str = "none"
    pressure: str = "normal"

    @property
    def stands(self) -> str:
        """Where the fish are: the angler's word, else judged from depth and cover."""
        if self.posture != "auto":
            return self.posture
        if self.cover.kind in ("matted-grass", "docks", "wood"):
            return "under-cover"
        if self.fish_depth_ft >= self.bottom_depth_ft - ON_BOTTOM_FT:
            return "on-bottom"
        return "cruising-high" if self.fish_depth_ft <= CRUISING_FT else "suspended"


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
    schools: tuple[tuple[str, str], ...] = ()
    box: str = "standard"


def _within(path: str, name: str, value: float | None) -> None:
    if value is not None:
        low, high, unit = RANGES[name]
        require_between(f"{path}.{name}" if path else name, value, low, high, unit)


def check(scenario: Scenario) -> None:
    """Raise BadInput for the first thing in the scenario that cannot be."""
    c, g = scenario.conditions, scenario.gear
    if c.water_temp_f < RANGES["water_temp_f"][0]:
        raise BadInput("conditions.water_temp_f", c.water_temp_f, "from 32 to 100 °F: below that it is ice")
    for name in ("water_temp_f", "activity", "clarity_ft", "wind_mph", "bottom_depth_ft", "fish_depth_ft"):
        _within("conditions", name, getattr(c, name))
    if c.fish_depth_ft > c.bottom_depth_ft:
        raise BadInput("conditions.fish_depth_ft", c.fish_depth_ft, f"no deeper than the bottom at {c.bottom_depth_ft:g} ft")
    _check_cover(c)
    _check_posture(c)
    for name in ("inches_per_turn", "cast_ft", "rod_tip_height_ft"):
        _within("gear", name, getattr(g, name))
    if scenario.depth_band_ft is not None:
        top, low = scenario.depth_band_ft
        require_between("depth_band_ft.top", top, 0.0, c.bottom_depth_ft, "ft")
        require_between("depth_band_ft.low", low, top, c.bottom_depth_ft, "ft")


def _check_cover(c: Conditions) -> None:
    """Cover that contradicts itself or the water is named where it was typed."""
    at, cover = "conditions.cover", c.cover
    if cover.kind in WITH_TOP and cover.top_depth_ft is None:
        raise BadInput(f"{at}.top_depth_ft", None, f"given in feet for {cover.kind}")
    if cover.kind != "open":
        _within(at, "top_depth_ft", cover.top_depth_ft)
    if cover.kind == "matted-grass" and cover.top_depth_ft:
        raise BadInput(f"{at}.top_depth_ft", cover.top_depth_ft, "0 or left out: a mat lies on the surface")
    if cover.kind != "open" and cover.top_depth_ft is not None and cover.top_depth_ft > c.bottom_depth_ft:
        raise BadInput(f"{at}.top_depth_ft", cover.top_depth_ft, f"no deeper than the bottom at {c.bottom_depth_ft:g} ft")
    _within(at, "thickness_in", cover.thickness_in)
    for name, value in (("thickness_in", cover.thickness_in), ("texture", cover.texture)):
        if value is not None and cover.kind != "matted-grass":
            raise BadInput(f"{at}.{name}", value, "left out: only matted grass has one")
    if cover.thickness_in is not None and cover.thickness_in / 12.0 > c.bottom_depth_ft:
        raise BadInput(f"{at}.thickness_in", cover.thickness_in, f"no thicker than the {c.bottom_depth_ft:g} ft of water")
    if cover.detail is not None and cover.detail not in DETAILS.get(cover.kind, ()):
        allowed = ", ".join(DETAILS.get(cover.kind, ())) or f"left out for {cover.kind}"
        raise BadInput(f"{at}.detail", cover.detail, f"one of {allowed}" if cover.kind in DETAILS else allowed)


def _check_posture(c: Conditions) -> None:
    at = "conditions.posture"
    if c.posture == "under-cover" and c.cover.kind == "open":
        raise BadInput(at, c.posture, "another one: there is no cover in open water")
    if c.posture == "on-bottom" and c.fish_depth_ft < c.bottom_depth_ft - 2.0:
        raise BadInput(at, c.posture, f"another one: fish at {c.fish_depth_ft:g} ft are off a bottom at {c.bottom_depth_ft:g} ft")
    if c.posture == "cruising-high" and c.fish_depth_ft > max(6.0, 0.5 * c.bottom_depth_ft):
        raise BadInput(at, c.posture, f"another one: fish at {c.fish_depth_ft:g} ft are not high")
