"""One step of the line, part by part, where it can be said beforehand what comes out."""

import math

import numpy as np
import pytest

from heathdrop.physics.kernels import state as row
from heathdrop.physics.kernels.chain import (
    SKIN_M,
    _cube_root,
    _fit_mesh,
    _mixed,
    _wet,
    directions,
    lay,
    lure_node,
    move,
    tensions,
)
from heathdrop.physics.kernels.ground import Ground
from heathdrop.physics.kernels.records import LineParams, LureParams

NO_LEDGES = np.zeros((0, 4))


FREE = Ground(False, False, 1.0, 0.0, 0.0)


def test_the_mesh_gets_a_node_at_the_corner() -> None:
    mesh = np.linspace(0.0, 1.0, 6)
    _fit_mesh(mesh, 0.5)
    assert 0.5 in mesh
    assert (mesh[0], mesh[-1]) == (0.0, 1.0)
    assert np.all(np.diff(mesh) > 0.0)
    late = np.linspace(0.0, 1.0, 6)
    _fit_mesh(late, 0.99)  # too near the lure: left as it is
    assert late == pytest.approx(np.linspace(0.0, 1.0, 6))


def test_line_is_laid_from_tip_to_water_along_it_and_down() -> None:
    mesh = np.linspace(0.0, 1.0, 41)
    s = row.state_room(41)
    length = lay(s, mesh, 20.0, 3.0, 0.0, -1.0)
    # A fifth of the cast, or 4 m, to where it meets the water; the rest level; straight down at the lure.
    assert length == pytest.approx(math.hypot(4.0, 1.0) + 16.0 + 3.0)
    assert (s[row.X, 0], s[row.Z, 0]) == pytest.approx((0.0, -1.0))
    assert (s[row.X, 40], s[row.Z, 40]) == pytest.approx((20.0, 3.0))
    level = (s[row.X] > 4.0) & (s[row.X] < 20.0)
    assert np.all(s[row.Z][level] == 0.0)
    directions(s, 40, NO_LEDGES)
    assert s[row.LENGTH, :40].sum() == pytest.approx(length, rel=2e-3)
    assert np.hypot(s[row.DX, :40], s[row.DZ, :40]) == pytest.approx(1.0)
    assert np.array_equal(s[row.NX, :40], s[row.DX, :40])


@pytest.mark.parametrize(
    ("here", "there", "wet"),
    [(1.0, 2.0, 2.0), (-1.0, -0.1, 0.0), (-1.0, 1.0, 1.0), (3.0, -1.0, 1.5), (0.0, 0.0, 2.0)],
)
def test_the_wetted_part_of_a_length_of_two(here: float, there: float, wet: float) -> None:
    assert _wet(here, there, 2.0) == pytest.approx(wet)


def test_cube_roots_from_a_warm_start() -> None:
    assert _cube_root(8.0, 2.0) == pytest.approx(2.0)
    assert _cube_root(8.0, 1.7) == pytest.approx(2.0, rel=3e-3)
    assert _cube_root(0.0, 0.5) == pytest.approx(0.25)


LINE = LineParams(2e-7, 1000.0, 0.2, 0.03, 0.01, 998.0, 2.0, 1e-7, 1780.0, 0.1, 0.05, 0.005)


def test_between_line_and_leader_mass_and_drag_are_shared() -> None:
    assert _mixed(LINE, 3.0, 4.0)[:5] == pytest.approx(LINE[:5])
    leader = _mixed(LINE, 0.0, 1.0)
    assert leader[:5] == pytest.approx((1e-7, 1780.0, 0.1, 0.05, 0.005))
    half = _mixed(LINE, 1.0, 3.0)
    assert half.area * half.density == pytest.approx(0.5 * (1e-7 * 1780.0 + 2e-7 * 1000.0))
    assert half.normal == pytest.approx(0.15)
    assert half.normal * half.viscous == pytest.approx(0.5 * (0.1 * 0.05 + 0.2 * 0.03))
    assert half.tangent == pytest.approx(0.0075)


