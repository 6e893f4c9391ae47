"""A day of two stops on two rods, planned once for the tests that show it."""

from functools import cache
from typing import Any

from heathdrop.api.planning import PlanAnswer, plan_answer
from heathdrop.conditions.plan import PlanRequest

BODY: dict[str, Any] = {
    "date": "2027-04-03",
    "rods": [
        {"name": "A", "line": {"material": "fluorocarbon", "test_lb": 15}, "inches_per_turn": 29},
        {
            "name": "B",
            "line": {
                "material": "braid",
                "test_lb": 30,
                "leader": {"material": "fluorocarbon", "test_lb": 12, "length_ft": 6},
            },
        },
    ],
    "stops": [
        {
            "name": "Mill <bay>",
            "minutes": 60,
            "conditions": {
                "water_temp_f": 58,
                "bottom_depth_ft": 9,
                "fish_depth_ft": 6,
                "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
            },
        },
        {
            "name": "Causeway",
            "minutes": 30,
            "importance": 2,
            "conditions": {
                "water_temp_f": 44,
                "bottom_depth_ft": 20,
                "fish_depth_ft": 20,
                "season": "winter",
                "cover": {"kind": "rock", "detail": "chunk"},
            },
        },
    ],
}


@cache
def answer() -> PlanAnswer:
    """The day's answer."""
    return plan_answer(PlanRequest.model_validate(BODY))
