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
    assert first.bit == ("3/8 oz swim jig, craw 4 in, count 2",)
    assert first.in_vain == ("3/8 oz bladed jig, craw 4 in",)
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


def test_what_bit_most_can_be_taken_with_its_length_and_setting() -> None:
    """The rig and count bitten most, the latest of equals; nothing where nothing bit."""
    short = {"trailer_length_in": 3.0, "countdown_s": 4.0, "pace_ft_s": 1.8}
    made = [cast(0, "fish"), cast(1, "fish", **short), cast(2, "fish", **short), cast(3)]
    (day,) = days_like(made, Scenario(GRASS))
    assert day.take is not None
    name, count, pace = day.take
    assert (name.trailer, name.length_in, count, pace) == ("craw", 3.0, 4.0, 1.8)
    worn = {"skirt": "trimmed", "orientation": "vertical", "head_material": "tungsten"}
    (dressed,) = days_like([cast(0, "fish"), *(cast(k, "fish", **worn) for k in (1, 2))], Scenario(GRASS))
    assert dressed.take is not None
    assert dressed.take[0].text() == "swim-jig:0.375:craw:material=tungsten:skirt=trimmed:turned=vertical"
    assert dressed.bit == tuple(f"3/8 oz {m}swim jig, craw 4 in, count 2" for m in ("", "tungsten "))
    (last,) = days_like([cast(0, "fish", **short), cast(1, "fish")], Scenario(GRASS))
    assert last.take is not None
    assert (last.take[0].length_in, last.take[1]) == (0.0, 2.0)
    assert days_like([cast(0)], Scenario(GRASS))[0].take is None
