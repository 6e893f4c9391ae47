"""What rating a rig needs besides the rig, what is remembered, and one rig's score."""

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PRICES
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear, Reel
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing import tune as tuning
from heathdrop.sizing.rated import WAYS_TO_COVER, way_to
from heathdrop.sizing.setting import limits_for, mood_paces, reachable_paces, setting_of
from heathdrop.sizing.size import rate, size
from heathdrop.units import feet
from tests.advice.cases import rated
from tests.golden_file import holds_to
from tests.sizing.test_bands import Slick
from tests.waters import GRASS, MAT, PADS, WINTER_ROCK, WOOD


def of(cat: Catalog, water, family: str, **more: object):  # type: ignore[no-untyped-def]
    return setting_of(cat, Scenario(water, families=(family,), **more))  # type: ignore[arg-type]


def test_a_pitch_goes_no_further_than_a_pitch(cat: Catalog) -> None:
    assert feet(of(cat, WOOD, "flipping-jig").cast.distance_m) == pytest.approx(cat.judgement.hand.pitch_ft)
    assert feet(of(cat, WOOD, "spinnerbait").cast.distance_m) == pytest.approx(80.0)
    short = of(cat, WOOD, "flipping-jig", gear=Gear(cast_ft=12.0))
    assert feet(short.cast.distance_m) == pytest.approx(12.0)


def test_a_hole_lets_a_dropped_lure_by(cat: Catalog) -> None:
    lures = {}
    for hole in (None, 1.0, 2.5, 4.0):
        water = replace(MAT, cover=replace(MAT.cover, hole_ft=hole))
        setting = of(cat, water, "flipping-jig")
        rig = rig_by_name(cat, "flipping-jig", 0.375, "craw")
        tuned = rate(setting, [rig])[0].tuned
        lures[hole] = setting.odds(rig, setting.lure(rig), tuned).passes
    assert lures[1.0] == pytest.approx(lures[None])
    assert lures[2.5] == pytest.approx(1 - 0.5 * (1 - lures[None]))
    assert lures[4.0] == pytest.approx(1.0)


def test_where_a_lure_can_be_swum_beside_the_cover(cat: Catalog) -> None:
    wood = replace(WOOD, bottom_depth_ft=10, fish_depth_ft=9.5, cover=Cover(kind="wood"))
    assert of(cat, wood, "swim-jig").passing_loss == pytest.approx(0.3)
    hanging = replace(wood, fish_depth_ft=4)
    assert of(cat, hanging, "swim-jig").passing_loss == 0.0
    assert of(cat, PADS, "swim-jig").passing_loss is None
    edge = replace(PADS, cover=replace(PADS.cover, edge=True))
    assert of(cat, edge, "swim-jig").passing_loss == 0.0


def test_paces_are_those_of_mood_reel_and_blade(cat: Catalog) -> None:
    setting = of(cat, GRASS, "swim-jig")
    slow, fast = cat.judgement.hand.turns_per_s
    low, high = reachable_paces(cat, setting.targets, 29.0)
    assert (low, high) == pytest.approx(setting.targets.pace_ft_s)
    assert reachable_paces(cat, setting.targets, 1.0)[0] == pytest.approx(fast / 12.0)
    assert reachable_paces(cat, setting.targets, 99.0)[0] == pytest.approx(
        max(setting.targets.pace_ft_s[0], slow * 99.0 / 12.0)
    )
    limits = limits_for(setting)
    assert (feet(limits.liked_slow_m_s), feet(limits.liked_fast_m_s)) == pytest.approx(mood_paces(setting))
    assert (feet(limits.slowest_m_s), feet(limits.fastest_m_s)) == pytest.approx(
        (slow * 29.0 / 12.0, fast * 29.0 / 12.0)
    )
    wary, willing = cat.judgement.fit.quicker_sigma
    for mood, sigma in ((0.0, wary), (2.0, 0.5 * (wary + willing)), (4.0, willing)):
        found = limits_for(of(cat, replace(GRASS, activity=mood), "swim-jig"))
        assert (found.slower, found.quicker) == pytest.approx((0.45, sigma))
    assert feet(limits.deepest_start_m) == pytest.approx(9.0 - cat.judgement.hand.off_bottom_ft)
    bladed = limits_for(of(cat, replace(GRASS, activity=0.0), "bladed-jig"))
    assert feet(bladed.slowest_m_s) == pytest.approx(cat.families["bladed-jig"].least_pace_ft_s)
    slow_reel = of(cat, GRASS, "swim-jig", gear=Gear(reel=Reel(inches_per_turn=12.0)))
    assert mood_paces(slow_reel)[1] <= fast + 0.06


