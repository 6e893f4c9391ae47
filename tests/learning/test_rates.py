"""Rates and visits: by hand where one bin is all, silent where nothing differs."""

import math
import random

import numpy as np
import pytest

from heathdrop.learning.rates import Effort, Rate, clumped, rates_of
from heathdrop.learning.visits import ABSENT, RATE, STEPS, TIRES, Visit, bites_told


def _log(rng: random.Random, spread: float = 0.0) -> list[Effort]:
    """A log of 250 casts in six hours or so, looked at in six ways of four bins; no effect, or one."""
    found = []
    for by in range(6):
        bins: dict[int, list[float]] = {}
        for _ in range(250):
            at = rng.randrange(4)
            bins.setdefault(at, []).append(0.025)
        for at, hours in sorted(bins.items()):
            rate = 2.0 * (1.0 + spread * (at == 0 and by == 0))
            bites = sum(rng.random() < rate * h for h in hours)
            found.append(Effort(f"way {by}", f"bin {at}", len(hours), sum(hours), bites))
    return found


@pytest.mark.slow
def test_where_nothing_differs_hardly_a_log_claims_that_it_does() -> None:
    rng = random.Random(11)
    claims = sum(any(r.differs for r in rates_of(_log(rng))) for _ in range(300))
    assert claims <= 15  # 5 % of logs


def test_the_interval_holds_the_truth_as_often_as_it_says() -> None:
    rng = random.Random(12)
    held: list[bool] = []

    def holds(r: Rate) -> bool:
        return r.low <= 2.0 <= r.high

    for _ in range(100):
        held += [holds(r) for r in rates_of(_log(rng))]
    assert 0.75 <= sum(held) / len(held) <= 1.0


#: Bites a second by mood, and what the tables say of empty stops and tiring.
PER_S, EMPTY, AGAIN = (0.003, 0.008, 0.015, 0.025, 0.035), 0.5, 0.75


def visit(bites: int, casts: int = 20, mood: float = 2.0, cold: float = 0.0, each: float = 0.1) -> Visit:
    """A visit of so many casts, the first so many of them bitten, no cast the same as another."""
    bit = np.array([1.0] * bites + [0.0] * (casts - bites))
    return Visit(mood, cold, np.full(casts, each), np.zeros(casts), bit)


def log(seed: int, visits: int, bites: float) -> list[Visit]:
    """Visits of fish that bite so much more often than tabled, and are there and tire as tabled."""
    rng, made = np.random.default_rng(seed), []
    for _ in range(visits):
        before = np.arange(20) // 4
        rate = bites * 0.15 * AGAIN**before * math.exp(0.5 * rng.standard_normal())
        home = rng.random() >= EMPTY
        bit = rng.random(20) < np.minimum(0.9, rate * home)
        made.append(Visit(2.0, 0.0, np.full(20, 0.15), before.astype(float), bit.astype(float)))
    return made


def test_nothing_seen_tells_nothing() -> None:
    assert bites_told([], PER_S, EMPTY, AGAIN) == {}
    found = bites_told([visit(1, casts=2, each=0.01)], PER_S, EMPTY, AGAIN)
    assert found["cold"].mean == pytest.approx(0.0, abs=1e-6)  # nobody fished in cold water
    assert found["bites"].below(0.0) > 0.05
    assert {k: v.chance.sum() for k, v in found.items()} == pytest.approx(dict.fromkeys(found, 1.0))
    assert [len(found[k].values) for k in ("bites", "cold", "absent", "tires")] == [
        len(RATE),
        len(STEPS),
        len(ABSENT),
        len(TIRES),
    ]


@pytest.mark.slow
def test_more_bites_than_the_tables_say_are_a_higher_rate() -> None:
    """Twice, as tabled and half: the median of each log's posterior is nearest its own."""
    medians = [
        np.median([bites_told(log(s, 30, bites=k), PER_S, EMPTY, AGAIN)["bites"].mean for s in range(3)])
        for k in (0.5, 1.0, 2.0)
    ]
    assert medians[0] < -0.25 < medians[1] < 0.3 < medians[2]


def test_bites_that_clump_count_for_less() -> None:
    """Pearson by hand: four hours of four stops, 8, 0, 0 and 0 bites, two expected of each."""
    assert clumped([1.0] * 4, [8, 0, 0, 0]) == pytest.approx((36 + 4 + 4 + 4) / 2 / 3)
    assert clumped([1.0] * 4, [2, 2, 2, 2]) == 1.0
    assert clumped([1.0, 1.0], [9, 0]) == 1.0  # two stops say nothing of how bites clump
    assert clumped([], []) == 1.0
    good = [Effort("light", "low", 300, 20.0, 60), Effort("light", "sunny", 300, 20.0, 30)]
    even, lumpy = rates_of(good), rates_of(good, 8.0)
    assert [r.differs for r in even] == [0, -1]
    assert [r.differs for r in lumpy] == [0, 0]
    assert lumpy[0].high - lumpy[0].low > even[0].high - even[0].low


def test_blank_visits_among_good_ones_are_empty_stops() -> None:
    """The same bites in all at half as many stops: somebody was home at those alone."""
    often = bites_told([visit(2) for _ in range(20)], PER_S, EMPTY, AGAIN)["absent"].mean
    seldom = bites_told([visit(4 * (k % 2)) for k in range(20)], PER_S, EMPTY, AGAIN)["absent"].mean
    assert often < 0.25 < 0.4 < seldom


def test_bites_on_first_casts_alone_are_tiring() -> None:
    before = np.arange(20) // 4
    early = [Visit(2.0, 0.0, np.full(20, 0.1), before.astype(float), (before == 0) * 1.0) for _ in range(10)]
    late = [Visit(2.0, 0.0, np.full(20, 0.1), before.astype(float), (before == 4) * 1.0) for _ in range(10)]
    sooner, less = (bites_told(v, PER_S, EMPTY, AGAIN)["tires"].mean for v in (early, late))
    assert sooner < 0.65 < 0.8 < less


def test_bites_in_cold_water_alone_are_a_livelier_mood_there() -> None:
    """Warm visits as tabled, cold ones with three times the bites: cold fish are livelier than tabled, and
    warm ones are not."""
    made = [visit(1, mood=2.0) for _ in range(25)] + [visit(6, mood=1.0, cold=1.0) for _ in range(25)]
    found = bites_told(made, PER_S, EMPTY, AGAIN)
    assert found["cold"].mean > 0.4 > 0.0 > found["warm"].mean
