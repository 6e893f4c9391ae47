"""Strangers, floods and silent connections at the door; what the application answers in words."""

import asyncio
import json
import socket
import sqlite3
import threading
import time
import uuid
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
import uvicorn
from fastapi import FastAPI, HTTPException
from fastapi.testclient import TestClient
from itsdangerous import TimestampSigner

from heathdrop.api.heavy import Queue
from heathdrop.errors import BadInput
from heathdrop.feeds.driven import Track, from_gpx
from heathdrop.reading import LONGEST_TYPED, parts_of, read, span_of
from heathdrop.store import devices, trips
from heathdrop.store.files.jsonfile import read_plans, read_trips
from heathdrop.web.app import AT_ONCE, create_app
from heathdrop.web.serving import Prompt
from heathdrop.web.shell.pairing import COOKIE, KEPT_S, Pairing, is_here, laptop_key
from tests.web.shown import HX

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


def test_a_forwarder_that_says_nothing_has_not_the_laptops_key(app: FastAPI) -> None:
    """While phones are let in this machine shows its key: once in the address, then a cookie, or a header."""
    key = laptop_key(app.state.secret)
    with TestClient(app, base_url="http://127.0.0.1", client=("127.0.0.1", 5)) as client:
        asked = client.get("/devices")
        assert asked.status_code == 403
        assert "?key=" in asked.text
        assert client.get("/export.zip").status_code == 403
        assert client.get("/box?key=0123456789").status_code == 403
        assert client.get("/box", headers={"x-heathdrop-key": key}).status_code == 200
        answer = client.get(f"/box?q=1&key={key}", follow_redirects=False)
        assert (answer.status_code, answer.headers["location"]) == (303, "/box?q=1")
        assert client.get("/devices").status_code == 200


