"""The hunt at a stop: where bites are to be had, by depth, pace and direction, as the casts tell it.

What is kept is an intensity of fish (a Poisson field) over slices of depth, paces and directions. A cast that
nothing takes thins it where the cast went, and less in the other directions, for fish share a depth. A bite
raises it around itself: where one was there are mates. Minutes blur it and bring it back toward what it was,
for fish move and others come. The next cast is the one with most bites for its minutes (Stone, Theory of
Optimal Search, 1975, ch. 4: the greedy rate), the price of taking up a rod shared by the next few casts.
"""

import copy
from collections import Counter
from collections.abc import Hashable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.search.belief import Belief, pace_counts
from heathdrop.search.coverage import Candidate
from heathdrop.search.order import NO_OPENING, ONE_LANE, Next, Opening, Place, change_between, minutes_of

Floats = NDArray[np.float64]
#: What no cast reaches still counts for this much when a bite is placed.
LEAST_CHANCE = 1e-9


@dataclass(frozen=True)
class Throw:
    """A cast to make: which, in which direction (lane), what changes for it, its minutes with that, and the
    chance that it is bitten, somebody being home."""

    cast: Candidate
    lane: int
    change: str
    minutes: float
    adds: float


@dataclass(frozen=True)
class Elsewhere:
    """What a family came to at the day's other stops: casts, and how many were bitten."""

    family: str
    casts: int
    bites: int


