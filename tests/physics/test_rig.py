"""Rigs as the water meets them, to the digit; their one name; parts, signs and limits."""

import math
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heathdrop import catalog
from heathdrop.catalog import Catalog
from heathdrop.conditions.given import RigGiven
from heathdrop.errors import BadInput
from heathdrop.physics.cover import Stand, counting_oz, cover_odds, meetings_per_ft
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import (
    UNMEASURED,
    Measured,
    Rig,
    areas_of,
    disc_area_m2,
    fused_of,
    liveliness,
    lure_of,
    rig_by_name,
    spread_of,
    stiffness,
)
from heathdrop.physics.rig_name import RigName, given_of, name_of, rig_given
from tests.golden_file import holds_to
from tests.said import said_of

NAMED: dict[str, dict[str, Any]] = {
    "plain": {},
    "none": {"trailer": "none"},
    "long": {"trailer_length_in": 5.0},
    "tungsten": {"head_material": "tungsten"},
    "thin": {"skirt": "thin"},
    "football": {"family": "football-jig", "head_oz": 0.75, "trailer": "chunk"},
    "spinnerbait": {"family": "spinnerbait", "trailer": "twin-tail"},
    "colorado": {"family": "spinnerbait", "trailer": "twin-tail", "blades": "colorado"},
    "floating": {"plastic": "floating"},
    "dense": {"softness": "dense", "trailer": "creature"},
    "edge": {"orientation": "vertical"},
    "fused": {"trailer": "creature", "fused": True},
    "punch": {"family": "punch-rig", "head_oz": 1.25, "trailer": "beaver"},
}


MEASURED = (
    Measured(head_g=11.2, trailer_g=8.1, width=1.2),
    Measured(body_fall=1.2, trailer_fall=0.8, lift=1.3, body_fall_spread=0.1, lift_spread=0.12),
    Measured(trailer_fall_spread=0.08),
    Measured(body_fall_spread=0.2, trailer_fall_spread=0.2, fall_joint=-0.03),
    Measured(body_fall_spread=0.01, trailer_fall_spread=0.01, fall_joint=-0.5),
)


def rigs(cat: Catalog) -> dict[str, Rig]:
    plain = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw"}
    found = {}
    for name, more in NAMED.items():
        row = {**plain, **more}
        family, oz, trailer = (row.pop(k) for k in ("family", "head_oz", "trailer"))
        found[name] = rig_by_name(cat, family, oz, trailer, **row)
    for k, own in enumerate(MEASURED):
        found[f"measured {k}"] = replace(found["plain"], measured=own)
    return found


#: Rigs whose areas are kept one by one; those of the others stand in the lure made of them.
AREAS = ("plain", "none", "dense")


def test_weights_areas_and_spreads(cat: Catalog) -> None:
    holds_to(
        "physics.rig",
        {
            f"{name} at {f} °F": {
                "kg": [rig.head_kg, rig.trailer_kg],
                "bulk": rig.bulk_cm2,
                "lively": liveliness(cat, rig, f),
                **({"areas": areas_of(cat, rig, f)} if name in AREAS else {}),
                "lure": lure_of(cat, rig, 999.1, f),
                "spread": spread_of(cat, rig, f),
            }
            for name, rig in rigs(cat).items()
            for f in ((44.0, 60.0) if name == "plain" else (60.0,))
        },
    )


def test_the_cold_stiffens_between_its_bounds(cat: Catalog) -> None:
    warm, cold = cat.cold.stiffens_below_f, cat.cold.coldest_f
    asked = (warm + 1, warm, 0.5 * (warm + cold), cold, cold - 5)
    assert [stiffness(cat, f) for f in asked] == [0, 0, 0.5, 1, 1]


def test_a_head_of_ten_millimetres_has_the_disc_of_its_sphere() -> None:
    """Volume and area of a sphere of 10 mm: 0.5236 cm³ and 0.7854 cm²."""
    assert disc_area_m2(0.5235988e-6 * 11000.0, 11000.0) * 1e4 == pytest.approx(0.7853982)


def test_left_joined_it_glides_and_catches_less(cat: Catalog) -> None:
    craw, joined = cat.trailers["craw"], cat.fused
    made = fused_of(cat, craw)
    assert made.glide == max(craw.glide, joined.glide)
    assert made.action == joined.action_kept * craw.action
    assert made.catching == joined.catching_kept * craw.catching
    tail = rig_by_name(cat, "swim-jig", 0.5, "pin-tail", fused=True)
    assert (tail.fused, tail.trailer) == (False, cat.trailers["pin-tail"])


