"""Own targets: hit or missed at their edges, and sized to."""

from __future__ import annotations

import random
from dataclasses import replace

import pytest

from heathdrop.advice.why import reasons
from heathdrop.answers.water import gives_of, size_water
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.hits import hits_of, missed_by
from heathdrop.sizing.size import size
from heathdrop.units import feet, metres
from tests.waters import BAIT, GRASS


def test_a_target_is_hit_up_to_its_tolerance(cat: Catalog) -> None:
    """Depth to half a tenth of a foot, rates to a twentieth, passes to three of a hundred."""
    best = size(cat, Scenario(GRASS, families=("swim-jig",))).rigs[0]
    at = replace(
        best,
        tuned=best.tuned._replace(mean_m=metres(5.0), pace_m_s=metres(2.0)),
        fall_ft_s=2.0,
        cover=replace(best.cover, passes=0.8),
    )
    for wanted, hit, off in (
        (Wanted(depth_ft=(5.04, 6.0)), True, 0.0),
        (Wanted(depth_ft=(5.55, 6.0)), False, 1.0),
        (Wanted(depth_ft=(4.0, 4.9)), False, 0.1),
        (Wanted(fall_ft_s=(1.0, 1.91)), True, 0.0),
        (Wanted(fall_ft_s=(2.12, 3.0)), False, None),
        (Wanted(pace_ft_s=(2.09, 3.0)), True, 0.0),
        (Wanted(pace_ft_s=(1.0, 1.89)), False, None),
        (Wanted(passes=0.83), True, 0.0),
        (Wanted(passes=0.86), False, 1.0),
    ):
        assert list(hits_of(wanted, at).values()) == [hit], wanted
        count, by = missed_by(wanted, at)
        assert count == (not hit)
        assert off is None or by == pytest.approx(off, abs=1e-6)
    assert hits_of(Wanted(), at) == {}
    assert missed_by(Wanted(depth_ft=(8.0, 9.0), passes=0.9), at)[0] == 2


def test_random_targets_are_hit_or_what_gives_is_said(cat: Catalog) -> None:
    """The first rig does all that was set; where none can, a sentence says so, and only then."""
    rng = random.Random(7)
    for k in range(8):
        deep = rng.uniform(3.0, 14.0)
        depth = (round(deep - 0.8, 1), round(deep + 0.8, 1)) if k % 3 else None
        fall = rng.uniform(1.2, 3.0)
        wanted = Wanted(depth_ft=depth, fall_ft_s=(fall, 1.25 * fall) if k % 2 or depth is None else None)
        water = replace(BAIT, bottom_depth_ft=16.0, fish_depth_ft=deep, cover=Cover())
        scenario = Scenario(water, families=(), wanted=wanted)
        first, said = size_water(scenario, limit=4).rows[0].rated, gives_of(scenario)
        assert all(hits_of(wanted, first).values()) is (said is None), (wanted, said)
        if depth is not None and said is None:
            assert depth[0] - 0.05 <= feet(first.tuned.mean_m) <= depth[1] + 0.05


def test_what_is_set_goes_before_what_is_judged(cat: Catalog) -> None:
    plain = size(cat, Scenario(GRASS, families=("swim-jig",)))
    own = size(
        cat, Scenario(GRASS, families=("swim-jig",), wanted=Wanted((3.0, 4.0), (1.0, 1.3), None, (1.0, 1.4)))
    )
    assert own.targets.depth_ft == (3.0, 4.0)
    assert own.targets.depth_reason == "it is the one you set"
    assert (own.targets.fall_ft_s, own.targets.pace_ft_s) == ((1.0, 1.3), (1.0, 1.4))
    assert plain.targets.depth_ft != own.targets.depth_ft
    assert "; you want 1.0–1.3." in " ".join(reasons(own, own.rigs[0]))
    counts = [missed_by(own.scenario.wanted, r) for r in own.rigs]
    assert counts == sorted(counts)
