"""Ledges: the lip is a pulley, the face a slide; nothing stretches, nothing pops."""

from __future__ import annotations

import numpy as np
import pytest

from bench.ledges import SHARES, beside_reference, measured, stepped
from heathdrop.physics.cast import Fidelity
from heathdrop.physics.kernels import ground, state
from heathdrop.physics.kernels.ground import Ground

SEEDS = range(30)
#: A ledge whose deep side is away from the angler, and one whose deep side is nearer.
AWAY = np.array([[0.0, 2.0], [10.0, 2.0], [10.2, 6.0], [100.0, 6.0]])
TOWARD = np.array([[0.0, 6.0], [10.0, 6.0], [10.2, 2.0], [100.0, 2.0]])


@pytest.mark.slow
def test_thirty_stepped_bottoms_neither_stretch_nor_pop() -> None:
    """Line within 0.5 % of its length, lure never in the rock. Along its line the lure keeps to the reel's
    pace; a heavy one that swings under a lip is a little faster across it, as in the reference."""
    found = [measured(case, case.played()) for case in map(stepped, SEEDS)]
    assert max(f["stretch"] for f in found) <= 0.005
    assert max(f["in_rock"] for f in found) <= 1e-6
    along = sorted(f["along"] for f in found)
    assert along[26] <= 1.1
    assert along[-1] <= 1.2
    assert max(f["speed"] for f in found) <= 1.45


def test_refinement_converges_over_ledges() -> None:
    fine = Fidelity(48, 0.3, 0.0125, 0.025)
    for seed in range(0, 30, 3):
        case = stepped(seed)
        ours, finer = case.played(), case.played(fine)
        for share in SHARES:
            at = share * case.cast_m
            assert ours.depth_at(at) == pytest.approx(finer.depth_at(at), abs=0.1), (seed, share)


@pytest.mark.slow
@pytest.mark.parametrize("seed", [2, 4])
def test_the_reference_agrees_over_ledges(seed: int) -> None:
    theirs, ours = beside_reference(seed)
    assert ours == pytest.approx(theirs, abs=0.06)


def test_ledges_of_a_profile() -> None:
    assert ground.ledges_of(AWAY).tolist() == [[10.0, 2.0, 10.2, 6.0]]
    assert ground.ledges_of(TOWARD).tolist() == [[10.2, 2.0, 10.0, 6.0]]
    steepest_slope = np.array([[0.0, 1.0], [2.0, 3.9], [9.0, 3.9]])
    assert ground.ledges_of(steepest_slope).shape == (0, 4)
    assert ground.slope_at(1.0, steepest_slope) == pytest.approx(1.45)
    assert ground.slope_at(10.1, AWAY) == 0.0
    assert ground.bottom_at(10.1, AWAY) == pytest.approx(4.0)
    assert (ground.bottom_at(-1.0, AWAY), ground.bottom_at(500.0, AWAY)) == (2.0, 6.0)


def test_a_face_is_met_from_its_water_side_only() -> None:
    for bottom, outside in ((AWAY, 1.0), (TOWARD, -1.0)):
        ledges = ground.ledges_of(bottom)
        face = ground.face_at(4.0, ledges, 0)
        assert face == pytest.approx(10.1)
        inside = face - 0.05 * outside
        assert ground.face_met(inside, 4.0, ground.bottom_at(inside, bottom), ledges) == 0
        assert ground.face_met(face + 0.05 * outside, 4.0, 6.0, ledges) == -1
        # Nearer the shelf above it than the face: it came down on the shelf.
        near = ground.face_at(2.02, ledges, 0) - 0.1 * outside
        assert ground.face_met(near, 2.02, 2.0, ledges) == -1
        far_in = face - 0.6 * outside
        assert ground.face_met(far_in, 4.0, 2.0, ledges) == -1
        up_x, up_z = ground.face_up(ledges, 0)
        assert (up_x, up_z) == pytest.approx((-0.2 * outside / np.hypot(0.2, 4), -4 / np.hypot(0.2, 4)))