@pytest.mark.parametrize(
    ("content", "kind"),
    [
        ("code=" + "1" * 2000, "application/x-www-form-urlencoded"),
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


@pytest.mark.parametrize("charset", ["punycode", "idna", "undefined", "utf-16", '"punycode"'])
@pytest.mark.parametrize("path", ["/pair", "/box", "/api/v1/size"])
def test_another_charset_is_refused_before_anything_is_read(app: FastAPI, path: str, charset: str) -> None:
    kind = f"multipart/form-data; boundary=x; charset={charset}"
    answer = TestClient(app).post(path, content=b"--x", headers={"content-type": kind})
    assert (answer.status_code, "UTF-8" in answer.text) == (415, True)


@pytest.mark.parametrize(
    "time", ["0001-01-01T00:00:00+14:00", "9999-12-31T23:59:59-14:00", "1969-12-31T00:00:00Z"]
)
def test_a_moment_beyond_our_time_is_refused(client: TestClient, time: str) -> None:
    answer = client.post(
        "/api/v1/drill/answer",
        json={"id": str(uuid.uuid4()), "question": "eye.nylon.3", "time": time, "answer": {"depth_ft": 4}},
    )
    assert answer.status_code == 422
    assert client.get("/export.zip").status_code == 200


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


@pytest.mark.parametrize(
    ("way", "path", "status", "sentence"),
    [
        ("GET", "/nowhere", 404, "There is no such page."),
        ("PUT", "/box", 405, "This address does not take that."),
        ("GET", "/box/notanumber/undelete", 405, "This address does not take that."),
    ],
)
def test_pages_that_are_none_are_said_in_words(
    visitor: TestClient, way: str, path: str, status: int, sentence: str
) -> None:
    answer = visitor.request(way, path)
    assert answer.status_code == status
    assert sentence in answer.text


@pytest.mark.slow
def test_programs_get_json(client: TestClient) -> None:
    assert client.get("/api/v1/nowhere").json() == {"detail": "Not Found"}
    refused = client.post("/api/v1/size", content=b"{", headers={"content-type": "application/json"})
    assert refused.json() == {
        "detail": "the request was “not JSON”; it must be a JSON object.",
        "field": "the request",
    }
    assert client.get("/docs").status_code == 404
    assert client.get("/redoc").status_code == 404
    assert client.get("/api/v1/openapi.json").json()["info"]["title"] == "Heathdrop"


def test_a_file_that_cannot_be_written_is_said_and_the_banner_goes_up(
    client: TestClient, token: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    from heathdrop.store import items

    def full(*_: object, **__: object) -> None:
        fault = sqlite3.OperationalError("database or disk is full")
        fault.sqlite_errorcode = sqlite3.SQLITE_FULL
        raise fault

    monkeypatch.setattr(items, "add", full)
    answer = client.post("/box", data={"token": token, "entry": "3/8 swim jig"}, headers=HX)
    assert answer.status_code == 503
    assert "nothing was lost or kept" in answer.text
    assert client.app.state.database.read_only  # type: ignore[attr-defined]
    assert "cannot be written" in client.get("/").text


def test_answers_wait_in_one_line_for_a_few_places(tmp_path: Path) -> None:
    """Of twenty asked at once no more than so many are at work, and all are answered."""
    at_work, most, count = [], [0], 20
    app = create_app(tmp_path / "line.sqlite")

    def slow() -> str:
        at_work.append(1)
        most[0] = max(most[0], len(at_work))
        time.sleep(0.02)
        at_work.pop()
        return "done"

    app.add_api_route("/slow", slow)
    with TestClient(app, base_url="http://127.0.0.1") as client, ThreadPoolExecutor(count) as crowd:
        answers = list(crowd.map(lambda _: client.get("/slow").json(), range(count)))
    assert answers == ["done"] * count
    assert most[0] <= AT_ONCE


@pytest.fixture
def port(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[int]:
    monkeypatch.setattr(Prompt, "whole_s", 0.6)
    app = create_app(tmp_path / "d.sqlite")
    config = uvicorn.Config(app, port=0, log_level="critical", http=Prompt, timeout_keep_alive=30)
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        time.sleep(0.02)
    yield server.servers[0].sockets[0].getsockname()[1]
    server.should_exit = True
    thread.join(10)


def closed_within(line: socket.socket, seconds: float) -> bool:
    """Whether the other end closes within so long; what it still says is read."""
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        line.settimeout(max(0.01, until - time.monotonic()))
        try:
            if not line.recv(4096):
                return True
        except TimeoutError:
            return False
        except ConnectionResetError:
            return True
    return False


@pytest.mark.slow
@pytest.mark.parametrize(
    "said",
    [
        b"",
        b"GET /box HT",
        b"GET /box HTTP/1.1\r\nHost: 127.0.0.1\r\nX-A: ",
        b"POST /box HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 90\r\n"
        b"Content-Type: application/x-www-form-urlencoded\r\n\r\ntoken=",
    ],
)
def test_half_a_request_is_let_go(port: int, said: bytes) -> None:
    with socket.create_connection(("127.0.0.1", port)) as line:
        line.sendall(said)
        assert closed_within(line, 5.0)


def drip(line: socket.socket, said: bytes) -> None:
    for letter in said:
        line.sendall(bytes([letter]))
        time.sleep(0.05)


@pytest.mark.slow
def test_bytes_that_drip_do_not_buy_time(port: int) -> None:
    with socket.create_connection(("127.0.0.1", port)) as line:
        begun = time.monotonic()
        with pytest.raises(OSError, match=r"pipe|reset"):
            drip(line, b"GET /box HTTP/1.1\r\nX-Long: " + b"a" * 200)
        assert time.monotonic() - begun > 0.5


@pytest.mark.slow
def test_whole_requests_keep_their_line(port: int) -> None:
    """Also one after another, further apart than half a request may be."""
    with socket.create_connection(("127.0.0.1", port)) as line:
        for _ in range(2):
            line.sendall(b"GET /api/v1/schools HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
            line.settimeout(5.0)
            assert line.recv(15) == b"HTTP/1.1 200 OK"
            time.sleep(0.2)
            line.setblocking(False)
            try:
                while line.recv(65536):
                    pass
            except BlockingIOError:
                pass
            time.sleep(1.0)
            line.setblocking(True)


def held_by(port: int, own: str, most: int) -> list[socket.socket]:
    """So many connections from an address of one's own; those that the server lets stand."""
    lines = [socket.create_connection(("127.0.0.1", port), source_address=(own, 0)) for _ in range(most)]
    answered(port)  # the server takes connections in turn: by now it has taken or closed each of these
    closed = [line for line in lines if closed_within(line, 0.1)]
    for line in closed:
        line.close()
    return [line for line in lines if line not in closed]


def answered(port: int) -> None:
    with socket.create_connection(("127.0.0.1", port)) as line:
        line.sendall(b"GET /api/v1/schools HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
        line.settimeout(10.0)
        assert line.recv(15) == b"HTTP/1.1 200 OK"


@pytest.mark.slow
def test_a_stranger_holds_no_more_than_a_share(port: int, monkeypatch: pytest.MonkeyPatch) -> None:
    """Each address its own, all together theirs; the laptop is answered meanwhile, and places come back."""
    monkeypatch.setattr(Prompt, "whole_s", 20.0)
    monkeypatch.setattr(Prompt, "most_of_one", 5)
    monkeypatch.setattr(Prompt, "most_of_others", 8)
    first = held_by(port, "127.0.3.1", 12)
    second = held_by(port, "127.0.3.2", 12)
    assert (len(first), len(second)) == (5, 3)
    answered(port)
    for line in (*first, *second):
        line.close()
    time.sleep(0.3)
    again = held_by(port, "127.0.3.2", 12)
    assert len(again) == 5
    for line in again:
        line.close()
