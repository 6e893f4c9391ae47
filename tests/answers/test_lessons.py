"""Lessons on logs whose truth is known: likeness, effort by the clock, schools, shifts; silence where due."""

from __future__ import annotations

import math
import random
import uuid
from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from heathdrop.answers.lessons import (
    LONGEST_MIN,
    USUAL_MIN,
    days_like,
    efforts_of,
    lessons_of,
    minutes_of,
    shifts_of,
    trials_of,
)
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.scenario import Scenario
from tests.waters import GRASS

WATER = {
    "water_temp_f": 58,
    "bottom_depth_ft": 9,
    "fish_depth_ft": 6,
    "clarity_ft": 4,
    "wind_mph": 5,
    "light": "mixed",
    "season": "fall",
    "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
}
BEGUN = datetime(2027, 4, 3, 6, 0, tzinfo=UTC)


def cast(k: int, outcome: str = "nothing", **more: object) -> MadeCast:
    body = {
        "id": str(uuid.UUID(int=k + 1)),
        "time": (BEGUN + timedelta(minutes=k)).isoformat(),
        "trip": "day",
        "stop": "Bay",
        "family": "swim-jig",
        "head_oz": 0.375,
        "trailer": "craw",
        "trailer_length_in": 4.0,
        "countdown_s": 2.0,
        "pace_ft_s": 2.2,
        "outcome": outcome,
        "conditions": WATER,
    }
    return MadeCast.model_validate(body | more)


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


def test_the_day_most_like_this_one_comes_first_and_says_what_was_alike() -> None:
    cold = {**WATER, "water_temp_f": 41, "season": "winter", "cover": {"kind": "rock"}}
    near = {**WATER, "water_temp_f": 60}
    made = [
        cast(0, "fish"),
        cast(1, family="bladed-jig"),
        cast(3000, "fish", conditions=near, stop="Point"),
        cast(6000, "fish", conditions=cold, stop="Dam"),
    ]
    first, second = days_like(made, Scenario(replace(GRASS, season="fall"), families=("swim-jig",)))
    assert (first.stop, first.bites, first.casts) == ("Bay", 1, 2)
    assert first.bit == ("3/8 oz swim jig, craw, count 2",)
    assert first.in_vain == ("3/8 oz bladed jig, craw",)
    assert "temperature 58 °F" in first.alike
    assert second.stop == "Point"
    assert second.distance > first.distance
    assert days_like([], Scenario(GRASS)) == []


def fished(rng: random.Random, count: int, likes_oz: float, heads: tuple[float, ...]) -> list[MadeCast]:
    """An angler who throws these heads by turns at fish that like one of them (log, 0.3)."""
    found = []
    for k in range(count):
        oz = rng.choice(heads)
        likes = math.exp(-0.5 * (math.log(oz / likes_oz) / 0.3) ** 2)
        found.append(cast(k, "fish" if rng.random() < 0.25 * likes else "nothing", head_oz=oz))
    return found


HEADS = (0.1875, 0.25, 0.375, 0.5, 0.75)


def test_fish_that_like_lighter_heads_speak_for_that_school() -> None:
    rng, right, wrong = random.Random(3), 0, 0
    for _ in range(20):
        made = fished(rng, 150, 0.22, HEADS)
        words = {(t.topic, t.school): t.words for t in trials_of(made, minutes_of(made))}
        right += "for it" in words["weight-lean", "lighter"]
        wrong += words["weight-lean", "heavier"] == "strongly for it"
    assert right >= 16
    assert wrong <= 1


def test_who_always_does_the_same_is_told_too_little() -> None:
    made = fished(random.Random(4), 400, 0.3, (0.375,))
    assert all(t.words == "too few" for t in trials_of(made, minutes_of(made)))
    assert trials_of([cast(0)], [1.0]) == [] or all(t.words == "too few" for t in trials_of([cast(0)], [1.0]))


def test_ones_own_fish_shift_only_where_they_do() -> None:
    rng, held, claims = random.Random(5), 0, 0
    middle = 0.375
    for _ in range(40):
        made = fished(rng, 200, middle * 0.7, HEADS)
        heads = next(s for s in shifts_of(made, minutes_of(made)) if s.what == "head weight")
        held += heads.high < 1.05
        none = fished(rng, 200, 0.42, HEADS)
        same = next(s for s in shifts_of(none, minutes_of(none)) if s.what == "head weight")
        claims += same.low > 1.15 or same.high < 0.85
    assert held >= 30
    assert claims <= 2


def test_an_empty_log_teaches_nothing() -> None:
    found = lessons_of([], Scenario(GRASS))
    assert (found.casts, found.bites) == (0, 0)
    assert found.like_today == found.rates == found.schools == found.own == ()


@pytest.mark.parametrize("conditions", [{"water_temp_f": "warm"}, {"water_temp_f": 400}, {}])
def test_water_that_is_not_known_whole_is_passed_over(conditions: dict[str, object]) -> None:
    made = [cast(k, "fish", conditions=conditions) for k in range(6)]
    assert shifts_of(made, minutes_of(made)) == []
    assert lessons_of(made).casts == 6


def test_a_temperature_alone_is_no_likeness() -> None:
    """A day typed in with its temperature is not the day most like this water."""
    today = Scenario(replace(GRASS, water_temp_f=61.0))
    warm = {"water_temp_f": 61.0}
    some = {**warm, "clarity_ft": GRASS.clarity_ft, "season": GRASS.season}
    assert days_like([cast(0, "fish", conditions=warm)], today) == []
    assert days_like([cast(0, "fish", conditions=some)], today) == []
    enough = {**some, "light": GRASS.light}
    assert [d.bites for d in days_like([cast(0, "fish", conditions=enough)], today)] == [1]
