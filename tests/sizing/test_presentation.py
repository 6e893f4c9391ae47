"""How a family is fished: each word on its side of each bound."""

from __future__ import annotations

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.facts import PRESENTATIONS
from heathdrop.sizing.presentation import WAY_OF, presentation_of
from heathdrop.sizing.ways import WAY


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


def test_each_presentation_is_played_by_a_way() -> None:
    assert {*WAY_OF, "stop-and-go", "twitch", "burn-and-drop", "hang", "swim-out", "hole-drop"} == set(
        PRESENTATIONS
    )
    assert set(WAY_OF.values()) <= set(WAY)


@pytest.mark.parametrize(
    ("family", "changed", "way"),
    [
        ("football-jig", {}, "stroke"),
        ("football-jig", {"activity": 2.7}, "drag"),
        ("football-jig", {"season": "fall"}, "drag"),
        ("football-jig", {"bottom_depth_ft": 11}, "drag"),
        ("football-jig", {"bottom_shape": "steps"}, "step-down"),
        ("football-jig", {"bottom_shape": "steps", "bottom_depth_ft": 9}, "drag"),
        ("micro-jig", {"bottom_shape": "steps"}, "step-down"),
        ("micro-jig", {}, "shake"),
    ],
)
def test_a_floor_is_worked_as_it_lies_and_as_they_are(
    cat: Catalog, family: str, changed: dict[str, object], way: str
) -> None:
    facts = {"temp_f": 75.0, "fish_depth_ft": 18.0, "activity": 3.2, "season": "summer"}
    facts |= {"bottom_depth_ft": 18.0, "bottom_shape": "level", "cover": "rock", **changed}
    assert presentation_of(cat, cat.families[family], facts) == way