def two_segments(nodes: list[tuple[float, float]]) -> np.ndarray:
    s = state.state_room(len(nodes))
    s[state.X, :], s[state.Z, :] = np.array(nodes).T
    return s


def test_a_segment_runs_over_the_lip_in_its_way() -> None:
    s = two_segments([(7.0, 1.0), (10.4, 5.0), (11.0, 5.5)])
    ground.over_lips(s, 2, ground.ledges_of(AWAY))
    assert s[state.LENGTH, 0] == pytest.approx(np.hypot(3, 1) + np.hypot(0.4, 3))
    assert (s[state.NX, 0], s[state.NZ, 0]) == pytest.approx((3 / np.hypot(3, 1), 1 / np.hypot(3, 1)))
    assert (s[state.DX, 0], s[state.DZ, 0]) == pytest.approx((0.4 / np.hypot(0.4, 3), 3 / np.hypot(0.4, 3)))
    assert s[state.LIP, :2].tolist() == [1.0, 0.0]
    clear = two_segments([(7.0, 1.0), (10.4, 2.05), (11.0, 5.5)])
    ground.over_lips(clear, 2, ground.ledges_of(AWAY))
    assert clear[state.LIP, 0] == 0.0


def test_a_node_at_the_lip_goes_round_it_and_keeps_its_speed() -> None:
    ledges = ground.ledges_of(AWAY)
    s = two_segments([(7.0, 2.0), (10.001, 2.02), (10.1, 3.0)])
    ground.over_lips(s, 2, ledges)
    s[state.Z, 1] -= 0.05
    s[state.W, 1] = -0.7
    assert not ground.round_lips(s, 2, ledges)
    past = np.hypot(0.001, 0.03)
    assert (s[state.X, 1], s[state.Z, 1]) == pytest.approx((10.0 - past, 2.0))
    assert (s[state.U, 1], s[state.W, 1]) == pytest.approx((-0.7, 0.0))


def test_how_the_lure_stands() -> None:
    ledges, free = ground.ledges_of(AWAY), Ground(False, False, 1.0, 0.0, 0.0)
    s = two_segments([(7.0, 1.0), (9.0, 3.0), (10.05, 4.0)])
    s[state.U, 2], s[state.W, 2] = -0.5, -0.2
    leaning = ground.stand(s, 2, AWAY, ledges, free, -1.0, -1.0)
    assert leaning[:2] == (True, True)
    assert leaning.press == 0.0
    assert s[state.X, 2] == pytest.approx(10.1)
    slid = np.hypot(s[state.U, 2], s[state.W, 2])
    assert slid == pytest.approx(abs(-0.5 * leaning.along_x - 0.2 * leaning.along_z))
    away = ground.stand(s, 2, AWAY, ledges, leaning, 2.0, 0.0)
    assert not away.touching
    s[state.X, 2], s[state.Z, 2] = 20.0, 6.01
    landed = ground.stand(s, 2, AWAY, ledges, free, 0.0, 0.3)
    assert landed == Ground(True, False, 1.0, 0.0, 0.3)
    assert s[state.Z, 2] == 6.0
    lifted = ground.stand(s, 2, AWAY, ledges, landed, 0.0, -0.1)
    assert not lifted.touching


def test_line_comes_to_rest_on_floor_and_before_faces() -> None:
    ledges = ground.ledges_of(AWAY)
    s = two_segments([(0.0, -0.6), (5.0, 2.1), (10.05, 4.0), (20.0, 3.0)])
    s[state.W, 1], s[state.U, 2] = 0.4, -0.3
    ground.keep_line_out(s, 3, AWAY, 2.0, ledges)
    assert (s[state.Z, 1], s[state.W, 1]) == (2.0, 0.0)
    assert s[state.X, 2] == pytest.approx(10.1, abs=2e-4)
    assert s[state.U, 2] == 0.0
    assert s[state.Z, 3] == 3.0
