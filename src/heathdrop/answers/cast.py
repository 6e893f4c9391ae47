"""Play a cast: its countdown with the tolerance that still lands, how it differs from another, where it may
glide."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop import catalog as catalogue
from heathdrop.physics.cast import DISPLAY, CastResult, Fidelity, fly, surface_line_m
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.sizing.bands import Bands, cast_bands
from heathdrop.sizing.program import cast_in, program_of, usual_way
from heathdrop.sizing.scatter import scatter_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.tune import BOARD
from heathdrop.sizing.ways import programme
from heathdrop.units import feet, metres

#: Counts tried for a window, the least of them (s); how near (ft) its best a rig outside its band may run.
TRIED, LEAST_COUNT_S, NEAR_FT = 12, 0.1, 0.5
#: How often the gap between the last count that is good and the first that is not is halved.
HALVINGS = 5
#: What is not to be touched is kept this far away (ft): the bottom, and tops that a lure goes over.
CLEAR_FT, OVER = 0.1, "over"


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
class WorkedCast:
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
) -> WorkedCast:
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
        cast_band = cast_bands(
            catalog,
            rated.rig,
            lure=rated.lure,
            line=sizing.line,
            water=sizing.water,
            cast=cast_in(rated, way),
            program=program,
            temperature_f=water,
            scatter=scatter_of(catalog, sizing.scenario, sizing.knowledge),
        )
        low, high = cast_band.mean_m or (mean_m, mean_m)
    to_bottom = program[0].for_s is None
    after = float(cast.time_s[-1]) - cast.fall_s
    on_floor = cast.bottom_s / after if after > 0.0 else 1.0
    return WorkedCast(
        count_s=cast.fall_s,
        count_band_s=count,
        mean_ft=feet(mean_m),
        mean_band_ft=(feet(low), feet(high)),
        to_bottom=to_bottom,
        on_floor=on_floor,
    )


def count_window(sizing: Sizing, rated: Rated) -> Window:
    """The counts with which a rig runs in the target band at its pace and touches nothing on its way there.

    They do not hang on the count that the rig stands at. A rig whose best lies outside the band has those
    that keep it within :data:`NEAR_FT` of that best. Every count is played, the slack of its fall with it:
    where the lure goes over the cover no part of the path is in it, and none is on the bottom.
    """
    (top, low), sized = sizing.targets.depth_ft, _as_sized(sizing, rated)
    best, own = feet(sized.tuned.mean_m), sized.countdown_s
    if not top <= best <= low:
        top, low = max(0.0, best - NEAR_FT), best + NEAR_FT
    landed = seconds_to(sizing, rated, sizing.scenario.conditions.bottom_depth_ft)
    counts = np.unique(np.append(np.linspace(LEAST_COUNT_S, max(landed, own), TRIED), own))
    means, deepest = np.array([_met_at(sizing, rated, float(count)) for count in counts]).T
    here = int(np.searchsorted(counts, own))
    means_own = means[here]
    means += best - means_own
    clear = clear_to_ft(sizing, sized)
    early = late = here
    while early > 0 and means[early - 1] >= top:
        early -= 1
    while late < len(counts) - 1 and means[late + 1] <= low and deepest[late + 1] <= clear:
        late += 1
    good, bad = float(counts[late]), float(counts[min(late + 1, len(counts) - 1)])
    for _ in range(HALVINGS if bad > good else 0):
        middle = 0.5 * (good + bad)
        mean, deep = _met_at(sizing, rated, middle, DISPLAY)
        if mean + best - means_own <= low and deep <= clear:
            good = middle
        else:
            bad = middle
    return Window(_meeting(counts, means, early, early - 1, top), max(own, good), top, low)


def _as_sized(sizing: Sizing, rated: Rated) -> Rated:
    """The same rig as the search set it, whatever count and pace it stands at."""
    return next((r for r in sizing.rigs if r.name == rated.name), rated)


def clear_to_ft(sizing: Sizing, rated: Rated) -> float:
    """The depth (ft) down to which a rig's whole path touches nothing that its way does not mean to touch."""
    c = sizing.scenario.conditions
    top = c.cover.top_depth_ft
    meets = c.bottom_depth_ft if top is None or rated.way != OVER else min(top, c.bottom_depth_ft)
    return meets - CLEAR_FT


def _met_at(sizing: Sizing, rated: Rated, count_s: float, fidelity: Fidelity = BOARD) -> tuple[float, float]:
    """Mean depth of the useful retrieve and the deepest of the whole path (ft) after a count (s), reeled
    steadily."""
    program = programme("steady", rated.tuned.pace_m_s, count_s, rated.cast.distance_m)
    cast = fly(rated.lure, sizing.line, sizing.water, rated.cast, program, fidelity=fidelity, sample_s=0.1)
    return feet(float(cast.worked().mean())), feet(float(cast.depth_m.max()))


def met_by(sizing: Sizing, rated: Rated) -> str:
    """What a rig at a count and a pace of the angler's own meets that its way does not mean to meet, in a
    sentence; nothing where it stays clear."""
    c, count = sizing.scenario.conditions, rated.countdown_s
    deepest, clear = _met_at(sizing, rated, count)[1], clear_to_ft(sizing, _as_sized(sizing, rated))
    if deepest <= clear + CLEAR_FT:
        return ""
    cover, top = c.cover.kind.replace("-", " "), c.cover.top_depth_ft
    if deepest >= c.bottom_depth_ft - CLEAR_FT:
        among = f", in the {cover}" if c.cover.kind != "open" and (top or 0.0) < c.bottom_depth_ft else ""
        lies = "lies" if seconds_to(sizing, rated, c.bottom_depth_ft) <= count else "comes down"
        return f"At {count:.1f} s it {lies} on the bottom{among}."
    return f"At {count:.1f} s it sinks to {deepest:.1f} ft, into the {cover}: its tops are at {top:g} ft."


def _meeting(
    counts: NDArray[np.float64], depths: NDArray[np.float64], inside: int, outside: int, at_ft: float
) -> float:
    """The count (s) between two whose depth is ``at_ft``; the last one tried where both are inside."""
    if not 0 <= outside < len(counts) or depths[outside] == depths[inside]:
        return float(counts[inside])
    share = (at_ft - depths[inside]) / (depths[outside] - depths[inside])
    return float(counts[inside] + min(1.0, max(0.0, share)) * (counts[outside] - counts[inside]))


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
