"""Waters to practise on: each can be sized, and a seed makes the same one."""

from __future__ import annotations

import random
from dataclasses import replace

from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import check
from heathdrop.training.waters import SELDOM, TRAITS, missing_of, random_water, traits_of
from tests.waters import GRASS


def test_made_up_waters_can_be() -> None:
    assert random_water(random.Random(3)) == random_water(random.Random(3))
    rng, kinds = random.Random(8), set()
    for _ in range(200):
        body = random_water(rng)
        scenario = SizeRequest.model_validate({**body, "families": ["swim-jig"]}).scenario()
        check(scenario)
        assert scenario.conditions.fish_depth_ft <= scenario.conditions.bottom_depth_ft
        kinds.add(scenario.conditions.cover.kind)
    assert len(kinds) == 8


def test_a_water_s_traits_by_their_edges() -> None:
    plain = replace(
        GRASS, water_temp_f=60.0, clarity_ft=4.0, wind_mph=5.0, fish_depth_ft=6.0, trend="steady",
        light="mixed", forage="bluegill",
    )  # fmt: skip
    words = {"trend steady", "light mixed", "forage bluegill"}
    assert traits_of(plain) == words
    odd = replace(plain, water_temp_f=52.0, clarity_ft=6.0, wind_mph=10.0, fish_depth_ft=4.0)
    assert traits_of(odd) == words | {"cold", "clear", "windy", "shallow fish"}
    other = replace(plain, water_temp_f=74.0, clarity_ft=2.0, bottom_depth_ft=20.0, fish_depth_ft=12.0)
    assert traits_of(other) == words | {"warm", "murky", "deep fish"}
    assert len({name for name, *_ in TRAITS}) == 7


def test_what_is_missed_more_than_the_rest_is_found_and_little_is_little() -> None:
    """By hand: murky missed whole four times, clear never, over a half missed in all."""
    murky, clear = frozenset({"murky"}), frozenset({"clear"})
    rounds = [(murky, 0.0)] * 4 + [(clear, 1.0)] * 4
    found = missing_of(rounds)
    assert found == {"clear": -4 * 0.5 / (4 + SELDOM), "murky": 4 * 0.5 / (4 + SELDOM)}
    once = missing_of([(murky, 0.0), (clear, 1.0)])
    assert 0.0 < once["murky"] < found["murky"]
    assert missing_of([]) == {}
