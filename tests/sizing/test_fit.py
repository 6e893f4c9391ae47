"""Fits by exact values: inside, at an edge, far off; what limits; the geometric mean."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.fit import action_fit, action_of, cover_fit, ebbing, joined, within
from heathdrop.sizing.setting import setting_of
from tests.waters import GRASS


@pytest.mark.parametrize(
    ("value", "fit"),
    [(1.0, 1.0), (1.5, 1.0), (2.0, 1.0), (2.0 * math.exp(0.5), 0.5), (math.exp(-0.5), 0.5),
     (2.0 * math.exp(1.0), 0.2), (0.0, 0.0), (-1.0, 0.0)],
)  # fmt: skip
def test_within(value: float, fit: float) -> None:
    assert within(value, (1.0, 2.0), 0.5) == pytest.approx(fit)


def test_ebbing_has_a_long_tail() -> None:
    assert [ebbing(x) for x in (0.0, 1.0, -1.0, 2.0, 3.0)] == pytest.approx([1.0, 0.5, 0.5, 0.2, 0.1])


def test_action_is_shared_by_family_and_trailer(cat: Catalog) -> None:
    rig = rig_by_name(cat, "bladed-jig", 0.5, "craw")
    assert action_of(cat, rig) == pytest.approx(0.4 * 3.0 + 0.6 * 3.2)
    targets = replace(setting_of(cat, Scenario(GRASS)).targets, action=2.0)
    assert action_fit(cat, rig, 2.0, targets) == pytest.approx(1.0)
    assert action_fit(cat, rig, 3.2, targets) == pytest.approx(0.5)
    jig = rig_by_name(cat, "football-jig", 0.5, "craw")
    assert action_fit(cat, jig, 1.2, targets) == pytest.approx(1.0)
    dropped = rig_by_name(cat, "punch-rig", 1.0, "beaver")
    assert action_fit(cat, dropped, 0.6, targets) == pytest.approx(1.0)


def test_through_a_mat_enough_is_enough(cat: Catalog) -> None:
    assert cover_fit(cat, CoverOdds(0.87, 0.0, 0.0), matted=True) == pytest.approx(1.0)
    assert cover_fit(cat, CoverOdds(0.99, 0.0, 0.0), matted=True) == pytest.approx(1.0)
    assert cover_fit(cat, CoverOdds(0.435, 0.0, 0.0), matted=True) == pytest.approx(0.5)
    assert cover_fit(cat, CoverOdds(0.8, 0.5, 0.25), matted=False) == pytest.approx(0.8 * 0.5 * 0.75)


def test_one_failure_cannot_hide_and_the_costliest_is_named(cat: Catalog) -> None:
    weights = cat.judgement.fit.weights
    good = {"depth": 1.0, "fall": 1.0, "cover": 1.0, "action": 1.0, "profile": 1.0, "weight": 1.0}
    assert joined(cat, good).score == pytest.approx(1.0)
    assert joined(cat, good).limiting is None
    total = sum(weights[k] for k in good)
    half = joined(cat, {**good, "profile": 0.5, "fall": 0.5})
    assert half.score == pytest.approx(0.5 ** ((weights["profile"] + weights["fall"]) / total))
    assert half.limiting == "profile"
    assert joined(cat, {**good, "fall": 0.951}).limiting is None
    assert joined(cat, {**good, "fall": 0.949}).limiting == "fall"
    nothing = joined(cat, {**good, "depth": 0.0})
    assert (nothing.score, nothing.limiting) == (0.0, "depth")
    felt = joined(cat, {**good, "touch": 0.5})
    assert felt.score == pytest.approx(0.5 ** (weights["touch"] / (total + weights["touch"])))
