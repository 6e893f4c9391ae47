"""The JSON answers whole: a cast, sized rigs, a search, a plan, each as it is published."""

from __future__ import annotations

from typing import Any

import pytest

from heathdrop.answers.search import Told
from heathdrop.api.answers import schools_answer, simulate_answer, size_answer
from heathdrop.api.casting import _told, rig_said, rig_written
from heathdrop.api.planning import plan_answer
from heathdrop.api.schemas import SimulateRequest
from heathdrop.api.searching import SearchRequest, search_answer
from heathdrop.catalog import Catalog
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.physics.rig import rig_by_name
from tests.golden_file import holds_to
from tests.said import said_of
from tests.store.test_casts import made
from tests.test_doors import CASE, SCENARIO

#: How far a figure out of the compiled simulation may differ between machines.
SIMULATED = 3e-3
SWIM = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", "trailer_length_in": 4}
ROD: dict[str, Any] = {
    "name": "A",
    "line": {"material": "fluorocarbon", "test_lb": 15},
    "inches_per_turn": 29,
}


def test_a_simulated_cast() -> None:
    named = {**CASE, "lure": {"family": "swim-jig", "head_oz": 0.5, "trailer": "craw"}}
    found = {}
    for name, body in (("areas", CASE), ("rig", named)):
        answer = simulate_answer(SimulateRequest.model_validate(body)).model_dump(mode="json")
        samples = answer.pop("samples")
        assert len(samples) > 50
        found[name] = [answer, samples[3], samples[-2]]
    holds_to("api.answers.simulate", found, SIMULATED)


def test_sized_rigs() -> None:
    wood = {
        **SCENARIO,
        "conditions": {**SCENARIO["conditions"], "cover": {"kind": "wood", "detail": "brush"}},
    }
    bodies = [{**SCENARIO, "limit": 1}, {**wood, "families": ["flipping-jig"], "limit": 1}]
    found = [size_answer(SizeRequest.model_validate(b)).model_dump(mode="json") for b in bodies]
    assert [len(f["rigs"]) for f in found] == [1, 1]
    holds_to("api.answers.size", found, SIMULATED)


def test_schools_to_hold_to() -> None:
    holds_to("api.answers.schools", schools_answer().model_dump(mode="json"))


def test_a_search() -> None:
    told = {**SWIM, "countdown_s": 2.0, "pace_ft_s": 2.2, "outcome": "ran-high"}
    body = {**SCENARIO, "families": ["swim-jig"], "rods": [SWIM], "casts": [told], "limit": 2}
    answer = search_answer(SearchRequest.model_validate(body)).model_dump(mode="json")
    answer["belief"] = answer["belief"][:4]
    holds_to("api.searching", answer, SIMULATED)


def test_refused_searches() -> None:
    told = {**SWIM, "countdown_s": 2.0, "pace_ft_s": 2.2, "outcome": "ran-high"}
    bodies = [
        {**SCENARIO, "rods": [{**SWIM, "trailer": "toad"}]},
        {**SCENARIO, "casts": [told, {**told, "head_oz": 9}]},
        {**SCENARIO, "casts": [{**told, "outcome": "ate"}]},
        {**SCENARIO, "limit": 0},
        {**SCENARIO, "rods": [SWIM] * 13},
    ]
    said = [said_of(lambda b=b: search_answer(SearchRequest.model_validate(b))) for b in bodies]
    holds_to("api.searching.refused", said)


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
    holds_to("api.planning", answer, SIMULATED)


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
    ]
    holds_to(
        "api.planning.refused",
        [said_of(lambda b=b: plan_answer(PlanRequest.model_validate(b)).total) for b in bodies],
    )


@pytest.mark.parametrize(
    ("counted", "taken"), [(None, 2.0), (3.26, 3.5), (3.2, 3.0), (119.9, 120.0), (500.0, 120.0)]
)
def test_a_cast_is_told_by_the_count_that_was_thrown(counted: float | None, taken: float) -> None:
    cast = MadeCast.model_construct(
        **{**MadeCast.model_validate(made(1, at_s=4.5)).__dict__, "count_s": counted}
    )
    told = _told(cast)
    assert isinstance(told, Told)
    assert (told.count_s, told.pace_ft_s, told.outcome, told.at_s) == (taken, 2.2, cast.outcome, 4.5)
    assert told.rig.trailer.id == "craw"


def test_rigs_in_words_and_fields(cat: Catalog) -> None:
    rigs = [
        rig_by_name(cat, "swim-jig", 0.375, "craw"),
        rig_by_name(cat, "football-jig", 1.125, "none", head_material="tungsten", skirt="thin"),
        rig_by_name(cat, "bladed-jig", 0.5, "creature", fused=True, plastic="salted", orientation="vertical"),
    ]
    holds_to("api.casting", [[rig_said(rig), rig_written(rig).model_dump()] for rig in rigs])
