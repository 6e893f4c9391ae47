"""The call, what line and rod can bear, and how each rig is rigged and fished."""

import math
import re
from dataclasses import replace

import pytest

from heathdrop.advice.call import BEHIND, CALLED, WORTH_SAYING, points_of, yielded
from heathdrop.advice.finish import finish_of
from heathdrop.advice.linesay import line_said
from heathdrop.advice.strength import tackle_said
from heathdrop.answers.own import Own
from heathdrop.answers.water import call_of, family_called, size_water
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import SLOTS
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear, Line
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.sizing.size import size
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to
from tests.sizing.test_tackle import DAY, SPIN, fluorocarbon
from tests.sizing.test_tackle import WOOD as STRONG_WOOD
from tests.waters import ALL, GRASS, WOOD


@pytest.mark.slow
@pytest.mark.parametrize("name", ["GRASS", "WOOD"])
def test_a_standing_is_its_fit_times_e_to_its_points(cat: Catalog, name: str) -> None:
    c = {"GRASS": GRASS, "WOOD": WOOD}[name]
    made = call_of(Scenario(c))
    assert [s.standing for s in made.standings] == sorted((s.standing for s in made.standings), reverse=True)
    assert {s.family.id for s in made.standings} == set(cat.families)
    assert made.aside == ()
    for s in made.standings:
        weighed, school = points_of(cat, s.sizing.facts, s.sizing.scenario, s.family)
        assert s.points == pytest.approx(sum(p for _, p in weighed) + school)
        assert s.standing == pytest.approx(s.fit * math.exp(s.points + s.yields))
        assert s.best is s.sizing.rigs[0]
        assert s.fit == s.best.fits.score
        by_rule = {rule.id: p for rule, p in weighed}
        assert all(by_rule[r.id] >= WORTH_SAYING for r in s.fors)
        assert all(by_rule[r.id] <= -WORTH_SAYING for r in s.againsts)
        strength = [abs(by_rule[r.id]) for r in s.fors]
        assert strength == sorted(strength, reverse=True)


@pytest.mark.slow
def test_places_are_those_of_the_whole_and_the_rest_stand_aside_with_a_reason(cat: Catalog) -> None:
    for c in ALL.values():
        whole, some = call_of(Scenario(c)), call_of(Scenario(c), places=3)
        assert [s.family.id for s in some.standings] == [s.family.id for s in whole.standings[:3]]
        assert {f.id for f, _ in some.aside} | {s.family.id for s in some.standings} == set(cat.families)
        assert all(why for _, why in some.aside)
        assert family_called(Scenario(c)) == whole.family


def test_from_a_box_alone_only_its_families_are_called(cat: Catalog) -> None:
    own = Own(tackle=tackle_of([OwnedHead("swim-jig", 0.375)], [OwnedTrailer("craw", 4.0)]))
    made = call_of(Scenario(GRASS, box="mine"), own)
    assert [s.family.id for s in made.standings] == ["swim-jig"]
    with pytest.raises(BadInput, match="box was “mine”; it must be standard or both until your box holds"):
        call_of(Scenario(GRASS, box="mine"), Own())


@pytest.mark.slow
@pytest.mark.parametrize(
    ("bottom", "fish", "cover"),
    [
        (7.0, 4.0, Cover(kind="wood", detail="laydown", top_depth_ft=2)),
        (16.0, 8.1, Cover(kind="wood", detail="brush")),
        (9.0, 4.5, Cover(kind="docks")),
        (12.0, 9.0, Cover(kind="submerged-grass", top_depth_ft=4, density="moderate")),
    ],
)
def test_what_is_doubted_does_not_lead_where_another_fits_as_well(
    cat: Catalog, bottom: float, fish: float, cover: Cover
) -> None:
    c = Conditions(
        water_temp_f=66, bottom_depth_ft=bottom, fish_depth_ft=fish, forage="bluegill", cover=cover
    )
    found = call_of(Scenario(c), places=CALLED).standings
    first = found[0]
    sure = [s for s in found[1:] if not s.doubted and s.fit >= first.fit]
    assert not (first.doubted and sure)
    assert [s.standing for s in found] == sorted((s.standing for s in found), reverse=True)
    # One place or four: the same rig leads, and page and JSON rank alike.
    assert family_called(Scenario(c)) == first.family.id
    assert size_water(Scenario(c, families=())).rows[0].rated.rig.family.id == first.family.id


