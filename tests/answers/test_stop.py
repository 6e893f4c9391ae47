"""A stop's parts and what a rig on a rod is worth to each."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest

from heathdrop.answers.own import STRANGER
from heathdrop.answers.stop import (
    FAMILIES,
    HALF_FIT,
    HOPELESS,
    Rod,
    Stop,
    hopeless_at,
    parts_of,
    rated_in,
    shares_of,
    suited,
    worth_at,
    worths_of,
)
from heathdrop.answers.water import call_of, first_belief, placed
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Line, Reel
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import rig_by_name
from tests.waters import BAIT, GRASS, MAT, WINTER_ROCK

UNKNOWN = Scenario(replace(BAIT, fish_span_ft=(0.0, 30.0)))


def test_a_depth_that_is_known_is_one_part() -> None:
    (part,) = parts_of(Scenario(GRASS))
    assert part.scenario == Scenario(GRASS)
    assert (part.share, part.top_ft, part.low_ft) == (1.0, GRASS.fish_depth_ft, GRASS.fish_depth_ft)


def test_a_depth_that_is_not_known_is_its_thirds_by_chance() -> None:
    """Each third holds a third of the belief, its fish stand in its middle, and they lie end to end."""
    belief, parts = first_belief(UNKNOWN), parts_of(UNKNOWN)
    assert shares_of(UNKNOWN) == pytest.approx([1 / 3] * 3)
    passed = np.concatenate([[0.0], np.cumsum(belief.by_depth)])
    for part in parts:
        depth = part.scenario.conditions.fish_depth_ft
        held = np.interp([part.top_ft, depth, part.low_ft], belief.edges_ft, passed)
        assert held[2] - held[0] == pytest.approx(1 / 3)
        assert held[1] - held[0] == pytest.approx(1 / 6, abs=0.02)  # depths are to the half foot
        assert part.scenario.conditions.fish_span_ft is None
    assert [a.low_ft for a in parts[:-1]] == [b.top_ft for b in parts[1:]]


def test_thirds_that_one_lure_passes_together_are_one_part(cat: Catalog) -> None:
    narrow = Scenario(replace(BAIT, fish_depth_ft=15.0, fish_span_ft=(13.0, 17.0)))
    (part,) = parts_of(narrow)
    assert part.scenario == placed(narrow)
    assert (part.top_ft, part.low_ft) == (13.0, 17.0)
    wide = [p.scenario.conditions.fish_depth_ft for p in parts_of(UNKNOWN)]
    reach = cat.search.reach
    assert min(b - a for a, b in zip(wide, wide[1:], strict=False)) >= reach.above_ft + reach.below_ft


def test_nothing_said_of_the_ends_is_passed() -> None:
    parts = parts_of(Scenario(replace(BAIT, fish_span_ft=(4.0, 20.0))))
    assert parts[0].top_ft >= 4.0
    assert parts[-1].low_ft <= 20.0


def test_worth_is_fit_times_how_far_the_rules_are_behind(cat: Catalog) -> None:
    """By hand, from the rating and the call of the same water."""
    stop, rod = Stop("", Scenario(GRASS)), Rod("A", Line(), Reel())
    call = call_of(Scenario(GRASS), places=FAMILIES)
    first, other = call.standings[0], call.standings[1]
    for standing in (first, other):
        rig = standing.best.rig
        rated = rated_in(stop.scenario, rig, rod, STRANGER)
        behind = min(0.0, standing.points - first.points)
        assert worth_at(stop, rig, rod, STRANGER) == pytest.approx(rated.fits.score * math.exp(behind))
    thin = Rod("B", Line(material="nylon", test_lb=6.0), Reel())
    punch = rig_by_name(cat, "punch-rig", 1.25, "beaver")
    mat = Stop("", Scenario(MAT))
    assert not rated_in(mat.scenario, punch, thin, STRANGER).borne
    assert worth_at(mat, punch, thin, STRANGER) <= cat.search.plan.unborne


@pytest.mark.slow
def test_a_floor_rig_is_worth_most_to_the_fish_near_the_floor(cat: Catalog) -> None:
    stop = Stop("", Scenario(replace(WINTER_ROCK, fish_span_ft=(0.0, WINTER_ROCK.bottom_depth_ft))))
    jig = rig_by_name(cat, "football-jig", 0.75, "twin-tail")
    top, middle, low = worths_of(stop, [jig], suited(jig, Reel()), STRANGER)[0]
    assert top < middle < low
    assert low > 1.4 * top
    assert worth_at(stop, jig, suited(jig, Reel()), STRANGER) == pytest.approx((top + middle + low) / 3)


def test_what_the_rules_put_far_behind_is_not_rated() -> None:
    stop = Stop("", Scenario(MAT))
    guess = hopeless_at(stop, "bladed-jig", STRANGER)
    assert guess is not None
    assert 0.0 < guess[0] < HALF_FIT * HOPELESS
    assert hopeless_at(stop, "punch-rig", STRANGER) is None
