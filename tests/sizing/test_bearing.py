"""Weight as it fishes: the usual rig fishes as it weighs, bulk, skirt and line make it lighter; and the board
shows the trade."""

from __future__ import annotations

import random
from dataclasses import replace
from statistics import mean

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import size
from tests.waters import MAT

OPEN = Conditions(water_temp_f=62, bottom_depth_ft=12, fish_depth_ft=6)


def there(cat: Catalog, family: str, lb: float = 16.0, material: str = "fluorocarbon") -> Setting:
    gear = Gear(line=LineSet(material=material, test_lb=lb))
    return setting_of(cat, Scenario(OPEN, gear, (family,)))


@pytest.mark.parametrize("family", ["swim-jig", "bladed-jig", "flipping-jig", "football-jig"])
def test_the_usual_rig_on_the_usual_line_fishes_as_it_weighs(cat: Catalog, family: str) -> None:
    material, low, high = cat.families[family].lines[0]
    setting = there(cat, family, 0.5 * (low + high), material)
    rig = rig_by_name(cat, family, 0.5, setting.family.usual_trailer)
    assert setting.as_it_fishes_oz(rig) == pytest.approx(0.5)


@pytest.mark.parametrize(
    ("family", "more", "less"),
    [
        ("swim-jig", {"trailer": "pin-tail"}, {"trailer": "craw"}),
        ("swim-jig", {"trailer_length_in": 2.8}, {"trailer_length_in": 4.5}),
        ("casting-jig", {"skirt": "trimmed"}, {"skirt": "full"}),
        ("casting-jig", {"head_material": "tungsten"}, {"head_material": "lead"}),
        ("flipping-jig", {"trailer": "beaver"}, {"trailer": "chunk"}),
    ],
)
def test_what_holds_it_up_makes_it_lighter(
    cat: Catalog, family: str, more: dict[str, object], less: dict[str, object]
) -> None:
    setting = there(cat, family)
    usual = {"trailer": setting.family.usual_trailer}

    def oz(**parts: object) -> float:
        return setting.as_it_fishes_oz(rig_by_name(cat, family, 0.5, **{**usual, **parts}))  # type: ignore[arg-type]

    assert oz(**more) > 1.02 * oz(**less)


def test_thick_line_makes_it_lighter_and_ounces_stay_ounces(cat: Catalog) -> None:
    rig = rig_by_name(cat, "swim-jig", 0.5, "paddle-tail")
    thin, thick = (there(cat, "swim-jig", lb).as_it_fishes_oz(rig) for lb in (8, 25))
    assert thin > 1.05 * thick
    fit = replace(cat.judgement.fit, bearing_share=0.0)
    by_ounces = replace(cat, judgement=replace(cat.judgement, fit=fit))
    chunk = rig_by_name(by_ounces, "swim-jig", 0.5, "chunk")
    assert there(by_ounces, "swim-jig").as_it_fishes_oz(chunk) == pytest.approx(0.5)
    held = Scenario(OPEN, families=("bladed-jig",), schools=(("bladed-ladder", "one"),))
    for scenario, family in ((held, "bladed-jig"), (Scenario(MAT, families=("punch-rig",)), "punch-rig")):
        setting = setting_of(cat, scenario)
        assert setting.as_it_fishes_oz(rig_by_name(cat, family, 0.5, "chunk")) == 0.5


@pytest.mark.slow
def test_bulky_rows_of_the_board_want_a_heavier_head_and_never_a_lighter(cat: Catalog) -> None:
    rng = random.Random(4)
    slim, bulky = ("pin-tail", "flat-tail", "beaver", "twin-tail"), ("chunk", "creature", "craw")
    boards, heavier = 0, 0
    for family in ("swim-jig", "bladed-jig", "spinnerbait", "underspin", "football-jig", "casting-jig") * 2:
        deep = rng.randint(6, 20)
        fish = (
            float(deep) if cat.families[family].work == "bottom" else round(deep * rng.uniform(0.3, 0.7), 1)
        )
        c = Conditions(
            water_temp_f=rng.randint(48, 80),
            bottom_depth_ft=deep,
            fish_depth_ft=fish,
            clarity_ft=rng.choice((2, 4, 8)),
        )
        best: dict[str, float] = {}
        for r in size(cat, Scenario(c, families=(family,))).rigs:
            best.setdefault(r.rig.trailer.id, r.rig.head_oz)
        light, heavy = (mean(best[t] for t in shapes if t in best) for shapes in (slim, bulky))
        assert heavy > light - 0.01
        boards, heavier = boards + 1, heavier + (heavy > light + 0.01)
    assert heavier >= 0.8 * boards
