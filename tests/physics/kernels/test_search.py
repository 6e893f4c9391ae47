"""The search for the best setting of a rig."""

from __future__ import annotations

import math

import numpy as np
import pytest

from heathdrop.physics.kernels.records import (
    FAR,
    LONGEST_TAKE_UP_S,
    SLACK_M_S,
    TIGHT,
    Band,
    Limits,
    LineParams,
    Scene,
    Tuned,
    leg_at,
    samples_room,
)
from heathdrop.physics.kernels.search import comfort, eased, measure, met, trial_room


def test_a_pace_costs_nothing_where_it_is_liked_and_falls_off_outside() -> None:
    limits = Limits(0.5, 6.0, 9.0, 0.3, 1.0, 4.0, 0.45, 0.25, 24.0)
    assert [comfort(v, limits) for v in (1.0, 2.0, 4.0)] == [1.0, 1.0, 1.0]
    assert comfort(0.5, limits) == pytest.approx(math.exp(-0.5 * (math.log(2.0) / 0.45) ** 2))
    assert comfort(6.0, limits) == pytest.approx(math.exp(-0.5 * (math.log(1.5) / 0.25) ** 2))
    assert comfort(math.exp(-0.45), limits) == pytest.approx(math.exp(-0.5))


def test_the_first_seconds_among_the_fish_count_most() -> None:
    assert eased(0.0, 0.3) == 0.0
    assert eased(1.0, 0.3) == pytest.approx(1.0)
    assert eased(0.3, 0.3) == pytest.approx((1 - math.exp(-1)) / (1 - math.exp(-1 / 0.3)))
    assert eased(0.5, 0.3) > 0.5 * eased(1.0, 0.3)


BAND = Band(1.0, 2.0, 1.8, 0.2, 0.3, 0.1)


def test_the_worth_of_a_depth() -> None:
    """One in the middle of the band, half at its edges, a tenth for what skates; blurred by doubt."""
    assert met(BAND, 1.5, 0.2) == pytest.approx(1.0)
    wide = Band(1.0, 9.0, 1.8, 0.2, 0.3, 0.1)
    assert met(wide, 1.0, 0.2) == pytest.approx(0.5)
    assert met(wide, 9.0, 0.2) == pytest.approx(0.5)
    assert met(BAND, 4.0, 0.2) == pytest.approx(0.0, abs=1e-12)
    unsure = math.erf(0.5 / (math.sqrt(2.0) * 0.5)) / math.erf(0.5 / (math.sqrt(2.0) * 0.2))
    assert met(BAND, 1.5, 0.5) == pytest.approx(unsure)
    high = Band(0.0, 2.0, 1.8, 0.2, 0.3, 0.1)
    assert met(high, 0.0, 0.2) == pytest.approx(0.5 * 0.1)
    assert met(high, 0.15, 0.2) / met(Band(0.0, 2.0, 1.8, 0.2, 1e-9, 0.1), 0.15, 0.2) == pytest.approx(0.55)


def test_only_the_useful_part_is_measured() -> None:
    out = samples_room(6)
    out.x[:] = 19.0, 15.0, 10.0, 5.0, 3.0, 0.0
    out.z[:] = 9.0, 1.0, 1.5, 2.1, 9.0, 9.0
    line = LineParams(1e-7, 1000.0, 0.1, 0.03, 0.01, 998.0)
    scene = Scene(line, np.zeros((2, 2)), 20.0, 0.5, BAND)
    found = measure(out, 5, scene, 0.7, 1.2, 0.9, 0.2, 0.0)
    assert found.in_band == pytest.approx(2 / 3)
    assert found.mean_m == pytest.approx((1.0 + 1.5 + 2.1) / 3)
    assert (found.shallowest_m, found.deepest_m) == (1.0, 2.1)
    among = [0.5 + 0.5 * math.erf((z - 1.8) / (math.sqrt(2.0) * 0.1)) for z in (1.0, 1.5, 2.1)]
    # Where it begins (9 m, all in the cover) counts as cover, the near end does not.
    assert found.in_cover == pytest.approx((1.0 + sum(among)) / 4)
    # A depth that scatters is in the band as often as chance has it.
    apart = measure(out, 5, scene, 0.7, 1.2, 0.9, 0.2, 0.5)
    chance = [
        0.5 * (math.erf((2.0 - z) / (0.5 * math.sqrt(2.0))) - math.erf((1.0 - z) / (0.5 * math.sqrt(2.0))))
        for z in (1.0, 1.5, 2.1)
    ]
    assert apart.in_band == pytest.approx(sum(chance) / 3)
    assert apart == found._replace(in_band=apart.in_band)
    assert among[0] < 1e-6 < among[1] < 0.01 < 0.99 < among[2]
    assert found.soft_share == pytest.approx(sum(met(BAND, z, 0.2) for z in (1.0, 1.5, 2.1)) / 3)
    assert (found.pace_m_s, found.start_depth_m, found.comfort) == (0.7, 1.2, 0.9)
    # 2.1 m is out of the band by less than 0.6 ft; three samples a quarter of a second apart.
    assert (found.near_band, found.useful_s) == (1.0, pytest.approx(0.75))
    out.z[3] = 2.19
    assert measure(out, 5, scene, 0.7, 1.2, 0.9, 0.2, 0.0).near_band == pytest.approx(2 / 3)
    nothing = measure(out, 1, scene, 0.7, 1.2, 0.9, 0.2, 0.0)
    assert nothing == Tuned(0.7, 1.2, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.9, 0.0, 0.0)


def test_room_for_the_slowest_cast() -> None:
    out, shapes, legs = trial_room(20.0, 0.4)
    assert len(out.t) == int((1.6 * 20.0 / 0.4 + 30.0) / 0.25) + 8
    assert shapes.shape == (0, 0, 2)
    first, then = leg_at(legs, 0), leg_at(legs, 1)
    assert (first.reel, first.tight, first.time) == (SLACK_M_S, TIGHT, LONGEST_TAKE_UP_S)
    assert (first.near, then.near) == (pytest.approx(0.95 * 0.2 * 20.0),) * 2
    assert (then.depth, then.rise) == (FAR, -FAR)
