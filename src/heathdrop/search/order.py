"""The next cast: most chance of a bite for a minute, the cost of changing included; then the order of casts.

With exponential detection and one angler, taking the best rate at each step is optimal where changes are free
(Stone 1975, ch. 4); where they cost, it is held against brute force in the tests.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.conditions.made import OUTCOMES
from heathdrop.search.belief import Belief, Cells, pace_of
from heathdrop.search.coverage import Candidate

__all__ = ["BITTEN", "OUTCOMES", "Answered", "Next", "order_of", "told_by", "tried"]
#: Answers that a fish gave, and answers of a cast that was cut short.
BITTEN, CUT_SHORT = ("bump", "fish", "short"), ("fouled", "hung", "ticked-top")


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


def told_by(catalog: Catalog, belief: Belief, per_s: float, answered: Answered) -> Belief:
    """The belief after an answer: no bite takes from what was covered, a bite puts it where it was."""
    cast, reach = answered.cast, catalog.search.reach
    if answered.outcome in BITTEN:
        bite = 1.0 - missed(per_s, cast.seconds)
        if answered.at_s is not None:
            off = belief.middles_ft - cast.depth_at(answered.at_s)
            # Fish come up to a lure more than down: the bell leans to below it.
            near = np.exp(-0.5 * (off / np.where(off > 0, reach.above_ft, reach.bitten_ft)) ** 2)
            pace = [reach.beside ** abs(k - pace_of(catalog, cast.pace_ft_s)) for k in range(3)]
            bite = np.maximum(bite, 1e-9) * np.outer(near, pace)
        return belief.times(bite)
    share = reach.fouled_share if answered.outcome in CUT_SHORT else 1.0
    return belief.times(missed(per_s, share * cast.seconds))


def change_between(before: Candidate | None, after: Candidate, to_hand: Sequence[str]) -> str:
    """What is changed from one cast to the next: none, count, pace, trailer, rod or retie. Before the first
    cast a rod to hand is simply picked up."""
    if before is None:
        return "none" if after.rig in to_hand else "retie"
    if before.rig == after.rig:
        if abs(before.pace_ft_s - after.pace_ft_s) > 0.05:
            return "pace"
        return "none" if abs(before.count_s - after.count_s) < 0.05 else "count"
    if after.rig in to_hand:
        return "rod"
    return "trailer" if before.head == after.head else "retie"


def minutes_of(catalog: Catalog, change: str) -> float:
    """Minutes that a change takes."""
    m = catalog.search.minutes
    return {"trailer": m.trailer_min, "rod": m.rod_min, "retie": m.retie_min}.get(change, 0.0)


def next_cast(
    catalog: Catalog,
    belief: Belief,
    per_s: float,
    casts: Sequence[Candidate],
    before: Candidate | None,
    to_hand: Sequence[str],
) -> tuple[Candidate, str, float, float]:
    """The cast with most chance of a bite for a minute: itself, the change, its minutes, the chance. Equal
    ones: the smaller change, the shorter count."""
    found = []
    for k, cast in enumerate(casts):
        change = change_between(before, cast, to_hand)
        minutes = cast.minutes + minutes_of(catalog, change)
        adds = float((belief.cells * (1.0 - missed(per_s, cast.seconds))).sum())
        found.append((-round(adds / minutes, 9), minutes, cast.count_s, k, change, adds))
    _, minutes, _, k, change, adds = min(found)
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
) -> tuple[Next, ...]:
    """The next ``limit`` casts if none of them is bitten; ``so_far`` is the chance of a bite by then. What
    was ``bitten`` just now is thrown again first."""
    left, found = 1.0, []
    for k in range(limit):
        mine = [before] if bitten and k == 0 and before is not None else casts
        cast, change, minutes, adds = next_cast(catalog, belief, per_s, mine, before, to_hand)
        found.append(Next(cast, change, minutes, left * adds, 1.0 - left * (1.0 - adds), belief))
        left *= 1.0 - adds
        belief = belief.times(missed(per_s, cast.seconds))
        before = cast
    return tuple(found)


def tried(belief: Belief, per_s: float, answered: Sequence[Answered]) -> float:
    """How much of the water has been tried: the chance that fish of the first belief would have bitten."""
    seconds = np.zeros_like(belief.cells)
    for one in answered:
        seconds = seconds + one.cast.seconds
    return max(0.0, float((belief.cells * (1.0 - missed(per_s, seconds))).sum()))
