"""What the angler says of the day, in anglers' units: a row each, and what cannot be together.

These records are the model, and the request's fields: :mod:`heathdrop.conditions.quantity` makes
everything else from their rows. Words that only people read stand beside the words that programs use.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated

from heathdrop.conditions.cover import EDGED, HOLED, OPEN, ROOFS, WITH_TOP, Cover
from heathdrop.conditions.gear import USUAL_GEAR, Gear
from heathdrop.conditions.quantity import STRICT, Quantity, faults_in, places, same
from heathdrop.conditions.wanted import JUDGED, Wanted
from heathdrop.errors import BadInput, require_between

#: What is sized: the standard set, the angler's own box, or both.
BOXES = same("standard", "mine", "both")

#: Bands are of a hand that reels, or of one that does just what is told.
REELS, EXACT = "reels", "exact"


#: Words for visibility (ft) and for wind (mph) that may be typed in place of a number (assumption: the middle
#: of what each word is used for).
CLARITY_FT = (("muddy", 0.5), ("dirty", 1.0), ("stained", 2.0), ("clear", 8.0), ("very clear", 15.0))
WIND_MPH = (("none", 0.0), ("calm", 0.0), ("light", 5.0), ("breezy", 10.0), ("windy", 15.0), ("strong", 20.0))

#: Fish this close to the bottom are on it; fish this shallow cruise high (ft, practice).
ON_BOTTOM_FT, CRUISING_FT = 0.5, 2.0
#: A bottom as driven: its points at most, how far it may reach, the least water it may have, ft.
MOST_POINTS, FARTHEST_FT, LEAST_DEEP_FT = 50, 400.0, 0.3
#: From wholly on the bottom to wholly off it, and from wholly high to wholly hanging (ft, practice).
OFF_BOTTOM_FT, OFF_HIGH_FT = (0.0, 3.0), (1.0, 4.5)
#: Fish this far below the tops of standing grass are half and wholly under cover (ft, practice).
INTO_GRASS_FT = (1.5, 5.5)
#: The same of wood whose tops are told (ft, practice); where they are not, and at docks, fish are wholly in
#: it or under it up to the first of these shares of the floor's reach above the floor, and not at all from
#: the second on (assumption: wood and docks are thickest low down).
INTO_WOOD_FT, LOW_IN_WOOD = (0.0, 3.0), (0.6, 1.4)
#: Fish this far below (above: less than nothing) the tops are wholly over the cover, and not at all (ft).
OVER_FT = (-1.0, 0.5)
#: Work on the floor reaches fish so far above it (ft, and share of the water; the greater; assumption).
FLOOR_REACH_FT, FLOOR_REACH_SHARE = 2.0, 0.2
#: Fish said to be on the bottom, or cruising high, may stand this far from it (ft; share of the water).
NEAR_BOTTOM_FT, HIGH_FT, HIGH_SHARE = 2.0, 6.0, 0.5


#: From this share on fish count as under cover where one word is asked for.
HALF = 0.5


def fading(value: float, whole: float, gone: float) -> float:
    """1 up to ``whole``, 0 from ``gone`` on, a straight ramp between."""
    return min(1.0, max(0.0, (gone - value) / (gone - whole)))


@dataclass(frozen=True, kw_only=True)
class Conditions:
    """The water today. ``activity`` None means: judge it from the rest."""

    __pydantic_config__ = STRICT

    water_temp_f: Annotated[
        float, Quantity("Water", "°F", 32, 100, group="first", start=58.0, fact="temp_f", edge=3.0)
    ]
    bottom_depth_ft: Annotated[
        float, Quantity("Bottom", "ft", 1, 60, group="first", start=9.0, fact="bottom_depth_ft", edge=1.0)
    ]
    fish_depth_ft: Annotated[
        float,
        Quantity(
            "Fish at",
            "ft",
            0,
            60,
            0.5,
            group="first",
            start=6.0,
            fact="fish_depth_ft",
            edge=1.0,
            about="A depth, a range (4 to 10), about 6, or ? where it is not known: then Search finds them.",
        ),
    ]
    cover: Cover = OPEN
    #: Where the fish's depth is not known: the range (ft) they are in; ``fish_depth_ft`` is then the depth
    #: that is sized for.
    fish_span_ft: tuple[float, float] | None = None
    #: The bottom as driven, (distance from the angler, depth) in ft, distance rising; then
    #: ``bottom_depth_ft`` is its deepest.
    bottom_ft: tuple[tuple[float, float], ...] | None = None
    posture: Annotated[
        str,
        Quantity(
            "Fish are",
            about="Where they stand in the water: it decides which lures are asked, and the target's depth.",
            words=(
                ("auto", "as depth says"),
                ("on-bottom", "on the bottom"),
                ("suspended", "hanging"),
                ("under-cover", "under cover"),
                ("cruising-high", "cruising high"),
            ),
            fact="posture",
        ),
    ] = "auto"
    activity: Annotated[
        float | None,
        Quantity(
            "Fish mood",
            "(0 dormant to 4 chasing)",
            0,
            4,
            fact="activity",
            edge=0.3,
            blank="judge it for me",
            about="How far they will come: it sets fall, pace, action. Judged from temperature, "
            "trend, light and front unless you say.",
        ),
    ] = None
    trend: Annotated[str, Quantity("Trend", words=same("rising", "steady", "falling"), fact="trend")] = (
        "steady"
    )
    season: Annotated[
        str,
        Quantity(
            "Season",
            words=same("winter", "pre-spawn", "spawn", "post-spawn", "summer", "fall"),
            fact="season",
        ),
    ] = "fall"
    clarity_ft: Annotated[
        float,
        Quantity(
            "Visibility",
            "ft",
            0.1,
            60,
            0.5,
            fact="clarity_ft",
            edge=1.5,
            spoken=CLARITY_FT,
            about="How deep you still see a pale lure: murky water asks for bulk and beat, clear water for "
            "slim and quiet.",
        ),
    ] = 4.0
    light: Annotated[
        str, Quantity("Light", words=same("sunny", "mixed", "overcast", "low"), fact="light")
    ] = "mixed"
    wind_way: Annotated[
        str,
        Quantity(
            "Wind comes",
            words=(("across", "across the cast"), ("behind", "from behind"), ("ahead", "in your face")),
            group="gear",
            about="From behind it carries a cast, in the face it shortens it, light and bulky lures most.",
        ),
    ] = "across"
    wind_mph: Annotated[float, Quantity("Wind", "mph", 0, 40, fact="wind_mph", edge=3.0, spoken=WIND_MPH)] = (
        5.0
    )
    drift_mph: Annotated[
        float,
        Quantity(
            "Boat drifts",
            "mph",
            0,
            3,
            0.25,
            group="gear",
            fact="drift_mph",
            edge=0.2,
            about="0 where it is held still. A drift along the cast adds to the pace or takes from it: a few "
            "tenths move a slow roll by feet, and widen what is told.",
        ),
    ] = 0.0
    forage: Annotated[
        str,
        Quantity(
            "Forage",
            words=same("crawfish", "bluegill", "baitfish"),
            fact="forage",
            about="What they feed on: it decides the trailer's shape and size.",
        ),
    ] = "bluegill"
    bottom: Annotated[
        str, Quantity("Bottom of", words=same("sand", "mud", "gravel", "rock", "grass"), fact="bottom")
    ] = "sand"
    bottom_shape: Annotated[
        str,
        Quantity(
            "Bottom runs",
            words=(("level", "level"), ("slope", "up a slope"), ("steps", "up in ledges")),
            fact="bottom_shape",
        ),
    ] = "level"
    front: Annotated[
        str,
        Quantity(
            "Cold front",
            words=same("none", "coming", "passed"),
            fact="front",
            about="Fish feed before a front, and sit tight behind it.",
        ),
    ] = "none"
    pressure: Annotated[
        str,
        Quantity(
            "Fished",
            words=(("light", "little"), ("normal", "as usual"), ("heavy", "hard")),
            fact="pressure",
            about="How hard others fish here: wary fish want smaller and quieter.",
        ),
    ] = "normal"

    @property
    def said(self) -> str:
        """The water in a line: ``58 °F, fish at 6 ft of 9 ft, submerged grass``."""
        span = self.fish_span_ft
        at = "not known" if span == (0.0, self.bottom_depth_ft) else f"at {self.fish_depth_ft:g} ft"
        if span is not None and at != "not known":
            at = f"at {span[0]:g} to {span[1]:g} ft"
        cover = self.cover.kind.replace("-", " ")
        return f"{self.water_temp_f:g} °F, fish {at} of {self.bottom_depth_ft:g} ft, {cover}"

    @property
    def stands(self) -> str:
        """Where the fish are: the angler's word, else judged from depth and cover."""
        if self.posture != "auto":
            return self.posture
        if self.under_cover >= HALF:
            return "under-cover"
        if self.fish_depth_ft >= self.bottom_depth_ft - ON_BOTTOM_FT:
            return "on-bottom"
        return "cruising-high" if self.fish_depth_ft <= CRUISING_FT else "suspended"

    @property
    def floor_reach_ft(self) -> float:
        """How far above the floor fish stand and are still met by work on it, ft."""
        return max(FLOOR_REACH_FT, FLOOR_REACH_SHARE * self.bottom_depth_ft)

    @property
    def works_ft(self) -> float:
        """How deep a lure works that is fished on the floor: a bluff is a wall of ledges, and it is stepped
        down to the one that the fish are at."""
        wall = self.cover.row.does == "stone" and self.cover.detail == "bluff" and self.bottom_ft is None
        return self.fish_depth_ft if wall else self.bottom_depth_ft

    @property
    def under_cover(self) -> float:
        """How far the fish are in or under the cover, 0 to 1, by where they stand and not by its name."""
        kind, top = self.cover.kind, self.cover.top_depth_ft
        if kind in ROOFS:
            return 1.0
        if kind in WITH_TOP and top is not None:
            return 1.0 - fading(self.fish_depth_ft - top, *INTO_GRASS_FT)
        if self.cover.row.does != "wood":
            return 0.0
        if top is not None and self.cover.row.within:
            return 1.0 - fading(self.fish_depth_ft - top, *INTO_WOOD_FT)
        above = (self.bottom_depth_ft - self.fish_depth_ft) / self.floor_reach_ft
        return fading(above, *LOW_IN_WOOD)

    @property
    def stand(self) -> dict[str, float]:
        """How far the fish stand over, in (or under) and beside the cover, shares that sum to 1; ``open``
        where there is none."""
        if self.cover.kind == "open":
            return {"open": 1.0}
        inside, top = self.under_cover, self.cover.top_depth_ft
        if self.posture != "auto":
            inside = float(self.posture == "under-cover")
        over = 0.0 if top is None else fading(self.fish_depth_ft - top, *OVER_FT) * (1.0 - inside)
        shares = {"over": over, "in": inside, "beside": 1.0 - over - inside}
        return {k: v for k, v in shares.items() if v > 0.0}

    @property
    def postures(self) -> dict[str, float]:
        """How far the fish stand in each way, shares that sum to 1: near a bound they do both."""
        if self.posture != "auto":
            return {self.posture: 1.0}
        low = fading(self.bottom_depth_ft - self.fish_depth_ft, *OFF_BOTTOM_FT)
        high = fading(self.fish_depth_ft, *OFF_HIGH_FT) * (1.0 - low)
        shares = {"on-bottom": low, "cruising-high": high, "suspended": 1.0 - low - high}
        under = self.under_cover
        shares = {k: v * (1.0 - under) for k, v in shares.items()} | {"under-cover": under}
        return {k: v for k, v in shares.items() if v > 0.0}


