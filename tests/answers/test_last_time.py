"""The days most like a water, and what is no likeness."""

from __future__ import annotations

from dataclasses import replace

from heathdrop.answers.last_time import days_like
from heathdrop.conditions.scenario import Scenario
from tests.answers.logged import WATER, cast
from tests.waters import GRASS


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


def test_a_temperature_alone_is_no_likeness() -> None:
    """A day typed in with its temperature is not the day most like this water."""
    today = Scenario(replace(GRASS, water_temp_f=61.0))
    warm = {"water_temp_f": 61.0}
    some = {**warm, "clarity_ft": GRASS.clarity_ft, "season": GRASS.season}
    assert days_like([cast(0, "fish", conditions=warm)], today) == []
    assert days_like([cast(0, "fish", conditions=some)], today) == []
    enough = {**some, "light": GRASS.light}
    assert [d.bites for d in days_like([cast(0, "fish", conditions=enough)], today)] == [1]
