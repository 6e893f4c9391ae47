"""A leader between line and lure: closed-form fall, the chain, and touch know both lines."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from scipy.integrate import quad

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import DISPLAY, Cast, Fidelity, fly, line_params
from heathdrop.physics.fall import depth_after_s, fall_speed_m_s, time_to_depth_s
from heathdrop.physics.kernels import chain
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.water import water_at

WATER = water_at(58.0)
THIN, THICK = Line(0.15e-3, 970.0, 0.010), Line(0.43e-3, 1780.0, 0.010)
TIED = replace(THIN, leader=THICK, leader_m=3.0)
LURE = Lure(0.010, 0.08, 8e-4, 8e-4, 2e-4)


def test_drag_of_a_drawn_line_is_leader_first() -> None:
    skin = math.pi * 0.010
    assert TIED.skin_area_m2(2.0) == pytest.approx(skin * 0.43e-3 * 2.0)
    assert TIED.skin_area_m2(5.0) == pytest.approx(skin * (0.43e-3 * 3.0 + 0.15e-3 * 2.0))
    assert TIED.mean_diameter_m(2.0) == pytest.approx(0.43e-3)
    assert TIED.mean_diameter_m(6.0) == pytest.approx(0.29e-3)
    assert TIED.thicker(0.1).leader == THICK.thicker(0.1)


@pytest.mark.parametrize("surface_m", [0.0, 2.0, 9.0])
@pytest.mark.parametrize("depth_m", [1.0, 3.0, 8.0])
def test_the_fall_is_the_integral_over_both_lines(surface_m: float, depth_m: float) -> None:
    def slowness(z: float) -> float:
        return float(1.0 / fall_speed_m_s(LURE.net_weight_n, 8e-4, z, TIED, WATER, surface_m))

    seconds = time_to_depth_s(LURE, depth_m, TIED, WATER, surface_m)
    kink = [3.0 - surface_m] if 0.0 < 3.0 - surface_m < depth_m else None
    assert seconds == pytest.approx(quad(slowness, 0.0, depth_m, points=kink)[0], rel=1e-9)
    assert depth_after_s(LURE, seconds, TIED, WATER, surface_m) == pytest.approx(depth_m, rel=1e-9)


def test_the_chain_mixes_mass_and_drag_by_length() -> None:
    whole = line_params(TIED, WATER)
    braid, leader = line_params(THIN, WATER), line_params(THICK, WATER)
    assert chain._mixed(whole, 0.0, 2.0)[:6] == pytest.approx(leader[:6])
    assert chain._mixed(whole, 3.5, 5.0)[:6] == pytest.approx(braid[:6])
    half = chain._mixed(whole, 2.0, 4.0)
    assert half.area * half.density == pytest.approx(
        0.5 * (braid.area * braid.density + leader.area * leader.density)
    )
    assert half.normal == pytest.approx(0.5 * (braid.normal + leader.normal))
    assert half.normal * half.viscous == pytest.approx(
        0.5 * (braid.normal * braid.viscous + leader.normal * leader.viscous)
    )


def runs_at(cat: Catalog, line: Line, fidelity: Fidelity = DISPLAY) -> float:
    rig = rig_by_name(cat, "swim-jig", 0.25, "paddle-tail")
    lure = lure_of(cat, rig, WATER.density_kg_m3, 58.0)
    program = [Phase("fall", slack=True, to_depth_m=2.5), Phase("retrieve", speed_m_s=0.5, take_up=True)]
    return float(
        fly(lure, line, WATER, Cast(25.0, 0.6, ((0.0, 30.0), (99.0, 30.0))), program).useful().mean()
    )


def test_a_leader_counts_for_its_length(cat: Catalog) -> None:
    """No leader, the same line as leader, a leader as long as the cast: each is what it must be."""
    braid, fluoro = line_by_test(cat, "braid", 20), line_by_test(cat, "fluorocarbon", 12)
    alone, all_fluoro = runs_at(cat, braid), runs_at(cat, fluoro)
    assert runs_at(cat, replace(braid, leader=braid, leader_m=2.5)) == pytest.approx(alone, abs=1e-3)
    assert runs_at(cat, replace(braid, leader=fluoro, leader_m=200.0)) == pytest.approx(all_fluoro, abs=1e-3)
    assert runs_at(cat, replace(braid, leader=fluoro, leader_m=0.3)) == pytest.approx(alone, abs=0.03)
    assert runs_at(cat, replace(braid, leader=fluoro, leader_m=20.0)) == pytest.approx(all_fluoro, abs=0.03)
    # Heavy line at the lure and thin line behind it: deeper than either alone.
    assert runs_at(cat, replace(braid, leader=fluoro, leader_m=6.0)) < alone - 0.1
