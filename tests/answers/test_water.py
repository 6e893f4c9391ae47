"""A sized water: the order of rows, a rig that was not on the board, a setting of one's own."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.call import CALLED
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.water import (
    at_setting,
    call_of,
    family_called,
    placed,
    rate_rigs,
    size_water,
    sizing_of,
    with_rig,
)
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import rig_by_name
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.units import feet
from tests.waters import BAIT, GRASS

NAMED = Scenario(GRASS, families=("swim-jig", "bladed-jig"))
BOX = tackle_of([OwnedHead("swim-jig", 0.5)], [OwnedTrailer("craw", 4.0)])


def test_named_families_go_by_fit_whatever_family_it_is() -> None:
    rows = size_water(NAMED, limit=12).rows
    scores = [round(r.rated.fits.score, 3) for r in rows]
    assert len(rows) == 12
    assert scores == sorted(scores, reverse=True)
    assert {r.rated.rig.family.id for r in rows} == {"swim-jig", "bladed-jig"}
    for row in rows:
        assert row.sizing.scenario.families == (row.rated.rig.family.id,)
        assert row.band.mean_low_m <= row.rated.tuned.mean_m <= row.band.mean_high_m


@pytest.mark.parametrize(("limit", "each"), [(1, 1), (4, 1), (8, 2), (20, 5)])
def test_called_families_are_all_seen(limit: int, each: int) -> None:
    water = replace(NAMED, families=())
    rows = size_water(water, limit=limit).rows
    families = [r.rated.rig.family.id for r in rows]
    assert len(rows) == min(limit, each * CALLED)
    assert families[0] == family_called(water)
    assert all(families.count(f) <= each for f in families)
    if limit >= CALLED:
        assert len(set(families)) == CALLED


def test_from_a_box_alone_only_what_it_holds() -> None:
    own = Own(tackle=BOX)
    rows = size_water(replace(NAMED, box="mine"), own).rows
    assert [r.rated.rig.family.id for r in rows] == ["swim-jig"]
    assert call_of(replace(NAMED, families=(), box="mine"), own).family == "swim-jig"
    for empty in (STRANGER, Own(tackle=tackle_of([OwnedHead("swim-jig", 0.5)], []))):
        with pytest.raises(BadInput, match="standard or both until your box holds a head and a trailer"):
            call_of(replace(NAMED, families=(), box="mine"), empty)


def test_fish_known_to_a_range_are_placed_within_it_to_the_half_foot() -> None:
    assert placed(NAMED) is NAMED
    spread = replace(NAMED, conditions=replace(BAIT, fish_span_ft=(4.2, 4.3), cover=GRASS.cover))
    at = placed(replace(spread, conditions=replace(spread.conditions, cover=BAIT.cover))).conditions
    assert 4.2 <= at.fish_depth_ft <= 4.3
    wide = placed(replace(NAMED, conditions=replace(BAIT, fish_span_ft=(2.0, 28.0)))).conditions
    assert wide.fish_depth_ft * 2 == int(wide.fish_depth_ft * 2)
    assert 2.0 <= wide.fish_depth_ft <= 28.0
    with pytest.raises(BadInput):
        placed(replace(NAMED, conditions=replace(BAIT, fish_span_ft=(2.0, 99.0))))


def test_a_rig_that_was_not_on_the_board_is_rated_like_the_others(cat: Catalog) -> None:
    sizing = sizing_of(replace(NAMED, families=("swim-jig",)))
    known = sizing.rigs[3]
    assert with_rig(sizing, known.name) == (sizing, known)
    own = RigName.parse("swim-jig:0.4:craw:head_g=12")
    whole, found = with_rig(sizing, own)
    assert found.name == own
    assert whole.rigs == (*sizing.rigs, found)
    with pytest.raises(BadInput):
        with_rig(sizing, RigName.parse("swim-jig:0.4:toad"))
    both = rate_rigs(
        sizing, [rig_by_name(cat, f, 0.5, "craw") for f in ("bladed-jig", "swim-jig", "bladed-jig")]
    )
    scores = [r.fits.score for r in both]
    assert len(both) == 3
    assert scores == sorted(scores, reverse=True)


def test_a_count_and_a_pace_of_ones_own() -> None:
    sizing = sizing_of(replace(NAMED, families=("swim-jig",)))
    best = sizing.rigs[0]
    mine = at_setting(sizing, best, 4.0, 2.0)
    assert (mine.countdown_s, feet(mine.tuned.pace_m_s)) == (4.0, pytest.approx(2.0))
    assert mine.tuned.mean_m > best.tuned.mean_m
    same = at_setting(sizing, best, None, None)
    assert same.countdown_s == pytest.approx(best.countdown_s)
    # At a setting of one's own it is reeled steadily; the best is twitched.
    assert same.fits.score == pytest.approx(best.fits.score, abs=0.03)
