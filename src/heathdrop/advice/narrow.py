"""What would narrow a told depth most: the part that widens its band, and how it may be known."""

from __future__ import annotations

import math

from heathdrop.sizing.bands import Bands
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet

__all__ = ["narrows"]

#: A band narrower than this (ft, half of it) is narrow enough.
NARROW_FT = 0.4
#: What is left of a handle's and of a count's scatter once drilled, and of a lift's spread once it is
#: checked, as shares of what is assumed (assumption: as simulated anglers have it, docs/trainer.md).
DRILLED, COUNTED, CHECKED = 0.6, 0.6, 0.45


def narrows(sizing: Sizing, rated: Rated, bands: Bands) -> str:
    """One sentence: how far the depth of a swum rig is known, what most of that is, what would narrow it;
    nothing where it is known well or is not reeled."""
    if rated.rig.family.work != "swim" or rated.along_floor:
        return ""
    half = 0.5 * feet(bands.mean_high_m - bands.mean_low_m)
    name = bands.widest
    if half < NARROW_FT or not name:
        return ""
    known, measured = sizing.known, rated.rig.measured
    first, left, how = {
        "pace": ("the handle", DRILLED, "ten rounds of turns in the Trainer")
        if known.handle() is None
        else ("your handle", 0.8, "turns kept more evenly"),
        "areas": ("the lure itself", CHECKED, "a depth check (Drop tests)")
        if measured.lift_spread is None
        else ("the lure itself", 0.7, "another depth check"),
        "count": ("the count and the fall", COUNTED, "a drop test"),
        "drift": ("the boat's drift", 0.0, "a boat that is held still"),
        "cast": ("how far it flies", 0.5, "a cast that is paced out"),
        "tip": ("the rod tip", 0.5, "a tip held at one height"),
    }[name]
    then = half * bands.without(name, left)
    if not math.isfinite(then) or half - then < 0.1:
        return ""
    return (
        f"It runs within {half:.1f} ft of that eight times of ten; most of it is {first}: {how} would make "
        f"it about {then:.1f} ft."
    )
