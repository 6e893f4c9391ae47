"""The depth chart: each cell is a cast of its own, and says where it is."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.chart import chart_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.cast import fly
from heathdrop.physics.fall import depth_after_s
from heathdrop.sizing.size import size
from heathdrop.sizing.ways import programme
from heathdrop.units import feet, metres
from tests.waters import GRASS


def test_a_swum_rig_by_count_and_turns(cat: Catalog) -> None:
    """Deeper with the count, higher with the turns; a cell is the depth half-way home of that very cast."""
    sizing = size(cat, Scenario(GRASS, families=("swim-jig",)))
    rig, c = sizing.rigs[0], sizing.scenario.conditions
    chart = chart_of(sizing, rig)
    depths = [[at.depth_ft for at in row] for row in chart.cells]
    assert (chart.counts_s[0], chart.counts_s[1] - chart.counts_s[0]) == (0.0, 0.5)
    assert all(row == sorted(row, reverse=True) for row in depths)
    assert all(list(column) == sorted(column) for column in zip(*depths, strict=True))
    assert len({n - m for m, n in zip(chart.turns, chart.turns[1:], strict=False)}) == 1
    pace = metres(chart.turns[3] / 20.0 * sizing.scenario.gear.reel.inches_per_turn / 12.0)
    program = programme("steady", pace, chart.counts_s[3], rig.cast.distance_m)
    own = fly(rig.lure, sizing.line, sizing.water, rig.cast, program)
    assert depths[3][3] == pytest.approx(feet(own.depth_at(0.5 * rig.cast.distance_m)), abs=0.15)
    top, low = sizing.targets.depth_ft
    for at in (at for row in chart.cells for at in row):
        assert (at.place == "band") == (top <= at.depth_ft <= low and at.depth_ft < c.bottom_depth_ft - 0.25)
        assert (at.place == "floor") == (at.depth_ft >= c.bottom_depth_ft - 0.25)
        assert at.place != "cover" or at.depth_ft > (c.cover.top_depth_ft or 99.0)


def test_what_is_not_swum_has_its_count_alone(cat: Catalog) -> None:
    deep = replace(GRASS, bottom_depth_ft=30.0)
    sizing = size(cat, Scenario(deep, families=("football-jig",)))
    chart = chart_of(sizing, sizing.rigs[0])
    assert chart.turns == ()
    assert len(chart.counts_s) <= 11
    sunk = depth_after_s(sizing.rigs[0].lure, chart.counts_s[1], sizing.line, sizing.water)
    assert chart.cells[1][0].depth_ft == round(feet(sunk), 1)
    assert chart.cells[-1][0].place == "floor"
