"""A rig that does not come near the fish says so, with what would reach them and its figures."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest

from heathdrop.advice.reach import MISSED, misses, missing_said
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import rated_at, size
from heathdrop.units import feet
from tests.waters import BAIT, GRASS, MAT

DEEP = replace(BAIT, bottom_depth_ft=30, fish_depth_ft=18, clarity_ft=5, cover=Cover())


def test_a_rig_among_the_fish_says_nothing(cat: Catalog) -> None:
    made = size(cat, Scenario(GRASS, families=("swim-jig",)))
    assert made.rigs[0].tuned.near_band >= MISSED
    assert not misses(made, made.rigs[0])
    assert missing_said(cat, made, made.rigs[0]) == ""
    floor = size(cat, Scenario(replace(DEEP, fish_depth_ft=30), families=("football-jig",)))
    assert not misses(floor, floor.rigs[0])


def test_a_quick_hand_is_told_to_slow_down(cat: Catalog) -> None:
    """The sentence holds: at the pace that it names the lure is near for the share that it says."""
    scenario = Scenario(DEEP, Gear(cast_ft=110.0), ("underspin",))
    made = size(cat, scenario)
    setting = setting_of(cat, scenario)
    rig = made.rigs[0].rig
    quick = rated_at(setting, rig, made.rigs[0].countdown_s, 1.25 * feet(made.rigs[0].tuned.pace_m_s))
    assert misses(made, quick)
    said = missing_said(cat, made, quick)
    assert re.match(
        r"Only \d+ % of the retrieve comes near 16–18 ft: it runs at \d+\.\d ft on average\.", said
    )
    pace, turns, share = re.search(
        r"Slower reaches them: ([\d.]+) ft/s, ([\d.]+) turns in 20 s, holds it near for (\d+) %", said
    ).groups()  # type: ignore[union-attr]
    assert float(turns) == pytest.approx(scenario.gear.turns_per_s(float(pace)) * 20, abs=0.6)
    again = rated_at(setting, rig, quick.countdown_s, float(pace))
    assert 100 * again.tuned.near_band == pytest.approx(float(share), abs=12)


def test_a_floor_jig_under_hanging_fish_names_a_swimmer(cat: Catalog) -> None:
    made = size(cat, Scenario(DEEP, Gear(cast_ft=110.0), ("football-jig",)))
    said = missing_said(cat, made, made.rigs[0])
    assert said.startswith("It works at 30 ft, 12 ft below the fish.")
    found = re.search(r"A ([\d/ ]+) oz ([a-z ]+), [a-z -]+, runs there: ([\d.]+) ft at ([\d.]+) ft/s", said)
    assert found is not None
    assert 15.0 <= float(found[3]) <= 19.0
    family = next(f.id for f in cat.families.values() if f.name == found[2])
    assert cat.families[family].work == "swim"


def test_a_drop_says_how_quickly_it_falls_past(cat: Catalog) -> None:
    water = replace(DEEP, fish_depth_ft=6, cover=Cover(kind="reeds"))
    made = size(cat, Scenario(water, families=("flipping-jig",)))
    best = made.rigs[0]
    said = missing_said(cat, made, best)
    past = 2.0 / best.fall_ft_s
    assert said.startswith(
        f"It falls past the fish at 6 ft in {past:.1f} s and lands at 30 ft, 24 ft below them."
    )


def test_under_a_mat_it_is_lifted_back(cat: Catalog) -> None:
    water = replace(MAT, bottom_depth_ft=8, fish_depth_ft=3)
    made = size(cat, Scenario(water, families=("punch-rig",)))
    said = missing_said(cat, made, made.rigs[0])
    assert "lift it back to 3 ft, just under the mat, and shake it there" in said


def test_a_bluff_asks_for_its_ledge(cat: Catalog) -> None:
    wall = replace(DEEP, fish_depth_ft=12, forage="crawfish", cover=Cover(kind="rock", detail="bluff"))
    made = size(cat, Scenario(wall, families=("finesse-jig",)))
    assert missing_said(cat, made, made.rigs[0]).startswith(
        "It needs a ledge at 12 ft; where there is none it falls on to 30 ft."
    )


def test_what_misses_is_near_less_than_said(cat: Catalog) -> None:
    made = size(cat, Scenario(DEEP, Gear(cast_ft=40.0), ("swim-jig",)))
    for rated in made.rigs[:20]:
        assert misses(made, rated) is (rated.tuned.near_band < MISSED)
        assert feet(rated.tuned.mean_m) > 0.0
