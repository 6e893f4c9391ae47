"""What a stop's casts are held against: its lanes, what changes between two casts, how much was tried.

The order itself is the hunt's (:mod:`heathdrop.search.hunt`).
"""

from collections import Counter
from collections.abc import Hashable, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.search.belief import Belief, Cells
from heathdrop.search.coverage import Candidate


@dataclass(frozen=True)
class Answered:
    """A cast that was made, what it came to, and the second after the splash at which it did."""

    cast: Candidate
    outcome: str
    at_s: float | None = None


@dataclass(frozen=True)
class Next:
    """A cast of the order: what changes from the one before, minutes with that change, the chance it adds and
    the chance of a bite by then; ``turned``: it goes in another direction than the one before."""

    cast: Candidate
    change: str
    minutes: float
    adds: float
    so_far: float
    belief: Belief = field(repr=False)
    turned: bool = False


@dataclass(frozen=True)
class Place:
    """A stop as it is thrown at: how many lanes its casts lie in, how much less the same cast in the same
    lane is worth each time (``tires``), how often a lane holds fish where the stop does (``holds``), how
    often a stop holds nobody (``absent``)."""

    lanes: int = 1
    tires: float = 1.0
    holds: float = 0.0
    absent: float = 0.0

    @property
    def share(self) -> float:
        """The share of a stop's fish that one lane speaks for: its own, and as far as fish stand in several
        lanes at one depth those too."""
        return max(1.0 / self.lanes, self.holds)

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
