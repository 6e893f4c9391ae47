"""Lessons of a log: effort by the clock, what is counted in which way, silence where due."""

from __future__ import annotations

import pytest

from heathdrop.answers.lessons import LONGEST_MIN, USUAL_MIN, efforts_of, lessons_of, minutes_of
from heathdrop.answers.lessons import _clumped as clumped_of
from heathdrop.answers.shifts import shifts_of
from heathdrop.answers.thrown import run_of
from heathdrop.conditions.scenario import Scenario
from heathdrop.learning.rates import clumped
from tests.answers.logged import cast
from tests.waters import GRASS


def test_a_cast_takes_what_the_clock_says_within_reason() -> None:
    made = [cast(0), cast(1), cast(31), cast(32, stop="Point"), cast(33, stop="Point")]
    assert minutes_of(made) == [1.0, LONGEST_MIN, USUAL_MIN, 1.0, USUAL_MIN]


def test_efforts_are_counted_in_every_way_that_is_known() -> None:
    made = [cast(0, "fish"), cast(1), cast(2, conditions=None, work="twitch")]
    found = {(e.by, e.bin): (e.casts, e.bites) for e in efforts_of(made, minutes_of(made))}
    assert found["temperature", "55 to 60 °F"] == (2, 1)
    assert found["visibility", "4 to 8 ft"] == (2, 1)
    assert found["cover", "submerged grass"] == (2, 1)
    assert found["head", "3/8 oz"] == (3, 1)
    assert found["working", "twitch"] == (1, 0)
    assert found["hour", "6 to 9 h"] == (3, 1)


def test_efforts_are_counted_by_how_each_cast_ran() -> None:
    made = [cast(0, "fish", countdown_s=1.0), cast(1, countdown_s=4.0), cast(2, trailer="pin-tail")]
    bins = [(e.by, e.bin, e.casts) for e in efforts_of(made, minutes_of(made), [run_of(c) for c in made])]
    assert {"height over the bottom", "way", "bulk"} <= {by for by, _, _ in bins}
    assert ("bulk", "slim", 1) in bins
    assert ("bulk", "bulky", 2) in bins
    heights = [(b, n) for by, b, n in bins if by == "height over the bottom"]
    assert sum(n for _, n in heights) == 3
    assert all(b.endswith(" ft") for b, _ in heights)


def test_an_empty_log_teaches_nothing() -> None:
    found = lessons_of([], Scenario(GRASS))
    assert (found.casts, found.bites) == (0, 0)
    assert found.like_today == found.rates == found.schools == found.own == ()


@pytest.mark.parametrize("conditions", [{"water_temp_f": "warm"}, {"water_temp_f": 400}, {}])
def test_water_that_is_not_known_whole_is_passed_over(conditions: dict[str, object]) -> None:
    made = [cast(k, "fish", conditions=conditions) for k in range(6)]
    assert shifts_of(made, minutes_of(made), [None] * len(made), 400) == []
    assert lessons_of(made).casts == 6


def test_how_bites_clump_is_asked_by_day_and_stop() -> None:
    """Three places: the bay on two days, the point on one of them, each with its hours and bites."""
    made = [cast(0, "fish"), cast(1, "fish"), cast(2), cast(3, stop="Point"), cast(1500)]
    assert clumped_of(made, [30.0, 30.0, 60.0, 90.0, 60.0]) == clumped([2.0, 1.5, 1.0], [2, 0, 0])
