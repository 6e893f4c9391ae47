"""Rigs as the water meets them, to the digit; their one name; parts, signs and limits."""

from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from heathdrop import catalog
from heathdrop.catalog import Catalog
from heathdrop.conditions.given import RigGiven
from heathdrop.errors import BadInput
from heathdrop.physics.cover import Stand, cover_odds
from heathdrop.physics.rig import (
    UNMEASURED,
    Measured,
    Rig,
    areas_of,
    disc_area_m2,
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
    "football": {"family": "football-jig", "head_oz": 0.75, "trailer": "chunk"},
    "colorado": {"family": "spinnerbait", "trailer": "twin-tail", "blades": "colorado"},
    "floating": {"plastic": "floating"},
    "dense": {"softness": "dense", "trailer": "creature"},
    "fused": {"trailer": "creature", "fused": True},
    "punch": {"family": "punch-rig", "head_oz": 1.25, "trailer": "beaver"},
}


MEASURED = (
    Measured(head_g=11.2, trailer_g=8.1, width=1.2),
    Measured(body_fall=1.2, trailer_fall=0.8, lift=1.3, body_fall_spread=0.1, lift_spread=0.12),
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


def test_every_refusal(cat: Catalog) -> None:
    given: dict[str, dict[str, Any]] = {
        "family": {"family": "spoon"},
        "trailer": {"trailer": "toad"},
        "material": {"head_material": "gold"},
        "steel": {"head_material": "steel"},
        "light": {"head_oz": 0.03},
        "heavy": {"head_oz": 4.01},
        "short": {"trailer_length_in": 0.49},
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
