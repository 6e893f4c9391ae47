"""The sheet as a whole: the chosen rig in every part of it, what is assumed, what is owned, equals named."""

from __future__ import annotations

from urllib.parse import parse_qsl

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.box import EMPTY, OwnedHead, OwnedTrailer, tackle_of
from heathdrop.sizing.size import Sizing, equals_of, size
from heathdrop.web.sheet.page import address, choices_from
from heathdrop.web.sheet.shown.sheet import MOST_CITED, MOST_EQUALS, present
from heathdrop.web.shell.fields import values_from
from tests.waters import WOOD
from tests.web.shown import shown


def test_the_best_rig_unless_one_is_picked(cat: Catalog, sizing: Sizing) -> None:
    best = sizing.rigs[0]
    sheet = shown(cat, sizing)
    assert (sheet.key, sheet.is_best, sheet.kept) == (best.key, True, False)
    assert sheet.score == round(100 * best.fits.score)
    other = sizing.rigs[5]
    picked = shown(cat, sizing, pick=other.key)
    assert (picked.key, picked.is_best) == (other.key, False)
    assert picked.aloud != sheet.aloud
    held = shown(cat, sizing, pick=other.key, count_s="3", pace_ft_s="2")
    assert held.kept
    assert "count 3, then 2.0 ft a second" in held.aloud
    assert dict(parse_qsl(held.to_best)).get("pick") is None


def test_what_was_not_answered_is_asked(cat: Catalog, sizing: Sizing) -> None:
    assert shown(cat, sizing).asked == ("water_temp_f", "bottom_depth_ft", "fish_depth_ft", "cover")
    assert shown(cat, sizing, given="cover water_temp_f").asked == ("bottom_depth_ft", "fish_depth_ft")


@pytest.mark.slow
def test_each_view_has_its_own_parts(cat: Catalog, sizing: Sizing) -> None:
    parts = ("board", "casting", "calling", "rigging", "searching")
    has = {
        v: [p for p in parts if getattr(shown(cat, sizing, view=v), p)]
        for v in ("size", "cast", "rig", "water")
    }
    assert has == {"size": ["board"], "cast": ["casting"], "rig": ["rigging"], "water": []}
    low = {v: shown(cat, sizing, view=v).sections[0].height for v in ("size", "rig")}
    assert low["rig"] < low["size"]
    assert all(shown(cat, sizing, view=v).mat is None for v in ("size", "cast"))


def test_as_good_is_named_and_no_more_than_a_few(cat: Catalog) -> None:
    wood = size(cat, Scenario(WOOD, families=("casting-jig",)))
    for rated in wood.rigs[:6]:
        same = equals_of(cat, wood, rated)
        said = [
            w for w in shown(cat, wood, pick=rated.key, family="casting-jig").why if w.startswith("As good: ")
        ]
        assert len(said) == (1 if same else 0)
        if len(same) > MOST_EQUALS:
            assert said[0].endswith(f" and {len(same) - MOST_EQUALS} more.")
        elif same:
            assert said[0].count(";") == len(same) - 1


def test_owned_or_not_once_there_is_a_box(cat: Catalog, sizing: Sizing) -> None:
    best = sizing.rigs[0].rig
    mine = tackle_of(
        [OwnedHead("swim-jig", best.head_oz)], [OwnedTrailer(best.trailer.id, best.trailer_length_in)]
    )
    values = values_from({})

    def owned(tackle, pick: str = "") -> str:  # type: ignore[no-untyped-def]
        state = {**values, "pick": pick}
        sheet = present(cat, sizing, tackle, state, choices_from(state), lambda **c: address({**values, **c}))
        return sheet.owned

    assert owned(EMPTY) == ""
    assert owned(tackle_of([OwnedHead("swim-jig", best.head_oz)], [])) == "not in your box"
    assert owned(mine) == "in your box"
    assert owned(mine, "swim-jig:1:chunk") == "not in your box"


def test_what_a_timed_drop_starts_from(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, pick="swim-jig:0.375:craw")
    asked = dict(parse_qsl(sheet.timing.removeprefix("/drops?")))
    assert asked == {
        "family": "swim-jig",
        "head_oz": "3/8",
        "trailer": "craw",
        "trailer_length_in": "4",
        "line_material": "fluorocarbon",
        "test_lb": "15",
        "water_temp_f": "58",
        "depth_ft": "9",
    }
    known, then = (float(part.split("±")[1].split(" %")[0]) for part in sheet.timing_worth.split(", then"))
    assert then < known
    assert len(sheet.advice) <= MOST_CITED
    assert sheet.mood_why.endswith(".")
    assert sheet.mood_why[0] == sheet.mood_why[0].upper()
