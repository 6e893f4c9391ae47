"""Every shift of the mood, at its edges, by exact values."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Conditions
from heathdrop.sizing.activity import judge
from tests.golden_file import holds_to
from tests.waters import ALL

PLAIN = Conditions(water_temp_f=65, bottom_depth_ft=10, fish_depth_ft=5)


@pytest.mark.parametrize(
    ("changes", "value"),
    [
        ({}, 3.0),
        ({"front": "passed"}, 2.0),
        ({"front": "coming"}, 3.0),
        ({"pressure": "heavy"}, 2.5),
        ({"pressure": "light"}, 3.0),
        ({"trend": "falling"}, 2.0),
        ({"trend": "rising"}, 3.0),
        ({"season": "spawn"}, 2.0),
        ({"light": "low"}, 3.5),
        ({"light": "overcast"}, 3.5),
        ({"light": "sunny"}, 3.0),
        ({"wind_mph": 10}, 3.5),
        ({"wind_mph": 10, "light": "low"}, 3.5),
        ({"water_temp_f": 55, "trend": "rising"}, 2.5),
        ({"water_temp_f": 40, "front": "passed", "pressure": "heavy"}, 0.0),
        ({"activity": 1.5, "front": "passed"}, 1.5),
    ],
)
def test_each_shift(cat: Catalog, changes: dict[str, object], value: float) -> None:
    assert judge(cat, replace(PLAIN, **changes)).value == value  # type: ignore[arg-type]


def test_mood_and_reasons_of_every_water(cat: Catalog) -> None:
    holds_to("sizing.activity", {name: judge(cat, c) for name, c in ALL.items()})
