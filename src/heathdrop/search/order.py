"""The next cast: most chance of a bite for a minute, the cost of changing included; then the order of casts.

With exponential detection and one angler, taking the best rate at each step is optimal where changes are free
(Stone 1975, ch. 4); where they cost, it is held against brute force in the tests.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import NamedTuple

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.search.belief import Belief, Cells, pace_counts
from heathdrop.search.coverage import Candidate

__all__ = ["Answered", "Next", "Opening", "Place", "nobody_after", "order_of", "told_by", "tried"]

#: Nothing was thrown yet.
NEVER: Mapping[Hashable, int] = MappingProxyType({})


@dataclass(frozen=True)
class Answered:
    """A cast that was made, what it came to, and the second after the splash at which it did."""

    cast: Candidate
    outcome: str
    at_s: float | None = None


@dataclass(frozen=True)
class Next:
    """A cast of the order: what changes from the one before, minutes with that change, the chance it adds and
    the chance of a bite by then."""

    cast: Candidate
    change: str
    minutes: float
    adds: float
    so_far: float
    belief: Belief = field(repr=False)


def missed(per_s: float, seconds: Cells) -> Cells:
    """Chance that fish in each cell let a cast of so many seconds pass."""
    return np.exp(-per_s * seconds)


@dataclass(frozen=True)
class Place:
    """A stop as it is thrown at: how many lanes its casts lie in, how much less the same cast in the same
    lane is worth each time (``tires``), how often a lane holds fish where the stop does (``holds``), for how
    many casts a rig is held to what it was sized for (``stays``; None: for as long as it pays), how often a
    stop holds nobody (``absent``)."""

    lanes: int = 1
    tires: float = 1.0
    holds: float = 0.0
    stays: int | None = None
    absent: float = 0.0

    @property
    def share(self) -> float:
        """The share of a stop's fish that one lane speaks for: its own, and as far as fish stand in several
        lanes at one depth those too."""
        return max(1.0 / self.lanes, self.holds)

    def held(self, cast: Candidate, before: int) -> bool:
        """Whether a cast that was made so often is one that its rig is held to."""
        return cast.sized and (self.stays is None or before < self.stays)

    def fresh(self, before: int) -> float:
        """How fresh a cast is that was made so often before, each time in another direction while there is
        one."""
        return float(self.tires ** (before // self.lanes))

    def passes(self, cast: Candidate, per_s: float, before: int = 0) -> Cells:
        """Chance that fish of each cell let a cast pass, made ``before`` times already: it covers one of the
        lanes."""
        missed: Cells = 1.0 - self.share * cast.taken(per_s, self.fresh(before))
        return missed


ONE_LANE = Place()


def told_by(
    catalog: Catalog,
    belief: Belief,
    per_s: float,
    answered: Answered,
    place: Place = ONE_LANE,
    before: int = 0,
) -> Belief:
    """The belief after an answer: no bite takes from what was covered, a bite puts it where it was."""
    cast, reach = answered.cast, catalog.search.reach
    if OUTCOME[answered.outcome].bitten:
        bite = cast.taken(per_s)
        if answered.at_s is not None:
            off = belief.middles_ft - cast.depth_at(answered.at_s)
            # Fish come up to a lure more than down: the bell leans to below it.
            near = np.exp(-0.5 * (off / np.where(off > 0, reach.above_ft, reach.bitten_ft)) ** 2)
            bite = np.maximum(bite, 1e-9) * np.outer(near, pace_counts(catalog, cast.pace_ft_s))
        return belief.times(bite)
    share = reach.fouled_share if OUTCOME[answered.outcome].cut_short else 1.0
    return belief.times(place.passes(cast, share * per_s, before))


def change_between(before: Candidate | None, after: Candidate, to_hand: Sequence[str], lanes: int = 1) -> str:
    """What is changed from one cast to the next: none, direction, count, pace, way, trailer, rod or retie.
    Before the first cast a rod to hand is simply picked up; where there are several ``lanes`` the same cast
    again goes in another direction."""
    if before is None:
        return "none" if after.rig in to_hand else "retie"
    if before.rig == after.rig:
        if before.cadence != after.cadence:
            return "way"
        if abs(before.pace_ft_s - after.pace_ft_s) > 0.05:
            return "pace"
        same = abs(before.count_s - after.count_s) < 0.05
        return ("direction" if lanes > 1 else "none") if same else "count"
    if after.rig in to_hand:
        return "rod"
    return "trailer" if before.head == after.head else "retie"


def minutes_of(catalog: Catalog, change: str) -> float:
    """Minutes that a change takes."""
    m = catalog.search.minutes
    takes = {"trailer": m.trailer_min, "rod": m.rod_min, "retie": m.retie_min}
    return takes.get(change, m.setting_min if change in ("count", "pace", "way") else 0.0)


class Opening(NamedTuple):
    """The rig (by its name) that a water is opened with as long as it earns this share of the best cast's
    rate (None: as the search's numbers have it)."""

    rig: str
    share: float | None = None


NO_OPENING = Opening("")


def next_cast(
    catalog: Catalog,
    belief: Belief,
    per_s: float,
    casts: Sequence[Candidate],
    before: Candidate | None,
    to_hand: Sequence[str],
    place: Place = ONE_LANE,
    thrown: Mapping[Hashable, int] = NEVER,
    opens: Opening = NO_OPENING,
) -> tuple[Candidate, str, float, float]:
    """The cast with most chance of a bite for a minute: itself, the change, its minutes, the chance. Equal
    ones: the smaller change, the shorter count. A rig is thrown as it was sized while nothing else earns
    clearly more; before the first cast the rig that ``opens`` is. ``thrown`` counts the casts made, by
    setting."""
    found, first = [], catalog.search.grid.sized_first
    for k, cast in enumerate(casts):
        change = change_between(before, cast, to_hand, place.lanes)
        minutes = cast.minutes + minutes_of(catalog, change)
        made = thrown.get(cast.setting, 0)
        adds = float((belief.cells * (1.0 - place.passes(cast, per_s, made))).sum())
        rate = adds / minutes * (first if place.held(cast, made) else 1.0)
        found.append((-round(rate, 9), minutes, cast.count_s, k, change, adds))
    best = min(found)
    if before is None:
        # A stop is opened with the rig, count and pace that plan and sheet name, unless clearly the worse.
        usual = catalog.search.grid.opens_from
        for rig, share in ((opens.rig, opens.share), (casts[best[3]].rig, None)):
            enough = (usual if share is None else share) * best[0]
            mine = [f for f in found if casts[f[3]].sized and casts[f[3]].rig == rig and f[0] <= enough]
            if mine:
                best = mine[0]
                break
    _, minutes, _, k, change, adds = best
    return casts[k], change, minutes, adds


def order_of(
    catalog: Catalog,
    belief: Belief,
    per_s: float,
    casts: Sequence[Candidate],
    before: Candidate | None,
    to_hand: Sequence[str],
    limit: int,
    bitten: bool = False,
    place: Place = ONE_LANE,
    thrown: Mapping[Hashable, int] = NEVER,
    nobody: float = 0.0,
    opens: Opening = NO_OPENING,
) -> tuple[Next, ...]:
    """The next ``limit`` casts if none of them is bitten; ``so_far`` is the chance of a bite by then,
    ``nobody`` the chance that no biting fish is here, ``opens`` the rig that the first cast is for as the
    plan has it. What was ``bitten`` just now is thrown again first,
    in the same lane."""
    left, found, counts, here = 1.0, [], Counter(dict(thrown)), 1.0 - nobody
    for k in range(limit):
        again = bitten and k == 0 and before is not None
        mine = [before] if again and before is not None else casts
        at = ONE_LANE if again else place
        cast, change, minutes, adds = next_cast(
            catalog,
            belief,
            per_s=per_s,
            casts=mine,
            before=before,
            to_hand=to_hand,
            place=at,
            thrown=counts,
            opens=opens,
        )
        found.append(
            Next(
                cast=cast,
                change=change,
                minutes=minutes,
                adds=here * left * adds,
                so_far=here * (1.0 - left * (1.0 - adds)),
                belief=belief,
            )
        )
        left *= 1.0 - adds
        belief = belief.times(at.passes(cast, per_s, counts[cast.setting]))
        counts[cast.setting] += 1
        before = cast
    return tuple(found)


def tried(belief: Belief, per_s: float, answered: Sequence[Answered], place: Place = ONE_LANE) -> float:
    """How much of the water has been tried: the chance that fish of the first belief would have bitten."""
    left, counts = np.ones_like(belief.cells), Counter[Hashable]()
    for one in answered:
        left = left * place.passes(one.cast, per_s, counts[one.cast.setting])
        counts[one.cast.setting] += 1
    return max(0.0, float((belief.cells * (1.0 - left)).sum()))


def nobody_after(
    belief: Belief,
    per_s: float,
    answered: Sequence[Answered],
    place: Place = ONE_LANE,
) -> float:
    """Chance that no biting fish is here, after the answers: a cast that nothing takes speaks for it as far
    as fish that are here would have taken it; a bite rules it out (Bayes)."""
    if any(OUTCOME[one.outcome].bitten for one in answered):
        return 0.0
    seen = tried(belief, per_s, answered, place)
    return place.absent / (place.absent + (1.0 - place.absent) * (1.0 - seen))
