"""Where the fish are thought to be: chances over slices of the water and the pace that they take.

The theory of optimal search with exponential detection (Koopman, Operations Research 4, 1956; Stone, Theory
of Optimal Search, 1975): a cell looked at for t seconds without a bite keeps exp(-k t) of its chance.
"""

import math
from dataclasses import dataclass
from statistics import NormalDist
from typing import TypeAlias

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.conditions.facts import Facts, degree
from heathdrop.conditions.scenario import Conditions

Cells: TypeAlias = NDArray[np.float64]
#: The paces of a cell, slow first.
PACES = ("slow", "middle", "quick")
#: How sharp the ends of a range are, as a share of how well a depth is known.
SHARP = 0.25


@dataclass(frozen=True)
class Belief:
    """Chances that sum to 1: ``cells`` is (slices, 3 paces), ``edges_ft`` the slices' bounds from the surface
    (slices + 1, rising)."""

    edges_ft: NDArray[np.float64]
    cells: Cells

    @property
    def middles_ft(self) -> NDArray[np.float64]:
        """Middle depth (ft) of each slice."""
        middles: NDArray[np.float64] = 0.5 * (self.edges_ft[1:] + self.edges_ft[:-1])
        return middles

    @property
    def by_depth(self) -> NDArray[np.float64]:
        """Chance of each slice, whatever the pace."""
        shares: NDArray[np.float64] = self.cells.sum(axis=1)
        return shares

    @property
    def mean_ft(self) -> float:
        """The depth (ft) that the fish are at on average."""
        return float(self.by_depth @ self.middles_ft)

    def times(self, likelihood: Cells) -> "Belief":
        """Bayes: the belief after something as likely as this in each cell was seen."""
        after = self.cells * likelihood
        whole = float(after.sum())
        return self if whole <= 0.0 else Belief(self.edges_ft, after / whole)


def slices_of(catalog: Catalog, bottom_ft: float) -> NDArray[np.float64]:
    """Bounds (ft) of the slices, even from the surface to the bottom."""
    return np.linspace(0.0, bottom_ft, catalog.search.grid.slices + 1)


def start_of(catalog: Catalog, c: Conditions, facts: Facts, activity: float) -> Belief:
    """Where the fish are before a cast is made: what the trade's rows say of this water, inside what the
    angler or a sounder said of the depth (a depth is known to so many feet, a range to its ends)."""
    edges = slices_of(catalog, c.bottom_depth_ft)
    fine = _fine(edges)
    prior = _told(catalog, c, fine)
    rows = _rows(catalog, c, facts, fine)
    shares = (rows * prior).reshape(len(edges) - 1, -1).sum(axis=1)
    if shares.sum() <= 0.0:
        shares = prior.reshape(len(edges) - 1, -1).sum(axis=1)
    # What is said of the depth is a strong hint and no wall: the rest stand as such fish do.
    anywhere, tail = rows.reshape(len(edges) - 1, -1).sum(axis=1), catalog.search.grid.tail
    tail = tail if anywhere.sum() > 0.0 else 0.0
    shares = (1.0 - tail) * shares / shares.sum() + tail * anywhere / max(anywhere.sum(), LEAST_SHARE)
    cells = np.outer(shares, paces_wanted(catalog, activity))
    return Belief(edges, cells / cells.sum())


#: Less than this of all fish is nobody.
LEAST_SHARE = 1e-12
#: Places within a slice at which the rows are read.
FINE = 8


def _fine(edges: NDArray[np.float64]) -> NDArray[np.float64]:
    """Places (ft) inside the slices, ``FINE`` to each."""
    n = FINE * (len(edges) - 1)
    return (np.arange(n, dtype=np.float64) + 0.5) * float(edges[-1] / n)


def _rows(catalog: Catalog, c: Conditions, facts: Facts, at_ft: NDArray[np.float64]) -> NDArray[np.float64]:
    """How many fish the rows put at each depth (any scale)."""
    rows = np.zeros_like(at_ft)
    for row in catalog.search.start:
        weight = row.weight * degree(row.when, facts)
        if weight <= 0.0:
            continue
        centre, spread = row.at * c.bottom_depth_ft, row.spread * c.bottom_depth_ft
        if row.above_cover_ft is not None:
            if c.cover.top_depth_ft is None:
                continue
            centre, spread = c.cover.top_depth_ft - row.above_cover_ft, row.spread_ft
        bell = np.exp(-0.5 * ((at_ft - centre) / spread) ** 2)
        rows += weight * bell / bell.sum()
    return rows


def _told(catalog: Catalog, c: Conditions, at_ft: NDArray[np.float64]) -> NDArray[np.float64]:
    """How far each depth agrees with what was said of the fish's depth."""
    known_ft = catalog.search.grid.known_ft
    low, high = c.fish_span_ft or (c.fish_depth_ft, c.fish_depth_ft)
    edge = known_ft if c.fish_span_ft is None else SHARP * known_ft
    outside = np.maximum(0.0, np.maximum(low - at_ft, at_ft - high))
    agrees: NDArray[np.float64] = np.exp(-0.5 * (outside / edge) ** 2)
    return agrees


#: How many sigmas either side of the middle of a normal hold half of it.
HALF_WITHIN = NormalDist().inv_cdf(0.75)


def paces_wanted(catalog: Catalog, activity: float) -> NDArray[np.float64]:
    """Shares of fish that want it slow, middle and quick, for a mood of 0 to 4: the pace they want is
    log-normal about the middle of the mood's band, and half of them want it within the band."""
    levels = [t.activity for t in catalog.targets]
    ends = [[t.pace_ft_s[k] for t in catalog.targets] for k in (0, 1)]
    low, high = (math.log(float(np.interp(activity, levels, end))) for end in ends)
    wanted = NormalDist(0.5 * (low + high), 0.5 * (high - low) / HALF_WITHIN)
    below = [0.0, *(wanted.cdf(math.log(edge)) for edge in catalog.search.paces.edges_ft_s), 1.0]
    return np.diff(below)


def pace_counts(catalog: Catalog, pace_ft_s: float) -> NDArray[np.float64]:
    """How much a pace (ft/s) counts to fish that want it slow, middle and quick: wholly where it is theirs,
    and by so much less the further it is from theirs on a scale of ratios."""
    usual = np.log(catalog.search.paces.usual_ft_s)
    at = float(np.interp(math.log(pace_ft_s), usual, range(len(PACES))))
    counts: NDArray[np.float64] = catalog.search.reach.beside ** np.abs(np.arange(len(PACES)) - at)
    return counts


def bite_per_s(catalog: Catalog, activity: float) -> float:
    """Chance per second that fish within reach take the lure, for a mood of 0 to 4."""
    per_s = catalog.search.bite.per_s
    return float(np.interp(activity, range(len(per_s)), per_s))


def pace_of(catalog: Catalog, pace_ft_s: float) -> int:
    """Which of the paces this is: 0 slow, 1 middle, 2 quick."""
    return int(np.searchsorted(catalog.search.paces.edges_ft_s, pace_ft_s, side="right"))
