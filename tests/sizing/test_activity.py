"""Every shift of the mood, at its edges, by exact values."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Conditions
from heathdrop.sizing.activity import judge
from heathdrop.sizing.known import OwnFish
from tests.golden_file import holds_to
from tests.waters import ALL

PLAIN = Conditions(water_temp_f=66, bottom_depth_ft=10, fish_depth_ft=5)


@pytest.mark.parametrize(
    ("temp", "value"),
    [(34, 0.0), (40, 0.0), (44.25, 0.5), (48.5, 1.0), (52.25, 1.5), (56, 2.0), (61, 2.5), (66, 3.0),
     (72, 3.25), (78, 3.5), (84, 3.4), (89, 2.9), (94, 2.4), (100, 2.0)],
)  # fmt: skip
def test_the_base_climbs_by_ramps(cat: Catalog, temp: float, value: float) -> None:
    assert judge(cat, replace(PLAIN, water_temp_f=temp)).value == pytest.approx(value)


def test_a_degree_never_moves_it_by_more_than_a_seventh(cat: Catalog) -> None:
    found = [judge(cat, replace(PLAIN, water_temp_f=t, trend="rising")).value for t in range(32, 101)]
    assert max(abs(b - a) for a, b in zip(found, found[1:], strict=False)) < 0.15


@pytest.mark.parametrize(
    ("changes", "value"),
    [
        ({}, 3.0),
        ({"front": "passed"}, 2.0),
        ({"front": "coming"}, 3.0),
        ({"pressure": "heavy"}, 2.5),
        ({"pressure": "light"}, 3.0),
        ({"trend": "falling"}, 3.0),
        ({"trend": "falling", "forage": "baitfish"}, 3.2),
        ({"trend": "falling", "forage": "baitfish", "front": "passed"}, 1.6),
        ({"trend": "falling", "season": "winter"}, 2.6),
        ({"trend": "rising"}, 3.0),
        ({"season": "spawn"}, 2.0),
        ({"light": "low"}, 3.5),
        ({"light": "overcast"}, 3.5),
        ({"light": "sunny"}, 3.0),
        ({"wind_mph": 7}, 3.0),
        ({"wind_mph": 10}, 3.25),
        ({"wind_mph": 13}, 3.5),
        ({"wind_mph": 30}, 3.5),
        ({"wind_mph": 10, "light": "low"}, 3.5),
        ({"water_temp_f": 56, "trend": "rising"}, 2.5),
        ({"water_temp_f": 60, "trend": "rising"}, 2.65),
        ({"water_temp_f": 63, "trend": "rising"}, 2.7),
        ({"water_temp_f": 40, "front": "passed", "pressure": "heavy"}, 0.0),
        ({"activity": 1.5, "front": "passed"}, 1.5),
    ],
)
def test_each_shift(cat: Catalog, changes: dict[str, object], value: float) -> None:
    assert judge(cat, replace(PLAIN, **changes)).value == pytest.approx(value)  # type: ignore[arg-type]


def test_ones_own_fish_are_livelier_where_the_log_says_so(cat: Catalog) -> None:
    """In cold water by the cold water's steps, never over the scale, and not where the mood was said."""
    own = OwnFish(cold=0.7, warm=-0.4)
    cold = judge(cat, replace(PLAIN, water_temp_f=44.25), own)
    assert cold.value == pytest.approx(1.2)
    assert cold.reasons[-1] == "your own fish +0.7"
    assert judge(cat, PLAIN, own).value == pytest.approx(2.6)
    assert judge(cat, replace(PLAIN, light="low"), OwnFish(warm=1.9)).value == 4.0
    assert judge(cat, replace(PLAIN, activity=1.5), own).value == 1.5


def test_only_what_moves_them_is_said(cat: Catalog) -> None:
    windy = judge(cat, replace(PLAIN, wind_mph=13, season="spawn"))
    assert windy.reasons == (
        "66 °F water starts at 3.0",
        "wind +0.5",
        "on beds they guard, they do not chase -1.0",
    )


def test_mood_and_reasons_of_every_water(cat: Catalog) -> None:
    holds_to("sizing.activity", {name: judge(cat, c) for name, c in ALL.items()})
