"""Play a cast: its countdown with the tolerance that still lands, how it differs from another, where it may
glide."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop import catalog as catalogue
from heathdrop.physics.cast import CastResult, surface_line_m
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.sizing.bands import Bands, cast_bands, means_at
from heathdrop.sizing.program import program_of, usual_way
from heathdrop.sizing.scatter import scatter_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, metres

__all__ = ["Worked", "count_window", "countdown", "difference", "glide_reach_ft", "worked_of"]

#: Shares of a count tried for its window, and how near (ft) its best a rig outside its band may run.
COUNTS, NEAR_FT = (0.0, 0.3, 0.5, 0.65, 0.8, 0.9, 1.0, 1.1, 1.2, 1.35, 1.5, 1.75, 2.0), 0.5
#: Rows of a countdown are a foot apart down to the first depth, two feet to the second, then five.


@dataclass(frozen=True)
class CountRow:
    """Seconds to a depth (ft) on slack line, their band, seconds with line pulled off the reel, whether in
    the target."""

    depth_ft: float
    seconds: float
    low_s: float
    high_s: float
    pulled_s: float
    inside: bool


@dataclass(frozen=True)
class Window:
    """Counts (s) with which a lure still runs, or lands, in a band (ft)."""

    early_s: float
    late_s: float
    top_ft: float
    low_ft: float


@dataclass(frozen=True)
class Worked:
    """A way of working in figures: its own countdown (s), mean depth (ft), each with its 80 % band; whether
    the count ends on the bottom, and the share of what follows that is spent on it."""

    count_s: float
    count_band_s: tuple[float, float]
    mean_ft: float
    mean_band_ft: tuple[float, float]
    to_bottom: bool
    on_floor: float


def seconds_to(sizing: Sizing, rated: Rated, depth_ft: float, pulled_line_m: float = 0.0) -> float:
    """Seconds of slack fall to a depth."""
    return time_to_depth_s(rated.lure, metres(depth_ft), sizing.line, sizing.water, pulled_line_m)


def countdown(sizing: Sizing, rated: Rated, bands: Bands, depths_ft: Sequence[float]) -> tuple[CountRow, ...]:
    """Seconds to each of ``depths_ft`` on a slack line."""
    top, low = sizing.targets.depth_ft
    pulled_line = 0.5 * surface_line_m(rated.cast)
    rows = []
    for depth in depths_ft:
        seconds, pulled = seconds_to(sizing, rated, depth), seconds_to(sizing, rated, depth, pulled_line)
        inside = top <= depth <= low
        rows.append(
            CountRow(
                depth_ft=depth,
                seconds=seconds,
                low_s=seconds / bands.fall_high,
                high_s=seconds / bands.fall_low,
                pulled_s=pulled,
                inside=inside,
            )
        )
    return tuple(rows)


def worked_of(
    sizing: Sizing,
    rated: Rated,
    bands: Bands,
    cast: CastResult,
    way: str,
    lift_m: float | None = None,
    hold_s: float | None = None,
    *,
    closely: bool = True,
) -> Worked:
    """The figures of a cast worked in a ``way``: a swum rig's usual one has its ``bands`` already, the others
    are played again for theirs when it is looked at ``closely``."""
    catalog = catalogue.load()
    program = program_of(sizing, rated, way, lift_m, hold_s)
    steady = way == "steady" and usual_way(catalog, sizing, rated) == "steady"
    # What was rated is what is said: strip, reasons and JSON name one depth.
    mean_m = rated.tuned.mean_m if steady else float(cast.worked().mean())
    count = cast.fall_s / bands.fall_high, cast.fall_s / bands.fall_low
    low, high = bands.mean_low_m, bands.mean_high_m
    if closely and not steady:
        water = sizing.scenario.conditions.water_temp_f
        found = cast_bands(
            catalog,
            rated.rig,
            lure=rated.lure,
            line=sizing.line,
            water=sizing.water,
            cast=rated.cast,
            program=program,
            temperature_f=water,
            scatter=scatter_of(catalog, sizing.scenario, sizing.known),
        )
        low, high = found.mean_m or (mean_m, mean_m)
    to_bottom = program[0].for_s is None
    after = float(cast.time_s[-1]) - cast.fall_s
    on_floor = cast.bottom_s / after if after > 0.0 else 1.0
    return Worked(
        count_s=cast.fall_s,
        count_band_s=count,
        mean_ft=feet(mean_m),
        mean_band_ft=(feet(low), feet(high)),
        to_bottom=to_bottom,
        on_floor=on_floor,
    )


def count_window(sizing: Sizing, rated: Rated) -> Window:
    """How far a count may be off and the rig still run in the target band at its pace.

    A rig whose best lies outside the band has the counts that keep it within :data:`NEAR_FT` of that best.
    The rig's own count is always inside. No count lets it fall into the cover below it, or onto the bottom:
    a mean depth in the band would not show that. A cadence is held against the steady retrieve at its count
    and pace.
    """
    top, low = sizing.targets.depth_ft
    best = feet(rated.tuned.mean_m)
    if not top <= best <= low:
        top, low = max(0.0, best - NEAR_FT), best + NEAR_FT
    counts = rated.countdown_s * np.array(COUNTS)
    means = np.array([feet(m) for m in means_at(sizing, rated, counts.tolist())])
    own = COUNTS.index(1.0)
    off = best - means[own]
    early = late = own
    while early > 0 and means[early - 1] + off >= top:
        early -= 1
    while late < len(COUNTS) - 1 and means[late + 1] + off <= low:
        late += 1
    return Window(
        _meeting(counts, means + off, early, early - 1, top),
        max(
            rated.countdown_s,
            min(_meeting(counts, means + off, late, late + 1, low), _landing(sizing, rated)),
        ),
        top,
        low,
    )


def _landing(sizing: Sizing, rated: Rated) -> float:
    """The count (s) at which a rig falls onto the cover that it is begun above, else onto the bottom."""
    c = sizing.scenario.conditions
    top = c.cover.top_depth_ft
    if top and seconds_to(sizing, rated, top) >= rated.countdown_s:
        return seconds_to(sizing, rated, top)
    return seconds_to(sizing, rated, c.bottom_depth_ft)


def _meeting(
    counts: NDArray[np.float64], means: NDArray[np.float64], inside: int, outside: int, at_ft: float
) -> float:
    """The count (s) between two whose mean depth is ``at_ft``; the last one tried where both are inside."""
    if not 0 <= outside < len(counts) or means[outside] == means[inside]:
        return float(counts[inside])
    share = min(1.0, max(0.0, (at_ft - means[inside]) / (means[outside] - means[inside])))
    return float(counts[inside] + share * (counts[outside] - counts[inside]))


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
