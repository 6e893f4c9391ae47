"""What a cast looks at: the seconds that its simulated path spends within reach of each cell."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import CastResult
from heathdrop.search.belief import PACES, Cells, pace_of
from heathdrop.units import feet

#: The cast is fished until the lure is this share of it away.
FISHED_TO = 0.1


@dataclass(frozen=True)
class Candidate:
    """A cast that may be made: which rig (by its key), its count (s) and pace (ft/s), what it covers (seconds
    in each cell), how long it takes (min), its depths (ft) by second."""

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
    own = pace_of(catalog, pace_ft_s)
    counts = [catalog.search.reach.beside ** abs(k - own) for k in range(len(PACES))]
    return np.outer(depth_s, counts)


def passed_s(cast: CastResult, edges_ft: NDArray[np.float64]) -> NDArray[np.float64]:
    """Seconds that the lure itself is inside each slice while it is worked: what is shown of a cast."""
    t, z = cast.time_s, feet(1.0) * cast.depth_m
    worked = (t[1:] > cast.fall_s + 1e-9) & (cast.distance_m[1:] >= FISHED_TO * cast.cast.distance_m)
    at = np.clip(np.searchsorted(edges_ft, 0.5 * (z[1:] + z[:-1]), side="right") - 1, 0, len(edges_ft) - 2)
    found = np.bincount(at, np.diff(t) * worked, minlength=len(edges_ft) - 1)
    return found.astype(np.float64)
