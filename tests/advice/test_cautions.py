"""Each caution applies from its own value on, and nowhere else."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.cautions import cautions_for
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.size import size
from tests.golden_file import holds_to

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


def test_every_caution_to_the_letter(cat: Catalog) -> None:
    waters = {
        "all at once": {
            "water_temp_f": 40.0,
            "fish_depth_ft": 25.0,
            "wind_mph": 20.0,
            "light": "low",
            "season": "spawn",
            "cover": Cover(kind="wood", detail="standing-timber"),
        },
        "a muddy mat in the heat": {
            "water_temp_f": 95.0,
            "clarity_ft": 0.5,
            "bottom_depth_ft": 6.0,
            "cover": Cover(kind="matted-grass"),
        },
        "riprap": {"wind_mph": 12.0, "cover": Cover(kind="rock", detail="riprap")},
        "a clear mat": {"clarity_ft": 4.0, "bottom_depth_ft": 6.0, "cover": Cover(kind="matted-grass")},
    }
    found = {
        name: cautions_for(cat, Scenario(replace(PLAIN, **changes)))  # type: ignore[arg-type]
        for name, changes in waters.items()
    }
    tungsten = rig_by_name(cat, "spinnerbait", 0.5, "twin-tail", head_material="tungsten")
    scenario = Scenario(PLAIN, families=("spinnerbait",))
    found["tungsten"] = cautions_for(cat, scenario, size(cat, scenario, [tungsten]).rigs[0])
    assert "mud" not in {c.id for c in found["a clear mat"]}
    assert "lead" not in {c.id for c in found["tungsten"]}
    holds_to("advice.cautions", found)
