"""Bands hold the prediction they are about."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Measured, rig_by_name, spread_of
from heathdrop.sizing.bands import bands_for, cast_bands, fall_factors, means_at
from heathdrop.sizing.program import program_of
from heathdrop.sizing.size import size
from tests.advice.cases import rated
from tests.golden_file import holds_to
from tests.waters import GRASS as DAY


def test_bands_hold_the_prediction(cat: Catalog) -> None:
    s = size(cat, Scenario(DAY))
    r = s.rigs[0]
    band = bands_for(cat, s, [r])[0]
    assert band.mean_low_m < r.tuned.mean_m < band.mean_high_m
    low, high = fall_factors(spread_of(cat, rig_by_name(cat, "swim-jig", 0.5, "craw"), 60.0))
    assert 0.7 < low < 1.0 < high < 1.4


NAMES = ("right over grass", "on braid", "weighed", "winter rock")


def test_bands_of_rigs_at_their_settings(cat: Catalog) -> None:
    """Each uncertain quantity moved by its sigma, in quadrature: figures to a tenth of a per cent."""
    found = {name: bands_for(cat, s, [r])[0] for name in NAMES for s, r in [rated(name)]}
    holds_to("sizing.bands", found, tolerance=1e-3)
    assert bands_for(cat, rated("weighed")[0], []) == []


def test_bands_of_a_cast_whatever_its_programme(cat: Catalog) -> None:
    found = {}
    for name, way in (("right over grass", "steady"), ("on braid", "yo-yo"), ("winter rock", "drag")):
        s, r = rated(name)
        program = program_of(s, r, way)
        found[f"{name}, {way}"] = cast_bands(cat, r.rig, r.lure, s.line, s.water, s.cast, program, 58.0)
    holds_to("sizing.bands.cast", found, tolerance=1e-3)


def test_a_cast_without_a_fall_has_no_band_of_depths(cat: Catalog) -> None:
    s, r = rated("right over grass")
    only_fall = [Phase("fall", slack=True, for_s=2.0)]
    found = cast_bands(cat, r.rig, r.lure, s.line, s.water, s.cast, only_fall, 58.0)
    low, high = fall_factors(spread_of(cat, r.rig, 58.0))
    assert found.mean_m is None
    assert found.fall_s == pytest.approx((2.0 / high, 2.0 / low), rel=0.01)


def test_a_measured_rig_is_surer(cat: Catalog) -> None:
    s, r = rated("right over grass")
    sure = replace(
        r,
        rig=replace(
            r.rig, measured=Measured(lift_spread=0.02, body_fall_spread=0.02, trailer_fall_spread=0.02)
        ),
    )
    plain, measured = bands_for(cat, s, [r, sure])
    assert measured.mean_high_m - measured.mean_low_m < plain.mean_high_m - plain.mean_low_m
    assert measured.fall_high < plain.fall_high


def test_longer_counts_run_deeper_until_the_bottom(cat: Catalog) -> None:
    s, r = rated("on braid")
    depths = means_at(s, r, (2.0, 6.0, 10.0))
    assert depths == sorted(depths)
    landed, longer = means_at(s, r, (60.0, 90.0))
    assert landed == longer
    holds_to("sizing.bands.means", depths, tolerance=1e-3)
