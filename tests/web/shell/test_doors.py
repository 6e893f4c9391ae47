"""Tokens, headers, hosts and phones by invitation, attacked."""

import re
from pathlib import Path
from typing import Any

import pytest
from fastapi import FastAPI
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient
from itsdangerous import TimestampSigner

from heathdrop.web.app import create_app
from heathdrop.web.shell.deps import checked_form
from heathdrop.web.shell.devices import _picture
from heathdrop.web.shell.pairing import COOKIE, LASTS_S, TRIES, Pairing, is_here, own_address
from tests.web.shown import HX, token
from tests.web.shown import token as token_of

WRITES = (
    "/scenarios",
    "/scenarios/1/delete",
    "/scenarios/1/undelete",
    "/schools",
    "/units",
    "/plan",
    "/plan/1",
    "/plan/1/cancel",
    "/data/back",
    "/data/afresh",
    "/deck",
    "/deck/end",
    "/deck/water",
    "/deck/record/5f0c6a52-0000-4000-8000-000000000001",
    "/bottom",
    "/devices/code",
    "/devices/1/off",
    "/box",
    "/box/1",
    "/box/1/delete",
    "/drops",
    "/drops/1/withdraw",
    "/import",
    "/import/undo",
    "/train/answer",
    "/train/hand",
    "/log/away",
    "/log/back",
    "/log/taught",
    "/log/typed",
)


@pytest.mark.parametrize("path", WRITES)
def test_no_write_without_the_token_or_from_elsewhere(visitor: TestClient, path: str) -> None:
    token = token_of(visitor)
    assert visitor.post(path, data={"token": "wrong"}, headers=HX).status_code == 403
    foreign = {"origin": "http://evil.example", **HX}
    assert visitor.post(path, data={"token": token}, headers=foreign).status_code == 403


def test_the_routes_that_write_are_those(client: TestClient) -> None:
    """By the router, not by file names: every page route that writes checks the form, and is tried above."""
    app: Any = client.app
    routers = [given.original_router for given in app.routes if hasattr(given, "original_router")]
    inner = [r for router in routers for r in router.routes]
    routes = [r for r in inner if isinstance(r, APIRoute) and "/api/" not in r.path]
    assert len(routes) > 15
    posts = [r for r in routes if r.methods - {"GET", "HEAD"}]
    assert all(any(d.call is checked_form for d in r.dependant.dependencies) for r in posts)
    tried = {re.sub(r"/(\d+|[\da-f-]{36}|delete|withdraw|undelete)(?=/|$)", "/*", path) for path in WRITES}
    named = {re.sub(r"\{\w+\}", "*", r.path) for r in posts}
    assert {re.sub(r"/(delete|undelete)$", "/*", p) for p in named} == tried


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


@pytest.fixture
def app(tmp_path: Path) -> FastAPI:
    pairing = Pairing(Clock())
    pairing.renew()
    return create_app(tmp_path / "a.sqlite", demo=True, hosts=["192.0.2.1"], pairing=pairing, address=HERE)


@pytest.mark.slow
def test_a_phone_with_the_code_comes_in_and_is_sent_off(app: FastAPI) -> None:
    guest = paired(app, "boat <b>phone")
    cookie = guest.cookies[COOKIE]
    assert guest.get("/deck").status_code == 200
    assert guest.get("/pair?code=1").headers["location"] == "/deck"
    assert guest.get("/devices").status_code == 403
    shown = token(guest)
    assert guest.post("/devices/code", data={"token": shown}).status_code == 403
    assert guest.post("/devices/1/off", data={"token": shown}).status_code == 403
    assert phone(app, "http://evil.example", cookie).get("/deck").status_code == 400
    foreign = {"origin": "http://192.0.2.9:8640"}
    assert guest.post("/deck", data={"token": shown}, headers=foreign).status_code == 403
    assert guest.post("/deck", data={"token": shown}, headers={"origin": HERE}).status_code == 303
    assert app.state.pairing.code == ""  # used up
    laptop = TestClient(app, base_url="http://127.0.0.1")
    listed = laptop.get("/devices").text
    assert "boat &lt;b&gt;phone" in listed
    assert "seen just now" in listed
    assert laptop.post("/devices/1/off", data={"token": token(laptop)}).status_code == 200
    assert guest.get("/deck").status_code == 403
    assert laptop.post("/devices/1/off", data={"token": token(laptop)}).status_code == 404
    laptop.post("/devices/code", data={"token": token(laptop)})
    assert re.search(r"\b5 min 0 s\b", laptop.get("/devices").text)
    assert app.state.pairing.code in laptop.get("/devices").text.replace(" ", "")


def test_the_code_is_drawn_black_on_white() -> None:
    """For a camera: dark on light whatever the page's own colours are."""
    picture = str(_picture("http://192.0.2.7:8640/pair?code=123456"))
    assert picture.startswith("<svg")
    assert set(re.findall(r'(?:fill|stroke)="(#\w+)"', picture)) == {"#fff", "#000"}


HERE, FAR = "http://192.0.2.1:8640", ("192.0.2.7", 50000)


PATHS = ("/", "/deck", "/box", "/export.zip", "/api/v1/next?stop=x", "/api/v1/feed", "/static/deck/deck.js",
         "/devices", "/plan", "/nowhere", "/api/v1/openapi.json")  # fmt: skip


class Clock:
    def __init__(self) -> None:
        self.now = 1000.0

    def __call__(self) -> float:
        return self.now


def phone(app: FastAPI, base: str = HERE, cookie: str = "") -> TestClient:
    headers = {"cookie": f"{COOKIE}={cookie}"} if cookie else None
    return TestClient(app, client=FAR, base_url=base, follow_redirects=False, headers=headers)


