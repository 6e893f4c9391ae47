"""Strangers, proxies, clocks and floods at the door; fields and files that would hold the program up."""

from __future__ import annotations

import asyncio
import json
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from fastapi import FastAPI, HTTPException
from fastapi.testclient import TestClient
from itsdangerous import TimestampSigner

from heathdrop.api.heavy import Queue
from heathdrop.errors import BadInput
from heathdrop.feeds.driven import Track, from_gpx
from heathdrop.feeds.nmea import checksummed, figures_of
from heathdrop.reading import LONGEST_TYPED, parts_of, read, span_of
from heathdrop.store import devices, trips
from heathdrop.store.files.jsonfile import read_plans, read_trips
from heathdrop.web.app import create_app
from heathdrop.web.shell.pairing import COOKIE, KEPT_S, Pairing, is_here

HERE, FAR = "http://192.0.2.1:8640", ("192.0.2.7", 50000)
WATER = {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6, "cover": {"kind": "open"}}


@pytest.fixture
def app(tmp_path: Path) -> FastAPI:
    pairing = Pairing()
    pairing.renew()
    return create_app(tmp_path / "a.sqlite", hosts=["192.0.2.1"], pairing=pairing, address=HERE)


@pytest.mark.parametrize("name", ["x-forwarded-for", "forwarded", "via", "x-real-ip", "x-forwarded-host"])
def test_what_a_proxy_hands_on_is_not_the_laptop(app: FastAPI, name: str) -> None:
    scope = {
        "client": ("127.0.0.1", 1),
        "server": ("127.0.0.1", 8640),
        "headers": [(name.encode(), b"1.2.3.4")],
    }
    assert not is_here(scope)
    assert is_here({**scope, "headers": [(b"host", b"127.0.0.1")]})
    with TestClient(app, base_url="http://127.0.0.1", client=("127.0.0.1", 5)) as client:
        assert client.get("/box", headers={name: "192.0.2.9"}).status_code == 403


@pytest.mark.parametrize(
    ("content", "kind"),
    [
        ("a=1&b=1&c=1&d=1&e=1", "application/x-www-form-urlencoded"),
        ("--x\r\nnothing", "multipart/form-data; boundary=x"),
        ("x", "multipart/form-data"),
        (
            '--x\r\nContent-Disposition: form-data; name="f"; filename="f"\r\n\r\n1\r\n--x--\r\n',
            "multipart/form-data; boundary=x",
        ),
    ],
)
def test_a_strangers_form_is_never_the_programs_fault(app: FastAPI, content: str, kind: str) -> None:
    phone = TestClient(app, client=FAR, base_url=HERE)
    assert phone.post("/pair", content=content, headers={"content-type": kind}).status_code == 403


def test_a_clock_that_was_set_back_locks_nobody_out(app: FastAPI) -> None:
    uid = devices.pair(app.state.database, "phone")

    class Later(TimestampSigner):
        ahead = timedelta(minutes=30)

        def get_timestamp(self) -> int:
            return int((datetime.now(UTC) + self.ahead).timestamp())

    def asks(ahead: timedelta) -> int:
        signer = Later(app.state.secret, salt="device")
        signer.ahead = ahead
        cookie = {"cookie": f"{COOKIE}={signer.sign(uid).decode()}"}
        return TestClient(app, client=FAR, base_url=HERE, headers=cookie).get("/box").status_code

    assert asks(timedelta(minutes=30)) == 200
    assert asks(timedelta(seconds=-KEPT_S - 60)) == 403


def test_a_field_of_spaces_is_refused_at_once() -> None:
    begun = time.process_time()
    for text in (" " * 200_000 + "x", "1" + " " * 200_000 + ".", "4" + " to" * 60_000, "9" * 200_000):
        with pytest.raises(ValueError, match="not a"):
            parts_of(text.rstrip("x") + "x")
        with pytest.raises(ValueError, match="not a"):
            span_of(text + "x")
    # Bounded before any pattern is tried, whatever the machine: no more than a pass over each text.
    assert time.process_time() - begun < 5.0
    assert read("  3/8  ", "oz") == 0.375
    assert read(" " * 500 + "1" + " " * 10, "ft") == 1.0
    with pytest.raises(ValueError, match="not a number"):
        parts_of("1" * (LONGEST_TYPED + 1))


def gpx(*places: tuple[str, str]) -> str:
    points = "".join(
        f'<trkpt lat="{a}" lon="{b}"><extensions><depth>3</depth></extensions></trkpt>' for a, b in places
    )
    return f'<gpx version="1.1" creator="x" xmlns="http://www.topografix.com/GPX/1/1"><trk><trkseg>{points}</trkseg></trk></gpx>'


@pytest.mark.parametrize("lat", ["20000", "900", "nan", "inf", "1e308", "90.1"])
def test_a_track_off_the_earth_is_refused(lat: str) -> None:
    with pytest.raises(BadInput):
        from_gpx(gpx(("50.1", "-4.0"), (lat, "-4.0"), ("50.2", "-4.0")))


def test_a_run_round_the_world_and_a_lost_fix() -> None:
    with pytest.raises(BadInput, match="a run of more than 20 miles"):
        from_gpx(gpx(*((f"{50 + k * 0.02:.2f}", "-4.0") for k in range(60))))
    track = Track()
    track.begin()
    for lat, lon in ((50.1, -4.0), (0.0, 0.0), (50.1001, -4.0)):
        track.moved(lat, lon)
        track.sounded(8.0)
    assert track.soundings[-1].ran_ft < 100.0


