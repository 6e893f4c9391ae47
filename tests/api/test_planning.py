"""A plan as JSON, and the plans that are refused."""

from __future__ import annotations

from typing import Any

from heathdrop.api.planning import plan_answer
from heathdrop.conditions.plan import PlanRequest
from tests.golden_file import holds_to
from tests.said import said_of
from tests.test_doors import SCENARIO

#: How far a figure out of the compiled simulation may differ between machines.
SIMULATED = 3e-3
ROD: dict[str, Any] = {
    "name": "A",
    "line": {"material": "fluorocarbon", "test_lb": 15},
    "inches_per_turn": 29,
}


def day(**more: Any) -> dict[str, Any]:
    water = SCENARIO["conditions"]
    bay = {"name": "Bay", "conditions": water, "minutes": 45, "position": {"lat": 50.1, "lon": -4.2}}
    causeway = {
        "name": "Causeway",
        "conditions": {**water, "fish_depth_ft": 9, "cover": {"kind": "rock", "detail": "chunk"}},
        "importance": 2,
        "cast_ft": 60,
    }
    return {"date": "2027-09-25", "stops": [bay, causeway], "rods": [ROD, {**ROD, "name": "B"}], **more}


def test_a_plan() -> None:
    answer = plan_answer(PlanRequest.model_validate(day())).model_dump(by_alias=True, mode="json")
    assert answer.pop("seconds") > 0.0
    for stop in answer["stops"]:
        stop["search"], stop["if"] = stop["search"][:1], stop["if"][:2]
        for cast in stop["search"]:  # what it covers is held to with the search
            assert sum(part["seconds"] for part in cast.pop("covers")) > 0.0
        for rig in (stop["with"]["rig"], stop["ideal"]["rig"], *(e["rig"] for e in stop["also"])):
            # Field by field the rig stands with its rod; here by its name.
            assert rig.items() >= {"family": rig["name"].split(":")[0]}.items()
            for field in [k for k in rig if k != "name"]:
                del rig[field]
    holds_to("api.planning", answer, SIMULATED)


def test_a_stop_is_planned_for_its_own_targets() -> None:
    """Shallower and slower than it would be judged, and what is missed is said."""
    judged = day()["stops"][0]
    own = {"depth_ft": [2, 3], "fall_ft_s": [1.0, 1.4]}
    asked = day(stops=[judged, {**judged, "name": "Mine", "targets": own}])
    usual, mine = plan_answer(PlanRequest.model_validate(asked)).stops
    assert mine.water == usual.water + "; wanted 2 to 3 ft, falls 1 to 1.4 ft/s"
    assert (usual.with_.hits, mine.with_.hits["depth"]) == ({}, True)
    assert mine.with_.runs_ft <= 3.0 < usual.with_.runs_ft


def test_refused_plans() -> None:
    stop = day()["stops"][0]
    deep = {**stop, "conditions": {**stop["conditions"], "fish_depth_ft": 12}}
    bodies = [
        day(stops=[]),
        day(stops=[stop, deep]),
        day(stops=[{**stop, "conditions": {}}]),
        day(stops=[{**stop, "conditions": {**stop["conditions"], "light": "dim"}}]),
        day(stops=[{**stop, "position": {"lat": 95, "lon": 0}}]),
        day(rods=[{**ROD, "inches_per_turn": 9.9}]),
        day(rods=[{**ROD, "inches_per_turn": 45.1}]),
        day(rods=[{**ROD, "line": {"material": "hemp", "test_lb": 15}}]),
        day(rods=0),
        day(date="some day"),
        day(stops=[{**stop, "targets": {"depth_ft": [4, 12]}}]),
    ]
    holds_to(
        "api.planning.refused",
        [said_of(lambda b=b: plan_answer(PlanRequest.model_validate(b)).total) for b in bodies],
    )
