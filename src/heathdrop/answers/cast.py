"""Play a cast: its countdown with the tolerance that still lands, how it differs from another, where it may
glide."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.physics.cast import CastResult, surface_line_m
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.sizing.bands import Bands
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, metres

#: Rows of a countdown are a foot apart down to the first depth, two feet to the second, then five.
ROWS_FT = ((16.0, 1), (32.0, 2), (1e6, 5))


@dataclass(frozen=True)
class CountRow:
    """Seconds to a depth (ft) on slack line, their band, seconds with line pulled off the reel, whether in
    the target."""

    depth_ft: int
    seconds: float
    low_s: float
    high_s: float
    pulled_s: float
    inside: bool


@dataclass(frozen=True)
class Window:
    """Counts (s) that still land in a band (ft)."""

    early_s: float
    late_s: float
    top_ft: float
    low_ft: float


def seconds_to(sizing: Sizing, rated: Rated, depth_ft: float, pulled_line_m: float = 0.0) -> float:
    """Seconds of slack fall to a depth."""
    return time_to_depth_s(rated.lure, metres(depth_ft), sizing.line, sizing.water, pulled_line_m)


def countdown(sizing: Sizing, rated: Rated, bands: Bands) -> tuple[CountRow, ...]:
    """Seconds to each foot on a slack line, to the bottom."""
    bottom = sizing.scenario.conditions.bottom_depth_ft
    top, low = sizing.targets.depth_ft
    pulled_line = 0.5 * surface_line_m(sizing.cast)
    step = next(step for deepest, step in ROWS_FT if bottom <= deepest)
    rows = []
    for depth in range(step, int(bottom) + 1, step):
        seconds, pulled = seconds_to(sizing, rated, depth), seconds_to(sizing, rated, depth, pulled_line)
        inside = top <= depth <= low
        rows.append(
            CountRow(depth, seconds, seconds / bands.fall_high, seconds / bands.fall_low, pulled, inside)
        )
    return tuple(rows)


def count_window(sizing: Sizing, rated: Rated) -> Window:
    """How far a count may be off and still land in the target band."""
    top, low = sizing.targets.depth_ft
    return Window(seconds_to(sizing, rated, top), seconds_to(sizing, rated, low), top, low)


@dataclass(frozen=True)
class Difference:
    """Two casts on the same programme: mean useful depths (ft; None when not retrieved) and seconds on the
    bottom."""

    own_ft: float | None
    other_ft: float | None
    own_bottom_s: float
    other_bottom_s: float


def difference(own: CastResult, other: CastResult) -> Difference:
    """How another cast differs from this one."""
    bottoms = own.bottom_s, other.bottom_s
    if own.useful().size == 0 or other.useful().size == 0:
        return Difference(None, None, *bottoms)
    return Difference(feet(float(own.useful().mean())), feet(float(other.useful().mean())), *bottoms)


def glide_reach_ft(rated: Rated, cast: CastResult) -> float:
    """How far a gliding body may land to any side of the line, ft."""
    return feet(rated.lure.glide_ratio * cast.start_depth_m)
