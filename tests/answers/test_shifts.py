"""One's own fish, on logs whose truth is known."""

from __future__ import annotations

import math
import random

import numpy as np
import pytest

from heathdrop.answers.lessons import minutes_of
from heathdrop.answers.shifts import DOUBT, Shift, _likely, _shift, shifts_of, tabled, visits_of
from heathdrop.answers.thrown import run_of
from heathdrop.answers.trials import setting_at, water_of_cast
from heathdrop.catalog import Catalog
from heathdrop.conditions.made import MadeCast
from heathdrop.learning.visits import Likely
from heathdrop.sizing.known import TRAIT
from heathdrop.sizing.setting import mood_paces
from tests.answers.logged import HEADS, cast, fished

LIKINGS = ("head weight", "pace", "fall rate")


def shifts(made: list[MadeCast]) -> dict[str, Shift]:
    """The shifts of a log by what they are of."""
    return {s.what: s for s in shifts_of(made, minutes_of(made), [run_of(c) for c in made], 400)}


@pytest.mark.slow
def test_ones_own_fish_shift_only_where_they_do() -> None:
    rng, held, claims = random.Random(5), 0, 0
    middle = 0.375
    for _ in range(40):
        heads = shifts(fished(rng, 200, middle * 0.7, HEADS))["head weight"]
        held += heads.high < 1.05
        same = shifts(fished(rng, 200, 0.42, HEADS))["head weight"]
        claims += same.low > 1.15 or same.high < 0.85
    assert held >= 30
    assert claims <= 2


def test_days_and_stops_that_differ_speak_for_no_liking() -> None:
    """A light head thrown on good days alone, a heavy one on bad ones: confounded, so nothing is said."""
    good = [cast(k, "fish" if k % 3 == 0 else "nothing", head_oz=0.25) for k in range(60)]
    bad = [cast(3000 + k, head_oz=0.5, stop="Point") for k in range(60)]
    found = shifts([*good, *bad])
    assert not any(found[what].told for what in LIKINGS if what in found)


@pytest.mark.slow
def test_fish_that_do_not_mind_want_no_shift() -> None:
    """Bites regardless of the head, whatever heads were thrown: no other weight is said to be wanted."""
    rng, told = random.Random(8), 0
    for _ in range(30):
        made = [
            cast(k, "fish" if rng.random() < 0.3 else "nothing", head_oz=rng.choice(HEADS))
            for k in range(150)
        ]
        told += any(s.told for what, s in shifts(made).items() if what in LIKINGS)
    assert told <= 1


def test_fish_that_like_a_slower_pace_say_so() -> None:
    """Bites at slow paces alone, with heads by turns: the pace's shift is under 1, the head's is not told."""
    rng = random.Random(3)
    plain = cast(0)
    water = water_of_cast(plain)
    assert water is not None
    middle = math.sqrt(math.prod(mood_paces(setting_at(water))))
    made = []
    for k in range(240):
        pace = rng.choice((0.6, 0.8, 1.0, 1.25)) * middle
        likes = math.exp(-0.5 * (math.log(pace / middle / 0.65) / 0.3) ** 2)
        bit = "fish" if rng.random() < 0.4 * likes else "nothing"
        made.append(cast(k, bit, head_oz=rng.choice(HEADS), pace_ft_s=pace))
    found = shifts(made)
    assert found["pace"].high < 0.95
    assert found["pace"].told
    assert not found["head weight"].told
    assert "fall rate" not in found  # nothing of it was worked on the floor


def test_few_bites_teach_nothing() -> None:
    made = [cast(k, "fish" if k < 4 else "nothing") for k in range(80)]
    assert shifts(made) == {}


def test_a_posterior_is_told_by_its_trait() -> None:
    """Factors as their logs, steps and shares as they are; told only where the other sign is unlikely."""
    grid = np.linspace(-1.0, 1.0, 41)
    slower = _likely(grid, -0.5 * ((grid + 0.3) / 0.08) ** 2)
    found = _shift(TRAIT["pace"], slower, 90)
    assert (found.unit, found.table, found.casts) == ("factor", 1.0, 90)
    assert found.value == pytest.approx(math.exp(-0.3), rel=1e-3)
    assert found.low < found.value < found.high < 1.0
    assert found.told
    unsure = _shift(TRAIT["mood in cold water"], _likely(grid, -0.5 * ((grid - 0.3) / 0.3) ** 2), 90)
    assert (unsure.unit, unsure.table, unsure.told) == ("steps", 0.0, False)
    assert slower.below(0.0) > 1.0 - DOUBT
    empty = _shift(TRAIT["empty stops"], Likely(np.array([0.1, 0.2, 0.3]), np.array([0.2, 0.6, 0.2])), 9)
    assert (empty.value, empty.table, empty.told) == (pytest.approx(0.2), tabled("empty stops"), True)


def test_visits_are_the_stops_of_days(cat: Catalog) -> None:
    """Casts of a stop on a day are one visit; the same cast again is less fresh by the lane."""
    made = [cast(k) for k in range(20)] + [cast(5000 + k, "fish", stop="Point") for k in range(3)]
    found, spoke = visits_of(made, [run_of(c) for c in made])
    assert [len(v.bites) for v in found] == [20, 3]
    assert [v.bites.sum() for v in found] == [0.0, 3.0]
    assert found[0].before.tolist() == sorted(found[0].before.tolist())
    assert found[0].before[-1] >= 2.0
    assert (spoke["bites"], spoke["cold"] + spoke["warm"]) == (23, 23)
    assert np.all(found[0].expected > 0.0)
    assert visits_of(made, [None] * len(made)) == ([], dict.fromkeys(spoke, 0))
    assert tabled("empty stops") == cat.search.place.absent
    assert (tabled("pace"), tabled("mood in cold water")) == (1.0, 0.0)
