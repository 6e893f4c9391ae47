"""Headers, hosts, foreign writes, bodies that are too large."""

from __future__ import annotations

import re

import pytest
from fastapi.testclient import TestClient

from tests.web.shown import token


def test_headers_and_hosts(client: TestClient) -> None:
    page = client.get("/")
    policy = page.headers["content-security-policy"]
    assert "unsafe" not in policy
    assert "default-src 'none'" in policy
    assert page.headers["x-content-type-options"] == "nosniff"
    assert not re.search(r"<script(?![^>]*src=)", page.text)
    assert " style=" not in page.text
    assert not re.search(r"\son\w+=", page.text)
    assert "http" not in re.sub(r'xmlns="[^"]*"', "", page.text)
    assert client.get("/", headers={"host": "evil.example"}).status_code == 400
    css = re.search(r'href="(/static/sheet/sheet[^"]+)"', page.text)
    assert css
    assert "immutable" in client.get(css[1]).headers["cache-control"]


@pytest.mark.parametrize(
    ("host", "status"),
    [
        ("127.0.0.1", 200),
        ("127.0.0.1:8000", 200),
        ("localhost:1", 200),
        ("evil@127.0.0.1", 400),
        ("127.0.0.1:80:80", 400),
        ("127.0.0.1/evil", 400),
        ("127.0.0.1:", 400),
        ("127.0.0.1?x", 400),
        ("", 400),
    ],
)
def test_a_host_is_a_name_and_a_port(client: TestClient, host: str, status: int) -> None:
    assert client.get("/api/v1/schools", headers={"host": host}).status_code == status


def test_foreign_writes_are_refused(client: TestClient) -> None:
    data = {"token": token(client), "name": "x"}
    for headers in ({"origin": "http://evil.example"}, {"sec-fetch-site": "cross-site"}):
        assert client.post("/scenarios", data=data, headers=headers).status_code == 403
    assert client.post("/scenarios", data=data | {"token": "wrong"}).status_code == 403
    own = {"origin": "http://127.0.0.1", "hx-request": "true"}
    assert client.post("/scenarios", data=data, headers=own).status_code == 200


@pytest.mark.parametrize("address", ["/api/v1/size", "/api/v1/simulate", "/scenarios"])
def test_a_ten_megabyte_body_is_refused(visitor: TestClient, address: str) -> None:
    answer = visitor.post(address, content=b"0" * 10_000_000)
    assert answer.status_code == 413
    assert (
        answer.json()["detail"]
        == "the request was 10000000 bytes long; it must be at most 262144 bytes long."
    )
    kind = "application/x-www-form-urlencoded" if address == "/scenarios" else "application/json"
    chunks = visitor.post(address, content=(b"0" * 65536 for _ in range(20)), headers={"content-type": kind})
    assert chunks.status_code == 413
