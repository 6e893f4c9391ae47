"""The application as it is put together: what strangers' addresses get, errors in words, the lifespan."""

from __future__ import annotations

import sqlite3
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from heathdrop.errors import BadInput
from heathdrop.web.app import AT_ONCE, create_app
from tests.web.shown import HX


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


def test_other_faults_are_not_called_a_full_disk(
    client: TestClient, token: str, monkeypatch: pytest.MonkeyPatch
) -> None:
    from heathdrop.store import items

    def odd(*_: object, **__: object) -> None:
        raise sqlite3.OperationalError("no such table: item")

    monkeypatch.setattr(items, "add", odd)
    with pytest.raises(sqlite3.OperationalError):
        client.post("/box", data={"token": token, "entry": "3/8 swim jig"}, headers=HX)


def test_hosts_that_were_named_are_answered(tmp_path: Path) -> None:
    app = create_app(tmp_path / "a.sqlite", hosts=["boat.test", "0.0.0.0"])
    with TestClient(app, base_url="http://boat.test") as named:
        assert named.get("/api/v1/schools").status_code == 200
        assert named.get("/api/v1/schools", headers={"host": "other.test"}).status_code == 400
    anyone = create_app(tmp_path / "b.sqlite", hosts=["*"])
    with TestClient(anyone, base_url="http://other.test") as other:
        assert other.get("/api/v1/schools").status_code == 200
    for one in (app, anyone):
        one.state.database.close()


def test_instruments_that_are_no_address_are_refused_at_once(tmp_path: Path) -> None:
    with pytest.raises(BadInput, match="nmea was “udp://x”"):
        create_app(tmp_path / "a.sqlite", nmea="udp://x")


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
