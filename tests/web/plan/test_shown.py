"""The plan's answer as columns and rows, and a stop's section on the line of its rod."""

from __future__ import annotations

from typing import Any

import pytest

from heathdrop.answers.own import STRANGER
from heathdrop.answers.stop import Stop
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.web.plan.deckcard import line_said
from heathdrop.web.plan.shown import HARDLY, SHADES, planned_of, stop_section
from heathdrop.web.plan.worked import beside_said, hands_of, rig_said, runs_of
from heathdrop.web.shell.frame import LOW, NARROW
from tests.waters import GRASS, WINTER_ROCK
from tests.web.small_plan import BODY, answer

BAY = Stop("Bay", Scenario(GRASS))


def address(body: dict[str, Any], k: int, *more: object) -> str:
    return f"/{body['stops'][k]['name']}/{len(more)}"


def test_crossings_are_the_plans_own_figures() -> None:
    plan = answer()
    shown = planned_of(plan, BODY, address)
    assert [r.name for r in shown.rods] == ["A", "B"]
    for column, rod in zip(shown.rods, plan.rods, strict=True):
        assert column.rig == rig_said(rod.rig)
        assert column.line == line_said(rod.line)
        assert column.adds == f"{100 * rod.adds / plan.total:.0f} %"
    for row, stop in zip(shown.stops, plan.stops, strict=True):
        assert sum(c.chosen for c in row.cells) == 1
        each = {w.rod: w for w in (stop.with_, *stop.also)}
        for cell, rod in zip(row.cells, plan.rods, strict=True):
            served = each[rod.name]
            assert cell.score == round(100 * served.fit)
            assert cell.shade == sum(served.fit >= edge for edge in SHADES)
            assert cell.count == f"{served.countdown_s:.1f} s"
            assert cell.line == f"{rod.line['material']}:{rod.line['test_lb']:g}"
            assert cell.said.startswith(f"Rod {rod.name} at {stop.name}: {cell.score} of 100, ")
        changed = {"none": "", "trailer": " (change the trailer)", "retie": " (retie)"}[stop.with_.change]
        rig = rig_said(stop.with_.rig)
        assert row.fished == f"Rod {stop.with_.rod}{changed}: {rig}, {hands_of(stop.with_).said}."
        assert bool(row.doubt) is not stop.served
        assert row.beside == tuple(beside_said(stop))
        assert len(row.order) == len([*runs_of(stop.search)])
        assert all(": " in said for said in row.ifs)
    assert (shown.spare != "") is (min(100 * r.adds / plan.total for r in plan.rods) < HARDLY)
    spared = plan.model_copy(update={"rods": [plan.rods[0], plan.rods[1].model_copy(update={"adds": 0.01})]})
    said = planned_of(spared, BODY, address).spare
    assert said == "One rod would do: without B the day is 1 % less."
    assert shown.total == f"{100 * plan.total:.0f}"
    assert float(shown.total) <= float(shown.bound)


def test_a_stops_section_is_on_its_rods_line() -> None:
    thin, thick = (
        stop_section(BAY, "swim-jig:0.5:craw", line, STRANGER) for line in ("braid:10", "nylon:25")
    )
    assert [(s.width, s.height) for s in thin] == [(LOW.width, LOW.height), (NARROW.width, NARROW.height)]
    assert thin[0].path != thick[0].path
    assert stop_section(BAY, "swim-jig:0.5:craw", "", STRANGER)[0].path not in (thin[0].path, thick[0].path)
    worked = stop_section(Stop("Rock", Scenario(WINTER_ROCK)), "football-jig:0.5:craw", "", STRANGER)
    assert worked[0].spread == ""


@pytest.mark.parametrize(
    ("rig", "line"),
    [("toad:0.5:craw", ""), ("swim-jig:0.5:toad", ""), ("nonsense", ""), ("swim-jig:0.5:craw", "steel:20")],
)
def test_a_section_that_cannot_be(rig: str, line: str) -> None:
    with pytest.raises(BadInput):
        stop_section(BAY, rig, line, STRANGER)
