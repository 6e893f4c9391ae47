"""Bands hold the prediction they are about."""

from __future__ import annotations

import dataclasses
import math
from dataclasses import replace

import pytest

from bench.bands import Held, Stranger, steady
from bench.bands import drilled as drilled_by
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.learning.learned import Learned
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Measured, Spread, rig_by_name, spread_of
from heathdrop.sizing.bands import EIGHTY, Moved, bands_for, cast_bands, depth_band, fall_factors
from heathdrop.sizing.known import Handle
from heathdrop.sizing.program import program_of
from heathdrop.sizing.scatter import Scatter
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
    """Figures to a tenth of a per cent."""
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


#: A cast that goes down as the square of pace: 4 ft told, e^±.24 at .12 quicker and slower.
SQUARE = Moved(
    told=4.0, quicker=4.0 * math.exp(-0.24), slower=4.0 * math.exp(0.24), run=4.0, lift=4.0, start=4.0,
    thick=4.0, cast=4.0, tip=4.0,
)  # fmt: skip
SURE = Spread(0.2, 0.2, 0.2)


def test_depth_goes_as_a_power_of_pace() -> None:
    """A pace of one sigma .08: the ends are at 4 e^(∓2 · 1.2816 · .08), low and high apart."""
    low, high, parts = depth_band(SQUARE, Scatter(pace=0.08), SURE, 0.6)
    assert low == pytest.approx(4.0 * (math.exp(-2 * EIGHTY * 0.08) - 1.0), rel=1e-6)
    assert high == pytest.approx(4.0 * (math.exp(2 * EIGHTY * 0.08) - 1.0), rel=1e-6)
    assert high > -low
    assert parts["pace"] == pytest.approx(0.08 * 4.0 * math.sinh(0.24) / 0.12)
    assert sum(parts.values()) == parts["pace"]


def test_what_is_not_known_adds_in_quadrature_along_the_steepest_way() -> None:
    """Areas that move it 3, a count 4, a tip 12 hundredths: 13 together, told as a change of pace."""
    moved = dataclasses.replace(SQUARE, lift=3.97, start=4.04, tip=3.88)
    low, high, parts = depth_band(moved, Scatter(), SURE, 0.6)
    assert [round(parts[k], 6) for k in ("areas", "count", "tip", "pace", "drift")] == [
        0.03,
        0.04,
        0.12,
        0.0,
        0.0,
    ]
    per_pace = 4.0 * math.sinh(0.24) / 0.12
    assert high == pytest.approx(4.0 * (math.exp(2.0 * EIGHTY * 0.13 / per_pace) - 1.0), rel=1e-6)
    assert low == pytest.approx(4.0 * (math.exp(-2.0 * EIGHTY * 0.13 / per_pace) - 1.0), rel=1e-6)


def test_a_slow_hand_runs_deeper_and_a_drift_moves_a_slow_roll_more() -> None:
    plain, slow = (depth_band(SQUARE, Scatter(pace=0.05, pace_bias=b), SURE, 0.6) for b in (0.0, -0.06))
    assert slow[0] > plain[0]
    assert slow[1] == pytest.approx(4.0 * (math.exp(2 * (EIGHTY * 0.05 + 0.06)) - 1.0), rel=1e-6)
    drift = Scatter(drift_m_s=0.06)
    at_half, at_whole = (depth_band(SQUARE, drift, SURE, pace)[2]["drift"] for pace in (0.5, 1.0))
    assert at_half == pytest.approx(2.0 * at_whole)


def test_parts_that_only_add_lift_the_middle_of_what_is_told() -> None:
    """Log-normal parts add up to more than their medians: a spread's own share of it shifts both ends."""
    more = Spread(0.2, 0.2, 0.2, lift_more=0.02)
    moved = dataclasses.replace(SQUARE, lift=3.5)
    low, high, _ = depth_band(moved, Scatter(), SURE, 0.6)
    shifted = depth_band(moved, Scatter(), more, 0.6)
    assert shifted[:2] == pytest.approx((low - 0.05, high - 0.05))


def test_a_lure_that_no_pace_moves_has_an_even_band() -> None:
    still = Moved(*[4.0] * 9)
    assert depth_band(still, Scatter(pace=0.08), SURE, 0.6)[:2] == (0.0, 0.0)
    low, high, _ = depth_band(dataclasses.replace(still, start=4.1), Scatter(), SURE, 0.6)
    assert (low, high) == pytest.approx((-EIGHTY * 0.1, EIGHTY * 0.1))


def test_an_exact_hand_and_a_measured_one_narrow_what_is_told(cat: Catalog) -> None:
    s, r = rated("on braid")
    exact = dataclasses.replace(s, scenario=dataclasses.replace(s.scenario, hand="exact"))
    drilled = dataclasses.replace(s, known=Learned(turned=Handle(0.0, 0.04)))
    plain, even, own = (bands_for(cat, one, [r])[0] for one in (s, exact, drilled))
    widths = [b.mean_high_m - b.mean_low_m for b in (plain, own, even)]
    assert widths == sorted(widths, reverse=True)
    assert plain.widest == "pace"
    assert even.widest in ("areas", "count")


@pytest.mark.slow
def test_told_bands_hold_for_strangers_that_reel() -> None:
    """Hands, boats and gear that are not the program's priors, untrained and trained (`make bands`)."""
    held, trained = Held(), Held()
    for told in steady(Stranger(4), 25):
        held.put(told.depth, told.band)
    for told in steady(Stranger(5, trained=True), 25, drilled_by(4)):
        trained.put(told.depth, told.band)
    for one in (held, trained):
        assert 0.72 < one.inside / one.casts < 0.88
        assert abs(one.low - one.high) / one.casts < 0.09
