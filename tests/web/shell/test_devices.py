"""Phones on the laptop's own screen: let in by a code, listed, sent off."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient

from heathdrop.web.app import create_app
from heathdrop.web.shell.devices import _picture
from heathdrop.web.shell.pairing import COOKIE, Pairing
from tests.web.shell.test_pairing import HERE, Clock, paired, phone
from tests.web.shown import token


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
