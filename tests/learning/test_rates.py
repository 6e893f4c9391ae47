"""Rates and visits: by hand where one bin is all, silent where nothing differs."""

import math
import random

import numpy as np
import pytest
from scipy.stats import gamma

from heathdrop.learning.rates import LEAST_SPREAD, Effort, Rate, rates_of
from heathdrop.learning.visits import ABSENT, RATE, STEPS, TIRES, Visit, bites_told


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
