"""What the boat's instruments say, on the page and as JSON, with ages."""

from __future__ import annotations

import threading

from fastapi.testclient import TestClient

from heathdrop.feeds.feed import Feed
from heathdrop.feeds.nmea import checksummed
from heathdrop.feeds.simulated import Boat, Sounder
from heathdrop.web.app import create_app
from heathdrop.web.shell.feed import chips_of
from tests.feeds.test_reader import wait


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


def test_a_live_figure_is_said_with_its_unit_and_age_and_a_lost_one_fills_nothing() -> None:
    clock = [0.0]
    feed = Feed(clock=lambda: clock[0])
    feed.hear(checksummed("SDDPT,4.0,0.0"))
    clock[0] = 1.0
    depth, water, wind = chips_of(feed)
    assert (depth.said, depth.age, depth.value, depth.state) == ("13.1 ft", "1 s", "13.1", "live")
    assert (water.said, water.age, water.value, water.state) == ("–", "", "", "lost")
    assert wind.said == "–"
