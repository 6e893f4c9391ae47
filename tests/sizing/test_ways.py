"""Ways of working a rig: programmes to the letter, presentations on their side of each bound, cadence."""

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Cover, Scenario
from heathdrop.sizing.presentation import presentation_of
from heathdrop.sizing.program import usual_way
from heathdrop.sizing.rated import rated_one
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.sizing.ways import PLAYED, WAYS, programme
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to
from tests.waters import BAIT


@pytest.mark.parametrize(
    ("way", "phases"),
    [
        ("steady", ["fall", "retrieve"]),
        ("slow-roll", ["fall", "slow-roll"]),
        ("stop-and-go", ["fall", *["retrieve", "kill"] * 3, "retrieve"]),
        ("burn-and-drop", ["fall", "burn-and-drop"]),
        ("twitch", ["fall", "twitch"]),
        ("yo-yo", ["fall", "yo-yo"]),
        ("hop", ["fall", "hop"]),
        ("drag", ["fall", "drag"]),
        ("lift-and-drop", ["fall", "lift-and-drop"]),
        ("stroke", ["fall", "stroke"]),
        ("step-down", ["fall", "step-down"]),
        ("shake", ["fall", "shake", "drag", "shake"]),
        ("swing", ["fall", "retrieve", "swing"]),
    ],
)
def test_phases(way: str, phases: list[str]) -> None:
    assert [p.do for p in programme(way, 0.6, 3.0, 24.0)] == phases


def test_counted_or_let_land() -> None:
    counted = {w.id for w in WAYS if programme(w.id, 0.6, 3.0, 24.0)[0].for_s == 3.0}
    assert counted == {
        "steady",
        "stop-and-go",
        "burn-and-drop",
        "twitch",
        "swing",
        "hang",
        "swim-out",
        "hole-drop",
    }
    assert {w.id for w in WAYS} == set(PLAYED)


def test_each_rig_is_worked_as_its_presentation_asks(cat: Catalog) -> None:
    holds_to("sizing.program.usual", {name: usual_way(cat, *rated(name)) for name in CASES})


@pytest.mark.parametrize(
    ("family", "temp_f", "depth_ft", "mood", "way"),
    [
        ("flipping-jig", 70, 5, 3, "pitch"),
        ("punch-rig", 70, 5, 3, "punch"),
        ("micro-jig", 70, 5, 3, "shake"),
        ("football-jig", 70, 5, 0.5, "drag"),
        ("football-jig", 70, 5, 3, "drag"),
        ("casting-jig", 70, 5, 0.79, "shake"),
        ("casting-jig", 70, 5, 0.8, "hop"),
        ("casting-jig", 51.9, 5, 2, "drag"),
        ("casting-jig", 52, 5, 2, "hop"),
        ("swim-jig", 60, 8, 3, "slow-roll"),
        ("swim-jig", 60, 7.9, 3, "swim"),
        ("swim-jig", 60, 3, 1.99, "slow-roll"),
        ("swim-jig", 60, 3, 2.0, "swim"),
        ("swim-jig", 60, 3, 3.75, "burn"),
        ("swim-jig", 60, 3, 3.74, "swim"),
        ("swim-jig", 60, 9, 4, "slow-roll"),
        ("bladed-jig", 60, 9, 4, "swim"),
        ("bladed-jig", 60, 3, 1, "swim"),
        ("bladed-jig", 60, 7.9, 4, "burn"),
    ],
)
def test_on_each_side_of_each_bound(
    cat: Catalog, family: str, temp_f: float, depth_ft: float, mood: float, way: str
) -> None:
    facts = {"temp_f": temp_f, "fish_depth_ft": depth_ft, "activity": mood, "season": "fall", "cover": "open"}
    facts |= {"bottom_shape": "level", "bottom_depth_ft": depth_ft}
    assert presentation_of(cat, cat.families[family], facts) == way


OPEN = replace(BAIT, cover=Cover(), bottom_depth_ft=15.0, fish_depth_ft=14.0, bottom_shape="level")


def first(cat: Catalog, family: str, **changed: object) -> tuple[Sizing, Rated]:
    found = size(cat, Scenario(replace(OPEN, **changed), families=(family,)))
    return found, found.rigs[0]


@pytest.mark.parametrize(
    ("family", "temp_f", "fish_ft", "bottom_ft", "way"),
    [
        ("spinnerbait", 50.0, 14.0, 15.0, "slow-roll"),
        ("swim-jig", 50.0, 14.0, 15.0, "slow-roll"),
        ("bladed-jig", 45.0, 11.5, 12.0, "yo-yo"),
        ("spinnerbait", 50.0, 6.0, 20.0, None),
        ("swim-jig", 79.0, 1.5, 5.0, "twitch"),
        ("swim-jig", 79.0, 9.0, 15.0, None),
    ],
)
def test_the_water_and_the_mood_choose(
    cat: Catalog, family: str, temp_f: float, fish_ft: float, bottom_ft: float, way: str | None
) -> None:
    mood = 3.5 if temp_f > 70.0 else 1.0
    sizing, best = first(
        cat, family, water_temp_f=temp_f, fish_depth_ft=fish_ft, bottom_depth_ft=bottom_ft, activity=mood
    )
    assert (best.cadence.way if best.cadence else None) == way
    if way:
        assert usual_way(cat, sizing, best) == way


def test_in_the_cold_a_body_that_glides_is_wanted(cat: Catalog) -> None:
    """It floats behind the first blade and glides on the pause; without it its action is worth less."""
    from heathdrop.sizing.setting import setting_of

    cold = {"water_temp_f": 45.0, "fish_depth_ft": 11.5, "bottom_depth_ft": 12.0, "activity": 1.0}
    sizing, best = first(cat, "bladed-jig", **cold)
    assert best.cadence is not None
    assert (best.rig.plastic.id, best.cadence.glides_ft > 0.1) == ("floating", True)
    setting = setting_of(cat, sizing.scenario)
    still = replace(best.cadence, glides_ft=0.0)
    stiff = rated_one(setting, best.rig, best.lure, best.tuned, best.countdown_s, still)
    glide = 0.85 + 0.15 * best.cadence.glides_ft / best.cadence.cadence.glide_ft
    assert stiff.fits.parts["action"] / best.fits.parts["action"] == pytest.approx(0.85 / glide)