class Hunt:
    """What is believed of a stop, and what was thrown there.

    ``casts`` are those to choose from, of the rigs ``to_hand`` (by name); ``per_s`` is the chance a second
    that fish within reach bite, ``opens`` the rig that the first cast is for as the plan has it,
    ``elsewhere`` what bit at the day's other stops.
    """

    def __init__(
        self,
        catalog: Catalog,
        belief: Belief,
        per_s: float,
        casts: Sequence[Candidate],
        to_hand: Sequence[str],
        place: Place = ONE_LANE,
        opens: Opening = NO_OPENING,
        elsewhere: Sequence[Elsewhere] = (),
    ) -> None:
        self.catalog, self.per_s, self.place, self.opens = catalog, per_s, place, opens
        self.casts, self.to_hand, self.edges_ft = list(casts), list(to_hand), belief.edges_ft
        self.prior: Floats = np.repeat(belief.cells.ravel()[:, None], place.lanes, axis=1) / place.lanes
        self.field = self.prior.copy()
        self.made: Counter[Hashable] = Counter()
        self.bites: dict[str, float] = {}
        self.looked_for: dict[str, float] = {}
        self._carry_over(elsewhere)
        self.before: Candidate | None = None
        self.lane, self.again, self.bitten = 0, 0, False
        self._told = np.array([c.taken(per_s).ravel() for c in casts])
        self._looked = np.array([self._chance(c) for c in casts])
        self._minutes = np.array([c.minutes for c in casts])
        self._counts = np.array([c.count_s for c in casts])
        self._fresh = np.ones((len(casts), place.lanes))

    @property
    def belief(self) -> Belief:
        """Where the fish are thought to be now, whatever the direction."""
        cells = self.field.sum(axis=1)
        return Belief(self.edges_ft, (cells / cells.sum()).reshape(len(self.edges_ft) - 1, -1))

    def next(self, only: str = "", without: str = "") -> Throw:
        """The cast with most bites for a minute, of all, with ``only`` one rig or ``without`` one. Equal
        ones: the shorter, then the shorter count. Raises ValueError where there is none."""
        numbers = self.catalog.search.hunt
        allowed = np.array([c.rig != without and (not only or c.rig == only) for c in self.casts])
        gains = (self._looked @ self.field) * self._fresh * self._liking()[:, None]
        lanes = gains.argmax(axis=1)
        changes = [change_between(self.before, c, self.to_hand, self.place.lanes) for c in self.casts]
        extra = np.array([minutes_of(self.catalog, change) for change in changes])
        shared = np.where([change == "rod" for change in changes], numbers.rod_for, 1.0)
        rate = gains.max(axis=1) / (self._minutes + extra / shared)
        in_hand = self.before.rig if self.before is not None else ""
        held = [
            c.sized and c.rig == (in_hand or c.rig) and self.made[c.setting] < numbers.sized_for
            for c in self.casts
        ]
        rate = np.where(held, self.catalog.search.grid.sized_first, 1.0) * rate
        if self.again and self.before in self.casts and allowed[self.casts.index(self.before)]:
            return self._throw(self.casts.index(self.before), self.lane, "none", 0.0)
        order = np.lexsort((self._counts, self._minutes, -np.round(rate, 9)))
        best = int(next(k for k in order if allowed[k]))
        if self.before is None:
            best = self._opened(rate, allowed, best)
        lane = int(lanes[best])
        return self._throw(best, lane, self._direction(changes[best], lane), float(extra[best]))

    def _throw(self, k: int, lane: int, change: str, extra_min: float) -> Throw:
        """A cast in a direction, with the chance that it is bitten: fish stand in several directions."""
        cast, home = self.casts[k], max(1.0, self.place.holds * self.place.lanes)
        adds = home * float(self._told[k] @ self.field[:, lane]) * self._tired(cast, lane)
        return Throw(cast, lane, change, cast.minutes + extra_min, min(1.0, adds))

    def tell(self, cast: Candidate, outcome: str, at_s: float | None = None, lane: int | None = None) -> None:
        """Take in a cast that was made, and what it came to (at a second after the splash, where it is
        known); where the direction is not said it is the one that was asked for."""
        lane = self.lane_for(cast) if lane is None else lane
        row, looked = OUTCOME[outcome], self._chance(cast) * self._tired(cast, lane)
        self.looked_for[cast.family] = self.looked_for.get(cast.family, 0.0) + float(
            looked @ self.field[:, lane]
        )
        if row.bitten:
            self.bites[cast.family] = self.bites.get(cast.family, 0.0) + 1.0
            self._bite(cast, looked, at_s, lane)
        else:
            whole = self.catalog.search.reach.fouled_share if row.cut_short else 1.0
            speaks = np.full(self.place.lanes, self.catalog.search.hunt.shared_depth)
            speaks[lane] = 1.0
            self.field = self.field * (1.0 - np.outer(whole * looked, speaks))
        self.made.update([cast.setting, (cast.setting, lane), (cast.rig, lane)])
        for k, one in enumerate(self.casts):
            if one.rig == cast.rig:
                self._fresh[k, lane] = self._tired(one, lane)
        self._pass(cast.minutes)
        # What bit is thrown again in the same direction until it was let pass so often.
        self.again = self.catalog.search.hunt.again if row.bitten else max(0, self.again - 1)
        self.before, self.lane, self.bitten = cast, lane, row.bitten

    def lane_for(self, cast: Candidate) -> int:
        """The direction that a cast is best thrown in now."""
        gains = self._chance(cast) @ self.field
        return int(np.argmax([g * self._tired(cast, k) for k, g in enumerate(gains)]))

    def copy(self) -> "Hunt":
        """The hunt as it stands, to look ahead with."""
        twin = copy.copy(self)
        twin.made, twin.bites = self.made.copy(), self.bites.copy()
        twin.looked_for, twin._fresh = self.looked_for.copy(), self._fresh.copy()
        return twin

    def ahead(self, limit: int, nobody: float = 0.0, only: str = "", without: str = "") -> tuple[Next, ...]:
        """The next ``limit`` casts while nothing bites, with ``only`` one rig or ``without`` one;
        ``so_far`` is the chance of a bite by then, ``nobody`` the chance that no biting fish is here."""
        hunt, here, left, ahead = self.copy(), 1.0 - nobody, 1.0, []
        for _ in range(limit):
            belief, throw = hunt.belief, hunt.next(only, without)
            # What is left of fish that are here is somewhere here.
            bitten = min(1.0, throw.adds / min(1.0, float(hunt.field.sum())))
            adds, left = here * left * bitten, left * (1.0 - bitten)
            ahead.append(
                Next(
                    cast=throw.cast,
                    change=throw.change,
                    minutes=throw.minutes,
                    adds=adds,
                    so_far=here * (1.0 - left),
                    belief=belief,
                    turned=hunt.before is not None and throw.lane != hunt.lane,
                )
            )
            hunt.tell(throw.cast, "nothing", lane=throw.lane)
        return tuple(ahead)

    def _carry_over(self, elsewhere: Sequence[Elsewhere]) -> None:
        """What bit elsewhere today is liked a little here too: families against the day's own rate."""
        casts, weak = sum(e.casts for e in elsewhere), self.catalog.search.hunt.carries_over
        each = sum(e.bites for e in elsewhere) / casts if casts else 0.0
        for e in elsewhere:
            self.bites[e.family], self.looked_for[e.family] = weak * e.bites, weak * each * e.casts

    def _opened(self, rate: Floats, allowed: NDArray[np.bool_], best: int) -> int:
        """The first cast: the plan's rig as it is sized, else the best rig so, unless clearly the worse."""
        usual = self.catalog.search.grid.opens_from
        for rig, share in ((self.opens.rig, self.opens.share), (self.casts[best].rig, None)):
            least = (usual if share is None else share) * rate[best]
            for k, cast in enumerate(self.casts):
                if allowed[k] and cast.sized and cast.rig == rig and rate[k] >= least:
                    return k
        return best

    def _direction(self, change: str, lane: int) -> str:
        """What changes, with the direction: the same cast again in the same lane is no change."""
        return "none" if change == "direction" and lane == self.lane else change

    def _chance(self, cast: Candidate) -> Floats:
        """Chance of each cell to take a cast, as it is looked for: what lets a cast pass is not there, and
        what suits is only half known, so that rods are tried that suit less."""
        hunt = self.catalog.search.hunt
        rate = hunt.shows * self.per_s * cast.suit**hunt.suit_known * cast.cut
        chance: Floats = cast.gets_in * (1.0 - np.exp(-rate * cast.seconds)).ravel()
        return chance

    def _tired(self, cast: Candidate, lane: int) -> float:
        """What is left of a cast where its like was thrown before: the same setting, the same rig."""
        again = self.place.tires ** self.made[cast.setting, lane]
        return float(again * self.catalog.search.hunt.same_rig ** self.made[cast.rig, lane])

    def _liking(self) -> Floats:
        """How today's fish like each family: bites for those that were looked for (a Gamma prior about 1)."""
        prior = self.catalog.search.hunt.liking_bites
        like = {f: (prior + self.bites.get(f, 0.0)) / (prior + n) for f, n in self.looked_for.items()}
        return np.array([like.get(c.family, 1.0) for c in self.casts])

    def _bite(self, cast: Candidate, looked: Floats, at_s: float | None, lane: int) -> None:
        """Raise the field around a bite, by the mates that a fish has."""
        reach, hunt = self.catalog.search.reach, self.catalog.search.hunt
        where = np.maximum(looked, LEAST_CHANCE) * np.maximum(self.field[:, lane], LEAST_CHANCE)
        if at_s is not None:
            middles = 0.5 * (self.edges_ft[1:] + self.edges_ft[:-1])
            off = middles - cast.depth_at(at_s)
            # Fish come up to a lure more than down: the bell leans to below it.
            near = np.exp(-0.5 * (off / np.where(off > 0, reach.above_ft, reach.bitten_ft)) ** 2)
            where = where * np.outer(near, pace_counts(self.catalog, cast.pace_ft_s)).ravel()
        apart = np.abs(np.arange(self.place.lanes) - lane)
        beside = np.where(apart == 0, 1.0, np.where(apart == 1, hunt.beside, hunt.elsewhere))
        self.field = self.field + hunt.mates * np.outer(where / where.sum(), beside)

    def _pass(self, minutes: float) -> None:
        """Minutes go by: fish change direction and depth, and the stop becomes what it was."""
        hunt = self.catalog.search.hunt
        slices = len(self.edges_ft) - 1
        field = _blurred(self.field, minutes / hunt.lane_min, axis=1)
        field = _blurred(field.reshape(slices, -1), minutes / hunt.depth_min, axis=0).reshape(field.shape)
        self.field = field + min(1.0, minutes / hunt.back_min) * (self.prior - field)


def _blurred(field: Floats, share: float, axis: int) -> Floats:
    """The field with a share of each place moved to the places beside it, half either way."""
    share = min(0.5, share)
    first, last = np.take(field, [0], axis), np.take(field, [-1], axis)
    padded = np.concatenate([first, field, last], axis)
    n = field.shape[axis]
    beside = np.take(padded, range(n), axis) + np.take(padded, range(2, n + 2), axis)
    blurred: Floats = (1.0 - share) * field + 0.5 * share * beside
    return blurred
