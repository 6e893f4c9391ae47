"""The box, the drop tests and the files through HTTP: what goes in, what is refused, and in which words."""

from __future__ import annotations

import io
import re
import zipfile
from pathlib import Path
from typing import Any

import pytest
from fastapi.routing import APIRoute
from fastapi.testclient import TestClient

from heathdrop.catalog import Catalog
from heathdrop.demo import ashmoor
from heathdrop.physics.rig import rig_by_name
from heathdrop.store import items
from heathdrop.store.files import csvfile, exchange
from heathdrop.store.files.registry import REGISTRY
from heathdrop.web.app import create_app
from heathdrop.web.deps import checked_form
from heathdrop.web.fields import body_from, values_from, values_of
from heathdrop.web.pages.sheet import address
from heathdrop.web.presenters.rigdraw import draw_rig, head_size_in

HX = {"hx-request": "true"}


@pytest.fixture
def token(client: TestClient) -> str:
    found = re.search(r'name="token" value="(\w+)"', client.get("/box").text)
    assert found
    return found[1]


def rows(client: TestClient) -> int:
    return client.get("/box").text.count("<tr id=")


def test_every_line_or_none(client: TestClient, token: str) -> None:
    before = rows(client)
    good = client.post(
        "/box", data={"token": token, "entry": "3/8 swim jig\n1/2 swim jig x2\ncraw 3.5 in"}, headers=HX
    )
    assert "Added: 3/8 oz swim jig, lead, 10.6 g nominal; 1/2 oz swim jig" in good.text
    assert rows(client) == before + 3
    bad = client.post("/box", data={"token": token, "entry": "3/8 swim jig\nswim jig\ncraw 3"}, headers=HX)
    assert bad.status_code == 422
    assert "“swim jig”: weight_oz was 0; it must be from 1/32 to 4 oz." in bad.text
    assert rows(client) == before + 3
    empty = client.post("/box", data={"token": token, "entry": "  "}, headers=HX)
    assert "the entry was “0 lines long”; it must be 1 to 200 lines." in empty.text
    assert (
        "&lt;b&gt;"
        in client.post("/box", data={"token": token, "entry": "3/8 swim jig <b>"}, headers=HX).text
    )


@pytest.mark.parametrize(
    ("field", "text", "status", "words"),
    [
        ("mass_g", "10,9 g", 200, "weighs 10.9 g"),
        ("mass_g", "", 200, "nominal"),
        ("mass_g", "0.01", 422, "mass_g was 0.01; it must be from 0.2 to 200 g."),
        ("mass_g", "1/0", 422, "mass_g was “1/0”; it must be from 0.2 to 200 g."),
        ("quantity", "7", 200, 'value="7"'),
        ("quantity", "-1", 422, "quantity was -1; it must be a whole number from 0 to 999."),
        ("quantity", "many", 422, "quantity was “many”; it must be a whole number from 0 to 999."),
        ("colour", "x" * 90, 422, "it must be a text of at most 80 characters."),
        ("length_in", "4", 422, "length_in was 4; it must be left out: a head has no such field."),
    ],
)
def test_one_field_is_changed_or_refused(
    client: TestClient, token: str, field: str, text: str, status: int, words: str
) -> None:
    answer = client.post("/box/1", data={"token": token, field: text}, headers=HX)
    assert answer.status_code == status
    assert words in answer.text


def test_copy_delete_and_back(client: TestClient, token: str) -> None:
    before = rows(client)
    assert (
        "Copied: 1/4 oz swim jig" in client.post("/box/1/duplicate", data={"token": token}, headers=HX).text
    )
    assert rows(client) == before + 1
    gone = client.post("/box/1/delete", data={"token": token}, headers=HX).text
    assert "/box/1/undelete" in gone
    assert rows(client) == before
    assert client.post("/box/1/delete", data={"token": token}, headers=HX).status_code == 404
    assert client.post("/box/1", data={"token": token, "quantity": "2"}, headers=HX).status_code == 404
    client.post("/box/1/undelete", data={"token": token}, headers=HX)
    assert rows(client) == before + 1
    assert client.post("/box/1/burn", data={"token": token}, headers=HX).status_code == 404


def test_the_filter_and_the_shelf(client: TestClient) -> None:
    found = client.get("/box", params={"q": "swim 3/8"}, headers={**HX, "hx-target": "boxlist"}).text
    assert found.count("<tr id=") == 1
    assert "Add tackle" not in found
    page = client.get("/box").text
    bulks = [float(v) for v in re.findall(r"adds ([\d.]+) cm²", page)]
    assert len(bulks) == 10
    assert bulks == sorted(bulks)


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"times_s": ""}, "times_s was not given; it must be 1 to 12 times of 0.3 to 120 s."),
        ({"times_s": "4.1 fast"}, "times_s was “4.1 fast”; it must be 1 to 12 times of 0.3 to 120 s."),
        ({"times_s": "400"}, "it must be 1 to 12 times of 0.3 to 120 s."),
        ({"depth_ft": "-3"}, "depth_ft was -3; it must be from 1 to 60 ft."),
        ({"depth_ft": ""}, "depth_ft was not given; it must be from 1 to 60 ft."),
        ({"head_oz": "3/0"}, "head_oz was “3/0”; it must be from 1/32 to 4 oz."),
        ({"family": "toad"}, "family was “toad”; it must be one of swim-jig"),
        ({"test_lb": "3"}, "line.test_lb was 3; it must be from 4 to 25 lb for fluorocarbon."),
        ({"times_s": "14 15"}, "Was the depth in metres?"),
        ({"times_s": "1.2 1.3"}, "only 0.3 of the model gives"),
    ],
)
def test_a_drop_that_cannot_be_is_refused_in_one_sentence(
    client: TestClient, token: str, change: dict[str, str], words: str
) -> None:
    form = {
        "token": token,
        "kind": "drop",
        "family": "swim-jig",
        "head_oz": "3/8",
        "trailer": "paddle-tail",
        "trailer_length_in": "3.5",
        "line_material": "fluorocarbon",
        "test_lb": "15",
        "depth_ft": "10",
        "times_s": "4.1 4.2",
    }
    refused = client.post("/drops", data={**form, **change}, headers=HX)
    assert refused.status_code == 422
    assert words in refused.text
    assert client.get("/drops").text.count("withdraw</button>") == 2