@pytest.mark.parametrize(
    "body",
    [
        "GPRMC,060000,A,9959.000,N,00400.000,W,2.0,0.0,010127,,",
        "GPGGA,060000,99000000.0,N,00400.0,W,1,5,1,0,M,0,M,,",
    ],
)
def test_no_position_off_the_earth_is_live(body: str) -> None:
    assert "position" not in figures_of(checksummed(body))


@pytest.mark.parametrize(
    "conditions",
    [
        {**WATER, "bottom_ft": "abc"},
        {**WATER, "bottom_ft": [1, 2]},
        {**WATER, "bottom_ft": [[None, None]]},
        {**WATER, "fish_depth_ft": {"low": "a"}},
        {},
    ],
)
def test_plans_and_trips_in_a_file_pass_the_same_validator(conditions: dict[str, object]) -> None:
    stop = {"name": "Bay", "conditions": conditions}
    plan = {"version": 1, "plans": [{"name": "Day", "body": {"rods": 2, "stops": [stop]}}]}
    with pytest.raises(BadInput, match=r"plans\.json, plans\[0\]"):
        read_plans(json.dumps(plan).encode())
    trip = {"version": 1, "trips": [{"name": "Day", "body": {"date": "2027-04-03", "stops": [stop]}}]}
    with pytest.raises(BadInput, match=r"trips\.json, trips\[0\]"):
        read_trips(json.dumps(trip).encode())


@pytest.mark.parametrize(
    "more",
    [
        {"rods": [{"name": "A", "rig": "xxxxx"}]},
        {"rods": [{"name": "A", "rig": "swim-jig:0.5:craw", "inches_per_turn": 0}]},
        {"schools": {"nothing": "nobody"}},
        {"stops": [{"name": "Bay", "conditions": WATER, "cast_ft": 1e300}]},
    ],
)
def test_a_trip_that_could_not_be_fished_is_not_taken_in(more: dict[str, object]) -> None:
    body = {"date": "2027-04-03", "stops": [{"name": "Bay", "conditions": WATER}], **more}
    with pytest.raises(BadInput):
        read_trips(json.dumps({"version": 1, "trips": [{"name": "Day", "body": body}]}).encode())


def test_a_trip_can_always_be_ended(client: TestClient) -> None:
    from heathdrop.conditions.trip import TripBody

    with client.app.state.database.session() as session:  # type: ignore[attr-defined]
        stop = {"name": "Bay", "conditions": {**WATER, "fish_depth_ft": 60}}
        trips.begin(session, "Broken", TripBody.model_validate({"date": "2027-04-03", "stops": [stop]}))
    page = client.get("/deck")
    assert page.status_code == 200
    assert "End Broken" in page.text
    token = page.text.split('name="token" value="')[1].split('"')[0]
    assert client.post("/deck/end", data={"token": token}, follow_redirects=False).status_code == 303
    assert "End Broken" not in client.get("/deck").text


def test_a_cast_whose_conditions_are_no_conditions_is_refused(client: TestClient) -> None:
    deep: dict[str, object] = {}
    for _ in range(300):
        deep = {"a": deep}
    cast = {
        "id": "00000000-0000-4000-8000-000000000001",
        "time": "2027-04-03T06:00:00+01:00",
        "family": "swim-jig",
        "head_oz": 0.375,
        "trailer": "craw",
        "countdown_s": 2,
        "pace_ft_s": 2,
        "outcome": "nothing",
    }
    assert client.post("/api/v1/casts", json={**cast, "conditions": deep}).status_code == 422
    raw = json.dumps({**cast, "conditions": {"water_temp_f": "N"}}).replace('"N"', "NaN")
    sent = client.post("/api/v1/casts", content=raw, headers={"content-type": "application/json"})
    assert sent.status_code == 422
    assert client.post("/api/v1/casts", json={**cast, "conditions": WATER}).status_code == 200


def test_a_referer_that_is_none_changes_nothing(client: TestClient) -> None:
    token = client.get("/").text.split('name="token" value="')[1].split('"')[0]
    found = client.post(
        "/units",
        data={"token": token, "measures": "metric"},
        headers={"referer": "http://[bad"},
        follow_redirects=False,
    )
    assert found.status_code < 500


def test_heavy_work_waits_in_a_queue_with_an_end() -> None:
    async def flood() -> list[str]:
        queue, found, gate = Queue(at_once=2, waiting=3), [], asyncio.Event()
        most = inside = 0

        async def one() -> None:
            nonlocal most, inside
            try:
                async for _ in queue():
                    inside += 1
                    most = max(most, inside)
                    await gate.wait()
                    inside -= 1
                found.append("done")
            except HTTPException as refusal:
                found.append(str(refusal.status_code))

        tasks = [asyncio.create_task(one()) for _ in range(9)]
        await asyncio.sleep(0.01)
        assert most == 2
        gate.set()
        await asyncio.gather(*tasks)
        assert queue.inside == 0
        return found

    assert sorted(asyncio.run(flood())) == ["503"] * 4 + ["done"] * 5
