"""Bands hold the prediction they are about."""

from __future__ import annotations

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import rig_by_name, spread_of
from heathdrop.sizing.bands import bands_for, fall_factors
from heathdrop.sizing.size import size
from tests.waters import GRASS as DAY


def test_bands_hold_the_prediction(cat: Catalog) -> None:
    s = size(cat, Scenario(DAY))
    r = s.rigs[0]
    band = bands_for(cat, s, [r])[0]
    assert band.mean_low_m < r.tuned.mean_m < band.mean_high_m
    low, high = fall_factors(spread_of(cat, rig_by_name(cat, "swim-jig", 0.5, "craw"), 60.0))
    assert 0.7 < low < 1.0 < high < 1.4