@pytest.mark.slow
def test_depth_and_mat_checks_teach_and_can_be_withdrawn(client: TestClient, token: str) -> None:
    rig = {
        "token": token,
        "family": "punch-rig",
        "head_oz": "1",
        "trailer": "beaver",
        "trailer_length_in": "4",
        "test_lb": "15",
    }
    mat = {**rig, "kind": "mat", "texture": "hydrilla", "thickness_in": "4", "through": "no"}
    for _ in range(3):
        said = client.post("/drops", data=mat, headers=HX).text
    assert "Hydrilla mats need 1." in said
    water = "/?cover=matted-grass&texture=hydrilla&thickness_in=4&family=punch-rig&pick=punch-rig:1:beaver"
    half = re.search(r"half the time from ([\d.]+) oz on", client.get(water).text)
    assert half
    assert float(half[1]) > 0.87 * 1.1
    depth = {
        **rig,
        "kind": "depth",
        "family": "swim-jig",
        "head_oz": "3/8",
        "pace_ft_s": "2",
        "count_s": "3",
        "depth_ft": "3",
    }
    assert "times the lift assumed" in client.post("/drops", data=depth, headers=HX).text
    ids = re.findall(r"/drops/(\d+)/withdraw", client.get("/drops").text)
    for id_ in ids:
        client.post(f"/drops/{id_}/withdraw", data={"token": token}, headers=HX)
    assert "Nothing yet" in client.get("/drops").text
    assert client.post(f"/drops/{ids[0]}/back", data={"token": token}, headers=HX).status_code == 200
    assert client.post("/drops/999/withdraw", data={"token": token}, headers=HX).status_code == 404


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
    assert "file was not given" in client.post("/import", data={"token": token}, headers=HX).text
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


WRITES = (
    "/scenarios",
    "/scenarios/1/delete",
    "/scenarios/1/undelete",
    "/schools",
    "/units",
    "/plan",
    "/plan/1",
    "/plan/1/cancel",
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
)


@pytest.mark.parametrize("path", WRITES)
def test_no_write_without_the_token_or_from_elsewhere(client: TestClient, token: str, path: str) -> None:
    assert client.post(path, data={"token": "wrong"}, headers=HX).status_code == 403
    foreign = {"origin": "http://evil.example", **HX}
    assert client.post(path, data={"token": token}, headers=foreign).status_code == 403


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


@pytest.mark.slow
@pytest.mark.parametrize("view", ["water", "size", "rig", "cast"])
def test_every_worked_example_opens_in_every_view(client: TestClient, view: str) -> None:
    for row in ashmoor.worked():
        values = values_of(row["body"])
        assert (
            body_from(values_from(values))["conditions"]["water_temp_f"]
            == row["body"]["conditions"]["water_temp_f"]
        )
        page = client.get(address({**values, "view": view}))
        assert page.status_code == 200, (row["name"], page.text[:300])
        assert "NaN" not in page.text
        assert 'aria-label="Side view' in page.text


def test_every_rig_can_be_drawn_to_scale(cat: Catalog) -> None:
    for family in cat.families.values():
        for trailer in cat.trailers.values():
            drawing = draw_rig(
                rig_by_name(cat, family.id, family.weights_oz[3], trailer.id), skirt_cut=True, body_cut_in=0.4
            )
            text = " ".join(p.path + p.transform for p in drawing.pieces)
            assert "nan" not in text
            assert all(-20 < n.x < drawing.width + 20 and 0 < n.y <= drawing.height for n in drawing.notes)
            assert drawing.said.startswith("To scale:")
    lead, tungsten = (
        head_size_in(rig_by_name(cat, "football-jig", 0.5, "craw", head_material=m))
        for m in ("lead", "tungsten")
    )
    assert (tungsten[0] / lead[0]) ** 3 == pytest.approx(11.0 / 17.5, rel=1e-6)


def test_kinds_of_tackle_and_the_words_for_their_limits() -> None:
    for kind in items.KINDS.values():
        for name in kind.model_fields:
            assert name in items.ALLOWED or name in ("name", "colour"), name
    assert set(csvfile.TACKLE_COLUMNS) == {"kind", "id"} | {
        f for k in items.KINDS.values() for f in k.model_fields
    }
