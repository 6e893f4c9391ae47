"""The doors there are, and that each refuses with one sentence and the field it names."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient

from heathdrop.api.routes import router
from tests.web.deck.test_page import begun, cast_of

ROUTES = {
    ("POST", "/api/v1/simulate"),
    ("POST", "/api/v1/changes"),
    ("POST", "/api/v1/read"),
    ("POST", "/api/v1/size"),
    ("POST", "/api/v1/search"),
    ("POST", "/api/v1/plan"),
    ("POST", "/api/v1/casts"),
    ("PUT", "/api/v1/casts/{id_}"),
    ("DELETE", "/api/v1/casts/{id_}"),
    ("GET", "/api/v1/next"),
    ("GET", "/api/v1/feed"),
    ("GET", "/api/v1/lessons"),
    ("GET", "/api/v1/drill"),
    ("POST", "/api/v1/drill/answer"),
    ("GET", "/api/v1/schools"),
    ("GET", "/api/v1/schema/{name}"),
}


def test_the_doors_are_those() -> None:
    assert {(way, r.path) for r in router.routes for way in r.methods} == ROUTES  # type: ignore[attr-defined]


@pytest.mark.parametrize(("way", "path"), sorted(r for r in ROUTES if r[0] in ("POST", "PUT")))
def test_a_body_that_is_none_is_refused_in_one_sentence(visitor: TestClient, way: str, path: str) -> None:
    at = path.replace("{id_}", "5f0c6a52-0000-4000-8000-000000000001")
    for body in (b"", b"{", b"3", b'"x"', b"{}"):
        answer = visitor.request(way, at, content=body, headers={"content-type": "application/json"})
        assert answer.status_code == 422, (path, body)
        assert set(answer.json()) == {"detail", "field"}
        assert answer.json()["detail"].endswith(".")


@pytest.mark.parametrize(
    ("at", "field"),
    [
        ("/api/v1/next", "stop"),
        ("/api/v1/next?stop=x&limit=0", "limit"),
        ("/api/v1/next?stop=x&limit=21", "limit"),
        ("/api/v1/next?stop=x&units=cubits", "units"),
        ("/api/v1/next?stop=" + "x" * 201, "stop"),
        ("/api/v1/feed?units=cubits", "units"),
        ("/api/v1/schema/secrets", "name"),
    ],
)
def test_a_question_that_cannot_be(visitor: TestClient, at: str, field: str) -> None:
    answer = visitor.get(at)
    assert answer.status_code == 422
    assert answer.json()["field"] == field


@pytest.mark.slow
def test_a_cast_goes_in_is_mended_and_taken_back(client: TestClient) -> None:
    made = cast_of(begun(client), 3, "bump")
    assert client.post("/api/v1/casts", json=made).json() == client.post("/api/v1/casts", json=[made]).json()
    at = f"/api/v1/casts/{made['id']}"
    assert client.put(at, json={**made, "outcome": "fish"}).status_code == 200
    assert [client.delete(at).json()["was_there"] for _ in range(2)] == [True, False]
    assert client.put("/api/v1/casts/nonsense", json=made).status_code == 422
    assert client.get("/api/v1/casts").status_code == 405
    assert client.get("/api/v1/schema/plans").json()["title"]
    assert {t["id"] for t in client.get("/api/v1/schools").json()["topics"]} >= {"weight-lean", "mat-entry"}
