"""The simulated boat: the lake's bottom, the same for the same seed, an hour with faults."""

from __future__ import annotations

import pytest

from heathdrop.feeds.feed import Feed
from heathdrop.feeds.simulated import BOTTOM_FT, Boat


class Clock:
    def __init__(self) -> None:
        self.now = 1000.0

    def __call__(self) -> float:
        return self.now


def test_the_boat_tells_the_lakes_bottom() -> None:
    boat = Boat(seed=3, speed_mph=3.0)
    assert boat.truth(0.0).depth_ft == 6.0
    whole = BOTTOM_FT[-1][0] / boat.speed_ft_s
    assert boat.truth(whole).depth_ft == pytest.approx(31.0)
    assert boat.truth(2 * whole).depth_ft == pytest.approx(6.0)
    assert Boat(3).sentences(10.0) == Boat(3).sentences(10.0)
    assert Boat(3).sentences(10.0) != Boat(4).sentences(10.0)


@pytest.mark.slow
def test_an_hour_with_faults_shows_nothing_wrong_as_live() -> None:
    """Every second of an hour: what is live is what the boat's instruments mean, to their noise."""
    boat, clock = Boat(seed=7, faults=True), Clock()
    feed, heard, silent = Feed(clock), 0, 0
    for second in range(3600):
        clock.now = 1000.0 + second
        lines = boat.sentences(float(second))
        if lines in (["!cut"], ["!silence"]):
            silent += 1
            continue
        for line in lines:
            heard += bool(feed.hear(line))
        truth, depth = boat.truth(float(second)), feed.figure("depth_ft")
        if depth.state == "live":
            moved = abs(truth.depth_ft - boat.truth(float(second) - (depth.age_s or 0.0)).depth_ft)
            assert abs(depth.value - truth.depth_ft) < 0.7 + moved
        water = feed.figure("water_temp_f")
        if water.state == "live":
            assert abs(water.value - truth.water_temp_f) < 0.6
    assert silent > 10
    assert heard > 6000
    assert feed.trend() == "falling"
