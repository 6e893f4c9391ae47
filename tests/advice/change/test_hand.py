"""A rig as it is fished and what stands beside it: trailers, heads, lines, the address that tries it."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.change.hand import (
    Hand,
    mean_depth_ft,
    neighbour_head,
    neighbour_trailer,
    odds_of,
    other_line,
    percent,
    pick,
    with_part,
)
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Leader, Line
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Rated
from heathdrop.units import metres
from tests.advice.cases import rated


def held(cat: Catalog, name: str) -> tuple[Setting, Rated, Hand]:
    """A case's setting, its rig, and how it is fished."""
    sizing, best = rated(name)
    setting = setting_of(cat, replace(sizing.scenario, families=(best.rig.family.id,)))
    hand = Hand(best.rig, setting.line, best.countdown_s, best.tuned.pace_m_s, sizing.cast.rod_tip_m)
    return setting, best, hand


def test_the_depth_it_runs_at_is_the_one_that_was_rated(cat: Catalog) -> None:
    setting, best, hand = held(cat, "right over grass")
    assert metres(mean_depth_ft(setting, hand)) == pytest.approx(best.tuned.mean_m, abs=0.02)
    slower = replace(hand, pace_m_s=0.8 * hand.pace_m_s)
    assert mean_depth_ft(setting, slower) > mean_depth_ft(setting, hand) + 0.3


def test_the_next_trailer_in_the_row_by_bulk(cat: Catalog) -> None:
    craw = rig_by_name(cat, "swim-jig", 0.5, "craw")
    slimmer, bulkier = neighbour_trailer(cat, craw, -1), neighbour_trailer(cat, craw, 1)
    assert slimmer is not None
    assert bulkier is not None
    bulk = [rig_by_name(cat, "swim-jig", 0.5, t).bulk_cm2 for t in (slimmer, "craw", bulkier)]
    assert bulk == sorted(bulk)
    assert neighbour_trailer(cat, rig_by_name(cat, "swim-jig", 0.5, "none"), -1) is None
    assert neighbour_trailer(cat, craw, 99) is None


def test_the_next_listed_head(cat: Catalog) -> None:
    weights = cat.families["swim-jig"].weights_oz
    middle = rig_by_name(cat, "swim-jig", weights[3], "craw")
    assert [neighbour_head(middle, k) for k in (-1, 0, 1)] == list(weights[2:5])
    assert neighbour_head(rig_by_name(cat, "swim-jig", weights[0], "craw"), -1) is None
    assert neighbour_head(rig_by_name(cat, "swim-jig", weights[-1], "craw"), 1) is None


def test_another_part_leaves_the_rest(cat: Catalog) -> None:
    setting, best, _ = held(cat, "weighed")
    heavier = with_part(setting, best.rig, oz=0.5)
    assert heavier.head_oz == 0.5
    assert heavier.trailer_length_in == best.rig.trailer_length_in
    assert heavier.bulk_cm2 == best.rig.bulk_cm2
    chunk = with_part(setting, best.rig, trailer="chunk")
    assert (chunk.trailer.id, chunk.head_oz) == ("chunk", 0.375)
    assert chunk.trailer_length_in == cat.trailers["chunk"].length_in
    assert chunk.measured.head_g == best.rig.measured.head_g == 11.2
    assert pick(chunk) == (("family", "swim-jig"), ("pick", "swim-jig:0.375:chunk:head_g=11.2"))


def test_the_next_test_of_the_same_material(cat: Catalog) -> None:
    setting, _, _ = held(cat, "right over grass")
    thin, thick = other_line(setting, thinner=True), other_line(setting, thinner=False)
    assert thin is not None
    assert thick is not None
    assert (thin[0], thick[0]) == (12.0, 17.0)
    assert thin[1].diameter_m < setting.line.diameter_m < thick[1].diameter_m
    braid = Line(material="braid", test_lb=80, leader=Leader(material="nylon", test_lb=12, length_ft=6))
    gear = replace(setting.scenario.gear, line=braid)
    last = setting_of(cat, replace(setting.scenario, gear=gear))
    assert other_line(last, thinner=False) is None
    moved = other_line(last, thinner=True)
    assert moved is not None
    assert moved[1].leader_m == pytest.approx(metres(6.0))


def test_odds_over_the_same_way(cat: Catalog) -> None:
    setting, best, _ = held(cat, "pads")
    same = odds_of(setting, best, best.rig)
    gathering = odds_of(setting, best, with_part(setting, best.rig, trailer="craw"))
    assert same.fouls < gathering.fouls
    assert percent(0.126) == "13 of 100"
