"""The sense of weight: the table by its rows, what moves it, weight as it fishes."""

import math
import random
from dataclasses import replace
from statistics import mean

import pytest

from heathdrop.advice.call import points_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.leans import weight_shift
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import size
from heathdrop.sizing.usual import MAT_HALF, Weights, table_band
from tests.golden_file import holds_to
from tests.waters import ALL, MAT

OPEN = Conditions(
    water_temp_f=56, bottom_depth_ft=20, fish_depth_ft=4, season="summer", clarity_ft=4, wind_mph=5
)


def day(cat: Catalog, family: str, c: Conditions) -> float:
    """What the day's leans make of a family's usual weights, as a factor."""
    setting = setting_of(cat, Scenario(c, families=(family,)))
    return math.exp(weight_shift(cat, setting.family, setting.leans))


def weights(cat: Catalog, family: str, c: Conditions, *schools: tuple[str, str]) -> Weights:
    return setting_of(cat, Scenario(c, families=(family,), schools=schools)).weights


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


#: The waters whose tables are kept in golden files.
KEPT = {name: ALL[name] for name in ("grass", "winter rock")}


def settings_of(cat: Catalog, c: Conditions, **schools: str) -> dict[str, Setting]:
    picks = tuple((k.replace("_", "-"), v) for k, v in sorted(schools.items()))
    return {f: setting_of(cat, Scenario(c, families=(f,), schools=picks)) for f in cat.families}


def test_targets_of_every_water(cat: Catalog) -> None:
    holds_to("sizing.targets", {n: setting_of(cat, Scenario(c)).targets for n, c in KEPT.items()})


def test_usual_weights_of_every_family_in_every_water(cat: Catalog) -> None:
    holds_to(
        "sizing.usual",
        {n: {f: s.weights for f, s in settings_of(cat, c).items()} for n, c in KEPT.items()},
    )


def test_points_of_every_family_in_every_water(cat: Catalog) -> None:
    found = {}
    for name, c in KEPT.items():
        for family, s in settings_of(cat, c).items():
            weighed, school = points_of(cat, s.facts, s.scenario, s.family)
            found[f"{name} {family}"] = {"school": school, **{rule.id: p for rule, p in weighed}}
    holds_to("advice.points", found, tolerance=1e-5)


@pytest.mark.parametrize("family", ["football-jig", "finesse-jig", "flipping-jig", "punch-rig"])
def test_closed_form_fits_of_what_is_not_swum(cat: Catalog, family: str) -> None:
    found = {}
    for name, c in KEPT.items():
        sizing = size(cat, Scenario(c, families=(family,)))
        found[name] = [[r.key, r.fits.score, r.fits.limiting, r.fits.parts] for r in sizing.rigs[:1]]
        found[name].append([sizing.rigs[-1].key, sizing.rigs[-1].fits.score])
    holds_to(f"sizing.fits.{family}", found, tolerance=1e-4)


@pytest.mark.slow
def test_a_lean_moves_the_usual_weight_and_nothing_else(cat: Catalog) -> None:
    for c in ALL.values():
        usual, lighter, heavier = (
            settings_of(cat, c, weight_lean=s) for s in ("usual", "lighter", "heavier")
        )
        for f, s in usual.items():
            assert lighter[f].weights.middle_oz == pytest.approx(0.8 * s.weights.middle_oz)
            assert heavier[f].weights.middle_oz == pytest.approx(1.18 * s.weights.middle_oz)
            assert replace(lighter[f].weights, middle_oz=0.0) == replace(s.weights, middle_oz=0.0)
            assert (lighter[f].targets, lighter[f].liking) == (s.targets, s.liking)


OPEN_BEARING = Conditions(water_temp_f=62, bottom_depth_ft=12, fish_depth_ft=6)


def there(cat: Catalog, family: str, lb: float = 16.0, material: str = "fluorocarbon") -> Setting:
    gear = Gear(line=LineSet(material=material, test_lb=lb))
    return setting_of(cat, Scenario(OPEN_BEARING, gear, (family,)))


@pytest.mark.parametrize("family", ["swim-jig", "bladed-jig", "flipping-jig", "football-jig"])
def test_the_usual_rig_on_the_usual_line_fishes_as_it_weighs(cat: Catalog, family: str) -> None:
    material, low, high = cat.families[family].lines[0]
    setting = there(cat, family, 0.5 * (low + high), material)
    rig = rig_by_name(cat, family, 0.5, setting.family.usual_trailer)
    assert setting.as_it_fishes_oz(rig) == pytest.approx(0.5)


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
