"""Mood, targets and fits by exact values: at edges, far off, set by the angler."""

import random
from dataclasses import replace

import pytest

from heathdrop.advice.why import reasons
from heathdrop.answers.water import gives_of, size_water
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.activity import judge
from heathdrop.sizing.hits import hits_of, missed_by
from heathdrop.sizing.hour import among_s, cast_s, per_hour
from heathdrop.sizing.size import size
from heathdrop.sizing.targets import depth_band
from heathdrop.units import feet, metres
from tests.golden_file import holds_to
from tests.waters import ALL, BAIT, GRASS
from tests.waters import GRASS as DAY

PLAIN = Conditions(water_temp_f=66, bottom_depth_ft=10, fish_depth_ft=5)


def test_a_degree_never_moves_it_by_more_than_a_seventh(cat: Catalog) -> None:
    found = [judge(cat, replace(PLAIN, water_temp_f=t, trend="rising")).value for t in range(32, 101)]
    assert max(abs(b - a) for a, b in zip(found, found[1:], strict=False)) < 0.15


@pytest.mark.parametrize(
    ("changes", "value"),
    [
        ({}, 3.0),
        ({"front": "passed"}, 2.0),
        ({"front": "coming"}, 3.0),
        ({"pressure": "heavy"}, 2.5),
        ({"pressure": "light"}, 3.0),
        ({"trend": "falling"}, 3.0),
        ({"trend": "falling", "forage": "baitfish"}, 3.2),
        ({"trend": "falling", "forage": "baitfish", "front": "passed"}, 1.6),
        ({"trend": "falling", "season": "winter"}, 2.6),
        ({"trend": "rising"}, 3.0),
        ({"season": "spawn"}, 2.0),
        ({"light": "low"}, 3.5),
        ({"light": "overcast"}, 3.5),
        ({"light": "sunny"}, 3.0),
        ({"wind_mph": 7}, 3.0),
        ({"wind_mph": 10}, 3.25),
        ({"wind_mph": 13}, 3.5),
        ({"wind_mph": 30}, 3.5),
        ({"wind_mph": 10, "light": "low"}, 3.5),
        ({"water_temp_f": 56, "trend": "rising"}, 2.5),
        ({"water_temp_f": 60, "trend": "rising"}, 2.65),
        ({"water_temp_f": 63, "trend": "rising"}, 2.7),
        ({"water_temp_f": 40, "front": "passed", "pressure": "heavy"}, 0.0),
        ({"activity": 1.5, "front": "passed"}, 1.5),
    ],
)
def test_each_shift(cat: Catalog, changes: dict[str, object], value: float) -> None:
    assert judge(cat, replace(PLAIN, **changes)).value == pytest.approx(value)  # type: ignore[arg-type]


def test_mood_and_reasons_of_every_water(cat: Catalog) -> None:
    holds_to("sizing.activity", {name: judge(cat, c) for name, c in ALL.items()})


def test_depth_band_follows_fish_bottom_and_grass(cat: Catalog) -> None:
    open_water = replace(DAY, cover=Cover())
    assert depth_band(cat, DAY)[0] == (4, 6)
    # A foot below the tops: down into the holes by a part of it.
    assert depth_band(cat, replace(DAY, fish_depth_ft=8))[0] == (pytest.approx(6.3), pytest.approx(7.8))
    assert depth_band(cat, replace(open_water, fish_depth_ft=9))[0] == (8, 9)
    assert depth_band(cat, replace(DAY, fish_depth_ft=1))[0] == (0.3, 1)
    assert depth_band(cat, replace(DAY, fish_depth_ft=0))[0] == (0.3, 0.6)
    between = depth_band(cat, replace(open_water, fish_depth_ft=8.0))
    # Two thirds on the floor ask for its band with the square of that.
    assert between[0] == pytest.approx((4 / 9 * 8 + 5 / 9 * 6, 4 / 9 * 9 + 5 / 9 * 8))
    assert between[1].startswith("fish feed upward")
    lower = depth_band(cat, replace(open_water, fish_depth_ft=8.5))
    assert lower[1] == "fish are on the bottom: the last foot above it"
    # Half in the grass, a sixth on the floor.
    half_way = depth_band(cat, replace(DAY, fish_depth_ft=6.5))[0]
    hanging = (35 / 36 * 4.5 + 1 / 36 * 8, 35 / 36 * 6.5 + 1 / 36 * 9)
    assert half_way == pytest.approx((0.5 * 6 + 0.5 * hanging[0], 0.5 * 7.5 + 0.5 * hanging[1]))


def test_where_they_are_said_to_be_outranks_the_word_for_the_cover(cat: Catalog) -> None:
    deep = replace(
        DAY, bottom_depth_ft=14, fish_depth_ft=12.5, cover=Cover(kind="submerged-grass", top_depth_ft=4)
    )
    assert depth_band(cat, deep)[1] == "fish are in the grass: tick its top"
    edge = replace(deep, cover=replace(deep.cover, edge=True))
    for c in (edge, replace(edge, posture="suspended"), replace(edge, posture="on-bottom")):
        assert depth_band(cat, c)[0] == (11.5, 13.5)
    assert depth_band(cat, edge)[1] == "fish stand along the edge, at their own depth"
    assert depth_band(cat, replace(deep, posture="suspended"))[0] == (10.5, 12.5)
    floor = replace(deep, fish_depth_ft=13.5)
    assert depth_band(cat, replace(floor, posture="on-bottom"))[0] == (13, 14)
    few = replace(floor, cover=replace(floor.cover, density="sparse"))
    bare = depth_band(cat, replace(floor, cover=Cover()))[0]
    assert depth_band(cat, few)[0] == pytest.approx(bare, abs=1.0)


