"""A rig has one name: unique, parsed and printed in one place, and always leading back to it."""

from __future__ import annotations

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathdrop import catalog
from heathdrop.catalog import Catalog
from heathdrop.conditions.given import RigGiven
from heathdrop.errors import BadInput
from heathdrop.physics.rig import UNMEASURED, Rig, rig_by_name
from heathdrop.physics.rig_name import RigName, given_of, name_of, rig_given

CAT = catalog.load()
trailers = [t.id for t in CAT.trailers.values() if not t.bare]


@st.composite
def rigs(draw: st.DrawFn) -> Rig:
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


@given(rigs())
def test_a_name_leads_back_to_its_rig(rig: Rig) -> None:
    name = name_of(rig)
    assert RigName.parse(name.text()) == name
    assert name.rig(CAT) == rig


@pytest.mark.slow
@given(rigs(), rigs())
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


@given(rigs())
def test_a_rig_given_by_its_fields_is_the_same_rig(rig: Rig) -> None:
    fields = given_of(rig)
    assert rig_given(CAT, RigGiven(**fields).model_dump()) == rig
    with pytest.raises(BadInput, match=r"^casts\[3\]\.head_g was 300"):
        rig_given(CAT, {**fields, "head_g": 300.0}, "casts[3].")
