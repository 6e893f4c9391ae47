"""Whether a rig does what the angler set: each target hit or missed, and by how much."""

import math

from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.rated import Rated
from heathdrop.units import feet

#: What still is a hit: feet beside the band, shares of a rate, chances.
DEPTH_FT, RATE, PASSES = 0.05, 0.05, 0.03
#: No rate is reckoned smaller when it is held against a band, ft/s.
LEAST_FT_S = 1e-6
#: A miss of so many feet is worth one that is a whole tolerance off in the others.
FOOT = 0.5


def hits_of(wanted: Wanted, rated: Rated) -> dict[str, bool]:
    """Each target that is set (depth, fall, passes, pace), and whether the rig does it."""
    return {name: off <= 0.0 for name, off in _off(wanted, rated).items()}


def missed_by(wanted: Wanted, rated: Rated) -> tuple[int, float]:
    """How many of the set targets a rig misses, and by how much in all (tolerances)."""
    off = [v for v in _off(wanted, rated).values() if v > 0.0]
    return len(off), sum(off)


def _off(wanted: Wanted, rated: Rated) -> dict[str, float]:
    """By how much each set target is missed, in tolerances; nothing where it is hit."""
    off = {}
    if wanted.depth_ft is not None:
        at, (top, low) = feet(rated.tuned.mean_m), wanted.depth_ft
        off["depth"] = max(0.0, max(top - at, at - low) - DEPTH_FT) / FOOT
    if wanted.fall_ft_s is not None:
        off["fall"] = _beside(rated.fall_ft_s, wanted.fall_ft_s)
    if wanted.passes is not None:
        off["passes"] = max(0.0, wanted.passes - rated.cover.passes - PASSES) / PASSES
    if wanted.pace_ft_s is not None:
        off["pace"] = _beside(feet(rated.tuned.pace_m_s), wanted.pace_ft_s)
    return off


def _beside(rate: float, band: tuple[float, float]) -> float:
    """How far a rate (ft/s) lies beside a band, in tolerances of its own."""
    rate, (low, high) = max(rate, LEAST_FT_S), (max(v, LEAST_FT_S) for v in band)
    off = max(math.log(low / rate), math.log(rate / high)) - math.log1p(RATE)
    return max(0.0, off) / RATE
