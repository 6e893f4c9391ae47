"""Parts: cold, plastic, orientation, blades, glide, touch, mats' weights; signs, limits and the numbers the
catalogue gives."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.cover import Stand, counting_oz, cover_odds, meetings_per_ft
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import (
    Measured,
    Rig,
    areas_of,
    liveliness,
    lure_of,
    rig_by_name,
    spread_of,
    stiffness,
)
from heathdrop.physics.water import water_at

WATER = water_at(60.0)


def jig(cat: Catalog, **named: str) -> Rig:
    return rig_by_name(cat, "swim-jig", 0.375, "craw", **named)  # type: ignore[arg-type]


def test_cold_stiffens_dense_plastic_more(cat: Catalog) -> None:
    """Nothing above 55 °F; at 32 °F soft plastic has lost 12 % of its drag and dense 28 %."""
    assert stiffness(cat, 70.0) == 0.0
    assert stiffness(cat, 32.0) == 1.0
    for softness, lost in (("soft", 0.12), ("dense", 0.28)):
        warm, cold = (areas_of(cat, jig(cat, softness=softness), f) for f in (60.0, 32.0))
        assert cold.run[3] == pytest.approx((1.0 - lost) * warm.run[3])
        assert cold.run[:3] == warm.run[:3]
    assert liveliness(cat, jig(cat, softness="dense"), 40.0) < liveliness(cat, jig(cat), 40.0) < 1.0
    bare = rig_by_name(cat, "swim-jig", 0.375, "none")
    assert areas_of(cat, bare, 32.0) == areas_of(cat, bare, 70.0)


def test_plastic_floats_or_sinks(cat: Catalog) -> None:
    weights = [
        lure_of(cat, jig(cat, plastic=p), 999.0, 60.0).net_weight_n for p in ("floating", "neutral", "salted")
    ]
    assert weights == sorted(weights)
    only_tail = [
        w - lure_of(cat, rig_by_name(cat, "swim-jig", 0.375, "none"), 999.0, 60.0).net_weight_n
        for w in weights
    ]
    assert only_tail[0] < 0.0 < only_tail[1] < only_tail[2]
    assert only_tail[2] == pytest.approx(9.80665 * 0.010 * (1 - 999 / 1150), rel=1e-9)


def test_on_edge_lifts_less_and_blades_change_a_spinnerbait(cat: Catalog) -> None:
    flat, edge = (lure_of(cat, jig(cat, orientation=o), 999.0, 60.0) for o in ("flat", "vertical"))
    assert edge.run_lift_area_m2 < flat.run_lift_area_m2
    assert edge.fall_drag_area_m2 == flat.fall_drag_area_m2
    lifts = [
        lure_of(cat, rig_by_name(cat, "spinnerbait", 0.5, "none", blades=b), 999.0, 60.0).run_lift_area_m2
        for b in ("double-willow", "tandem", "colorado")
    ]
    assert lifts == pytest.approx([3.1e-4, 3.9e-4, 5.0e-4])
    in_line = lure_of(cat, rig_by_name(cat, "spinnerbait", 0.5, "craw"), 999.0, 60.0).run_lift_area_m2
    assert in_line == pytest.approx(3.1e-4 + 0.3 * 2.3e-4)
    with pytest.raises(
        BadInput, match="blades was “tandem”; it must be left out: a swim jig has no blades to choose"
    ):
        jig(cat, blades="tandem")


def test_glide_by_the_trailers_share(cat: Catalog) -> None:
    fused, split = (
        lure_of(cat, rig_by_name(cat, "weighted-plastic", 0.25, t), 999.0, 60.0)
        for t in ("creature-fused", "creature")
    )
    assert fused.glide_ratio > 0.2 > split.glide_ratio
    heavy = lure_of(cat, rig_by_name(cat, "weighted-plastic", 1.0, "creature-fused"), 999.0, 60.0)
    assert heavy.glide_ratio < fused.glide_ratio
    buoyant = lure_of(
        cat, rig_by_name(cat, "weighted-plastic", 0.25, "creature-fused", plastic="floating"), 999.0, 60.0
    )
    assert buoyant.glide_ratio > fused.glide_ratio


def test_measured_parts_take_the_place_of_assumed_ones(cat: Catalog) -> None:
    plain = jig(cat)
    own = replace(
        plain, measured=Measured(head_g=12.0, trailer_g=8.0, body_fall=2.0, trailer_fall=0.5, lift=1.5)
    )
    assert own.head_kg + own.trailer_kg == pytest.approx(0.020)
    before, after = areas_of(cat, plain, 60.0), areas_of(cat, own, 60.0)
    assert after.fall[1:3] == pytest.approx([2.0 * a for a in before.fall[1:3]])
    assert after.fall[3] == pytest.approx(0.5 * before.fall[3])
    assert after.lift == pytest.approx([1.5 * a for a in before.lift])
    assert after.run[1] == pytest.approx(2.0**0.7 * before.run[1])
    assert after.run[3] == pytest.approx(0.5**0.7 * before.run[3])
    sure = replace(
        plain,
        measured=Measured(
            body_fall_spread=0.05, trailer_fall_spread=0.05, fall_joint=-0.002, lift_spread=0.1
        ),
    )
    assert spread_of(cat, sure, 60.0).fall < 0.05
    assert spread_of(cat, sure, 60.0).lift == 0.1


@settings(max_examples=60, deadline=None)
@given(
    family=st.sampled_from(
        ["swim-jig", "bladed-jig", "spinnerbait", "underspin", "grass-jig", "punch-rig", "football-jig"]
    ),
    trailer=st.sampled_from(["pin-tail", "beaver", "craw", "chunk", "creature"]),
    kind=st.sampled_from(
        ["open", "submerged-grass", "matted-grass", "pads", "reeds", "wood", "rock", "docks"]
    ),
    density=st.sampled_from(["sparse", "moderate", "thick"]),
    oz=st.floats(0.125, 2.0),
    deep=st.floats(0.0, 12.0),
    far=st.floats(0.0, 80.0),
)
def test_cover_odds_are_chances_and_more_cover_is_never_easier(
    cat: Catalog, family: str, trailer: str, kind: str, density: str, oz: float, deep: float, far: float
) -> None:
    rig = rig_by_name(cat, family, oz, trailer)
    stand = Stand(kind, density)
    odds = cover_odds(cat, rig, 0.1, stand, deep, far)
    more = cover_odds(cat, rig, 0.1, replace(stand, density="thick"), deep + 1.0, far + 5.0)
    for value in (odds.passes, odds.fouls, odds.hangs):
        assert 0.0 <= value <= 1.0
    assert more.passes <= odds.passes + 1e-12
    assert more.fouls >= odds.fouls - 1e-12
    assert more.hangs >= odds.hangs - 1e-12


def test_what_counts_against_a_mat(cat: Catalog) -> None:
    slim, wide = (counting_oz(rig_by_name(cat, "punch-rig", 1.0, t)) for t in ("beaver", "chunk"))
    assert (slim, wide) == pytest.approx((1.0, 0.65))
    football = counting_oz(rig_by_name(cat, "football-jig", 1.0, "beaver"))
    assert football == pytest.approx(0.7)
    assert (
        meetings_per_ft(cat, Stand("reeds"))
        > meetings_per_ft(cat, Stand("submerged-grass"))
        > meetings_per_ft(cat, Stand("pads"))
    )


@given(material=st.sampled_from(["fluorocarbon", "nylon", "braid"]), share=st.floats(0.0, 1.0))
def test_lines_between_the_listed_tests_grow_with_strength(cat: Catalog, material: str, share: float) -> None:
    tests = [lb for lb, _ in cat.lines[material].diameters_mm]
    lb = tests[0] + share * (tests[-1] - tests[0])
    line: Line = line_by_test(cat, material, lb)
    assert (
        line_by_test(cat, material, tests[0]).diameter_m
        <= line.diameter_m
        <= line_by_test(cat, material, tests[-1]).diameter_m
    )
    assert math.isclose(line.area_m2, math.pi * line.diameter_m**2 / 4)
    assert (line.net_weight_n_m(999.0) < 0) == (material == "braid")