def test_no_half_foot_moves_the_band_by_more_than_a_foot(cat: Catalog) -> None:
    for cover, most in ((Cover(), 0.8), (Cover(kind="submerged-grass", top_depth_ft=6), 1.3)):
        bands = [
            depth_band(cat, replace(DAY, cover=cover, bottom_depth_ft=12, fish_depth_ft=0.5 * k))[0]
            for k in range(25)
        ]
        for (a, b), (c, d) in zip(bands, bands[1:], strict=False):
            assert abs(c - a) <= most
            assert abs(d - b) <= most


def test_a_target_is_hit_up_to_its_tolerance(cat: Catalog) -> None:
    """Depth to half a tenth of a foot, rates to a twentieth, passes to three of a hundred."""
    best = size(cat, Scenario(GRASS, families=("swim-jig",))).rigs[0]
    at = replace(
        best,
        tuned=best.tuned._replace(mean_m=metres(5.0), pace_m_s=metres(2.0)),
        fall_ft_s=2.0,
        cover=replace(best.cover, passes=0.8),
    )
    for wanted, hit, off in (
        (Wanted(depth_ft=(5.04, 6.0)), True, 0.0),
        (Wanted(depth_ft=(5.55, 6.0)), False, 1.0),
        (Wanted(depth_ft=(4.0, 4.9)), False, 0.1),
        (Wanted(fall_ft_s=(1.0, 1.91)), True, 0.0),
        (Wanted(fall_ft_s=(2.12, 3.0)), False, None),
        (Wanted(pace_ft_s=(2.09, 3.0)), True, 0.0),
        (Wanted(pace_ft_s=(1.0, 1.89)), False, None),
        (Wanted(passes=0.83), True, 0.0),
        (Wanted(passes=0.86), False, 1.0),
    ):
        assert list(hits_of(wanted, at).values()) == [hit], wanted
        count, by = missed_by(wanted, at)
        assert count == (not hit)
        assert off is None or by == pytest.approx(off, abs=1e-6)
    assert hits_of(Wanted(), at) == {}
    assert missed_by(Wanted(depth_ft=(8.0, 9.0), passes=0.9), at)[0] == 2


def test_random_targets_are_hit_or_what_gives_is_said(cat: Catalog) -> None:
    """The first rig does all that was set; where none can, a sentence says so, and only then."""
    rng = random.Random(7)
    for k in range(8):
        deep = rng.uniform(3.0, 14.0)
        depth = (round(deep - 0.8, 1), round(deep + 0.8, 1)) if k % 3 else None
        fall = rng.uniform(1.2, 3.0)
        wanted = Wanted(depth_ft=depth, fall_ft_s=(fall, 1.25 * fall) if k % 2 or depth is None else None)
        water = replace(BAIT, bottom_depth_ft=16.0, fish_depth_ft=deep, cover=Cover())
        scenario = Scenario(water, families=(), wanted=wanted)
        first, said = size_water(scenario, limit=4).rows[0].rated, gives_of(scenario)
        assert all(hits_of(wanted, first).values()) is (said is None), (wanted, said)
        if depth is not None and said is None:
            assert depth[0] - 0.05 <= feet(first.tuned.mean_m) <= depth[1] + 0.05


def test_what_is_set_goes_before_what_is_judged(cat: Catalog) -> None:
    plain = size(cat, Scenario(GRASS, families=("swim-jig",)))
    own = size(
        cat, Scenario(GRASS, families=("swim-jig",), wanted=Wanted((3.0, 4.0), (1.0, 1.3), None, (1.0, 1.4)))
    )
    assert own.targets.depth_ft == (3.0, 4.0)
    assert own.targets.depth_reason == "it is the one you set"
    assert (own.targets.fall_ft_s, own.targets.pace_ft_s) == ((1.0, 1.3), (1.0, 1.4))
    assert plain.targets.depth_ft != own.targets.depth_ft
    assert "; you want 1.0–1.3." in " ".join(reasons(own, own.rigs[0]))
    counts = [missed_by(own.scenario.wanted, r) for r in own.rigs]
    assert counts == sorted(counts)


def test_a_swum_cast_takes_its_count_its_way_and_what_lies_between(cat: Catalog) -> None:
    made = size(cat, Scenario(GRASS, families=("swim-jig",)))
    best = made.rigs[0]
    way = feet(best.cast.distance_m) / feet(best.tuned.pace_m_s)
    between = cat.search.minutes.between_casts_s
    assert cast_s(cat, made, best) == pytest.approx(best.countdown_s + way + between)
    assert among_s(cat, made.targets, best) == pytest.approx(best.tuned.soft_share * best.tuned.useful_s)
    hour = per_hour(cat, made, best)
    assert hour.casts == pytest.approx(3600.0 / cast_s(cat, made, best))
    assert hour.seconds_among == pytest.approx(hour.casts * among_s(cat, made.targets, best))
    quick = replace(best, tuned=best.tuned._replace(pace_m_s=2.0 * best.tuned.pace_m_s))
    assert per_hour(cat, made, quick).casts > hour.casts
