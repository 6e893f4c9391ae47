"""The bottom to the digit: its depth, its ledges, how a lure stands, slides and is lifted off."""

from __future__ import annotations

import math

import numpy as np
import pytest

from heathdrop.physics.kernels import state as row
from heathdrop.physics.kernels.ground import (
    AT_LIP_M,
    TOUCH_M,
    Ground,
    bottom_at,
    face_at,
    face_met,
    face_up,
    keep_line_out,
    ledges_of,
    slope_at,
    stand,
)

#: Level at 2 m, a ledge between 10 and 10.5 m down to 4 m, a slope of one in ten from 20 m on.
BOTTOM = np.array([[0.0, 2.0], [10.0, 2.0], [10.5, 4.0], [20.0, 4.0], [30.0, 5.0]])
LEDGES = ledges_of(BOTTOM)
FREE = Ground(False, False, 1.0, 0.0, 0.0)
DOWN = Ground(True, False, 1.0, 0.0, 0.1)


@pytest.mark.parametrize(
    ("x", "depth"),
    [(-3.0, 2.0), (0.0, 2.0), (10.0, 2.0), (10.25, 3.0), (15.0, 4.0), (25.0, 4.5), (99.0, 5.0)],
)
def test_depth_between_the_points_and_beyond_them(x: float, depth: float) -> None:
    assert bottom_at(x, BOTTOM) == pytest.approx(depth)


def test_a_ledge_is_lip_and_foot_whichever_way_it_faces() -> None:
    assert LEDGES.tolist() == [[10.0, 2.0, 10.5, 4.0]]
    rising = np.array([[0.0, 4.0], [10.0, 4.0], [10.5, 2.0], [30.0, 2.0]])
    assert ledges_of(rising).tolist() == [[10.5, 2.0, 10.0, 4.0]]
    assert ledges_of(np.array([[0.0, 2.0], [10.0, 12.0]])).shape == (0, 4)


def test_the_slope_beside_a_ledge_is_not_told() -> None:
    assert slope_at(25.0, BOTTOM) == pytest.approx(0.1)
    assert slope_at(5.0, BOTTOM) == 0.0
    assert slope_at(10.2, BOTTOM) == 0.0


def test_the_face_between_lip_and_foot() -> None:
    assert face_at(3.0, LEDGES, 0) == pytest.approx(10.25)
    assert face_at(1.0, LEDGES, 0) == 10.0
    assert face_at(9.0, LEDGES, 0) == 10.5
    up = face_up(LEDGES, 0)
    assert up == pytest.approx((-0.5 / math.hypot(0.5, 2.0), -2.0 / math.hypot(0.5, 2.0)))


def test_a_face_is_met_from_the_water_alone() -> None:
    assert face_met(10.15, 3.0, bottom_at(10.15, BOTTOM), LEDGES) == 0
    assert face_met(10.4, 3.0, bottom_at(10.4, BOTTOM), LEDGES) == -1
    assert face_met(10.15, 1.9, bottom_at(10.15, BOTTOM), LEDGES) == -1
    assert face_met(9.0, 3.5, 2.0, LEDGES) == -1


def lure(x: float, z: float, u: float = 0.0, w: float = 0.0) -> np.ndarray:
    s = row.state_room(2)
    s[row.X, 1], s[row.Z, 1], s[row.U, 1], s[row.W, 1] = x, z, u, w
    return s


def test_a_lure_comes_to_rest_on_the_floor_and_keeps_its_way_along_it() -> None:
    s = lure(5.0, 2.01, u=-0.4, w=0.9)
    found = stand(s, 1, BOTTOM, LEDGES, FREE, 0.0, 0.12)
    assert found == Ground(True, False, 1.0, 0.0, 0.12)
    assert (s[row.Z, 1], s[row.W, 1], s[row.U, 1]) == (2.0, 0.0, -0.4)


def test_on_a_slope_it_slides_along_the_slope() -> None:
    s = lure(25.0, 4.6)
    found = stand(s, 1, BOTTOM, LEDGES, FREE, 0.0, 0.2)
    assert (found.along_x, found.along_z) == pytest.approx((1.0 / math.sqrt(1.01), 0.1 / math.sqrt(1.01)))


def test_above_the_floor_it_is_free() -> None:
    assert stand(lure(5.0, 1.5), 1, BOTTOM, LEDGES, FREE, 0.0, 0.2) == FREE


@pytest.mark.parametrize(
    ("above_m", "pull_n", "touching"),
    [(0.0, 0.1, True), (0.9 * TOUCH_M, 0.1, True), (1.2 * TOUCH_M, 0.1, False), (0.0, -0.1, False)],
)
def test_what_stood_is_lifted_by_more_than_its_weight(above_m: float, pull_n: float, touching: bool) -> None:
    s = lure(5.0, 2.0 - above_m)
    found = stand(s, 1, BOTTOM, LEDGES, DOWN, 0.0, pull_n)
    assert found.touching is touching
    assert s[row.Z, 1] == pytest.approx(2.0 if touching else 2.0 - above_m)


def test_in_a_face_it_is_put_back_on_it_and_moves_along_it() -> None:
    s = lure(10.15, 3.0, u=-0.5, w=0.5)
    found = stand(s, 1, BOTTOM, LEDGES, FREE, -0.1, 0.2)
    up = face_up(LEDGES, 0)
    assert found == Ground(True, True, *up, 0.0)
    assert s[row.X, 1] == pytest.approx(10.25)
    along = -0.5 * up[0] + 0.5 * up[1]
    assert (s[row.U, 1], s[row.W, 1]) == pytest.approx((along * up[0], along * up[1]))
    pulled_off = stand(s, 1, BOTTOM, LEDGES, found, 5.0, 0.0)
    assert pulled_off == FREE


def test_line_rests_on_the_floor_and_stays_before_a_face() -> None:
    s = row.state_room(5)
    s[row.X] = (0.0, 5.0, 10.15, 15.0, 16.0)
    s[row.Z] = (-1.0, 2.1, 3.0, 3.0, 4.0)
    s[row.U, 2] = -0.3
    s[row.W] = 0.4
    keep_line_out(s, 4, BOTTOM, 2.0, LEDGES)
    assert (s[row.Z, 1], s[row.W, 1]) == (2.0, 0.0)
    assert s[row.X, 2] == pytest.approx(10.25 + AT_LIP_M)
    assert s[row.U, 2] == 0.0
    assert (s[row.Z, 3], s[row.W, 3]) == (3.0, 0.4)
