"""The hunt at a stop: where bites are to be had, cell by cell and direction by direction, as the casts tell it.

An intensity of fish over slices of depth, paces and directions (a Poisson field): a cast that nothing takes
thins it where the cast went, in the other directions at that depth too, for schools share a depth; a bite
thins it by one fish and raises it around the bite, for where one was there are mates; minutes blur it and
bring it back toward what it was, for fish move. The next cast is the one with most bites for its minutes
(Stone, Theory of Optimal Search, 1975: the greedy rate), a rod taken up with its next few casts in view.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Hashable, Sequence
from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.search.belief import Belief, Cells, pace_counts
from heathdrop.search.coverage import Candidate
from heathdrop.search.order import NO_OPENING, ONE_LANE, Opening, Place, change_between, minutes_of

__all__ = ["Hunt"]


@dataclass(frozen=True)
class Thrown:
    """A cast to make: which, in which direction, what changes for it, its minutes with that, the bites that it
    may bring (``adds``) were somebody home."""

    cast: Candidate
    lane: int
    change: str
    minutes: float
    adds: float


class Hunt:
    """What is believed of a stop and what was thrown there. ``casts`` are those to choose from, of the rigs
    ``to_hand``; ``per_s`` how readily fish within reach bite."""

    def __init__(
        self,
        catalog: Catalog,
        belief: Belief,
        per_s: float,
        casts: Sequence[Candidate],
        to_hand: Sequence[str],
        place: Place = ONE_LANE,
        opens: Opening | str = NO_OPENING,
    ) -> None:
        self.catalog, self.per_s, self.place, self.to_hand = catalog, per_s, place, list(to_hand)
        self.opens = Opening(opens) if isinstance(opens, str) else opens
        self.edges_ft = belief.edges_ft
        self.casts = list(casts)
        self._taken = np.array([c.taken(per_s).ravel() for c in casts])
        lanes = place.lanes
        self.prior = np.repeat(belief.cells.ravel()[:, None], lanes, axis=1) / lanes
        self.field = self.prior.copy()
        self.made: Counter[Hashable] = Counter()
        self.lanes_of: Counter[Hashable] = Counter()
        self.before: Candidate | None = None
        self.lane, self.minute = -1, 0.0
        self.bitten = False

    # numbers under trial
    HOLDS, LANE_MIN, DEPTH_MIN, BACK_MIN, MATES = 0.35, 20.0, 40.0, 40.0, 1.0
    BESIDE, FAR = 0.3, 0.06
    LIKE = 3.0
    SIZED = 1.25
    AHEAD = 3

    def next(self) -> Thrown:
        """The cast with most bites for a minute."""
        fresh = np.array(
            [
                [self.place.tires ** self.lanes_of[c.setting, k] for k in range(self.place.lanes)]
                for c in self.casts
            ]
        )
        gains = (self._taken @ self.field) * fresh
        lanes = gains.argmax(axis=1)
        best_of = gains.max(axis=1)
        found = []
        for k, cast in enumerate(self.casts):
            change = change_between(self.before, cast, self.to_hand, self.place.lanes)
            extra = minutes_of(self.catalog, change)
            # A change is made for the next few casts too.
            minutes = cast.minutes + (extra / self.AHEAD if change == "rod" else extra)
            rate = best_of[k] / minutes
            if cast.sized and self.made[cast.setting] < 2:
                rate *= self.SIZED
            found.append((-round(float(rate), 9), cast.minutes, cast.count_s, k, change, extra))
        best = min(found)
        if self.before is None:
            mine = [
                f
                for f in found
                if self.casts[f[3]].sized and self.casts[f[3]].rig == self.opens.rig and f[0] <= 0.5 * best[0]
            ]
            if mine:
                best = mine[0]
        _, own, _, k, change, extra = best
        return Thrown(self.casts[k], int(lanes[k]), change, own + extra, float(best_of[k]))

    def tell(
        self,
        cast: Candidate,
        outcome: str,
        at_s: float | None = None,
        lane: int = 0,
        minute: float | None = None,
    ) -> None:
        """Take in a cast that was made."""
        row, lanes = OUTCOME[outcome], self.place.lanes
        taken = cast.taken(self.per_s).ravel() * self.place.tires ** self.lanes_of[cast.setting, lane]
        if row.cut_short and not row.bitten:
            taken = taken * self.catalog.search.reach.fouled_share
        share = np.full(lanes, self.HOLDS)
        share[lane] = 1.0
        if row.bitten:
            self._bite(cast, taken, at_s, lane, row.id)
        else:
            self.field = self.field * (1.0 - np.outer(taken, share))
        self.made[cast.setting] += 1
        self.lanes_of[cast.setting, lane] += 1
        now = self.minute + cast.minutes if minute is None else minute
        self._pass(max(0.0, now - self.minute))
        self.before, self.lane, self.minute, self.bitten = cast, lane, now, row.bitten

    def _bite(self, cast: Candidate, taken: Cells, at_s: float | None, lane: int, outcome: str) -> None:
        reach, lanes = self.catalog.search.reach, self.place.lanes
        weight = np.maximum(taken, 1e-9) * np.maximum(self.field[:, lane], 1e-12)
        if at_s is not None:
            middles = 0.5 * (self.edges_ft[1:] + self.edges_ft[:-1])
            off = middles - cast.depth_at(at_s)
            near = np.exp(-0.5 * (off / np.where(off > 0, reach.above_ft, reach.bitten_ft)) ** 2)
            weight = weight * np.outer(near, pace_counts(self.catalog, cast.pace_ft_s)).ravel()
        weight /= weight.sum()
        apart = np.abs(np.arange(lanes) - lane)
        kernel = np.where(apart == 0, 1.0, np.where(apart == 1, self.BESIDE, self.FAR))
        self.field = self.field + self.MATES * np.outer(weight, kernel)

    def _pass(self, minutes: float) -> None:
        """Minutes go by: fish change direction and depth, others come."""
        field, lanes = self.field, self.place.lanes
        if lanes > 1:
            a = min(0.5, minutes / self.LANE_MIN)
            moved = np.empty_like(field)
            moved[:, 1:-1] = 0.5 * (field[:, :-2] + field[:, 2:])
            moved[:, 0], moved[:, -1] = field[:, 1], field[:, -2]
            field = (1.0 - a) * field + a * moved
        b = min(0.5, minutes / self.DEPTH_MIN)
        cube = field.reshape(len(self.edges_ft) - 1, -1, lanes)
        up = np.concatenate([cube[:1], cube[:-1]])
        down = np.concatenate([cube[1:], cube[-1:]])
        field = ((1.0 - b) * cube + 0.5 * b * (up + down)).reshape(field.shape)
        c = min(1.0, minutes / self.BACK_MIN)
        self.field = field + c * (self.prior - field)