@dataclass(frozen=True)
class Scenario:
    """One question: which rigs, for this water, with this gear."""

    conditions: Conditions
    gear: Gear = USUAL_GEAR
    families: tuple[str, ...] = ("swim-jig", "bladed-jig")
    wanted: Wanted = JUDGED
    schools: tuple[tuple[str, str], ...] = ()
    box: str = "standard"
    hand: str = REELS

    @property
    def said(self) -> str:
        """The water in a line, with the targets that are set (``…; wanted 4 to 6 ft``)."""
        own = self.wanted.said
        return self.conditions.said + (f"; wanted {own}" if own else "")


#: Every quantity of a request with its path, for doors that speak of a field by its name.
ROWS = (*places(Conditions, "conditions"), *places(Gear, "gear"))
BY_FIELD = {row.name: row.quantity for row in reversed(ROWS)}


def check(scenario: Scenario) -> None:
    """Raise BadInput for the first thing in the scenario that cannot be."""
    for refusal in faults(scenario):
        raise refusal


def faults(scenario: Scenario) -> Iterator[BadInput]:
    """Everything in the scenario that cannot be: each quantity by its row, then what cannot be together."""
    c = scenario.conditions
    if c.water_temp_f < BY_FIELD["water_temp_f"].low:
        yield BadInput("conditions.water_temp_f", c.water_temp_f, "from 32 to 100 °F: below that it is ice")
    yield from faults_in(c, "conditions")
    yield from faults_in(scenario.gear, "gear")
    for together in (_check_fish, _check_profile, _check_cover, _check_posture):
        try:
            together(c)
        except BadInput as refusal:
            yield refusal
    try:
        _check_rod(scenario.gear)
    except BadInput as refusal:
        yield refusal
    yield from scenario.wanted.faults(c.bottom_depth_ft)


