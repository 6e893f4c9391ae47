"""A depth chart to take along: where a rig runs half-way home, by count and turns of the handle."""

import math
from dataclasses import dataclass

from heathdrop.answers.cast import seconds_to
from heathdrop.physics.cast import fly
from heathdrop.physics.fall import depth_after_s
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.tune import BOARD
from heathdrop.sizing.ways import programme
from heathdrop.units import TURNS_IN_S, feet, metres

#: Rows and columns at most; turns between columns, and how many stand before the sized one.
MOST_COUNTS, COLUMNS, APART, BEFORE = 10, 7, 2, 3
#: The fewest turns in 20 s of a chart.
LEAST_TURNS = 4
#: A lure that is down within this (s) is counted in halves.
SOON_S = 5.0
#: A lure this near to the bottom (ft) is on it.
ON_FLOOR_FT = 0.25


@dataclass(frozen=True)
class At:
    """A cell: depth half-way home (ft), and where that is: ``floor``, ``cover`` (in it, below its tops),
    ``band`` or ``over`` and ``under`` the band."""

    depth_ft: float
    place: str


@dataclass(frozen=True)
class Chart:
    """Counts (s) down, turns in 20 s across (none for what is not swum: then the count alone says how deep),
    cells row by row."""

    counts_s: tuple[float, ...]
    turns: tuple[int, ...]
    cells: tuple[tuple[At, ...], ...]


def chart_of(sizing: Sizing, rated: Rated) -> Chart:
    """The chart of a rig in its water, on its line and reel, flown as the board flies it."""
    gear, swum = sizing.scenario.gear, rated.rig.family.work == "swim"
    sized = round(feet(rated.tuned.pace_m_s) * TURNS_IN_S * 12.0 / gear.reel.inches_per_turn)
    first = max(LEAST_TURNS, sized - BEFORE * APART)
    turns = tuple(first + APART * k for k in range(COLUMNS)) if swum else ()
    counts = _counts(sizing, rated)
    cells = []
    for count in counts:
        if swum:
            depths = [_half_way_ft(sizing, rated, count, n * gear.reel.inches_per_turn) for n in turns]
        else:
            depths = [feet(depth_after_s(rated.lure, count, sizing.line, sizing.water))]
        cells.append(tuple(_at(sizing, depth) for depth in depths))
    return Chart(counts, turns, tuple(cells))


def _counts(sizing: Sizing, rated: Rated) -> tuple[float, ...]:
    """Seconds from the splash to the bottom: halves where it is soon there, whole ones, or more at a time."""
    down_s = seconds_to(sizing, rated, sizing.scenario.conditions.bottom_depth_ft)
    step = 0.5 if down_s < SOON_S else max(1.0, math.ceil(down_s / (MOST_COUNTS - 1)))
    return tuple(step * k for k in range(math.ceil(down_s / step) + 1))


def _half_way_ft(sizing: Sizing, rated: Rated, count_s: float, inches: float) -> float:
    """Depth half-way home after a count, with so many inches of line reeled in 20 s."""
    pace = metres(inches / 12.0 / TURNS_IN_S)
    program = programme("steady", pace, count_s, rated.cast.distance_m)
    cast = fly(rated.lure, sizing.line, sizing.water, rated.cast, program, fidelity=BOARD, sample_s=0.1)
    return feet(cast.depth_at(0.5 * rated.cast.distance_m))


def _at(sizing: Sizing, depth_ft: float) -> At:
    c, (top, low) = sizing.scenario.conditions, sizing.targets.depth_ft
    depth = round(min(depth_ft, c.bottom_depth_ft), 1)
    if depth >= c.bottom_depth_ft - ON_FLOOR_FT:
        return At(depth, "floor")
    if top <= depth <= low:
        return At(depth, "band")
    tops = c.cover.top_depth_ft
    if tops is not None and depth > tops:
        return At(depth, "cover")
    return At(depth, "over" if depth < top else "under")
