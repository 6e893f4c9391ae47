"""Each caution applies from its own value on, and nowhere else."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.cautions import cautions_for
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.sizing.size import size

PLAIN = Conditions(water_temp_f=60, bottom_depth_ft=30, fish_depth_ft=5)
WOOD = Cover(kind="wood")


@pytest.mark.parametrize(
    ("changes", "id_", "applies"),
    [
        ({"water_temp_f": 59.9}, "cold-water", True),
        ({"water_temp_f": 60.0}, "cold-water", False),
        ({"fish_depth_ft": 20.0}, "deep-fish", True),
        ({"fish_depth_ft": 19.9}, "deep-fish", False),
        ({"wind_mph": 18.0}, "wind", True),
        ({"wind_mph": 17.9}, "wind", False),
        ({"wind_mph": 10.0, "cover": WOOD}, "wind", True),
        ({"wind_mph": 9.9, "cover": WOOD}, "wind", False),
        ({"season": "spawn"}, "closed-season", True),
        ({"season": "summer"}, "closed-season", False),
        ({}, "hooks", True),
        ({}, "lead", True),
        ({}, "trailer-hook", False),
    ],
)
def test_where_a_caution_applies(cat: Catalog, changes: dict[str, object], id_: str, applies: bool) -> None:
    found = cautions_for(cat, Scenario(replace(PLAIN, **changes)))  # type: ignore[arg-type]
    assert (id_ in {c.id for c in found}) == applies


def test_cautions_of_a_rig(cat: Catalog) -> None:
    scenario = Scenario(PLAIN, families=("spinnerbait",))
    ids = {c.id for c in cautions_for(cat, scenario, size(cat, scenario).rigs[0])}
    assert {"trailer-hook", "lead", "hooks"} <= ids