def test_who_yields_stands_close_behind() -> None:
    rows = ((0.7, 0.9, True), (0.6, 0.8, False), (0.75, 0.7, False), (0.9, 0.6, False))
    called = call_of(Scenario(WOOD), places=CALLED).standings
    first, second, sure, last = (
        replace(s, fit=fit, standing=standing, doubted=doubted)
        for s, (fit, standing, doubted) in zip(called, rows, strict=True)
    )
    moved = yielded((first, second, sure, last))
    assert [s.family for s in moved] == [s.family for s in (sure, first, second, last)]
    assert moved[1].yields == pytest.approx(math.log(0.7 * BEHIND / 0.9))
    assert moved[1].standing == pytest.approx(0.7 * BEHIND)
    assert yielded((second, first, sure)) == (second, first, sure)
    assert yielded((first, second)) == (first, second)


def said_of(cat: Catalog, scenario: Scenario) -> str:
    made = size(cat, scenario)
    return tackle_said(cat, made, made.rigs[0])


def test_a_leader_too_light_for_wood_is_named(cat: Catalog) -> None:
    said = said_of(cat, Scenario(STRONG_WOOD, Gear(line=SPIN), ("flipping-jig",)))
    assert re.match(
        r"Your 8 lb fluorocarbon leader is light for a [\d/]+ oz flipping jig in wood: 17 lb fluorocarbon "
        r"holds it\.",
        said,
    )
    assert said_of(cat, Scenario(STRONG_WOOD, Gear(line=fluorocarbon(20)), ("flipping-jig",))) == ""


def test_a_mat_wants_braid(cat: Catalog) -> None:
    mat = replace(DAY, cover=Cover(kind="matted-grass", thickness_in=4))
    assert "65 lb braid holds it." in said_of(cat, Scenario(mat, Gear(line=fluorocarbon(20)), ("punch-rig",)))
    braid = Line(material="braid", test_lb=65)
    assert said_of(cat, Scenario(mat, Gear(line=braid), ("punch-rig",))) == ""


def test_finish(cat: Catalog) -> None:
    found = {name: finish_of(cat, *rated(name)) for name in CASES}
    for settled in found.values():
        assert [s.slot for s in settled] == [k for k in SLOTS if k in {s.slot for s in settled}]
        assert all(s.text and s.source and s.because for s in settled)
    said = {name: {s.label: [s.text, s.source, s.because] for s in found[name]} for name in SHOWN}
    holds_to("advice.finish", said)


@pytest.mark.parametrize(
    ("forage", "clarity", "light", "schools", "colour", "blade"),
    [
        ("baitfish", 0.8, "sunny", (), "white and chartreuse", "gold, bright"),
        ("bluegill", 0.8, "sunny", (), "black and blue", "black or painted dark, no gold"),
        ("baitfish", 0.8, "overcast", (("blade-metal", "silver"),), "white and chartreuse", "silver, bright"),
        ("bluegill", 0.8, "sunny", (("blade-metal", "silver"),), "black and blue", "silver, bright"),
        ("baitfish", 0.8, "sunny", (("blade-in-mud", "outline"),), "black and blue", "black or painted dark"),
        (
            "bluegill",
            0.8,
            "sunny",
            (("blade-in-mud", "flash"),),
            "white and chartreuse",
            "gold or white, bright",
        ),
        (
            "bluegill",
            5.0,
            "overcast",
            (),
            "green pumpkin, the tail dipped in chartreuse",
            "painted, or silver gone dull",
        ),
        (
            "bluegill",
            5.0,
            "overcast",
            (("grey-sky-blade", "gold"),),
            "green pumpkin, the tail dipped in chartreuse",
            "gold, bright",
        ),
        ("bluegill", 5.0, "sunny", (), "green pumpkin, plain, a touch of blue", "silver, bright"),
        ("crawfish", 5.0, "mixed", (), "red or rust, a brown trailer", "silver"),
        ("baitfish", 5.0, "sunny", (), "translucent, a little flash", "silver, bright"),
    ],
)
def test_blade_and_colour_are_one_decision(
    cat: Catalog,
    forage: str,
    clarity: float,
    light: str,
    schools: tuple[tuple[str, str], ...],
    colour: str,
    blade: str,
) -> None:
    c = Conditions(
        water_temp_f=58,
        bottom_depth_ft=9,
        fish_depth_ft=6,
        season="pre-spawn",
        wind_mph=8,
        clarity_ft=clarity,
        forage=forage,
        light=light,
    )
    sizing = size(cat, Scenario(c, families=("bladed-jig",), schools=schools))
    said = {s.slot: s.text for s in finish_of(cat, sizing, sizing.rigs[0])}
    assert (said["colour"], said["blade"]) == (colour, blade)


def test_lines(cat: Catalog) -> None:
    holds_to("advice.linesay", {name: line_said(cat, *rated(name)) for name in [*CASES][::2]})
