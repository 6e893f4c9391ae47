"""Bands hold the prediction they are about."""

from __future__ import annotations

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig import rig_by_name, spread_of
from heathdrop.sizing.bands import bands_for, fall_factors
from heathdrop.sizing.size import size

DAY = Conditions(
    water_temp_f=58,
    bottom_depth_ft=9,
    fish_depth_ft=6,
    clarity_ft=3,
    trend="rising",
    activity=None,
    season="pre-spawn",
    light="overcast",
    wind_mph=8,
    forage="bluegill",
    cover=Cover(kind="submerged-grass", top_depth_ft=7),
)


def test_bands_hold_the_prediction(cat: Catalog) -> None:
    s = size(cat, Scenario(DAY))
    r = s.rigs[0]
    band = bands_for(cat, s, [r])[0]
    assert band.mean_low_m < r.tuned.mean_m < band.mean_high_m
    low, high = fall_factors(spread_of(cat, rig_by_name(cat, "swim-jig", 0.5, "craw"), 60.0))
    assert 0.7 < low < 1.0 < high < 1.4
