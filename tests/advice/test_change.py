"""What is changed first after a cast gone wrong: practice's order, laws, the cast as fished."""

from dataclasses import replace
from typing import Any

import pytest

from heathdrop.advice.change import AS_SIZED, MEASURED, STEMS, Fished, askable, mended
from heathdrop.advice.change.hand import (
    Hand,
    path_of,
)
from heathdrop.answers.change import after_cast
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.gear import Gear, Line
from heathdrop.conditions.outcome import WENT
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import size
from heathdrop.units import feet, metres
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to
from tests.waters import BAIT, GRASS, MAT, WINTER_ROCK, WOOD

CLEAR = replace(GRASS, clarity_ft=10.0)


RIPRAP = Conditions(
    water_temp_f=62, bottom_depth_ft=8, fish_depth_ft=3, cover=Cover(kind="rock", detail="riprap")
)


CHUNK = replace(WINTER_ROCK, bottom_depth_ft=12, fish_depth_ft=12, cover=Cover(kind="rock", detail="chunk"))


STALKS = replace(
    GRASS, bottom_depth_ft=14, fish_depth_ft=13, cover=Cover(kind="submerged-grass", top_depth_ft=11)
)


WARM = replace(GRASS, water_temp_f=74, fish_depth_ft=1.5, cover=Cover(kind="submerged-grass", top_depth_ft=4))


@pytest.mark.parametrize(
    ("water", "rig", "went", "fished", "first"),
    [
        (BAIT, "underspin:0.375:paddle-tail", "ran-high", Fished(4.0, 2.2), ("slower", "longer-count")),
        (GRASS, "bladed-jig:0.375:craw", "ran-high", Fished(2.0, 2.9), ("slower",)),
        (GRASS, "bladed-jig:0.75:pin-tail", "ran-low", Fished(2.0, 1.8), ("faster",)),
        (GRASS, "swim-jig:0.375:craw", "fouled", AS_SIZED, ("rod-tip-up", "faster")),
        (GRASS, "bladed-jig:0.5:craw", "fouled", AS_SIZED, ("pause-or-pop",)),
        (STALKS, "swim-jig:0.75:craw", "ticked-top", AS_SIZED, ("pause-or-pop",)),
        (GRASS, "swim-jig:0.375:craw", "ticked-top", Fished(3.0, 1.7), ("faster", "rod-tip-up")),
        (MAT, "punch-rig:1:creature", "fouled", AS_SIZED, ("heavier-head",)),
        (MAT, "flipping-jig:0.75:craw", "stalled", AS_SIZED, ("heavier-head",)),
        (WOOD, "bladed-jig:0.5:flat-tail", "hung", AS_SIZED, ("other-family",)),
        (CHUNK, "football-jig:0.75:craw", "hung", AS_SIZED, ("lighter-head",)),
        (RIPRAP, "spinnerbait:0.375:paddle-tail", "short", AS_SIZED, ("trailer-hook",)),
        (CLEAR, "swim-jig:0.375:craw", "short", AS_SIZED, ("slimmer-trailer",)),
        (CLEAR, "swim-jig:0.375:craw", "followed", AS_SIZED, ("pause-or-pop",)),
        (WINTER_ROCK, "football-jig:0.75:craw", "nothing", AS_SIZED, ("lighter-head",)),
        (WINTER_ROCK, "football-jig:0.5:craw", "missed", Fished(rod_tip_height_ft=8.0), ("rod-tip-down",)),
        (WINTER_ROCK, "football-jig:0.5:craw", "missed", AS_SIZED, ("take-up-slack",)),
        (GRASS, "bladed-jig:0.5:paddle-tail", "blade-stops", AS_SIZED, ("other-shape",)),
        (GRASS, "bladed-jig:0.5:craw", "blade-stops", AS_SIZED, ("faster",)),
        (GRASS, "swim-jig:0.5:craw", "rolled", AS_SIZED, ("rethread",)),
        (GRASS, "swim-jig:0.5:craw", "lost", AS_SIZED, ("softer-rod",)),
        (WARM, "swim-jig:0.25:craw", "bump", Fished(0.0, 1.4), ("faster",)),
        (WARM, "swim-jig:0.5:craw", "bump", Fished(0.0, 4.0), ("stay",)),
        (GRASS, "swim-jig:0.5:craw", "fish", AS_SIZED, ("stay",)),
    ],
)
def test_practice_s_first_change(
    cat: Catalog, water: Conditions, rig: str, went: str, fished: Fished, first: tuple[str, ...]
) -> None:
    found = after_cast(Scenario(water), RigName.parse(rig).rig(cat), went, None, fished).changes
    assert found[0].id in first