def test_what_was_learned_of_the_mat_is_in_the_odds(cat: Catalog) -> None:
    scenario = Scenario(MAT, families=("punch-rig",))
    plain, taught = setting_of(cat, scenario), setting_of(cat, scenario, Slick())
    assert (plain.mat_factor, taught.mat_factor) == (1.0, 2.0)


#: One rig of each kind of cover and of each line.
ONE_EACH = (
    "high over grass",
    "lightest",
    "heaviest",
    "on braid",
    "winter rock",
    "mat with claws",
    "wood",
)


def test_limits_odds_and_touch(cat: Catalog) -> None:
    found = {}
    for name in ONE_EACH:
        sizing, best = rated(name)
        setting = setting_of(cat, replace(sizing.scenario, families=(best.rig.family.id,)))
        loud = replace(setting.stand, lobbed=True)
        found[name] = {
            "limits": limits_for(setting)._asdict(),
            "odds": setting.odds(best.rig, best.lure, best.tuned),
            "at 30 ft": setting.odds(best.rig, best.lure, best.tuned, 30.0),
            "lobbed": setting.odds(best.rig, best.lure, best.tuned, stand=loud),
            "touch": setting.felt(best.lure.net_weight_n, setting.line),
            "mood": mood_paces(setting),
            "bottom": setting.cast.bottom,
        }
    holds_to("sizing.setting", found, tolerance=1e-4)


def test_a_remembered_sizing_is_the_same_to_the_digit(cat: Catalog) -> None:
    """Clearing the memory changes nothing; what changes no lure and no limit simulates nothing."""
    water = Scenario(GRASS, families=("swim-jig", "bladed-jig"))
    first = size(cat, water)
    again = size(cat, water)
    tuning.TUNED.clear()
    fresh = size(cat, water)
    for other in (again, fresh):
        assert [(r.key, r.tuned, r.fits) for r in other.rigs] == [
            (r.key, r.tuned, r.fits) for r in first.rigs
        ]
    before = len(tuning.TUNED)
    size(cat, replace(water, conditions=replace(GRASS, bottom="gravel")))
    assert len(tuning.TUNED) == before > 100
    size(cat, replace(water, conditions=replace(GRASS, water_temp_f=59)))
    assert len(tuning.TUNED) > before


@pytest.mark.parametrize(
    ("family", "in_cover", "way"),
    [
        ("swim-jig", 0.04, "over"),
        ("swim-jig", 0.05, "ticking"),
        ("swim-jig", 0.49, "ticking"),
        ("swim-jig", 0.5, "through"),
        ("flipping-jig", 0.0, "into"),
        ("football-jig", 0.0, "through"),
    ],
)
def test_the_way_follows_the_path(cat: Catalog, family: str, in_cover: float, way: str) -> None:
    setting = setting_of(cat, Scenario(GRASS, families=(family,)))
    assert way_to(setting, in_cover, setting.family.work) == way
    assert way in WAYS_TO_COVER


def test_the_score_is_its_parts_mean_times_their_prices(cat: Catalog) -> None:
    weights = cat.judgement.fit.weights
    for conditions, family in ((GRASS, "swim-jig"), (WINTER_ROCK, "football-jig")):
        for r in size(cat, Scenario(conditions, families=(family,))).rigs[:5]:
            total = sum(weights[k] for k in r.fits.parts if k not in PRICES)
            logs = sum(weights[k] * math.log(v) for k, v in r.fits.parts.items())
            assert r.fits.score == pytest.approx(math.exp(logs / total), rel=1e-9)
