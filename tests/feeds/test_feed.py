"""Ages: live, stale, lost, never one for the other; the trend of the pressure."""

from __future__ import annotations

import pytest

from heathdrop.feeds.feed import Feed, awake_or_asleep_s
from heathdrop.feeds.nmea import checksummed
from tests.feeds.test_simulated import Clock


def test_a_figure_ages_and_a_lost_one_has_no_value() -> None:
    clock = Clock()
    feed = Feed(clock)
    assert feed.figure("depth_ft").state == "lost"
    feed.hear(checksummed("SDDPT,4.0,0.0"))
    for passed, state in ((0.0, "live"), (3.0, "live"), (3.1, "stale"), (15.0, "stale"), (15.1, "lost")):
        clock.now = 1000.0 + passed
        figure = feed.figure("depth_ft")
        assert figure.state == state
        assert (figure.value is None) == (state == "lost")
    assert feed.figure("depth_ft").age_s == pytest.approx(15.1)
    feed.hear("$SDDPT,4.0,0.0*00")
    assert feed.figure("depth_ft").state == "lost"


def test_the_pressure_trend_needs_time() -> None:
    clock = Clock()
    feed = Feed(clock)

    def hear(hpa: float) -> None:
        feed.hear(checksummed(f"WIMDA,29.9,I,{hpa / 1000:.5f},B,12.1,C,,,,,,,,,,,,,,"))

    hear(1012.0)
    assert feed.trend() is None
    clock.now += 1800.0
    hear(1011.5)
    assert feed.trend() == "steady"
    clock.now += 1800.0
    hear(1010.5)
    assert feed.trend() == "falling"
    clock.now += 3 * 3600.0
    assert feed.trend() is None


def test_a_figure_ages_while_the_laptop_sleeps(monkeypatch: pytest.MonkeyPatch) -> None:
    """The clock is the one that counts sleep where there is one."""
    asked = []
    monkeypatch.setattr("heathdrop.feeds.feed.time.CLOCK_BOOTTIME", 7, raising=False)
    monkeypatch.setattr("heathdrop.feeds.feed.time.clock_gettime", lambda which: asked.append(which) or 41.0)
    assert awake_or_asleep_s() == 41.0
    assert asked == [7]
    assert Feed.__dataclass_fields__["clock"].default is awake_or_asleep_s
