"""Bands hold the prediction they are about; hand, boat, line and bottom in them."""

import dataclasses
from dataclasses import dataclass, replace

import numpy as np
import pytest

from bench.bands import Held, Stranger, steady
from bench.bands import drilled as drilled_by
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.learning.learned import Learned
from heathdrop.physics.cast import LIMB_M
from heathdrop.physics.line import Line as Chain
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Measured, rig_by_name, spread_of
from heathdrop.sizing.bands import bands_for, cast_bands, fall_factors
from heathdrop.sizing.knowledge import Handle, Untaught
from heathdrop.sizing.program import play, program_of
from heathdrop.sizing.scatter import STILL, Scatter, moved_by_pace_m, scatter_of
from heathdrop.sizing.size import size
from heathdrop.units import feet, metres
from tests.advice.cases import rated
from tests.waters import DOCKS, GRASS
from tests.waters import GRASS as DAY


def test_bands_hold_the_prediction(cat: Catalog) -> None:
    s = size(cat, Scenario(DAY))
    r = s.rigs[0]
    band = bands_for(cat, s, [r])[0]
    assert band.mean_low_m < r.tuned.mean_m < band.mean_high_m
    low, high = fall_factors(spread_of(cat, rig_by_name(cat, "swim-jig", 0.5, "craw"), 60.0))
    assert 0.7 < low < 1.0 < high < 1.4


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


def test_an_exact_hand_and_a_measured_one_narrow_what_is_told(cat: Catalog) -> None:
    s, r = rated("on braid")
    exact = dataclasses.replace(s, scenario=dataclasses.replace(s.scenario, hand="exact"))
    drilled = dataclasses.replace(s, knowledge=Learned(turned=Handle(0.0, 0.04)))
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


CALM = replace(GRASS, wind_mph=5.0)


def test_a_hand_nobody_knows(cat: Catalog) -> None:
    assert scatter_of(cat) == Scatter(pace=0.08, count=0.10, cast=0.04, tip_m=metres(0.4))
    assert scatter_of(cat, Scenario(CALM)) == scatter_of(cat)
    assert scatter_of(cat, Scenario(CALM, hand="exact")) == STILL == Scatter()


def test_a_measured_hand_replaces_the_assumed_one(cat: Catalog) -> None:
    own = Learned(counted=0.05, turned=Handle(quicker=-0.06, error=0.04, rounds=20))
    found = scatter_of(cat, Scenario(CALM), own)
    assert (found.count, found.pace, found.pace_bias) == (0.05, 0.04, -0.06)


def test_what_a_pace_moves(cat: Catalog) -> None:
    assert moved_by_pace_m(cat, 24.0, 2.0) == pytest.approx(0.12 * 24.0 + 0.45 * 2.0)


@pytest.mark.parametrize("family", ["flipping-jig", "weighted-plastic"])
@pytest.mark.parametrize(("kind", "way", "work"), [("wood", "hang", "hang"), ("docks", "swim-out", "swim")])
@pytest.mark.parametrize(("bottom", "fish"), [(9.0, 5.0), (14.0, 6.0), (18.0, 12.0)])
def test_held_among_the_fish(
    cat: Catalog, family: str, kind: str, way: str, work: str, bottom: float, fish: float
) -> None:
    """Played as it is told, the rig is within a foot of the band's middle for .6 of its work."""
    water = replace(DOCKS, bottom_depth_ft=bottom, fish_depth_ft=fish, cover=Cover(kind=kind))
    sizing = size(cat, Scenario(water, families=(family,)))
    best = sizing.rigs[0]
    assert best.cadence is not None
    assert (best.cadence.way, best.work) == (way, work)
    cast = play(sizing, best, way)
    middle = 0.5 * sum(sizing.targets.depth_ft)
    assert np.mean(np.abs(feet(1.0) * cast.worked() - middle) <= 1.0) >= 0.6
    assert best.tuned.mean_m == pytest.approx(float(cast.worked().mean()), abs=0.15)


def test_fish_on_the_floor_or_over_the_wood_are_pitched_to(cat: Catalog) -> None:
    for cover, fish in ((Cover(kind="wood"), 9.0), (Cover(kind="wood", top_depth_ft=7.0), 3.0)):
        water = replace(DOCKS, bottom_depth_ft=9.0, fish_depth_ft=fish, cover=cover, posture="auto")
        assert size(cat, Scenario(water, families=("flipping-jig",))).rigs[0].work == "drop"


def test_the_line_goes_over_a_limb_beside_it(cat: Catalog) -> None:
    sizing = size(cat, Scenario(replace(DOCKS, cover=Cover(kind="wood")), families=("flipping-jig",)))
    best = sizing.rigs[0]
    cast = play(sizing, best, "hang")
    away = best.cast.distance_m
    assert cast.cast.distance_m == away
    assert np.all(np.abs(cast.distance_m - away) <= 3.0 * LIMB_M)
    assert cast.shapes[-1, 0].tolist() == pytest.approx([0.0, -best.cast.rod_tip_m])
    assert cast.shapes[-1, 1, 0] == pytest.approx(away - LIMB_M, abs=0.1)
    assert [p.do for p in program_of(sizing, best, "hang")] == ["fall", "shake"]
    # Hopped on the floor it is thrown as ever, the line over nothing.
    assert not play(sizing, best, "hop").cast.over_limb


def test_holes_let_a_swum_jig_be_killed_into_them(cat: Catalog) -> None:
    """Fish at 4 ft in grass that tops out at 2: through solid stems it is reeled and fouls; where there are
    holes it is swum over the tops and falls in to them, fouling no more than it does up there."""
    grass = Cover(kind="submerged-grass", top_depth_ft=2.0)
    water = replace(GRASS, bottom_depth_ft=6.0, fish_depth_ft=4.0, clarity_ft=1.0, cover=grass)
    solid, holed = (
        size(cat, Scenario(replace(water, cover=cover), families=("swim-jig",)))
        for cover in (grass, replace(grass, hole_ft=3.0))
    )
    assert solid.rigs[0].work == "swim"
    assert solid.rigs[0].cadence is None
    best = holed.rigs[0]
    assert best.cadence is not None
    assert best.cadence.way == "hole-drop"
    assert best.cover.fouls <= 0.75 * solid.rigs[0].cover.fouls
    assert holed.targets.depth_ft[0] > solid.targets.depth_ft[0] + 0.5
    assert feet(best.tuned.deepest_m) >= holed.targets.depth_ft[1]


@dataclass(frozen=True, eq=False)
class Slick(Untaught):
    """A line whose friction was learned to be half, a mat that needs twice."""

    def line(self, line: Chain, material: str) -> Chain:
        return replace(line, friction=0.5 * line.friction)

    def mat_factor(self, texture: str) -> float:
        return 2.0 if texture == "hydrilla" else 1.0