def _check_fish(c: Conditions) -> None:
    """Fish are in the water, and no deeper than its bottom."""
    if c.fish_depth_ft > c.bottom_depth_ft:
        allowed = f"no deeper than the bottom at {c.bottom_depth_ft:g} ft"
        raise BadInput("conditions.fish_depth_ft", c.fish_depth_ft, allowed)
    if c.fish_span_ft is not None:
        low, high = c.fish_span_ft
        require_between("conditions.fish_depth_ft.low", low, 0.0, c.bottom_depth_ft, "ft")
        require_between("conditions.fish_depth_ft.high", high, low, c.bottom_depth_ft, "ft")


def _check_rod(gear: Gear) -> None:
    rod = gear.rod
    if rod is not None and rod.low_oz >= rod.high_oz:
        raise BadInput("gear.rod.high_oz", rod.high_oz, f"more than the {rod.low_oz:g} oz it is rated from")


def _check_profile(c: Conditions) -> None:
    """A bottom as driven: two to fifty points, distance rising, no deeper than the bottom is said to be."""
    if c.bottom_ft is None:
        return
    at, away = "conditions.bottom_ft", [d for d, _ in c.bottom_ft]
    if not 2 <= len(away) <= MOST_POINTS:
        raise BadInput(at, f"{len(away)} points", f"from 2 to {MOST_POINTS} points")
    if away != sorted(set(away)) or away[0] < 0.0 or away[-1] > FARTHEST_FT:
        raise BadInput(at, "out of order", f"distances that rise from 0 to {FARTHEST_FT:.0f} ft")
    for _, deep in c.bottom_ft:
        require_between(f"{at} depth", deep, LEAST_DEEP_FT, c.bottom_depth_ft, "ft")


