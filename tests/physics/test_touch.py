"""Touch: drift and wind on the line against the lure's weight."""

from __future__ import annotations

import math

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.line import line_by_test, normal_drag_coefficient
from heathdrop.physics.touch import line_pull_n, touch_of
from heathdrop.physics.water import water_at
from heathdrop.units import M_S_PER_MPH

WATER = water_at(58.0)


def test_pull_is_drift_on_the_wet_line_and_wind_on_the_dry(cat: Catalog) -> None:
    line, n = line_by_test(cat, "nylon", 12), cat.judgement.touch
    wind = 12.0 * M_S_PER_MPH
    drift, wet = n.drift_share * wind, math.hypot(6.0, n.wet_share * 20.0)
    cn = float(normal_drag_coefficient(drift * line.diameter_m / WATER.viscosity_m2_s))
    in_water = 0.5 * WATER.density_kg_m3 * line.diameter_m * cn * drift**2 * wet
    in_air = 0.5 * n.air_density_kg_m3 * line.diameter_m * n.air_drag * wind**2 * n.dry_share * 20.0
    assert line_pull_n(cat, line, WATER, 6.0, 20.0, 12.0) == pytest.approx(in_water + in_air)


def test_calm_still_drifts_a_little(cat: Catalog) -> None:
    line = line_by_test(cat, "nylon", 12)
    calm = line_pull_n(cat, line, WATER, 6.0, 20.0, 0.0)
    assert calm > 0.0
    assert line_pull_n(cat, line, WATER, 6.0, 20.0, 20.0) > calm
    assert touch_of(cat, 3.0 * calm, line, WATER, 6.0, 20.0, 0.0) == pytest.approx(0.75)
