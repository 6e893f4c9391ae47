"""Every way of working a rig, as a programme to the letter: with its usual lift and hold, and with others."""

from __future__ import annotations

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import fly
from heathdrop.sizing.program import WAY, play, program_of, usual_way
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to


def test_each_rig_is_worked_as_its_presentation_asks(cat: Catalog) -> None:
    holds_to("sizing.program.usual", {name: usual_way(cat, *rated(name)) for name in CASES})


def test_a_quick_lure_burns_at_its_own_pace_and_slow_rolls_no_faster_than_that() -> None:
    sizing, slow = rated("deep in grass")
    _, quick = rated("pads")
    assert program_of(sizing, slow, "burn-and-drop")[1].speed_m_s == 1.2
    assert program_of(sizing, quick, "burn-and-drop")[1].speed_m_s == pytest.approx(1.2)
    assert program_of(sizing, slow, "slow-roll")[1].speed_m_s == pytest.approx(1.8 * 0.3048)
    assert program_of(sizing, quick, "slow-roll")[1].speed_m_s == 0.6


def test_what_is_played_is_the_programme_on_this_line_with_this_lure() -> None:
    sizing, best = rated("right over grass")
    other, heavier = sizing.line.thicker(0.3), rated("deep in grass")[1].lure
    plain = play(sizing, best)
    again = fly(best.lure, sizing.line, sizing.water, best.cast, program_of(sizing, best), shapes=True)
    assert plain.depth_m.tolist() == again.depth_m.tolist()
    assert plain.shapes.shape[0] == plain.time_s.size
    assert play(sizing, best, line=other).useful().mean() < plain.useful().mean()
    assert play(sizing, best, lure=heavier).useful().mean() > plain.useful().mean()
    assert WAY["hop"].name == "hop"
