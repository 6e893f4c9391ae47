"""The sheet's state in an address: what was answered stays, defaults are left out, what is held to speaks."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.own import STRANGER
from heathdrop.errors import BadInput
from heathdrop.web.sheet.state import address, faults_of, scenario_from, schools_for
from heathdrop.web.shell.fields import values_from

ASKED = {"water_temp_f": "60", "bottom_depth_ft": "9", "fish_depth_ft": "6"}
HELD = replace(STRANGER, schools=(("cold", "heavier"),))


def test_an_address_holds_what_was_answered_and_leads_back() -> None:
    values = values_from(ASKED)
    assert address(values) == "/?water_temp_f=60&bottom_depth_ft=9&fish_depth_ft=6"
    assert values_from(ASKED | {"view": "cast"}) == values | {"view": "cast"}
    assert address(values | {"view": "cast"}).endswith("&view=cast")


def test_a_school_of_the_state_stands_before_the_one_held_to() -> None:
    assert schools_for(values_from(ASKED), HELD) == {"cold": "heavier"}
    assert schools_for(values_from(ASKED | {"s_cold": "lighter"}), HELD) == {"cold": "lighter"}


def test_a_family_left_to_us_is_called() -> None:
    scenario = scenario_from(values_from(ASKED), STRANGER)
    assert len(scenario.families) == 1
    assert scenario_from(values_from(ASKED | {"family": "swim-jig"}), STRANGER).families == ("swim-jig",)
    with pytest.raises(BadInput) as refusal:
        scenario_from(values_from(ASKED | {"water_temp_f": "200"}), STRANGER)
    assert refusal.value.field.endswith("water_temp_f")


def test_a_depth_nobody_said_comes_up_with_the_bottom() -> None:
    shallow = values_from({"bottom_depth_ft": "4"})
    assert (shallow["fish_depth_ft"], shallow["top_depth_ft"]) == ("4", "4")
    assert shallow["given"] == "bottom_depth_ft"
    assert address(shallow) == "/?bottom_depth_ft=4"  # what is assumed is no part of the address
    assert values_from(shallow) == shallow
    said = values_from({"bottom_depth_ft": "4", "fish_depth_ft": "6"})
    assert said["fish_depth_ft"] == "6"


def test_everything_at_fault_is_named_at_once() -> None:
    wrong = {
        "water_temp_f": "200",
        "bottom_depth_ft": "4",
        "fish_depth_ft": "6",
        "wind_mph": "90",
        "cover": "open",
    }
    fields = [f.field.removeprefix("conditions.") for f in faults_of(values_from(wrong), STRANGER)]
    assert fields == ["water_temp_f", "wind_mph", "fish_depth_ft"]
    unread = {"water_temp_f": "warm", "wind_mph": "some", "bottom_depth_ft": "9"}
    assert len(faults_of(values_from(unread), STRANGER)) == 2
    assert not faults_of(values_from(ASKED), STRANGER)
