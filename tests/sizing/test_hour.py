"""Water per hour: casts an hour, and seconds among the fish in them."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.hour import among_s, cast_s, per_hour
from heathdrop.sizing.size import size
from heathdrop.units import feet
from tests.waters import GRASS


def test_a_swum_cast_takes_its_count_its_way_and_what_lies_between(cat: Catalog) -> None:
    made = size(cat, Scenario(GRASS, families=("swim-jig",)))
    best = made.rigs[0]
    way = feet(best.cast.distance_m) / feet(best.tuned.pace_m_s)
    between = cat.search.minutes.between_casts_s
    assert cast_s(cat, made, best) == pytest.approx(best.countdown_s + way + between)
    assert among_s(cat, made.targets, best) == pytest.approx(best.tuned.soft_share * best.tuned.useful_s)
    hour = per_hour(cat, made, best)
    assert hour.casts == pytest.approx(3600.0 / cast_s(cat, made, best))
    assert hour.seconds_among == pytest.approx(hour.casts * among_s(cat, made.targets, best))
    quick = replace(best, tuned=best.tuned._replace(pace_m_s=2.0 * best.tuned.pace_m_s))
    assert per_hour(cat, made, quick).casts > hour.casts


def test_a_pitch_is_worked_where_it_lands_and_reeled_home(cat: Catalog) -> None:
    water = replace(GRASS, cover=Cover(kind="docks"), bottom_depth_ft=9, fish_depth_ft=9)
    made = size(cat, Scenario(water, families=("flipping-jig",)))
    best = made.rigs[0]
    hand, between = cat.judgement.hand, cat.search.minutes.between_casts_s
    home = hand.pitch_ft / hand.reel_home_ft_s
    assert cast_s(cat, made, best) == pytest.approx(best.countdown_s + hand.worked_s + home + between)
    top, low = made.targets.depth_ft
    assert among_s(cat, made.targets, best) == pytest.approx(hand.worked_s + (low - top) / best.fall_ft_s)


def test_a_dragged_jig_is_reeled_home_for_the_rest(cat: Catalog) -> None:
    water = replace(GRASS, cover=Cover(), bottom_depth_ft=15, fish_depth_ft=15)
    made = size(cat, Scenario(water, families=("football-jig",)))
    best = made.rigs[0]
    hand, away = cat.judgement.hand, feet(best.cast.distance_m)
    dragged = hand.worked_share * away / feet(best.tuned.pace_m_s)
    home = (1 - hand.worked_share) * away / hand.reel_home_ft_s
    assert cast_s(cat, made, best) == pytest.approx(
        best.countdown_s + dragged + home + cat.search.minutes.between_casts_s
    )
    assert among_s(cat, made.targets, best) == pytest.approx(dragged)
