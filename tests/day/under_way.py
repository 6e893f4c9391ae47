"""The trip of the tests of this room: its water, its rod, its casts."""

from typing import Any

from heathdrop.conditions.made import MadeCast
from tests.store.test_casts import made
from tests.test_doors import SCENARIO

WATER = SCENARIO["conditions"]
ROD = {
    "name": "A",
    "line": {
        "material": "braid",
        "test_lb": 30,
        "leader": {"material": "fluorocarbon", "test_lb": 12, "length_ft": 8},
    },
    "inches_per_turn": 29,
    "rig": "swim-jig:0.375:craw",
}


def cast(k: int, **more: Any) -> MadeCast:
    return MadeCast.model_validate(made(k, **{"stop": "Bay", "trip": "Today", **more}))
