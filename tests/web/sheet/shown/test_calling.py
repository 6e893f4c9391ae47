"""Families and schools side by side, their differences in numbers."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest

from heathdrop.answers.water import call_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.sizing.size import size
from heathdrop.web.sheet.shown.calling import SHOWN, calling_of, sides_of
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


def test_families_are_ranked_by_their_standing_against_the_first(cat: Catalog) -> None:
    """Ranks from one, standing in hundredths of the first family's, fit in its own; the mood that was judged
    is pressed, and every link names what it chooses."""
    water = Scenario(replace(DAY, water_temp_f=66))
    call = call_of(water, places=SHOWN)
    sizing = call.standings[1].sizing
    shown = calling_of(cat, call, sizing, lambda **more: repr(sorted(more.items())))
    assert [r.rank for r in shown.rows] == list(range(1, SHOWN + 1))
    first = call.standings[0].standing
    for row, s in zip(shown.rows, call.standings, strict=True):
        assert (row.standing, row.fit) == (round(100 * s.standing / first), round(100 * s.fit))
        assert (row.id, row.name, row.model) == (s.family.id, s.family.name, s.model)
        assert row.address == repr([("family", s.family.id), ("pick", ""), ("view", "size")])
        assert row.chosen == (s is call.standings[1])
        assert row.fors == tuple(r.name for r in s.fors[:2])
    assert [m.name for m in shown.moods if m.chosen] == [cat.mood.names[round(sizing.targets.activity.value)]]
    assert shown.moods[3].address == repr([("activity", "3")])
    assert [a.why for a in shown.aside] == [why.lower() for _, why in call.aside]