#: What undoes the fault that was named.
WRONG = {
    "ran-high": {"faster", "shorter-count", "rod-tip-up", "bulkier-trailer", "lighter-head", "thicker-line"},
    "ran-low": {"slower", "longer-count", "rod-tip-down", "slimmer-trailer", "heavier-head", "thinner-line"},
    "followed": {"bulkier-trailer", "livelier-trailer", "heavier-head"},
    "stalled": {"lighter-head", "bulkier-trailer"},
    "hung": {"heavier-head", "longer-count", "trailer-hook"},
    "blade-stops": {"slower", "bulkier-trailer", "livelier-trailer"},
}


@pytest.mark.slow
def test_every_rig_has_an_answer_to_everything_that_is_asked(cat: Catalog) -> None:
    """Sixteen rigs, all that may be asked of them: something is said, nothing makes it worse, every figure
    that is said moves, and no change of depth ends nearer the floor than the cast that is mended."""
    asked = 0
    for name in CASES:
        sizing, one = rated(name)
        for went in askable(sizing, one):
            found = mended(cat, sizing, one, went)
            asked += 1
            assert found.changes, (name, went)
            worse = (
                set()
                if went == "hung" and sizing.scenario.conditions.cover.kind in STEMS
                else WRONG.get(went, set())
            )
            assert not {c.id for c in found.changes} & worse, (name, went)
            for change in found.changes:
                assert change.what
                assert change.effect
                assert "instead of 100 of 100" not in change.effect
                if change.runs_ft is not None and found.ran_ft is not None and went in MEASURED:
                    assert MEASURED[went] * (change.runs_ft - found.ran_ft) > 0.0, (name, went, change)
                    assert change.runs_ft <= sizing.scenario.conditions.bottom_depth_ft
    assert asked > 150


@pytest.mark.parametrize("went", WENT)
def test_a_box_with_one_family_is_answered_too(cat: Catalog, went: str) -> None:
    """Another family is offered from the standard set; a box that has none of it is no refusal."""
    tackle = tackle_of([OwnedHead("flipping-jig", 0.5)], [OwnedTrailer("craw", 4.0)])
    sizing = size(cat, Scenario(WOOD, families=("flipping-jig",), box="mine"), tackle=tackle)
    assert mended(cat, sizing, sizing.rigs[0], went).changes


def test_it_starts_from_where_it_ran(cat: Catalog) -> None:
    """2.3 ft under what was told, then into the band: the figures are of the cast that went wrong."""
    sizing, one = rated("on braid")
    told = feet(one.tuned.mean_m)
    found = mended(cat, sizing, one, "ran-low", 2.3)
    assert found.ran_ft == pytest.approx(told + 2.3, abs=0.2)
    first = found.changes[0]
    assert first.effect.startswith(f"it ran at about {found.ran_ft:.1f} ft; this brings it to ")
    assert first.runs_ft is not None
    assert abs(first.runs_ft - told) < abs(found.ran_ft - told)
    # The same told by name of older records.
    assert mended(cat, sizing, one, "ran-too-low", 2.3) == found


