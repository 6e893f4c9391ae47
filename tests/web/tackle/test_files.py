"""Files out and in through HTTP: shown before they are written, the same when they come back."""

from __future__ import annotations

import io
import re
import zipfile
from pathlib import Path

from fastapi.testclient import TestClient

from heathdrop.store.files import csvfile, exchange
from heathdrop.store.files.registry import REGISTRY
from heathdrop.web.app import create_app
from tests.web.shown import HX, rows


def test_a_file_is_shown_before_it_is_written(client: TestClient, token: str, tmp_path: Path) -> None:
    before = rows(client)
    text = "kind,family,weight_oz,quantity,shop\nhead,grass-jig,3/8,2,north\n"

    def send(content: bytes | str, name: str, **more: str) -> str:
        raw = content.encode() if isinstance(content, str) else content
        return client.post(
            "/import", data={"token": token, **more}, files={"file": (name, raw)}, headers=HX
        ).text

    shown = send(text, "tackle.csv")
    assert "1 piece of tackle" in shown
    assert "Passed over: shop." in shown
    assert rows(client) == before
    assert "Brought in 1 piece of tackle" in send(text, "tackle.csv", sure="yes")
    assert rows(client) == before + 1
    faulty = send(text + "head,toad,1/2,1,\n", "tackle.csv", sure="yes")
    assert "line 3, column family was “toad”" in faulty
    assert "Bring it in" not in faulty
    assert rows(client) == before + 1
    assert list((tmp_path / "backups").glob("*before-import*"))
    assert "Choose a file first" in client.post("/import", data={"token": token}, headers=HX).text
    assert "it must be an export made by Heathdrop" in send(b"PK nonsense", "x.zip")
    assert "a header row with some of" in send("a;b\n1;2\n", "x.csv")


def test_the_files_that_go_out(client: TestClient, tmp_path: Path) -> None:
    raw = client.get("/export.zip").content
    with zipfile.ZipFile(io.BytesIO(raw)) as archive:
        assert sorted(archive.namelist()) == sorted(
            [
                exchange.MANIFEST,
                *(e.name for e in REGISTRY),
            ]
        )
        tackle = archive.read("tackle.csv")
    assert client.get("/export/tackle.csv").content == tackle
    assert len(csvfile.read_tackle(tackle).rows) == rows(client)
    assert client.get("/export/drop-tests.csv").text.startswith("family,head_oz")
    assert client.get("/export/scenarios.json").json()["version"] == 1
    assert client.get("/export/secrets.key").status_code == 404
    other = create_app(tmp_path / "other" / "b.sqlite")
    with TestClient(other, base_url="http://127.0.0.1") as web:
        found = re.search(r'name="token" value="(\w+)"', web.get("/box").text)
        assert found
        web.post(
            "/import", data={"token": found[1], "sure": "yes"}, files={"file": ("a.zip", raw)}, headers=HX
        )
        assert web.get("/export.zip").content == raw
    other.state.database.close()
