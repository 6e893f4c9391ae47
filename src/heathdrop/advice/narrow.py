"""What would narrow a told depth most: the part that widens its band, and how it may be known."""

import math

from heathdrop.sizing.bands import Bands
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet

#: A band narrower than this (ft, half of it) is narrow enough.
NARROW_FT = 0.4
#: What is left of a handle's and of a count's scatter once drilled, and of a lift's spread once it is
#: checked, as shares of what is assumed (assumption: as simulated anglers have it, docs/trainer.md).
DRILLED, COUNTED, CHECKED = 0.6, 0.6, 0.45


def narrows(sizing: Sizing, rated: Rated, bands: Bands) -> str:
    """One sentence: how near to its told depth a swum rig runs eight times of ten, and what would make that
    most of all nearer; nothing where it is known well or is not reeled."""
    if rated.work != "swim" or rated.along_floor:
        return ""
    half = 0.5 * feet(bands.mean_high_m - bands.mean_low_m)
    name = bands.widest
    if half < NARROW_FT or not name:
        return ""
    knowledge, measured = sizing.knowledge, rated.rig.measured
    left, how = {
        "pace": (DRILLED, "ten rounds of turns in the Trainer")
        if knowledge.handle() is None
        else (0.8, "turns kept more evenly"),
        "areas": (CHECKED, "a depth check (Drop tests)")
        if measured.lift_spread is None
        else (0.7, "another depth check"),
        "count": (COUNTED, "a drop test"),
        "drift": (0.0, "the boat held still"),
        "cast": (0.5, "casts paced out"),
        "tip": (0.5, "the rod tip held at one height"),
    }[name]
    then = half * bands.without(name, left)
    if not math.isfinite(then) or half - then < 0.1:
        return ""
    return f"Eight casts of ten run within {half:.1f} ft of that; with {how}, within {then:.1f} ft."
