"""How far a hand and a boat scatter a cast: what is assumed, what was measured, what the day adds."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.learning.learned import Learned
from heathdrop.sizing.known import Handle
from heathdrop.sizing.scatter import STILL, Scatter, moved_by_pace_m, scatter_of
from heathdrop.units import metres
from tests.waters import GRASS

CALM = replace(GRASS, wind_mph=5.0)


def test_a_hand_nobody_knows(cat: Catalog) -> None:
    assert scatter_of(cat) == Scatter(pace=0.08, count=0.10, cast=0.04, tip_m=metres(0.4))
    assert scatter_of(cat, Scenario(CALM)) == scatter_of(cat)
    assert scatter_of(cat, Scenario(CALM, hand="exact")) == STILL == Scatter()


@pytest.mark.parametrize(
    ("wind", "drift", "mph"),
    [
        (5.0, 0.0, 0.0),
        (15.0, 0.0, 0.1),
        (0.0, 0.0, 0.0),
        (5.0, 0.2, 0.14),
        (15.0, 0.2, math.hypot(0.1, 0.14)),
    ],
)
def test_wind_and_drift_move_the_boat(cat: Catalog, wind: float, drift: float, mph: float) -> None:
    found = scatter_of(cat, Scenario(replace(GRASS, wind_mph=wind, drift_mph=drift)))
    assert found.drift_m_s == pytest.approx(0.44704 * mph)
    assert found.pace_at(0.6) == pytest.approx(math.hypot(0.08, 0.44704 * mph / 0.6))


def test_a_measured_hand_replaces_the_assumed_one(cat: Catalog) -> None:
    own = Learned(counted=0.05, turned=Handle(quicker=-0.06, error=0.04, rounds=20))
    found = scatter_of(cat, Scenario(CALM), own)
    assert (found.count, found.pace, found.pace_bias) == (0.05, 0.04, -0.06)


def test_what_a_pace_moves(cat: Catalog) -> None:
    assert moved_by_pace_m(cat, 24.0, 2.0) == pytest.approx(0.12 * 24.0 + 0.45 * 2.0)
