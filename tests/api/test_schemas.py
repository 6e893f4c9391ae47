"""The body of a simulated cast: what becomes of each field, and the sentence for each that cannot be."""

from __future__ import annotations

import copy
from typing import Any

import pytest

from heathdrop.api.schemas import SimulateRequest
from tests.golden_file import holds_to
from tests.said import said_of
from tests.test_doors import CASE

RIG = {"family": "swim-jig", "head_oz": 0.5, "trailer": "craw"}
NAMED_LINE = {"material": "braid", "test_lb": 30}
LEADER = {"material": "fluorocarbon", "test_lb": 12, "length_ft": 8}


def with_(path: str, value: Any, base: dict[str, Any] = CASE) -> dict[str, Any]:
    """The case with one place changed."""
    body = copy.deepcopy(base)
    *places, last = path.split(".")
    at: Any = body
    for place in places:
        at = at[int(place)] if place.isdigit() else at[place]
    at[int(last) if last.isdigit() else last] = value
    return body


#: Every bound of a lure, a line and a cast, just outside and just inside.
BOUNDS: tuple[tuple[str, float, float], ...] = (
    ("lure.mass_g", 0.2, 500),
    ("lure.fall_drag_area_cm2", 0.05, 200),
    ("lure.run_drag_area_cm2", 0.05, 200),
    ("lure.run_lift_area_cm2", 0, 100),
    ("lure.glide_ratio", 0, 5),
    ("line.diameter_mm", 0.05, 2),
    ("line.density_kg_m3", 500, 8000),
    ("cast.distance_ft", 15, 250),
    ("cast.rod_tip_height_ft", 0, 12),
    ("cast.bottom_depth_ft", 1, 200),
)


def records(body: dict[str, Any]) -> list[Any]:
    """Everything that a request makes for the simulation."""
    asked = SimulateRequest.model_validate(body)
    return [asked.lure_record(), asked.line_record(), asked.cast_record(), asked.program_record()]


@pytest.mark.parametrize(("path", "low", "high"), BOUNDS)
def test_bounds(path: str, low: float, high: float) -> None:
    light = with_("lure.net_weight_n", 0.001)
    for inside in (low, high):
        assert isinstance(said_of(lambda v=inside: records(with_(path, v, light))), list)  # type: ignore[misc]
    for outside in (low - 0.01, high * 1.001):
        said = said_of(lambda v=outside: records(with_(path, v, light)))  # type: ignore[misc]
        assert said.startswith(f"refused: {path} was ")
        assert f"from {low:g} to {high:g} " in said


def test_each_field_becomes_si() -> None:
    lure, line, cast, program = records(CASE)
    assert (lure.mass_kg, lure.net_weight_n) == (0.014, 0.115)
    areas = lure.fall_drag_area_m2, lure.run_drag_area_m2, lure.run_lift_area_m2
    assert areas == pytest.approx((0.001, 0.001, 0.00026))
    assert (line.diameter_m, line.density_kg_m3) == pytest.approx((0.00037, 1780))
    assert (cast.distance_m, cast.rod_tip_m) == pytest.approx((24.9936, 0.6096))
    assert cast.bottom_at(0.0) == cast.bottom_at(250.0) == pytest.approx(9.144)
    assert [(p.do, p.slack, p.take_up) for p in program] == [
        ("fall", True, False),
        ("retrieve", False, False),
    ]
    assert (program[0].to_depth_m, program[1].speed_m_s) == pytest.approx((2.01168, 0.6096))


def test_a_rig_by_name_takes_up_its_slack() -> None:
    def taken(program: list[dict[str, Any]], lure: Any = RIG) -> list[bool]:
        return [p.take_up for p in records({**CASE, "lure": lure, "program": program})[3]]

    slack, tight = {"do": "fall", "for_s": 2}, {"do": "fall", "for_s": 2, "line": "tight"}
    home = {"do": "retrieve", "speed_ft_s": 2}
    assert taken([slack, home]) == [False, True]
    assert taken([slack, {**home, "take_up": False}]) == [False, False]
    assert taken([tight, home]) == [False, False]
    assert taken([slack, {"do": "hop", "times": 2}, home]) == [False, False, False]
    assert taken([slack, home], CASE["lure"]) == [False, False]
    assert taken([slack, {**home, "take_up": True}], CASE["lure"]) == [False, True]
    assert taken([slack, {"do": "slow-roll", "speed_ft_s": 1}, slack, {"do": "burn-and-drop"}]) == [
        False,
        True,
        False,
        True,
    ]


def test_every_refusal() -> None:
    phases = {
        "pause": {"do": "pause"},
        "kill": {"do": "kill"},
        "retrieve": {"do": "retrieve"},
        "slow-roll": {"do": "slow-roll"},
        "take-up": {"do": "hop", "take_up": True},
        "slack hop": {"do": "hop", "line": "slack"},
        "times": {"do": "retrieve", "speed_ft_s": 2, "times": 3},
        "depth": {"do": "fall", "to_depth_ft": 201},
        "for": {"do": "fall", "for_s": 601},
        "slow": {"do": "retrieve", "speed_ft_s": 0.09},
        "fast": {"do": "retrieve", "speed_ft_s": 15.1},
        "lift": {"do": "hop", "lift_in": 121},
        "often": {"do": "hop", "times": 101},
        "never": {"do": "hop", "times": 0},
        "wait": {"do": "hop", "wait_s": 61},
        "tip": {"do": "retrieve", "speed_ft_s": 2, "rod_tip_height_ft": 12.1},
        "unknown": {"do": "splash"},
        "reel off": {"do": "fall", "for_s": 2, "pulled_off_reel": True},
        "lifted": {"do": "hop", "lift_in": 12, "times": 3, "wait_s": 1, "rod_tip_height_ft": 3},
    }
    bodies = {name: with_("program", [phase]) for name, phase in phases.items()}
    bodies |= {
        "no bottom": with_("cast.bottom_depth_ft", None),
        "both bottoms": with_("cast.bottom_ft", [[0, 5], [50, 9]]),
        "profile": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 5], [50, 9.5]]}),
        "profile back": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 5], [50, 9], [50, 4]]}),
        "profile far": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 5], [1001, 9]]}),
        "profile dry": with_("cast", {"distance_ft": 80, "bottom_ft": [[0, 0.5], [50, 9]]}),
        "heavier than air": with_("lure.net_weight_n", 0.14),
        "weightless": with_("lure.net_weight_n", 0.0005),
        "rig": with_("lure", RIG),
        "rig unknown": with_("lure", {**RIG, "trailer": "toad"}),
        "rig heavy": with_("lure", {**RIG, "head_oz": 5}),
        "line": with_("line", NAMED_LINE),
        "line unknown": with_("line", {**NAMED_LINE, "material": "hemp"}),
        "line thin": with_("line", {**NAMED_LINE, "test_lb": 1}),
        "leader": with_("line", {**NAMED_LINE, "leader": LEADER}),
        "leader long": with_("line", {**NAMED_LINE, "leader": {**LEADER, "length_ft": 61}}),
        "leader unknown": with_("line", {**NAMED_LINE, "leader": {**LEADER, "material": "hemp"}}),
        "no programme": with_("program", []),
        "extra": {**CASE, "boat": 1},
    }
    holds_to("api.schemas", {name: said_of(lambda b=body: records(b)) for name, body in bodies.items()})
