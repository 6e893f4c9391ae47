"""Line, leader and reel as they are said and turned."""

from __future__ import annotations

import pytest

from heathdrop.conditions.gear import USUAL_GEAR, Gear, Leader, Line, Reel


def test_a_line_is_said_with_its_leader() -> None:
    assert USUAL_GEAR.line.said == "15 lb fluorocarbon"
    tied = Line(material="braid", test_lb=30, leader=Leader(material="nylon", test_lb=12.5, length_ft=6.5))
    assert tied.said == "30 lb braid with 6.5 ft of 12.5 lb nylon leader"


def test_turns_are_pace_over_the_line_of_a_turn() -> None:
    assert Gear(reel=Reel(inches_per_turn=24)).turns_per_s(2.0) == pytest.approx(1.0)
    assert USUAL_GEAR.turns_per_s(2.9) == pytest.approx(1.2)