def paired(app: FastAPI, name: str = "boat phone") -> TestClient:
    guest = phone(app)
    answer = guest.post("/pair", data={"code": app.state.pairing.code, "name": name})
    assert answer.status_code == 303, answer.text
    return guest


def test_a_code_lasts_five_minutes_five_tries_and_one_phone() -> None:
    clock = Clock()
    pairing = Pairing(clock)
    assert not pairing.take("")
    code = pairing.renew()
    assert re.fullmatch(r"\d{6}", code)
    assert pairing.take(f" {code[:3]} {code[3:]} ")
    assert not pairing.take(code)
    code = pairing.renew()
    clock.now += LASTS_S - 0.1
    assert pairing.code == code
    clock.now += 0.2
    assert (pairing.code, pairing.left_s) == ("", 0.0)
    assert not pairing.take(code)
    code = pairing.renew()
    wrong = str((int(code) + 1) % 1000000).zfill(6)
    assert [pairing.take(wrong) for _ in range(TRIES)] == [False] * TRIES
    assert not pairing.take(code)
    code = pairing.renew()
    assert [pairing.take(wrong) for _ in range(TRIES - 1)] == [False] * (TRIES - 1)
    assert pairing.take(code)
    assert len({pairing.renew() for _ in range(50)}) > 45


def test_a_stranger_gets_the_page_that_says_how_and_nothing_else(app: FastAPI) -> None:
    guest = phone(app)
    for path in PATHS:
        for base in (HERE, "http://evil.example"):
            refused = phone(app, base).get(path)
            assert refused.status_code == 403, path
            assert "Pair this phone" in refused.text
            assert len(refused.text) < 2000
    assert guest.post("/api/v1/casts", json=[]).status_code == 403
    assert guest.delete("/api/v1/casts/5f0c6a52-0000-4000-8000-000000000001").status_code == 403
    assert guest.post("/pair", data={"code": "000 00"}).status_code == 403
    assert COOKIE not in guest.cookies
    code = app.state.pairing.code
    assert guest.get(f"/pair?code={code}").text.count(code) == 1  # filled in, not used up
    assert app.state.pairing.code == code
    assert "&lt;script" in guest.get("/pair?code=%3Cscript%3E").text


def test_without_lan_nobody_pairs(tmp_path: Path) -> None:
    app = create_app(tmp_path / "a.sqlite")
    refused = phone(app, "http://localhost").post("/pair", data={"code": "123456"})
    assert refused.status_code == 403
    assert "its own machine alone" in refused.text
    assert "<form" not in refused.text
    assert "--lan" in TestClient(app, base_url="http://127.0.0.1").get("/devices").text


def test_the_cookie_is_signed_kept_from_scripts_and_ends(
    app: FastAPI, monkeypatch: pytest.MonkeyPatch
) -> None:
    guest = phone(app)
    answer = guest.post("/pair", data={"code": app.state.pairing.code})
    said = answer.headers["set-cookie"].lower()
    assert "httponly" in said
    assert "samesite=lax" in said
    good = guest.cookies[COOKIE]
    uid = good.split(".")[0]
    forged = TimestampSigner(b"another secret", salt="device").sign(uid).decode()
    other = TimestampSigner(app.state.secret, salt="device").sign("nobody").decode()
    for bad in (uid, forged, other, uid + "x" + good[len(uid) :], good + "x", "", "a.b.c"):
        assert phone(app, cookie=bad).get("/deck").status_code == 403, bad
    assert phone(app, cookie=good).get("/deck").status_code == 200
    real = TimestampSigner.get_timestamp
    monkeypatch.setattr(TimestampSigner, "get_timestamp", lambda self: real(self) - 31 * 24 * 3600)
    old = TimestampSigner(app.state.secret, salt="device").sign(uid).decode()
    assert phone(app, cookie=old).get("/deck").status_code == 403


@pytest.mark.parametrize(
    ("host", "known"),
    [("192.0.2.1:8640", True), ("127.0.0.1", True), ("10.0.0.9:8640", True), ("[2001:db8::1]:8640", True),
     ("evil.example", False), ("192.0.2.99", False), ("[bad", False), ("", False)],
)  # fmt: skip
def test_hosts_are_those_named_and_the_address_itself(app: FastAPI, host: str, known: bool) -> None:
    """``10.0.0.9`` and the longer one are other addresses of this machine: the socket says so."""
    own = {"10.0.0.9:8640": "10.0.0.9", "[2001:db8::1]:8640": "2001:db8::1"}.get(host, "192.0.2.1")
    guest = paired(app)
    base = f"http://[{own}]:8640" if ":" in own else f"http://{own}:8640"
    cookie = guest.cookies[COOKIE]
    asked = phone(app, base, cookie).get("/deck", headers={"host": host})
    assert (asked.status_code == 200) is known, asked.text[:200]


@pytest.mark.parametrize(
    ("client", "server", "here"),
    [
        ("127.0.0.1", "127.0.0.1", True),
        ("::1", "::1", True),
        ("127.0.0.1", "127.0.0.2", False),
        ("127.0.0.2", "127.0.0.1", False),
        ("192.0.2.7", "192.0.2.1", False),
        ("127.0.0.1", None, True),
        ("192.0.2.7", None, False),
    ],
)
def test_here_is_loopback_at_both_ends(client: str, server: str | None, here: bool) -> None:
    ends = {"client": (client, 5), "server": None if server is None else (server, 6)}
    assert is_here(ends) is here


def test_this_machines_address_is_one() -> None:
    assert re.fullmatch(r"\d+\.\d+\.\d+\.\d+", own_address())


def test_phones_are_not_exported(app: FastAPI) -> None:
    paired(app, "kept here")
    laptop = TestClient(app, base_url="http://127.0.0.1")
    assert b"kept here" not in laptop.get("/export.zip").content
