"""The cast as it was fished: played, shifted to what was seen, and its parts' neighbours."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.change.hand import (
    Hand,
    neighbour_head,
    neighbour_trailer,
    odds_of,
    other_line,
    path_of,
    seen_at,
    with_part,
)
from heathdrop.catalog import Catalog
from heathdrop.physics.rig import as_seen
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.units import feet, metres
from tests.advice.cases import rated


def fished(cat: Catalog, name: str) -> tuple[Setting, Hand]:
    sizing, one = rated(name)
    setting = setting_of(cat, sizing.scenario)
    return setting, Hand(one.rig, setting.line, one.countdown_s, one.tuned.pace_m_s, setting.cast.rod_tip_m)


def test_a_cast_is_played_as_fished(cat: Catalog) -> None:
    setting, hand = fished(cat, "on braid")
    plain = path_of(setting, hand)
    assert plain.mean_ft == pytest.approx(feet(rated("on braid")[1].tuned.mean_m), abs=0.1)
    assert plain.deepest_ft >= plain.mean_ft
    assert path_of(setting, replace(hand, pace_m_s=0.8 * hand.pace_m_s)).mean_ft > plain.mean_ft
    assert path_of(setting, replace(hand, count_s=0.0)).mean_ft < plain.mean_ft
    assert path_of(setting, replace(hand, tip_m=hand.tip_m + metres(4.0))).mean_ft < plain.mean_ft
    assert path_of(setting, replace(hand, told_ft=0.4)).mean_ft == pytest.approx(plain.mean_ft + 0.4)


@pytest.mark.parametrize("off_ft", [-2.0, 1.5])
def test_it_is_shifted_to_what_was_seen(cat: Catalog, off_ft: float) -> None:
    setting, hand = fished(cat, "on braid")
    told = path_of(setting, hand).mean_ft
    seen = seen_at(setting, hand, told + off_ft)
    assert path_of(setting, seen).mean_ft == pytest.approx(told + off_ft, abs=0.25)
    assert (seen.factor < 1.0) == (off_ft > 0.0)


def test_drag_and_lift_move_together(cat: Catalog) -> None:
    setting, hand = fished(cat, "right over grass")
    lure = setting.lure(hand.rig)
    more = as_seen(lure, 1.5)
    assert more.run_drag_area_m2 == pytest.approx(1.5 * lure.run_drag_area_m2)
    assert more.run_lift_area_m2 == pytest.approx(1.5 * lure.run_lift_area_m2)
    assert more.fall_drag_area_m2 == lure.fall_drag_area_m2
    assert as_seen(lure, 1.0) is lure


def test_neighbours(cat: Catalog) -> None:
    setting, hand = fished(cat, "right over grass")
    rig = hand.rig
    assert [neighbour_head(rig, k) for k in (-1, 1, 2)] == [0.375, 0.625, 0.75]
    assert neighbour_head(with_part(setting, rig, oz=1.0), 1) is None
    assert neighbour_trailer(cat, with_part(setting, rig, trailer="none"), -1) is None
    slim = neighbour_trailer(cat, rig, -1)
    assert slim is not None
    assert cat.trailers[slim].run_drag_area_cm2 < rig.trailer.run_drag_area_cm2
    weighed = rated("weighed")[1].rig
    assert with_part(setting, weighed, oz=0.5).measured.head_g is None
    assert with_part(setting, weighed, oz=0.5).measured.width == 1.2
    assert with_part(setting, weighed, trailer="chunk").measured.width == 1.0


def test_other_lines_of_the_material(cat: Catalog) -> None:
    setting, _ = fished(cat, "heaviest")
    thinner = other_line(setting, thinner=True)
    assert thinner is not None
    assert thinner[0] == 65
    assert thinner[1].diameter_m < setting.line.diameter_m
    assert other_line(setting, thinner=False) is None


def test_odds_over_the_same_way(cat: Catalog) -> None:
    sizing, one = rated("wood swum")
    setting = setting_of(cat, sizing.scenario)
    arms = with_part(setting, one.rig, trailer="small-craw")
    assert odds_of(setting, one, arms).hangs < odds_of(setting, one, one.rig).hangs
