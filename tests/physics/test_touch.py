"""Touch: drift and wind bow the line; what is left of a tick at the tip, and how often it is felt."""

from __future__ import annotations

import math

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.line import Line, line_by_test, normal_drag_coefficient
from heathdrop.physics.touch import line_pull_n, touch_of
from heathdrop.physics.water import water_at
from heathdrop.units import KG_PER_OZ, M_S_PER_MPH, metres

WATER = water_at(50.0)
#: A lead head's net weight, N per oz.
NET_N_OZ = KG_PER_OZ * 9.80665 * (1.0 - 1.0 / 11.0)


def test_pull_is_drift_on_the_wet_line_and_wind_on_the_dry(cat: Catalog) -> None:
    line, n = line_by_test(cat, "nylon", 12), cat.judgement.touch
    wind = 12.0 * M_S_PER_MPH
    drift, wet = n.drift_share * wind, math.hypot(6.0, n.wet_share * 20.0)
    cn = float(normal_drag_coefficient(drift * line.diameter_m / WATER.viscosity_m2_s))
    in_water = 0.5 * WATER.density_kg_m3 * line.diameter_m * cn * drift**2 * wet
    in_air = 0.5 * n.air_density_kg_m3 * line.diameter_m * n.air_drag * wind**2 * n.dry_share * 20.0
    assert line_pull_n(cat, line, WATER, 6.0, 20.0, 12.0) == pytest.approx(in_water + in_air)


def test_the_step_is_the_tick_over_what_gives(cat: Catalog) -> None:
    """Bow, stretch and tip in series, by hand."""
    line, n = line_by_test(cat, "fluorocarbon", 12), cat.judgement.touch
    weight, depth, away, wind = 0.12, 5.0, 15.0, 4.0
    length = math.hypot(depth, away)
    pull = line_pull_n(cat, line, WATER, depth, away, wind)
    load = math.hypot(pull / length, line.net_weight_n_m(WATER.density_kg_m3))
    bow = load**2 * length**3 / (12.0 * (weight + pull) ** 3)
    stretch = length / (2.2e9 * math.pi * (0.31e-3) ** 2 / 4.0)
    assert line.stretch_m_n(length) == pytest.approx(stretch)
    wanted = n.tick_m / (bow + stretch + n.tip_m_n)
    assert touch_of(cat, line, WATER, depth, away, wind).step_n(weight) == pytest.approx(wanted)
    felt = 0.5 * (1.0 + math.erf(math.log(wanted / n.threshold_n) / n.scatter / math.sqrt(2.0)))
    assert touch_of(cat, line, WATER, depth, away, wind).felt(weight) == pytest.approx(felt)


def test_no_step_is_more_than_the_lure(cat: Catalog) -> None:
    line = line_by_test(cat, "braid", 15)
    assert touch_of(cat, line, WATER, 1.0, 2.0, 0.0).step_n(0.01) <= 0.01
    assert touch_of(cat, line, WATER, 1.0, 2.0, 0.0).felt(0.0) == 0.0
    assert touch_of(cat, line, WATER, 1.0, 2.0, 0.0).felt(-0.1) == 0.0


def felt(cat: Catalog, oz: float, material: str, test: float, depth_ft: float, mph: float) -> float:
    line = line_by_test(cat, material, test)
    return touch_of(cat, line, WATER, metres(depth_ft), metres(55.0), mph).felt(oz * NET_N_OZ)


def test_thick_nylon_hides_a_quarter_ounce_deep_down(cat: Catalog) -> None:
    """It is not felt as thin braid has it, nor as half an ounce is; wind hides all of them."""
    thick, thin = felt(cat, 0.25, "nylon", 20, 20, 3), felt(cat, 0.25, "braid", 15, 20, 3)
    assert thick < 0.8 < thin
    assert felt(cat, 0.125, "nylon", 20, 20, 3) < 0.3
    assert felt(cat, 0.5, "nylon", 20, 20, 3) > 0.9
    assert felt(cat, 0.25, "nylon", 20, 20, 15) < 0.3


@pytest.mark.parametrize("material", ["nylon", "fluorocarbon", "braid"])
def test_heavier_and_calmer_are_felt_more(cat: Catalog, material: str) -> None:
    by_weight = [felt(cat, oz, material, 15, 12, 6) for oz in (0.125, 0.25, 0.5, 1.0)]
    assert by_weight == sorted(by_weight)
    by_wind = [felt(cat, 0.5, material, 15, 12, mph) for mph in (0, 5, 10, 20)]
    assert by_wind == sorted(by_wind, reverse=True)


def test_a_leader_stretches_first(cat: Catalog) -> None:
    braid, nylon = line_by_test(cat, "braid", 20), line_by_test(cat, "nylon", 10)
    tied = Line(braid.diameter_m, braid.density_kg_m3, braid.friction, nylon, 2.0, braid.modulus_pa)
    both = nylon.stretch_m_n(2.0) + braid.stretch_m_n(8.0)
    assert tied.stretch_m_n(10.0) == pytest.approx(both)
    assert tied.stretch_m_n(1.0) == pytest.approx(nylon.stretch_m_n(1.0))
