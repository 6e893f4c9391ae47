"""Rates: by hand where one bin is all, shrunk where little is known, silent where nothing differs."""

from __future__ import annotations

import random

import pytest
from scipy.stats import gamma

from heathdrop.learning.rates import LEAST_SPREAD, Effort, Rate, clumped, rates_of


def test_one_bin_is_the_gamma_of_its_own_log() -> None:
    """Shape 1/0.25² and its rate about the whole, by hand, plus ten bites in five hours; then as wide as the
    whole is unsure."""
    (found,) = rates_of([Effort("light", "sunny", 60, 5.0, 10)])
    whole = 10.5 / 5.0
    prior = 1.0 / (LEAST_SPREAD**2 * whole)
    mean = (1.0 / LEAST_SPREAD**2 + 10) / (prior + 5.0)
    variance = mean / (prior + 5.0) + (prior / (prior + 5.0)) ** 2 * whole / 5.0
    shape, rate = mean**2 / variance, mean / variance
    assert found.per_hour == pytest.approx(mean)
    assert found.low == pytest.approx(gamma.ppf(0.1, shape, scale=1.0 / rate))
    assert found.high == pytest.approx(gamma.ppf(0.9, shape, scale=1.0 / rate))
    assert found.differs == 0


def test_little_effort_stays_near_the_whole() -> None:
    rows = rates_of([Effort("stop", "bay", 300, 20.0, 20), Effort("stop", "point", 2, 0.1, 1)])
    bay, point = rows
    assert abs(bay.per_hour - 1.0) < 0.2
    assert point.per_hour < 3.0  # and not ten
    assert point.high - point.low > bay.high - bay.low
    assert not any(r.differs for r in rows)


def test_a_great_difference_over_many_hours_is_told() -> None:
    good, bad = rates_of([Effort("light", "low", 300, 20.0, 60), Effort("light", "sunny", 300, 20.0, 4)])
    assert (good.differs, bad.differs) == (1, -1)
    assert good.low > bad.high


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


def test_bins_of_no_time_are_left_out() -> None:
    assert rates_of([Effort("light", "low", 0, 0.0, 0)]) == []


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
