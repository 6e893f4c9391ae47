"""The bottom as driven and what the deck's script is given."""

import json
import re
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from heathdrop.conditions.made import OUTCOMES
from heathdrop.conditions.trip import TripBody, TripStop
from heathdrop.feeds.driven import Sounding
from heathdrop.web.app import create_app
from heathdrop.web.deck.bottom import over
from heathdrop.web.deck.shown.bottom import drawing_of
from heathdrop.web.deck.shown.deck import conditions_with, deck_data
from heathdrop.web.shell.fields import body_from
from tests.feeds.test_driven import driven_by_boat
from tests.web.shown import token


def test_fish_and_tops_go_with_the_bottom() -> None:
    on = {
        "bottom_depth_ft": 9.0,
        "fish_depth_ft": 9.0,
        "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
    }
    found = over(on, ((0.0, 6.0), (40.0, 5.0)))
    assert (found["bottom_depth_ft"], found["fish_depth_ft"], found["cover"]["top_depth_ft"]) == (
        6.0,
        6.0,
        6.0,
    )
    assert over(on | {"fish_depth_ft": 4.0}, ((0.0, 6.0), (40.0, 5.0)))["fish_depth_ft"] == 4.0
    spread = over(on | {"fish_depth_ft": {"low": 2, "high": 8}}, ((0.0, 6.0), (40.0, 5.0)))
    assert spread["fish_depth_ft"] == {"low": 2, "high": 6.0}


@pytest.fixture
def boat(tmp_path: Path) -> TestClient:
    """The demo with a run recorded (a feed is there, though nothing answers at its address)."""
    app = create_app(tmp_path / "a.sqlite", demo=True, nmea="tcp://127.0.0.1:9")
    app.state.feed.track.take(driven_by_boat(110).soundings)
    return TestClient(app, base_url="http://127.0.0.1")


@pytest.mark.slow
def test_a_run_becomes_the_bottom_of_a_stop_a_plan_and_the_sheet(boat: TestClient) -> None:
    sent = {"token": token(boat), "do": "use", "boat_at": "end"}
    shown = boat.get("/bottom").text
    assert "soundings over" in shown
    assert "Mill bay milfoil, A day on Ashmoor Water" in shown
    at = boat.post("/bottom", data={**sent, "to": "sheet"}, follow_redirects=False).headers["location"]
    assert "driven=0" in at
    sheet = boat.get(at)
    assert sheet.status_code == 200
    assert "as driven" in sheet.text
    boat.post("/bottom", data={**sent, "to": "plan:1:0"})
    stop = boat.get("/plan/1/plan.json").json()["stops"][0]
    assert stop["conditions"]["bottom_depth_ft"] == max(d for _, d in stop["conditions"]["bottom_ft"])
    assert boat.post("/api/v1/plan", json=boat.get("/plan/1/plan.json").json()).status_code == 200
    boat.post("/deck", data={"token": token(boat), "plan": "1"})
    boat.post("/bottom", data={**sent, "to": "trip:Dam face, fish unknown", "boat_at": "start"})
    told = re.search(r'id="deck">(.*?)</script>', boat.get("/deck").text, re.S)
    assert told
    assert told[1].count('"bottom_ft":[[') == 2
    for wrong in (
        {"to": "plan:1:99"},
        {"to": "plan:x:0"},
        {"to": "trip:nowhere"},
        {"to": "plan:²:0"},
        {"to": "plan:1:²"},
        {"do": "fly"},
    ):
        assert boat.post("/bottom", data={**sent, **wrong}).status_code == 422, wrong


def test_a_run_is_recorded_and_taken_from_a_file(boat: TestClient, client: TestClient) -> None:
    file = boat.get("/bottom/track.gpx").content
    sent = {"token": token(boat)}
    assert "Stop recording" in boat.post("/bottom", data={**sent, "do": "begin"}).text
    assert boat.app.state.feed.track.soundings == []  # type: ignore[attr-defined]
    assert "Record" in boat.post("/bottom", data={**sent, "do": "end"}).text
    mine = {"token": token(client)}
    assert client.post("/bottom", data={**mine, "do": "begin"}).status_code == 422  # no sounder
    assert "No sounder is read" in client.get("/bottom").text
    shown = client.post("/bottom", data={**mine, "do": "file"}, files={"file": ("run.gpx", file)})
    assert "soundings over" in shown.text
    for wrong in (b"\xff\xfe", b"<gpx"):
        refused = client.post("/bottom", data={**mine, "do": "file"}, files={"file": ("run.gpx", wrong)})
        assert refused.status_code == 422
    assert "soundings over" in client.get("/bottom").text


def run(count: int, odd: int | None = None) -> list[Sounding]:
    """A straight run north, a foot a second, over a bottom that falls from 9 ft to 14 ft half-way."""
    return [
        Sounding(
            float(k),
            99.0 if k == odd else 9.0 if k < count / 2 else 14.0,
            50.0 + k * 0.3048 / 111_320.0,
            -4.0,
        )
        for k in range(count)
    ]


def test_too_little_is_not_drawn() -> None:
    assert drawing_of([]) is None
    assert drawing_of(run(2)) is None


STOP = TripStop(
    name="Bay",
    conditions={
        "water_temp_f": 58,
        "bottom_depth_ft": 9,
        "fish_depth_ft": 9,
        "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
    },
    by={"water_temp_f": "sounder"},
)


@pytest.mark.parametrize(
    ("change", "found"),
    [
        (("bottom_depth_ft", "6"), {"bottom_depth_ft": 6.0, "fish_depth_ft": 6.0, "top_depth_ft": 6.0}),
        (("bottom_depth_ft", "12"), {"bottom_depth_ft": 12.0, "fish_depth_ft": 12.0, "top_depth_ft": 7.0}),
        (("fish_depth_ft", "4"), {"bottom_depth_ft": 9.0, "fish_depth_ft": 4.0, "top_depth_ft": 7.0}),
        (("wind_mph", "20"), {"bottom_depth_ft": 9.0, "fish_depth_ft": 9.0, "wind_mph": 20.0}),
    ],
)
def test_what_is_on_the_bottom_stays_on_it(change: tuple[str, str], found: dict[str, float]) -> None:
    values = conditions_with(STOP, *change, units="imperial")
    conditions: dict[str, Any] = body_from(values)["conditions"]
    flat = {**conditions, **conditions["cover"]}
    assert {k: flat[k] for k in found} == found


def test_nothing_breaks_out_of_its_element() -> None:
    body = TripBody(date="2027-04-03", stops=[STOP.model_copy(update={"name": "</script>"})])
    text = str(deck_data("</script><b>", body, [{"name": "</script>"}], {}, [], False))
    assert "<" not in text
    found = json.loads(text)
    assert found["trip"] == "</script><b>"
    assert found["units"] == "imperial"
    assert found["instruments"] is False
    assert [a[0] for a in found["answers"]] == list(OUTCOMES)
