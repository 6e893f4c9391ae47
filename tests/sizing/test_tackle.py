"""What line and rod can bear, by exact values: strength, casting weight, sight, rating."""

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear, Leader, Line, Rod
from heathdrop.conditions.scenario import Conditions
from heathdrop.sizing.tackle import Holding, holding_of
from heathdrop.units import KG_PER_OZ

DAY = Conditions(water_temp_f=66, bottom_depth_ft=7, fish_depth_ft=6.5, clarity_ft=3, season="summer")
WOOD = replace(DAY, cover=Cover(kind="wood", detail="laydown"))
SPIN = Line(material="braid", test_lb=15, leader=Leader(material="fluorocarbon", test_lb=8, length_ft=8))


def held(cat: Catalog, family: str, c: Conditions, line: Line, rod: Rod | None = None) -> Holding:
    return holding_of(cat, cat.families[family], c, Gear(line=line, rod=rod))


def fluorocarbon(lb: float) -> Line:
    return Line(material="fluorocarbon", test_lb=lb)


@pytest.mark.parametrize(
    ("family", "c", "oz", "need"),
    [
        ("flipping-jig", WOOD, 0.375, 16.8),
        ("finesse-jig", WOOD, 0.25, 8.4),
        ("spinnerbait", DAY, 0.75, 12.0),
        ("spinnerbait", DAY, 0.5, 10.0),
        ("swim-jig", DAY, 1.0, 16.0),
        ("punch-rig", replace(DAY, cover=Cover(kind="matted-grass", thickness_in=4)), 1.25, 51.0),
    ],
)
def test_the_line_that_holds(cat: Catalog, family: str, c: Conditions, oz: float, need: float) -> None:
    """Wood never under 15 lb for a flipping jig, some 50 lb under a mat, 16 lb an ounce of head."""
    found = held(cat, family, c, fluorocarbon(25)).fit(oz, 0.03)
    assert found.need_lb == pytest.approx(need)
    weak = held(cat, family, c, fluorocarbon(need * math.exp(-0.5) if need < 30 else 25)).fit(oz, 0.03)
    if need < 30:
        assert weak.strength == pytest.approx(0.5)
    strong = held(cat, family, c, Line(material="braid", test_lb=65)).fit(oz, 0.03)
    assert strong.strength == 1.0


def test_the_leader_is_what_holds_and_spinning_tackle_sets_less_well(cat: Catalog) -> None:
    found = held(cat, "flipping-jig", WOOD, SPIN)
    assert found.test_lb == 8.0
    assert found.fit(0.375, 0.03).strength == pytest.approx(1 / (1 + (math.log(16.8 / 8) / 0.5) ** 2))
    rod = Rod(kind="spinning", power="medium", low_oz=0.125, high_oz=0.5)
    assert held(cat, "flipping-jig", WOOD, SPIN, rod).hook_lb == pytest.approx(1.25 * 16.8)


def test_thick_line_is_seen_in_clear_water(cat: Catalog) -> None:
    clear, murky = replace(DAY, clarity_ft=9), replace(DAY, clarity_ft=2)
    thick, thin = fluorocarbon(20), fluorocarbon(12)
    assert held(cat, "finesse-jig", murky, thick).seen == 1.0
    assert held(cat, "finesse-jig", clear, thin).seen == 1.0
    off = math.log(0.43 / 0.32) / 0.5
    assert held(cat, "finesse-jig", clear, thick).seen == pytest.approx(1 / (1 + off**2))
    assert held(cat, "swim-jig", clear, thick).seen == pytest.approx(1 / (1 + (0.5 * off) ** 2))
    half = replace(DAY, clarity_ft=5)
    assert held(cat, "finesse-jig", half, thick).seen == pytest.approx(1 / (1 + (0.5 * off) ** 2))
    braid = Line(material="braid", test_lb=30)
    seen = math.log(0.28 * 1.6 / 0.32) / 0.5
    assert held(cat, "finesse-jig", clear, braid).seen == pytest.approx(1 / (1 + seen**2))
    assert held(cat, "finesse-jig", clear, SPIN).seen == 1.0


def test_a_rod_outside_its_rating(cat: Catalog) -> None:
    rod = Rod(kind="casting", low_oz=0.5, high_oz=1.0)
    found = held(cat, "football-jig", DAY, fluorocarbon(17), rod)
    assert found.fit(0.5, 0.6 * KG_PER_OZ).rod == 1.0
    assert found.fit(0.5, 1.6 * KG_PER_OZ).rod == 1.0
    assert found.fit(0.25, 0.5 * math.exp(-0.3) * KG_PER_OZ).rod == pytest.approx(0.5)
    assert found.fit(2.0, 1.6 * math.exp(0.3) * KG_PER_OZ).rod == pytest.approx(0.5)
    spinning = replace(rod, kind="spinning")
    assert held(cat, "football-jig", DAY, fluorocarbon(17), spinning).fit(1.0, 1.6 * KG_PER_OZ).rod < 0.5
    assert rod.said == "medium heavy casting rod, 1/2 to 1 oz"