def test_every_refusal(cat: Catalog) -> None:
    given: dict[str, dict[str, Any]] = {
        "family": {"family": "spoon"},
        "trailer": {"trailer": "toad"},
        "material": {"head_material": "gold"},
        "steel": {"head_material": "steel"},
        "light": {"head_oz": 0.03},
        "heavy": {"head_oz": 4.01},
        "short": {"trailer_length_in": 0.49},
        "long": {"trailer_length_in": 10.1},
        "bare and long": {"trailer": "none", "trailer_length_in": 99.0},
        "blades": {"blades": "colorado"},
        "blades unknown": {"family": "spinnerbait", "blades": "round"},
        "skirt": {"skirt": "kilt"},
        "shape": {"head_shape": "cube"},
        "plastic": {"plastic": "wood"},
        "softness": {"softness": "hard"},
        "orientation": {"orientation": "askew"},
    }
    found = {}
    for name, more in given.items():
        row = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", **more}
        family, oz, trailer = (row.pop(k) for k in ("family", "head_oz", "trailer"))
        found[name] = said_of(
            lambda f=family, o=oz, t=trailer, r=row: rig_by_name(cat, f, o, t, at="here.", **r).head_oz
        )
    holds_to("physics.rig.refused", found)


CAT = catalog.load()


trailers = [t.id for t in CAT.trailers.values() if not t.bare]


@st.composite
def rigs_rig_name(draw: st.DrawFn) -> Rig:
    family = draw(st.sampled_from(list(CAT.families)))
    made = rig_by_name(
        CAT,
        family,
        draw(st.sampled_from([0.0625, 0.375, 0.5, 0.41, 1.125])),
        draw(st.sampled_from(trailers)),
        head_material=draw(st.sampled_from(["lead", "tungsten", "zinc"])),
        trailer_length_in=draw(st.sampled_from([None, 3.0, 4.0, 4.25])),
        skirt=draw(st.sampled_from([None, "full", "trimmed", "none"])),
        head_shape=draw(st.sampled_from([None, "football", "grass"])),
        plastic=draw(st.sampled_from(list(CAT.plastic))),
        softness=draw(st.sampled_from(list(CAT.softness))),
        orientation=draw(st.sampled_from(list(CAT.orientation))),
        fused=draw(st.booleans()),
    )
    own = replace(
        UNMEASURED,
        head_g=draw(st.sampled_from([None, 10.9])),
        trailer_g=draw(st.sampled_from([None, 9.8])),
        width=draw(st.sampled_from([1.0, 1.5])),
    )
    return replace(made, measured=own)


@given(rigs_rig_name())
def test_a_name_leads_back_to_its_rig(rig: Rig) -> None:
    name = name_of(rig)
    assert RigName.parse(name.text()) == name
    assert name.rig(CAT) == rig


@pytest.mark.slow
@given(rigs_rig_name(), rigs_rig_name())
def test_two_rigs_share_a_name_only_when_they_are_the_same(a: Rig, b: Rig) -> None:
    assert (name_of(a) == name_of(b)) == (a == b)
    assert (name_of(a).text() == name_of(b).text()) == (a == b)


def test_a_usual_rig_has_a_short_name(cat: Catalog) -> None:
    assert name_of(rig_by_name(cat, "swim-jig", 0.5, "craw")).text() == "swim-jig:0.5:craw"
    odd = rig_by_name(cat, "spinnerbait", 0.4375, "twin-tail", blades="colorado", trailer_length_in=4.0)
    assert name_of(odd).text() == "spinnerbait:0.4375:twin-tail:length_in=4:blades=colorado"


@pytest.mark.parametrize(
    "text",
    [
        "",
        "swim-jig",
        "swim-jig:0.5",
        "swim-jig:heavy:craw",
        "swim-jig:0.5:craw:lid=3",
        "swim-jig:0.5:craw:skirt",
        "swim-jig:0.5:craw:width=wide",
        "swim-jig:0.5:craw:skirt=full:skirt=none",
        "swim-jig:0.5:" + "c" * 200,
    ],
)
def test_what_names_no_rig(text: str) -> None:
    with pytest.raises(BadInput, match=r"a rig's name, such as swim-jig:0\.5:craw"):
        RigName.parse(text)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("toad:0.5:craw", "pick family was “toad”"),
        ("swim-jig:9:craw", "pick head_oz was 9"),
        ("swim-jig:0.5:craw:head_g=900", "pick head_g was 900; it must be from 0.2 to 200 g"),
        ("swim-jig:0.5:craw:trailer_g=0.1", "pick trailer_g was 0.1"),
        ("swim-jig:0.5:craw:width=21", "pick width was 21"),
    ],
)
def test_a_name_of_no_possible_rig(text: str, said: str) -> None:
    with pytest.raises(BadInput, match=said):
        RigName.parse(text).rig(CAT)


@given(rigs_rig_name())
def test_a_rig_given_by_its_fields_is_the_same_rig(rig: Rig) -> None:
    fields = given_of(rig)
    assert rig_given(CAT, RigGiven(**fields).model_dump()) == rig
    with pytest.raises(BadInput, match=r"^casts\[3\]\.head_g was 300"):
        rig_given(CAT, {**fields, "head_g": 300.0}, "casts[3].")


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
