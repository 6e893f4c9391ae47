"""The call: standings from fit and points, places as in the whole ranking, and why the rest stand aside."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.advice.call import (
    BEHIND,
    CALLED,
    WORTH_SAYING,
    points_of,
    reason_against,
    yielded,
)
from heathdrop.answers.own import Own
from heathdrop.answers.water import call_of, family_called, size_water
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from tests.golden_file import holds_to
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


def test_the_reason_against_is_the_heaviest_rule(cat: Catalog) -> None:
    facts = call_of(Scenario(WOOD)).standings[0].sizing.facts
    assert reason_against(cat, facts, Scenario(WOOD), cat.families["bladed-jig"]) == "In wood, a guarded jig"
    assert reason_against(cat, facts, Scenario(WOOD), cat.families["flipping-jig"]) == "Others stand better"


def test_from_a_box_alone_only_its_families_are_called(cat: Catalog) -> None:
    own = Own(tackle=tackle_of([OwnedHead("swim-jig", 0.375)], [OwnedTrailer("craw", 4.0)]))
    made = call_of(Scenario(GRASS, box="mine"), own)
    assert [s.family.id for s in made.standings] == ["swim-jig"]
    with pytest.raises(BadInput, match="box was “mine”; it must be standard or both until your box holds"):
        call_of(Scenario(GRASS, box="mine"), Own())


def test_the_call_of_a_water_to_the_digit(cat: Catalog) -> None:
    """Standings with what speaks for and against, and the families set aside with the reason."""
    made = call_of(Scenario(GRASS), places=5)
    holds_to(
        "advice.call",
        {
            "standings": [
                {
                    "family": s.family.id,
                    "figures": [s.fit, s.points, s.standing],
                    "for": [r.id for r in s.fors],
                    "against": [r.id for r in s.againsts],
                    "words": [s.presentation, s.model, s.best.key],
                }
                for s in made.standings
            ],
            "aside": [[f.id, why] for f, why in made.aside],
        },
        3e-3,
    )


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
