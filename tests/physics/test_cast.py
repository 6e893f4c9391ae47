"""The line simulation: reference cases, the trade's ladders, limits and identities."""

import math

import numpy as np
import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import DISPLAY, Cast, CastResult, Fidelity, fly
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.water import water_at

WATER = water_at(58.0)

# W N, mass g, A_run cm², A_lift cm², d mm, line density, v m/s, x0 m, z0 m: depths (m) at 18/15/12/9/6/3 m
REFERENCE = [
    (0.115, 14, 10, 2.6, 0.37, 1780, 0.6, 25, 2.0, (2.04, 2.12, 2.13, 2.03, 1.75, 1.13)),
    (0.115, 14, 10, 2.6, 0.46, 1140, 0.6, 25, 2.0, (1.80, 1.85, 1.85, 1.76, 1.53, 1.00)),
    (0.080, 10, 14, 4.5, 0.40, 1780, 0.7, 25, 1.0, (0.17, 0.0, 0.0, 0.0, 0.0, 0.0)),
    (0.210, 24, 11, 2.6, 0.37, 1780, 1.0, 30, 4.0, (1.93, 1.77, 1.56, 1.29, 0.92, 0.39)),
    (0.147, 18, 16, 4.0, 0.32, 970, 0.7, 25, 1.5, (1.31, 1.22, 1.10, 0.91, 0.64, 0.23)),
]


def deep(x0: float, floor: float = 30.0) -> Cast:
    return Cast(x0, 0.6, ((0.0, floor), (200.0, floor)))


def retrieve(
    lure: Lure, line: Line, x0: float, z0: float, v: float, fidelity: Fidelity = DISPLAY
) -> CastResult:
    program = [Phase("fall", slack=True, to_depth_m=z0), Phase("retrieve", speed_m_s=v)]
    return fly(lure, line, WATER, deep(x0), program, fidelity=fidelity)


@pytest.mark.parametrize("case", REFERENCE)
def test_reference_cases(case: tuple) -> None:  # type: ignore[type-arg]
    """Converged values within 0.10 m or 5 %, whichever is larger."""
    w, m, drag, lift, d, rho, v, x0, z0, depths = case
    lure = Lure(m * 1e-3, w, drag * 1e-4, drag * 1e-4, lift * 1e-4, fades=False)
    result = retrieve(lure, Line(d * 1e-3, rho, 0.010), x0, z0, v)
    for distance, depth in zip((18, 15, 12, 9, 6, 3), depths, strict=True):
        assert result.depth_at(distance) == pytest.approx(depth, abs=max(0.10, 0.05 * depth))


def test_pure_pursuit_without_weight_or_drag() -> None:
    """A weightless, drag-free line draws the lure straight at the tip: its bearing never changes."""
    line = Line(1e-5, 999.2, 0.0)
    lure = Lure(0.012, 0.002, 8e-4, 8e-4, 0.0)
    r = retrieve(lure, line, 20.0, 3.0, 1.0)
    homing = (r.distance_m < 18.0) & (r.distance_m > 4.0) & (r.time_s > r.fall_s + 1.0)
    bearing = np.arctan2(r.depth_m + 0.6, r.distance_m)[homing]
    assert np.ptp(bearing) < 0.02


def test_bottom_and_surface_are_hard_limits(cat: Catalog) -> None:
    lure = lure_of(cat, rig_by_name(cat, "swim-jig", 1.0, "pin-tail"), WATER.density_kg_m3, 60.0)
    line = line_by_test(cat, "fluorocarbon", 15)
    shallow = Cast(25.0, 0.6, ((0.0, 2.0), (99.0, 2.0)))
    r = fly(
        lure,
        line,
        WATER,
        shallow,
        [Phase("fall", slack=True, to_depth_m=9.0), Phase("retrieve", speed_m_s=0.3)],
    )
    assert r.depth_m.max() <= 2.0 + 1e-9
    assert r.on_bottom.mean() > 0.4
    light = Lure(0.008, 0.03, 2e-3, 2e-3, 8e-4)
    high = fly(
        light,
        line,
        WATER,
        shallow,
        [Phase("fall", slack=True, to_depth_m=0.5), Phase("retrieve", speed_m_s=1.5)],
    )
    assert high.depth_m.min() >= 0.0


@settings(max_examples=25, deadline=None)
@example(oz=0.1875, v=0.9375, z0=0.0, x0=9.0, nylon=True)
@given(
    oz=st.sampled_from([0.1875, 0.375, 0.75, 1.0]),
    v=st.floats(0.25, 1.6),
    z0=st.floats(0.0, 6.0),
    x0=st.floats(8.0, 40.0),
    nylon=st.booleans(),
)
def test_casts_stay_physical(cat: Catalog, oz: float, v: float, z0: float, x0: float, nylon: bool) -> None:
    """Whatever is asked: finite, inside the water, coming home, the line never longer than laid out.

    The lure's energy never comes from nowhere: its speed stays below the reel's and its own fall's together.
    """
    lure = lure_of(cat, rig_by_name(cat, "swim-jig", oz, "craw"), WATER.density_kg_m3, 60.0)
    line = line_by_test(cat, "nylon" if nylon else "fluorocarbon", 15)
    r = retrieve(lure, line, x0, z0, v)
    assert np.isfinite(np.array(r.samples)).all()
    assert (r.depth_m >= 0).all()
    assert r.distance_m[-1] < 3.0
    after = np.array(r.samples).T[
        (r.time_s > r.fall_s) & (r.distance_m > 3.0)
    ]  # nearer, a real lure is lifted out of the water
    span = np.hypot(after[:, 1], after[:, 2] + 0.6)
    assert (span <= after[:, 8] * 1.02 + 0.05).all()
    if after.shape[0] < 3:
        return
    speed = np.hypot(np.gradient(after[:, 1], after[:, 0]), np.gradient(after[:, 2], after[:, 0]))
    free = math.sqrt(2 * lure.net_weight_n / (WATER.density_kg_m3 * lure.fall_drag_area_m2))
    assert speed.max() <= 1.1 * (v + free)


def test_no_lift_never_rises_on_a_level_pull() -> None:
    """Tip at the water, line weightless and thin: without lift the lure cannot climb past the line's own
    pull."""
    lure = Lure(0.014, 0.115, 1e-3, 1e-3, 0.0)
    lifted = Lure(0.014, 0.115, 1e-3, 1e-3, 3e-4)
    line = Line(0.2e-3, 1000.0, 0.0)
    flat = retrieve(lure, line, 25, 2.0, 0.6)
    assert (flat.useful() >= retrieve(lifted, line, 25, 2.0, 0.6).useful().mean()).mean() > 0.9
