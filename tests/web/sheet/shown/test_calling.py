"""Families and schools side by side, their differences in numbers."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.sizing.size import size
from heathdrop.web.sheet.shown.calling import sides_of
from tests.web.shown import DAY


def test_both_sides_say_the_difference_in_numbers(cat: Catalog) -> None:
    scenario = Scenario(replace(DAY, fish_depth_ft=2, water_temp_f=66), Gear(), ("bladed-jig",))
    sides = sides_of(cat, size(cat, scenario), "bladed-ladder", lambda s: size(cat, s))
    assert [s.name for s in sides] == [s.name for s in cat.topics["bladed-ladder"].schools.values()]
    assert sides[0].difference == ""
    heads = {s.name: s.rig.split(" oz")[0] for s in sides}
    assert heads["one size"] == "1/2"
    assert re.search(r"Against the first: .*(lighter|slower|faster|heavier)", sides[2].difference)
    metal = sides_of(cat, size(cat, scenario), "blade-metal", lambda s: size(cat, s))
    assert "only changes the finish" in metal[1].difference
    with pytest.raises(BadInput, match="topic was “tides”"):
        sides_of(cat, size(cat, scenario), "tides", lambda s: size(cat, s))