def _check_cover(c: Conditions) -> None:
    """Cover that contradicts itself or the water is named where it was typed."""
    at, cover = "conditions.cover", c.cover
    if cover.kind in WITH_TOP and cover.top_depth_ft is None:
        raise BadInput(f"{at}.top_depth_ft", None, f"given in feet for {cover.kind}")
    if cover.kind in ROOFS and cover.top_depth_ft:
        raise BadInput(f"{at}.top_depth_ft", cover.top_depth_ft, "0 or left out: a mat lies on the surface")
    deep = f"no deeper than the bottom at {c.bottom_depth_ft:g} ft"
    if cover.kind != "open" and cover.top_depth_ft is not None and cover.top_depth_ft > c.bottom_depth_ft:
        raise BadInput(f"{at}.top_depth_ft", cover.top_depth_ft, deep)
    for name, kinds, given in (("hole_ft", HOLED, cover.hole_ft), ("edge", EDGED, cover.edge or None)):
        if given is not None and cover.kind not in kinds:
            raise BadInput(f"{at}.{name}", given, "left out: it is asked for " + ", ".join(kinds))
    for name, value in (("thickness_in", cover.thickness_in), ("texture", cover.texture)):
        if value is not None and cover.kind not in ROOFS:
            raise BadInput(f"{at}.{name}", value, "left out: only matted grass has one")
    if cover.thickness_in is not None and cover.thickness_in / 12.0 > c.bottom_depth_ft:
        raise BadInput(
            f"{at}.thickness_in", cover.thickness_in, f"no thicker than the {c.bottom_depth_ft:g} ft of water"
        )
    details = {kind: [w for w, _ in listed] for kind, listed in BY_FIELD["detail"].by}
    if cover.detail is not None and cover.detail not in details.get(cover.kind, ()):
        some = details.get(cover.kind)
        raise BadInput(
            f"{at}.detail",
            cover.detail,
            "one of " + ", ".join(some) if some else f"left out for {cover.kind}",
        )


def _check_posture(c: Conditions) -> None:
    at = "conditions.posture"
    if c.posture == "under-cover" and c.cover.kind == "open":
        raise BadInput(at, c.posture, "another one: there is no cover in open water")
    if c.posture == "on-bottom" and c.fish_depth_ft < c.bottom_depth_ft - NEAR_BOTTOM_FT:
        off = f"another one: fish at {c.fish_depth_ft:g} ft are off a bottom at {c.bottom_depth_ft:g} ft"
        raise BadInput(at, c.posture, off)
    if c.posture == "cruising-high" and c.fish_depth_ft > max(HIGH_FT, HIGH_SHARE * c.bottom_depth_ft):
        raise BadInput(at, c.posture, f"another one: fish at {c.fish_depth_ft:g} ft are not high")
