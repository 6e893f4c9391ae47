"""Web safety and saved scenarios."""

from __future__ import annotations

import re
import stat
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.store import scenarios
from heathdrop.store.database import Database, install_secret
from heathdrop.web.fields import DEFAULTS, body_from, values_of


def token(client: TestClient) -> str:
    found = re.search(r'name="token" value="(\w+)"', client.get("/").text)
    assert found
    return found[1]


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
    css = re.search(r'href="(/static/css/sheet[^"]+)"', page.text)
    assert css
    assert "immutable" in client.get(css[1]).headers["cache-control"]


def test_foreign_writes_are_refused(client: TestClient) -> None:
    data = {"token": token(client), "name": "x"}
    for headers in ({"origin": "http://evil.example"}, {"sec-fetch-site": "cross-site"}):
        assert client.post("/scenarios", data=data, headers=headers).status_code == 403
    assert client.post("/scenarios", data=data | {"token": "wrong"}).status_code == 403
    own = {"origin": "http://127.0.0.1", "hx-request": "true"}
    assert client.post("/scenarios", data=data, headers=own).status_code == 200


@pytest.mark.parametrize("address", ["/api/v1/size", "/api/v1/simulate", "/scenarios"])
def test_a_ten_megabyte_body_is_refused(client: TestClient, address: str) -> None:
    answer = client.post(address, content=b"0" * 10_000_000)
    assert answer.status_code == 413
    assert (
        answer.json()["detail"]
        == "the request was 10000000 bytes long; it must be at most 262144 bytes long."
    )
    kind = "application/x-www-form-urlencoded" if address == "/scenarios" else "application/json"
    chunks = client.post(address, content=(b"0" * 65536 for _ in range(20)), headers={"content-type": kind})
    assert chunks.status_code == 413


def test_save_reopen_delete_undo(client: TestClient) -> None:
    hx = {"hx-request": "true"}
    form = DEFAULTS | {
        "token": token(client),
        "name": "Orchard wall <b>",
        "fish_depth_ft": "4",
        "family": "swim-jig",
    }
    saved = client.post("/scenarios", data=form, headers=hx).text
    assert "Orchard wall &lt;b&gt;" in saved
    address = re.findall(r'href="(/[^"]*)"', saved)[-1].replace("&amp;", "&")
    assert 'value="4"' in client.get(address).text
    id_ = re.findall(r"/scenarios/(\d+)/delete", saved)[-1]
    gone = client.post(f"/scenarios/{id_}/delete", data={"token": form["token"]}, headers=hx).text
    assert f"/scenarios/{id_}/undelete" in gone
    assert (
        client.post(f"/scenarios/{id_}/delete", data={"token": form["token"]}, headers=hx).status_code == 404
    )
    back = client.post(f"/scenarios/{id_}/undelete", data={"token": form["token"]}, headers=hx).text
    assert f"/scenarios/{id_}/delete" in back
    assert client.post("/scenarios", data=form | {"name": "  "}, headers=hx).status_code == 422


def test_demo_supplies_three_scenarios_once(tmp_path: Path) -> None:
    database = Database(tmp_path / "demo.sqlite")
    for _ in range(2):
        ashmoor.fill(database)
    with database.session() as session:
        rows = scenarios.listed(session)
    assert len(rows) == 3
    for row in rows:
        assert (
            body_from(values_of(row.body))["conditions"].items()
            >= {k: v for k, v in row.body["conditions"].items() if k != "cover"}.items()
        )
    database.close()


def test_data_file_settings_and_secret(tmp_path: Path) -> None:
    database = Database(tmp_path / "mine.sqlite")
    with database.engine.connect() as connection:
        read = {
            p: connection.exec_driver_sql(f"PRAGMA {p}").scalar()
            for p in ("journal_mode", "synchronous", "foreign_keys")
        }
    assert read == {"journal_mode": "wal", "synchronous": 2, "foreign_keys": 1}
    database.close()
    secret = install_secret(tmp_path / "mine.sqlite")
    assert secret == install_secret(tmp_path / "mine.sqlite")
    assert len(secret) == 32
    assert stat.S_IMODE((tmp_path / "mine.key").stat().st_mode) == 0o600
    with (
        Database(tmp_path / "mine.sqlite").session() as session,
        pytest.raises(BadInput, match="1 to 80 characters"),
    ):
        scenarios.save(session, "n" * 81, {})


def test_a_search_order_is_one_page_with_room_for_a_pencil(client: TestClient) -> None:
    state = "fish_depth_ft=%3F&bottom_depth_ft=12&water_temp_f=45&cover=open"
    assert 'href="/order?' in client.get("/?view=search&" + state).text
    page = client.get("/order?" + state)
    assert page.status_code == 200
    assert page.text.count('class="pencil"') == 8
    assert "12 ft" in page.text
    assert "Cold water" in page.text
    refused = client.get("/order?bottom_depth_ft=-3")
    assert refused.status_code == 422


@pytest.mark.parametrize(
    ("fields", "said"),
    [
        ({"name": "\u202eekal"}, "made of characters that can be shown"),
        ({"name": "Lake", "pick": "1e400"}, "a rig&#39;s name, such as"),
        ({"name": " "}, "1 to 80 characters"),
    ],
)
def test_what_could_not_come_back_is_not_saved(client: TestClient, fields: dict[str, str], said: str) -> None:
    before = client.get("/export/scenarios.json").text
    refused = client.post(
        "/scenarios", data={"token": token(client), **fields}, headers={"HX-Request": "true"}
    )
    assert refused.status_code == 422
    assert said in refused.text
    assert client.get("/export/scenarios.json").text == before
