"""Which test the others contradict, what another would be worth, and what a fall says of a retrieve."""

import math
from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.learning.checks import ran_at_m
from heathdrop.learning.drops import predicted_s
from heathdrop.learning.observations import DepthCheck, DropTest
from heathdrop.learning.worth import (
    LEAST_M,
    MOST_M,
    another_worth,
    odd_depths,
    odd_drops,
)
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import rig_by_name, spread_of
from tests.golden_file import holds_to
from tests.learning.seen import depths, drops


@pytest.fixture
def like(cat: Catalog) -> DropTest:
    rig = rig_by_name(cat, "swim-jig", 0.375, "craw")
    return DropTest(rig, line_by_test(cat, "fluorocarbon", 15), "fluorocarbon", 3.0, (5.0,))


def timed(cat: Catalog, like: DropTest, depth_m: float, factor: float, seed: int) -> DropTest:
    """Three tries by a 5 % hand where body and trailer have this factor on their areas."""
    at = replace(like, depth_m=depth_m)
    seconds = predicted_s(cat, at, factor, factor, 1.0)
    noise = np.random.default_rng(seed).lognormal(0.0, 0.05, 3)
    return replace(at, times_s=tuple(float(seconds * n) for n in noise))


def test_a_test_that_the_others_contradict_is_named_with_what_they_expect(
    cat: Catalog, like: DropTest
) -> None:
    good = [timed(cat, like, d, 1.2, k) for k, d in enumerate((3.0, 6.0, 2.0, 4.0))]
    assert odd_drops(cat, good) == [None] * 4
    bad = replace(good[1], times_s=tuple(1.6 * t for t in good[1].times_s))
    found = odd_drops(cat, [*good, bad])
    assert found[:4] == [None] * 4
    odd = found[4]
    assert odd is not None
    assert odd.low < float(np.median(good[1].times_s)) < odd.high < odd.seen
    assert odd.seen == pytest.approx(float(np.median(bad.times_s)))


def test_a_test_alone_or_of_another_rig_contradicts_nothing(cat: Catalog, like: DropTest) -> None:
    slow = replace(like, times_s=(12.0, 12.2))
    other = replace(like, rig=rig_by_name(cat, "spinnerbait", 0.5, "twin-tail"), times_s=(3.0,))
    assert odd_drops(cat, [slow]) == [None]
    assert odd_drops(cat, [slow, other]) == [None, None]


@pytest.mark.slow
def test_depth_checks_that_contradict_one_another(cat: Catalog, like: DropTest) -> None:
    plain = DepthCheck(like.rig, like.line, 0.6, 4.0, 25.0, 1.0)
    ran = ran_at_m(cat, plain, 1.0)
    good = [replace(plain, depth_m=ran * s) for s in (0.97, 1.0, 1.04)]
    assert odd_depths(cat, good) == [None] * 3
    found = odd_depths(cat, [*good, replace(plain, depth_m=2.6 * ran)])
    assert found[:3] == [None] * 3
    assert found[3] is not None
    assert found[3].low < ran < found[3].high < found[3].seen == pytest.approx(2.6 * ran)


@pytest.mark.slow
def test_another_test_is_worth_less_the_more_there_are_until_it_is_not_asked_for(
    cat: Catalog, like: DropTest
) -> None:
    tests: list[DropTest] = []
    bands, asked = [], []
    for k in range(8):
        worth = another_worth(cat, tests, like)
        assert worth.then <= worth.now
        assert LEAST_M <= worth.depth_m <= MOST_M
        bands.append(worth.now)
        asked.append(worth.asked)
        tests.append(timed(cat, like, (3.0, 6.0, 2.0)[k % 3], 1.2, k))
    prior = spread_of(cat, like.rig, like.temperature_f).fall
    assert bands[0] == pytest.approx(math.exp(1.645 * 0.5 * prior) - 1.0)
    assert all(b < a + 0.01 for a, b in zip(bands, bands[1:], strict=False))
    assert asked[0]
    assert not all(asked)


@pytest.mark.slow
def test_what_is_promised_is_what_comes(cat: Catalog, like: DropTest) -> None:
    """The band after a real test is near what was expected of it."""
    promised, came = [], []
    for seed in range(12):
        first = [timed(cat, like, 3.0, 1.1, seed)]
        at = another_worth(cat, first, like)
        after = another_worth(cat, [*first, timed(cat, like, at.depth_m, 1.1, 50 + seed)], like)
        promised.append(at.then)
        came.append(after.now)
    assert np.mean(came) == pytest.approx(np.mean(promised), rel=0.12)


@pytest.mark.slow
def test_oddness_and_worth_to_the_digit(cat: Catalog) -> None:
    """Drops and depths that contradict one another, and what one more would be worth after some, or none."""
    seen, ran = drops(cat), depths(cat)
    slow = replace(seen[0], times_s=tuple(2.1 * t for t in seen[0].times_s))
    high = [replace(c, depth_m=0.3) for c in ran[:1]]
    holds_to(
        "learning.worth",
        {
            "drops": odd_drops(cat, [*seen, slow]),
            "depths": odd_depths(cat, [*ran, *high]),
            "another": [another_worth(cat, seen[:n], seen[0]) for n in (0, 1, 3, 6)],
            "here": another_worth(cat, seen[:3], seen[4], (1.0,)),
            "stranger": another_worth(cat, seen[:5], seen[5]),
        },
        tolerance=1e-5,
    )
