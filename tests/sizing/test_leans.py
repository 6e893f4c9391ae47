"""The day's leans: numbers that fade, one for one, and what they move."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import LEANS
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Leader, Line
from heathdrop.conditions.scenario import Conditions
from heathdrop.sizing.leans import features, leans_of, tilt_of, weight_shift

DAY = Conditions(water_temp_f=53.5, bottom_depth_ft=9, fish_depth_ft=5, clarity_ft=4, season="summer")
LINE = Line(material="fluorocarbon", test_lb=15)


@pytest.mark.parametrize(
    ("name", "change", "value"),
    [
        ("cold", {}, 0.5),
        ("cold", {"water_temp_f": 45}, 1.0),
        ("cold", {"water_temp_f": 62}, 0.0),
        ("clear", {}, 0.0),
        ("clear", {"clarity_ft": 16}, 1.0),
        ("clear", {"clarity_ft": 1}, -1.0),
        ("clear", {"clarity_ft": 8}, 0.5),
        ("thick", {"cover": Cover(kind="submerged-grass", top_depth_ft=6, density="thick")}, 1.0),
        ("thick", {"cover": Cover(kind="wood", density="thick")}, 0.0),
        ("tops", {"cover": Cover(kind="submerged-grass", top_depth_ft=6)}, 1.0),
        ("tops", {"cover": Cover(kind="submerged-grass", top_depth_ft=7.5)}, 0.5),
        ("tops", {"cover": Cover(kind="submerged-grass", top_depth_ft=9)}, 0.0),
        ("crawfish", {"forage": "crawfish"}, 1.0),
        ("baitfish", {"forage": "crawfish"}, 0.0),
        ("rock", {"cover": Cover(kind="rock")}, 1.0),
        ("wood", {"cover": Cover(kind="docks")}, 1.0),
        ("autumn", {"season": "fall"}, 1.0),
        ("autumn", {"season": "fall", "water_temp_f": 74}, 0.5),
        ("autumn", {}, 0.0),
        ("spawn", {"season": "spawn"}, 1.0),
    ],
)
def test_each_lean_of_a_day(name: str, change: dict[str, object], value: float) -> None:
    c = replace(DAY, **change)  # type: ignore[arg-type]
    assert leans_of(c, 2.0, LINE, 5.0)[name] == pytest.approx(value)


def test_mood_depth_and_line() -> None:
    for mood, dull in ((0.0, 1.0), (1.0, 0.5), (2.0, 0.0), (4.0, -1.0)):
        assert leans_of(DAY, mood, LINE, 5.0)["dull"] == pytest.approx(dull)
    for depth, deep in ((5.0, 0.0), (10.0, 0.5), (20.0, 1.0), (80.0, 1.0), (2.5, -0.5)):
        assert leans_of(DAY, 2.0, LINE, depth)["deep"] == pytest.approx(deep)
    tied = Line(
        material="braid", test_lb=30, leader=Leader(material="fluorocarbon", test_lb=7.5, length_ft=8)
    )
    assert leans_of(DAY, 2.0, tied, 5.0)["line"] == pytest.approx(-0.5)
    assert set(leans_of(DAY, 2.0, LINE, 5.0)) == set(LEANS)


def test_a_trailer_as_the_leans_see_it() -> None:
    assert features(2.0, 2.5) == (0.0, 0.0)
    assert features(3.2, 5.0) == pytest.approx((1.2, math.log(2.0)))
    assert features(0.5, 0.0) == (-1.5, -1.8)


def test_practice_and_fit_add_up(cat: Catalog) -> None:
    family = cat.families["swim-jig"]
    calm = dict.fromkeys(LEANS, 0.0)
    assert tilt_of(cat, family, calm) == tilt_of(cat, family, calm)
    assert (tilt_of(cat, family, calm).action, tilt_of(cat, family, calm).bulk) == (0.0, 0.0)
    cold = tilt_of(cat, family, {**calm, "cold": 1.0})
    assert cold.action == pytest.approx(cat.leans.leans["swim"]["cold"]["action"])
    assert cold.action < 0.0
    assert weight_shift(cat, family, calm) == pytest.approx(cat.fitted.usual.get("swim-jig", 0.0))
    more = weight_shift(cat, family, {**calm, "autumn": 1.0}) - weight_shift(cat, family, calm)
    assert more == pytest.approx(cat.leans.heads["swim"]["autumn"])
