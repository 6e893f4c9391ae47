"""What a cast looks at: the seconds that its simulated path spends within reach of each cell."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import CastResult
from heathdrop.search.belief import PACES, Cells, pace_counts
from heathdrop.sizing.fit import near_floor
from heathdrop.units import feet

#: The cast is fished until the lure is this share of it away.
FISHED_TO = 0.1


@dataclass(frozen=True)
class Candidate:
    """A cast that may be made: which rig (by its key), its count (s) and pace (ft/s), what it covers (seconds
    in each cell), how long it takes (min), its depths (ft) by second. ``suit`` is what these fish make of the
    rig, ``gets_in`` how often the cover lets it through, ``cut`` what fouling leaves of a cast (0 to 1)."""

    rig: str
    family: str
    head: tuple[str, float]
    trailer: tuple[str, float]
    count_s: float
    pace_ft_s: float
    seconds: Cells
    minutes: float
    path_s: NDArray[np.float64]
    path_ft: NDArray[np.float64]
    suit: float = 1.0
    gets_in: float = 1.0
    cut: float = 1.0
    cadence: str = ""
    #: The count, pace and cadence that the rig is sized for here.
    sized: bool = False

    @property
    def setting(self) -> tuple[str, int, float, str]:
        """What makes a cast the same cast again: rig, count to the second, pace to a fifth of a foot, the
        cadence (empty: the rig's plain way)."""
        return self.rig, round(self.count_s), round(5.0 * self.pace_ft_s), self.cadence

    def taken(self, per_s: float, fresh: float = 1.0) -> Cells:
        """Chance that fish of each cell, in the lane that is thrown, take it: what these fish make of the rig
        (``suit``), what the cover lets through and spoils, and how ``fresh`` the cast is to them."""
        rate = per_s * self.suit * self.cut * fresh
        chance: Cells = self.gets_in * (1.0 - np.exp(-rate * self.seconds))
        return chance

    def depth_at(self, at_s: float) -> float:
        """Depth (ft) of the lure so many seconds after the splash."""
        return float(np.interp(at_s, self.path_s, self.path_ft))


def reach_of(catalog: Catalog, off_ft: NDArray[np.float64]) -> NDArray[np.float64]:
    """How far a lure so much above a fish (ft, negative: below it) is within its reach, 0 to 1."""
    r = catalog.search.reach
    above = np.clip((r.above_ft + r.edge_ft - off_ft) / r.edge_ft, 0.0, 1.0)
    below = np.clip((off_ft + r.below_ft + r.edge_ft) / r.edge_ft, 0.0, 1.0)
    return np.minimum(above, below)


def seconds_within(
    catalog: Catalog,
    cast: CastResult,
    pace_ft_s: float,
    edges_ft: NDArray[np.float64],
    shift_ft: float = 0.0,
) -> Cells:
    """Seconds (slices, paces) that the work of a cast is within reach; ``shift_ft`` is how much deeper than
    its simulated path the lure is known to run. A pace beside the wanted one counts in part."""
    t, z = cast.time_s, feet(1.0) * cast.depth_m + shift_ft
    fished = (t[1:] > cast.fall_s + 1e-9) & (cast.distance_m[1:] >= FISHED_TO * cast.cast.distance_m)
    steps = np.diff(t) * fished
    middles = 0.5 * (edges_ft[1:] + edges_ft[:-1])
    near = reach_of(catalog, middles[:, None] - 0.5 * (z[1:] + z[:-1])[None, :])
    depth_s = near @ steps
    return np.outer(depth_s, pace_counts(catalog, pace_ft_s))


def floor_seconds(
    catalog: Catalog,
    edges_ft: NDArray[np.float64],
    floor_ft: float,
    reach_ft: float,
    worked_s: float,
    fall_ft_s: float | None = None,
    held: float = 0.0,
) -> Cells:
    """Seconds (slices, paces) among the fish of a lure worked on the floor at ``floor_ft`` for ``worked_s``;
    of one that is dropped (``fall_ft_s``) also those that its fall takes past them. ``held`` is the share of
    the work that it can be lifted back to any height under a roof. Fish of every pace count alike: a lure
    that is worked is not reeled, and its sheet asks no pace of it either."""
    middles = 0.5 * (edges_ft[1:] + edges_ft[:-1])
    near = np.array([near_floor(floor_ft - d, reach_ft) for d in middles])
    seconds = worked_s * np.maximum(near, held)
    if fall_ft_s is not None:
        r = catalog.search.reach
        seconds = seconds + (r.above_ft + r.below_ft) / max(fall_ft_s, LEAST_FALL_FT_S)
    return np.outer(seconds, np.ones(len(PACES)))


#: No lure sinks slower than this, ft/s.
LEAST_FALL_FT_S = 0.3


def passed_s(cast: CastResult, edges_ft: NDArray[np.float64]) -> NDArray[np.float64]:
    """Seconds that the lure itself is inside each slice while it is worked: what is shown of a cast."""
    t, z = cast.time_s, feet(1.0) * cast.depth_m
    worked = (t[1:] > cast.fall_s + 1e-9) & (cast.distance_m[1:] >= FISHED_TO * cast.cast.distance_m)
    at = np.clip(np.searchsorted(edges_ft, 0.5 * (z[1:] + z[:-1]), side="right") - 1, 0, len(edges_ft) - 2)
    seconds = np.bincount(at, np.diff(t) * worked, minlength=len(edges_ft) - 1)
    return seconds.astype(np.float64)
