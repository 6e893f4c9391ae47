"""Ages: live, stale, lost, never one for the other; the trend; an hour of the boat with faults."""

from __future__ import annotations

import threading
import time

import pytest
from fastapi.testclient import TestClient

from heathdrop.errors import BadInput
from heathdrop.feeds.feed import Feed
from heathdrop.feeds.nmea import checksummed
from heathdrop.feeds.reader import Reader
from heathdrop.feeds.simulated import BOTTOM_FT, Boat, Sounder
from heathdrop.web.app import create_app
from heathdrop.web.pages.feed import chips_of


class Clock:
    def __init__(self) -> None:
        self.now = 1000.0

    def __call__(self) -> float:
        return self.now


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


def test_the_boat_tells_the_lakes_bottom() -> None:
    boat = Boat(seed=3, speed_mph=3.0)
    assert boat.truth(0.0).depth_ft == 6.0
    whole = BOTTOM_FT[-1][0] / boat.speed_ft_s
    assert boat.truth(whole).depth_ft == pytest.approx(31.0)
    assert boat.truth(2 * whole).depth_ft == pytest.approx(6.0)
    assert Boat(3).sentences(10.0) == Boat(3).sentences(10.0)
    assert Boat(3).sentences(10.0) != Boat(4).sentences(10.0)


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


def wait(until) -> None:  # type: ignore[no-untyped-def]
    for _ in range(400):
        if until():
            return
        time.sleep(0.02)
    raise AssertionError("it never came")


def test_a_cut_line_is_taken_up_again() -> None:
    """The real stand-in over TCP, faults on, twenty seconds a second: it reconnects after each cut."""
    told = Sounder(Boat(seed=5, faults=True), 0, rate=60.0)
    told.start()
    feed = Feed()
    reader = Reader(feed, f"tcp://127.0.0.1:{told.port}")
    reader.start()
    try:
        wait(lambda: feed.figure("depth_ft").state == "live")
        assert feed.connected
        tries = reader.tries
        told._drop()
        wait(lambda: reader.tries > tries and feed.connected)
        wait(lambda: feed.figure("depth_ft").state == "live")
    finally:
        reader.stop()
        told.stop()
    assert not feed.connected


def test_nobody_there_is_tried_again_later_and_later() -> None:
    reader = Reader(Feed(), "tcp://127.0.0.1:1")
    begun = time.monotonic()
    reader.start()
    wait(lambda: reader.tries >= 3)
    assert time.monotonic() - begun >= 1.4  # half a second, then a second
    reader.stop()


NO_ADDRESS = ("tcp://", "tcp://127.0.0.1", "tcp://a:b", "udp://127.0.0.1:1", "", "serial:/x?baud=fast")


@pytest.mark.parametrize("where", NO_ADDRESS)
def test_an_address_that_is_none_is_refused(where: str) -> None:
    with pytest.raises(BadInput, match="tcp://ADDRESS:PORT or serial:"):
        Reader(Feed(), where)


def test_the_app_answers_with_ages(tmp_path) -> None:  # type: ignore[no-untyped-def]
    told = Sounder(Boat(seed=2), 0, rate=40.0)
    told.start()
    app = create_app(tmp_path / "boat.sqlite", demo=True, nmea=f"tcp://127.0.0.1:{told.port}")
    try:
        with TestClient(app, base_url="http://127.0.0.1") as client:
            wait(lambda: client.get("/api/v1/feed").json()["depth_ft"]["state"] == "live")
            found = client.get("/api/v1/feed").json()
            assert found["connected"]
            assert 4.0 < found["depth_ft"]["value"] < 32.0
            figures = {"depth_ft", "water_temp_f", "position", "speed_mph", "wind_mph", "pressure_hpa"}
            assert set(found) == figures | {"connected", "pressure_trend"}
            page = client.get("/").text
            assert 'id="feed"' in page
            status = client.get("/feed").text
            assert "live" in status
            assert "ft" in status
    finally:
        told.stop()
        app.state.database.close()
    assert threading.active_count() < 40


def test_without_instruments_everything_is_lost(client: TestClient) -> None:
    found = client.get("/api/v1/feed").json()
    assert {found[n]["state"] for n in ("depth_ft", "wind_mph", "position")} == {"lost"}
    assert 'id="feed"' not in client.get("/").text


def test_a_moving_pressure_offers_the_front_it_speaks_of() -> None:
    clock = [0.0]
    for first, last, said, front in (
        (1012.0, 1009.0, "1009 hPa falling", "coming"),
        (1009.0, 1012.0, "1012 hPa rising", "passed"),
        (1012.0, 1012.4, "1012 hPa steady", "none"),
    ):
        feed = Feed(clock=lambda: clock[0])
        clock[0] = 0.0
        feed.hear(checksummed(f"WIMDA,29.9,I,{first / 1000.0:.5f},B,,,,,,,,,,,,,,,,"))
        assert [c.control for c in chips_of(feed)] == ["bottom_depth_ft", "water_temp_f", "wind_mph"]
        clock[0] = 3600.0
        feed.hear(checksummed(f"WIMDA,29.9,I,{last / 1000.0:.5f},B,,,,,,,,,,,,,,,,"))
        chip = chips_of(feed)[-1]
        assert (chip.said, chip.control, chip.value, chip.state) == (said, "front", front, "live")
        clock[0] = 3600.0 + 601.0
        assert len(chips_of(feed)) == 3
