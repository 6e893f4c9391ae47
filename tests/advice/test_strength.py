"""Line or rod that cannot bear a rig: named, with what would hold and what can be fished instead."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest

from heathdrop.advice.strength import spool_lb, tackle_said
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear, Line, Rod
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.size import size
from tests.sizing.test_tackle import DAY, SPIN, WOOD, fluorocarbon


@pytest.mark.parametrize(
    ("need", "spool"), [(3.0, 4), (16.8, 17), (17.4, 17), (17.6, 20), (51.0, 65), (99.0, 80)]
)
def test_spools_as_they_are_sold(need: float, spool: int) -> None:
    assert spool_lb(need) == spool


def said_of(cat: Catalog, scenario: Scenario) -> str:
    made = size(cat, scenario)
    return tackle_said(cat, made, made.rigs[0])


def test_a_leader_too_light_for_wood_is_named(cat: Catalog) -> None:
    said = said_of(cat, Scenario(WOOD, Gear(line=SPIN), ("flipping-jig",)))
    assert re.match(
        r"Your 8 lb fluorocarbon leader is light for a [\d/]+ oz flipping jig in wood: 17 lb fluorocarbon "
        r"holds it\.",
        said,
    )
    assert said_of(cat, Scenario(WOOD, Gear(line=fluorocarbon(20)), ("flipping-jig",))) == ""


def test_a_mat_wants_braid(cat: Catalog) -> None:
    mat = replace(DAY, cover=Cover(kind="matted-grass", thickness_in=4))
    assert "65 lb braid holds it." in said_of(cat, Scenario(mat, Gear(line=fluorocarbon(20)), ("punch-rig",)))
    braid = Line(material="braid", test_lb=65)
    assert said_of(cat, Scenario(mat, Gear(line=braid), ("punch-rig",))) == ""


def test_what_can_be_fished_instead_is_one_the_line_bears(cat: Catalog) -> None:
    rock = replace(DAY, bottom_depth_ft=14, fish_depth_ft=14, forage="crawfish", cover=Cover(kind="rock"))
    made = size(cat, Scenario(rock, Gear(line=fluorocarbon(6)), ("football-jig",)))
    said = tackle_said(cat, made, next(r for r in made.rigs if r.rig.head_oz >= 0.625))
    found = re.search(
        r"On what you have, a [\d/]+ oz ([a-z ]+) with a [a-z -]+ can be fished \(fit \d+\)\.", said
    )
    assert found is not None
    assert found[1] in ("finesse jig", "micro jig", "casting jig")


def test_a_rod_that_is_not_made_for_it(cat: Catalog) -> None:
    light = Rod(kind="spinning", power="medium-light", low_oz=0.0625, high_oz=0.25)
    rock = replace(DAY, bottom_depth_ft=20, fish_depth_ft=20, cover=Cover(kind="rock"))
    said = said_of(cat, Scenario(rock, Gear(line=fluorocarbon(20), rod=light), ("football-jig",)))
    assert "Your medium light spinning rod, 1/16 to 1/4 oz is not made for it." in said