@pytest.mark.parametrize(
    ("given", "sentence"),
    [
        ({"went": "sank"}, "went was “sank”; it must be one of short, fouled,"),
        ({"by_ft": 0.05}, r"by_ft was 0\.05; it must be from 0\.1 to 30 ft"),
        ({"by_ft": 31.0}, r"by_ft was 31; it must be from 0\.1 to 30 ft"),
        ({"fished": Fished(countdown_s=-1.0)}, r"fished\.countdown_s was -1; it must be from 0 to 120 s"),
        ({"fished": Fished(pace_ft_s=9.0)}, r"fished\.pace_ft_s was 9; it must be from 0\.2 to 8 ft/s"),
        ({"fished": Fished(rod_tip_height_ft=13.0)}, r"fished\.rod_tip_height_ft was 13"),
    ],
)
def test_what_cannot_be(cat: Catalog, given: dict[str, Any], sentence: str) -> None:
    sizing, one = rated("wood swum")
    with pytest.raises(BadInput, match=sentence):
        mended(cat, sizing, one, **{"went": "ran-high", **given})


def test_nothing_offered_goes_into_the_cover_below(cat: Catalog) -> None:
    """Over grass whose tops are at 7 ft a longer count ends short of them."""
    over = replace(GRASS, fish_depth_ft=4, bottom_depth_ft=10)
    found = after_cast(Scenario(over), RigName.parse("swim-jig:0.375:craw").rig(cat), "ran-high", 1.0)
    longer = [c for c in found.changes if c.id == "longer-count"]
    setting = setting_of(cat, Scenario(over, families=("swim-jig",)))
    for change in longer:
        hand = Hand(
            RigName.parse(change.rig).rig(cat),
            setting.line,
            change.fished.countdown_s or 0.0,
            metres(change.fished.pace_ft_s or 0.0),
            setting.cast.rod_tip_m,
        )
        assert path_of(setting, hand).deepest_ft <= 7.05
    assert found.changes


def test_a_thing_felt_already_is_not_mended(cat: Catalog) -> None:
    """Felt 97 times of 100 there is nothing to gain; a sixteenth in deep water is felt on braid."""
    near = Conditions(water_temp_f=60, bottom_depth_ft=5, fish_depth_ft=5, wind_mph=0)
    sure = after_cast(Scenario(near), RigName.parse("football-jig:0.75:craw").rig(cat), "not-felt").changes
    assert [c.by for c in sure if c.id != "other-family"] == ["rule"] * len(
        [c for c in sure if c.id != "other-family"]
    )
    deep = Conditions(water_temp_f=60, bottom_depth_ft=20, fish_depth_ft=20, wind_mph=6)
    nylon = Gear(line=Line(material="nylon", test_lb=20))
    found = after_cast(
        Scenario(deep, nylon), RigName.parse("finesse-jig:0.1875:pin-tail").rig(cat), "not-felt"
    )
    braid = next(c for c in found.changes if c.id == "thinner-line")
    assert "braid" in braid.what
    assert {"line": "braid", "test_lb": "20"}.items() <= dict(braid.tries).items()


def test_a_change_that_mends_ends_in_the_band(cat: Catalog) -> None:
    sizing, one = rated("right over grass")
    top, low = sizing.targets.depth_ft
    setting = setting_of(cat, sizing.scenario)
    for went in MEASURED:
        for change in mended(cat, sizing, one, went).changes:
            if change.id == "other-family" or change.runs_ft is None:
                continue
            assert change.mends == (top - 0.25 <= change.runs_ft <= low + 0.25)
    assert setting.targets.depth_ft == (top, low)


def fished(cat: Catalog, name: str) -> tuple[Setting, Hand]:
    sizing, one = rated(name)
    setting = setting_of(cat, sizing.scenario)
    return setting, Hand(one.rig, setting.line, one.countdown_s, one.tuned.pace_m_s, setting.cast.rod_tip_m)


@pytest.mark.parametrize("name", ["winter rock", "mat too light"])
def test_every_answer_in_words(cat: Catalog, name: str) -> None:
    sizing, one = rated(name)
    found = {
        went: [
            f"{c.what}: {c.effect} ({c.by}{', enough' if c.mends else ''})"
            for c in mended(cat, sizing, one, went).changes
        ]
        for went in askable(sizing, one)
    }
    holds_to(f"advice.change.{name.split()[0]}", found)