def test_a_line_pulls_and_never_pushes() -> None:
    s = row.state_room(2)
    s[row.DIAGONAL, 0], s[row.RIGHT, 0] = 2.0, 6.0
    tensions(s, 1)
    assert (s[row.TENSION, 0], s[row.TIGHT, 0], s[row.PEAK, 0]) == (3.0, 1.0, 3.0)
    s[row.RIGHT, 0] = -6.0
    tensions(s, 1)
    assert (s[row.TENSION, 0], s[row.TIGHT, 0], s[row.PEAK, 0]) == (0.0, 0.0, pytest.approx(2.4))
    s[row.RIGHT, 0] = 1.0
    tensions(s, 1)
    assert (s[row.TENSION, 0], s[row.TIGHT, 0]) == (0.5, 1.0)


def test_two_segments_are_solved_together() -> None:
    s = row.state_room(3)
    s[row.DIAGONAL, :2] = 4.0, 4.0
    s[row.UPPER, 0], s[row.LOWER, 1] = -1.0, -1.0
    s[row.RIGHT, :2] = 2.0, 7.0
    tensions(s, 2)
    assert s[row.TENSION, :2] == pytest.approx(np.linalg.solve([[4.0, -1.0], [-1.0, 4.0]], [2.0, 7.0]))


def test_what_moves_is_stopped_at_the_surface() -> None:
    s = row.state_room(2)
    s[row.FREE_U, 1], s[row.FREE_W, 1] = -1.0, -2.0
    s[row.X, 1], s[row.Z, 1] = 5.0, 0.1
    move(s, 1, 0.1)
    assert s[row.X, 1] == pytest.approx(4.9)
    assert s[row.Z, 1] == pytest.approx(-SKIN_M)
    assert s[row.W, 1] == 0.0


def test_a_pull_moves_a_node_by_its_mobility() -> None:
    s = row.state_room(2)
    s[row.TENSION, 0], s[row.DX, 0], s[row.DZ, 0] = 2.0, 1.0, 0.0
    s[row.B00, 1], s[row.B10, 1] = 0.25, 0.5
    s[row.Z, 1] = 1.0
    move(s, 1, 0.1)
    assert (s[row.U, 1], s[row.W, 1]) == (-0.5, -1.0)


def resistance(u: float, w: float, z: float = 2.0, **changed: float) -> tuple[float, float]:
    lure = LureParams(0.014, 0.115, 1e-3, 3e-3, 4e-4, 0.0, 0.3)._replace(**changed)
    bare = LineParams(1e-9, 1000.0, 0.0, 0.0, 0.0, 1000.0)
    s = row.state_room(2)
    s[row.X], s[row.Z] = (0.0, 10.0), (-1.0, z)
    s[row.U, 1], s[row.W, 1] = u, w
    directions(s, 1, NO_LEDGES)
    found: tuple[float, float] = lure_node(s, np.array([0.0, 1.0]), 1, 10.0, lure, bare, 0.01, FREE)
    return found


def test_the_water_resists_along_the_way_and_lifts_across_it() -> None:
    """Half rho A v²: level by the run area with the lift across it, straight down by the fall area."""
    assert resistance(-1.0, 0.0) == pytest.approx((-0.5, 0.2), rel=1e-6)
    assert resistance(1.0, 0.0) == pytest.approx((0.5, 0.2), rel=1e-6)
    assert resistance(0.0, 0.5, lift=0.0) == pytest.approx((0.0, 0.375), rel=1e-6)
    assert resistance(-2.0, 0.0) == pytest.approx((-2.0, 0.8), rel=1e-6)


def test_lift_fades_in_a_dive_where_it_is_said_to() -> None:
    steep = resistance(-0.1, 1.0)
    faded = resistance(-0.1, 1.0, fades=1.0)
    speed = math.hypot(0.1, 1.0)
    assert steep[0] - faded[0] == pytest.approx(0.2 * speed * (1.0 - 0.2 / speed), rel=1e-6)
    assert resistance(-1.0, 0.1) == pytest.approx(resistance(-1.0, 0.1, fades=1.0))


def test_at_the_surface_it_sheds_lift_first() -> None:
    skimming = resistance(-1.0, 0.0, z=-SKIN_M)
    assert skimming == pytest.approx((-0.25, 0.0), abs=1e-6)
