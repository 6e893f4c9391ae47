"""The sense of weight: the table by its rows, what moves it, and what stands in for it."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.sizing.leans import weight_shift
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.usual import LEAST_HALF, MAT_HALF, Weights, table_band
from tests.waters import MAT

OPEN = Conditions(
    water_temp_f=56, bottom_depth_ft=20, fish_depth_ft=4, season="summer", clarity_ft=4, wind_mph=5
)


def day(cat: Catalog, family: str, c: Conditions) -> float:
    """What the day's leans make of a family's usual weights, as a factor."""
    setting = setting_of(cat, Scenario(c, families=(family,)))
    return math.exp(weight_shift(cat, setting.family, setting.leans))


def weights(cat: Catalog, family: str, c: Conditions, *schools: tuple[str, str]) -> Weights:
    return setting_of(cat, Scenario(c, families=(family,), schools=schools)).weights


@pytest.mark.parametrize(
    ("family", "depth", "low", "high"),
    [
        ("swim-jig", 0.0, 0.25, 0.3125),
        ("swim-jig", 1.25, 0.25, 0.3125),
        ("swim-jig", 6.5, 0.3125, 0.5),
        ("swim-jig", 10.0, 0.4375, 0.6875),
        ("swim-jig", 60.0, 0.625, 0.875),
        ("spinnerbait", 4.5, 0.375, 0.5),
        ("football-jig", 17.0, 0.5, 0.75),
        ("micro-jig", 2.5, 0.0625, 0.1875),
        ("punch-rig", 5.0, 1.0, 1.5),
    ],
)
def test_each_row_holds_at_its_middle(
    cat: Catalog, family: str, depth: float, low: float, high: float
) -> None:
    assert table_band(cat.usual[family], depth) == pytest.approx((low, high))


def test_it_climbs_without_steps(cat: Catalog) -> None:
    for family, usual in cat.usual.items():
        middles = [math.sqrt(math.prod(table_band(usual, 0.25 * k))) for k in range(160)]
        steps = [b / a for a, b in zip(middles, middles[1:], strict=False)]
        assert all(1.0 - 1e-12 <= s < 1.07 for s in steps), family


def test_a_weight_is_worth_half_at_the_edge_of_the_usual(cat: Catalog) -> None:
    found = Weights(0.5, 0.25, 1.0, "")
    assert found.fit(0.5) == 1.0
    assert found.fit(0.5 * math.exp(0.25)) == pytest.approx(0.5)
    assert found.fit(0.5 * math.exp(-0.25)) == pytest.approx(0.5)
    assert found.fit(0.5 * math.exp(0.5)) == pytest.approx(0.2)
    assert replace(found, edge=0.5).fit(0.5 * math.exp(0.125)) == pytest.approx(0.5)


def test_swimmers_by_the_fish_and_floor_lures_by_the_floor(cat: Catalog) -> None:
    low, high = table_band(cat.usual["swim-jig"], 4.0)
    assert weights(cat, "swim-jig", OPEN).middle_oz == pytest.approx(
        math.sqrt(low * high) * day(cat, "swim-jig", OPEN)
    )
    low, high = table_band(cat.usual["football-jig"], 20.0)
    assert weights(cat, "football-jig", OPEN).middle_oz == pytest.approx(
        math.sqrt(low * high) * day(cat, "football-jig", OPEN)
    )
    assert weights(cat, "football-jig", OPEN).because == "what is usual at 20 ft"
    low, high = table_band(cat.usual["swim-jig"], 1.0)
    assert 0.5 * math.log(high / low) < 0.25 == weights(cat, "swim-jig", replace(OPEN, fish_depth_ft=1)).half
    wide = weights(cat, "micro-jig", replace(OPEN, bottom_depth_ft=10, fish_depth_ft=10))
    low, high = table_band(cat.usual["micro-jig"], 10.0)
    assert wide.half == pytest.approx(0.5 * math.log(high / low))


def test_wind_and_quick_fish_want_it_heavier(cat: Catalog) -> None:
    still, windy = (weights(cat, "football-jig", replace(OPEN, wind_mph=w)) for w in (5, 15))
    leaning = [day(cat, "football-jig", replace(OPEN, wind_mph=w)) for w in (5, 15)]
    assert windy.middle_oz / still.middle_oz == pytest.approx(math.exp(0.01 * 10) * leaning[1] / leaning[0])
    assert weights(cat, "football-jig", replace(OPEN, wind_mph=0)) == still
    slow, quick = (weights(cat, "swim-jig", replace(OPEN, activity=a)) for a in (1.0, 4.0))
    leaning = [day(cat, "swim-jig", replace(OPEN, activity=a)) for a in (1.0, 4.0)]
    assert quick.middle_oz / slow.middle_oz == pytest.approx(math.exp(0.05 * 3) * leaning[1] / leaning[0])
    slow, quick = (weights(cat, "football-jig", replace(OPEN, activity=a)) for a in (1.0, 4.0))
    leaning = [day(cat, "football-jig", replace(OPEN, activity=a)) for a in (1.0, 4.0)]
    assert quick.middle_oz / slow.middle_oz == pytest.approx(leaning[1] / leaning[0])


def test_under_a_mat_what_opens_it_stands_in_for_habit(cat: Catalog) -> None:
    quiet, loud = (weights(cat, "punch-rig", MAT, ("mat-entry", s)) for s in ("quiet", "lobbed"))
    opens = (0.35 + 0.13 * 4) * (0.87 / 0.13) ** (1 / 6)
    opens_loud = (opens / 1.35) ** 0.4 * day(cat, "punch-rig", MAT)
    # Six tenths of it are habit, an ounce.
    assert quiet.middle_oz == pytest.approx(opens**0.4 * day(cat, "punch-rig", MAT))
    assert quiet.half == MAT_HALF
    assert loud.middle_oz == pytest.approx(opens_loud)
    swum = weights(cat, "swim-jig", MAT)
    assert swum.because == "what is usual at 5 ft"


def test_a_schools_band_is_held_closely(cat: Catalog) -> None:
    """A school that the angler holds to is not moved by the day; the default one is."""
    one = weights(cat, "bladed-jig", OPEN, ("bladed-ladder", "one"))
    assert (one.middle_oz, one.half, one.edge) == (pytest.approx(0.5), LEAST_HALF, 0.5)
    lean = weights(cat, "bladed-jig", OPEN, ("bladed-ladder", "one"), ("weight-lean", "heavier"))
    assert lean.middle_oz == pytest.approx(0.5 * 1.18)
