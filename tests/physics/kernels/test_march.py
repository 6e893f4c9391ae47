"""A programme marched through: samples on time, what ends a leg and what ends a cast."""

from __future__ import annotations

import math

import numpy as np
import pytest

from heathdrop.physics.kernels.march import HOME_M, run_chain
from heathdrop.physics.kernels.records import (
    FAR,
    Grid,
    Leg,
    LineParams,
    LureParams,
    Samples,
    Start,
    rows_of,
    samples_room,
)

LURE = LureParams(0.014, 0.115, 1e-3, 1e-3, 0.0, 0.0, 0.3)
THIN = LineParams(1e-9, 1000.0, 1e-4, 0.0, 1e-6, 998.0)
LEVEL = np.array([[0.0, 3.0], [99.0, 3.0]])
GRID = Grid(np.linspace(0.0, 1.0, 7), 0.05, 0.05, 0.2, 0.2)
NO_SHAPES = np.zeros((0, 0, 2))


def played(legs: list[Leg], start: Start, room: int = 400, sample_s: float = 0.25) -> tuple[int, Samples]:
    out = samples_room(room)
    return run_chain(LURE, THIN, LEVEL, rows_of(legs), GRID, start, sample_s, out, NO_SHAPES), out


def test_it_is_sampled_on_time_and_the_last_moment_is_kept() -> None:
    k, out = played([Leg(2.0, phase=1.0), Leg(1.0, reel=0.5, phase=2.0)], Start(20.0, 1.0, 1.0, 5.0))
    assert out.t[0] == 5.0
    assert out.t[k - 1] == pytest.approx(8.0, abs=1e-6)
    assert np.diff(out.t[: k - 1]) == pytest.approx(0.25, abs=0.051)
    assert set(out.phase[: k - 1]) == {1.0, 2.0}


def test_a_leg_ends_at_its_depth() -> None:
    """A lure on a thin line falls at its terminal speed, √(2W/ρA), and stops being followed where asked."""
    k, out = played([Leg(60.0, depth=2.5)], Start(20.0, 0.5, 1.0, 0.0), sample_s=0.05)
    assert out.z[k - 1] == pytest.approx(2.5, abs=0.03)
    terminal = math.sqrt(2.0 * 0.115 / (998.0 * 1e-3))
    late = slice(k - 12, k - 2)
    assert np.diff(out.z[late]) / np.diff(out.t[late]) == pytest.approx(terminal, rel=0.06)


def test_a_leg_ends_on_the_bottom() -> None:
    k, out = played([Leg(60.0, bottom=1.0)], Start(20.0, 0.5, 1.0, 0.0))
    assert out.bottom[k - 1] == 1.0
    assert out.z[k - 1] == pytest.approx(3.0)
    assert out.t[k - 1] < 20.0


def test_the_cast_ends_at_the_boat_or_where_it_is_asked_to() -> None:
    k, out = played([Leg(FAR, reel=1.0, near=8.0)], Start(20.0, 1.0, 1.0, 0.0))
    assert out.x[k - 1] == pytest.approx(8.0, abs=0.06)
    k, out = played([Leg(FAR, reel=1.0)], Start(20.0, 1.0, 1.0, 0.0))
    assert out.line[k - 1] == pytest.approx(HOME_M + 1.0, abs=0.06)
    ways = out.line[0] - out.line[1]
    assert ways == pytest.approx(0.25, abs=0.051)


def test_a_full_record_ends_it() -> None:
    k, out = played([Leg(FAR, reel=0.3)], Start(20.0, 1.0, 1.0, 0.0), room=9)
    assert k == 8
    assert out.t[8] == 0.0


def test_slack_is_taken_up_until_the_line_is_nearly_straight() -> None:
    k, out = played([Leg(20.0, reel=0.9, tight=0.97)], Start(20.0, 2.0, 1.0, 0.0))
    straight = math.hypot(out.x[k - 1] - out.tip_x[k - 1], out.z[k - 1] - out.tip_z[k - 1])
    assert straight / out.line[k - 1] == pytest.approx(0.97, abs=0.01)
    assert out.t[k - 1] < 20.0
