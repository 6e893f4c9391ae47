"""Box, drop tests and files through HTTP: what goes in, what is refused, to the letter."""

import io
import re
import zipfile
from pathlib import Path
from urllib.parse import parse_qsl

import pytest
from fastapi.testclient import TestClient
from sqlalchemy.orm import Session

from heathdrop.catalog import Catalog
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
from heathdrop.store import observations
from heathdrop.store.files import csvfile, exchange
from heathdrop.store.files.registry import REGISTRY
from heathdrop.store.observations import DropRecord
from heathdrop.store.own import own_of
from heathdrop.web.app import create_app
from heathdrop.web.tackle.drops import weighed
from heathdrop.web.tackle.shown.drops import MOST_TIMED, counts_now, drops_of
from tests.golden_file import holds_to
from tests.store.test_casts import DEPTH, DROP, MAT, RIG
from tests.web.shown import HX, rows
from tests.web.shown import token as token_of


def test_what_is_whole_is_added_and_the_rest_stays_in_the_field(client: TestClient, token: str) -> None:
    before = rows(client)
    good = client.post(
        "/box", data={"token": token, "entry": "3/8 swim jig\n1/2 swim jig x2\ncraw 3.5 in"}, headers=HX
    )
    assert (
        "Added: 3/8 oz swim jig, lead, 10.6 g nominal; 1/2 oz swim jig, lead, 14.2 g nominal ×2" in good.text
    )
    assert rows(client) == before + 3
    twice = client.post("/box", data={"token": token, "entry": "craw 3.5 in x4"}, headers=HX)
    assert "1 of them alike to a piece that was there" in twice.text
    before += 1
    bad = client.post("/box", data={"token": token, "entry": "3/8 swim jig\nswim jig\ncraw 3"}, headers=HX)
    assert bad.status_code == 200
    assert 'data-left="swim jig"' in bad.text
    assert "“swim jig”: How heavy?" in bad.text
    assert rows(client) == before + 5
    alone = client.post("/box", data={"token": token, "entry": "swim jig\nx1000 3/8 swim jig"}, headers=HX)
    assert alone.status_code == 422
    assert "How many must be a whole number from 0 to 999, not 1000." in alone.text
    assert rows(client) == before + 5
    empty = client.post("/box", data={"token": token, "entry": "  "}, headers=HX)
    assert "Nothing to add yet." in empty.text
    assert (
        "&lt;b&gt;"
        in client.post("/box", data={"token": token, "entry": "3/8 swim jig <b>"}, headers=HX).text
    )


@pytest.mark.parametrize(
    ("field", "text", "status", "words"),
    [
        ("mass_g", "10,9 g", 200, "weighs 10.9 g"),
        ("mass_g", "", 200, "nominal"),
        ("mass_g", "0.01", 422, "Weight on the scale must be from 0.2 to 200 g, not 0.01 g."),
        ("mass_g", "1/0", 422, "Weight on the scale must be from 0.2 to 200 g, not “1/0”."),
        ("quantity", "7", 200, 'value="7"'),
        ("quantity", "-1", 422, "How many must be a whole number from 0 to 999, not -1."),
        ("quantity", "many", 422, "How many must be a whole number from 0 to 999, not “many”."),
        ("colour", "x" * 90, 422, "must be a text of at most 80 characters, not "),
        ("length_in", "4", 422, "A head has no such field."),
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


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"times_s": ""}, "Times is empty; it must be 1 to 12 times of 0.3 to 120 s."),
        ({"times_s": "4.1 fast"}, "Times must be 1 to 12 times of 0.3 to 120 s, not “4.1 fast”."),
        ({"times_s": "400"}, "must be 1 to 12 times of 0.3 to 120 s, not "),
        ({"depth_ft": "-3"}, "Depth must be from 1 to 60 ft, not -3 ft."),
        ({"depth_ft": ""}, "Depth is empty; it must be from 1 to 60 ft."),
        ({"head_oz": "5e-1"}, "Head weight must be from 1/32 to 4 oz, not “5e-1 (not read)”."),
        ({"head_oz": "3/0"}, "Head weight must be from 1/32 to 4 oz, not “3/0”."),
        ({"family": "toad"}, "The lure must be one of swim-jig"),
        ({"test_lb": "3"}, "Test must be from 4 to 25 lb for fluorocarbon, not 3 lb."),
        ({"times_s": "14 15"}, "Was the depth in metres?"),
        ({"times_s": "1.87 4.5 5.2"}, "Was a drop spoilt? 1.87 s beside 4.50, 5.20. Scrap it"),
        ({"times_s": "1.2 1.3"}, "only 0.3 of what the model gives"),
    ],
)
def test_a_drop_that_cannot_be_is_refused_in_one_sentence(
    visitor: TestClient, change: dict[str, str], words: str
) -> None:
    token = token_of(visitor)
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
    refused = visitor.post("/drops", data={**form, **change}, headers=HX)
    assert refused.status_code == 422
    assert words in refused.text
    assert visitor.get("/drops").text.count("withdraw</button>") == 2


@pytest.mark.slow
def test_a_rig_is_timed_as_it_is_dressed_and_teaches_the_whole_skirt_too(
    client: TestClient, token: str
) -> None:
    water = (
        "/?water_temp_f=74&cover=rock&bottom_depth_ft=14&fish_depth_ft=14&family=football-jig&box=standard"
    )
    page = client.get(f"{water}&forage=bluegill").text
    assert "fall known to" in page
    link = re.search(r'href="(/drops\?[^"]+skirt=trimmed[^"]*)"', page)
    assert link
    at = link[1].replace("&amp;", "&")
    assert re.search(r'value="trimmed"\s+selected', client.get(at).text)
    form = {"token": token, "kind": "drop", "depth_ft": "10", "times_s": "4.1 4.2 4.3"}
    said = client.post("/drops", data={**dict(parse_qsl(at.split("?")[1])), **form}, headers=HX).text
    assert re.search(r"oz football jig, [\w -]+ in, trimmed skirt", said)
    for forage in ("bluegill", "baitfish"):
        assert "fall known to" not in client.get(f"{water}&forage={forage}").text


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


@pytest.mark.slow
def test_a_bottom_found_on_the_water_teaches_and_its_place_is_told(client: TestClient, token: str) -> None:
    """A cast on record moves the fall that the sheet counts with; taken back, it moves nothing."""
    plain = client.get("/drops").text
    made = {
        "time": "2027-04-03T06:12:00+00:00",
        "stop": "Mill <bay>",
        "family": "swim-jig",
        "head_oz": 0.375,
        "trailer": "craw",
        "line": {"material": "fluorocarbon", "test_lb": 15},
        "countdown_s": 9.0,
        "pace_ft_s": 2.0,
        "outcome": "found-bottom",
        "at_s": 8.0,
        "conditions": {"bottom_depth_ft": 14.0, "water_temp_f": 60.0},
    }
    ids = [f"00000000-0000-4000-8000-00000000000{k}" for k in range(3)]
    for id_ in ids:
        assert client.post("/api/v1/casts", json={**made, "id": id_}).status_code < 300
    shown = client.get("/drops").text
    assert "On the water: 3 bottoms found teach too" not in plain
    assert "On the water: 3 bottoms found teach too" in shown
    told = re.search(r"2027-04-03 Mill &lt;bay&gt;:\s+14\.0 ft on record, (\d+\.\d) ft ± \d\.\d ft by", shown)
    assert told
    assert 14.0 < float(told[1]) < 16.0
    ran = "00000000-0000-4000-8000-000000000009"
    high = {**made, "id": ran, "outcome": "ran-high", "at_s": None}
    assert client.post("/api/v1/casts", json=high).status_code < 300
    shown = client.get("/drops").text
    assert "On the water: 3 bottoms found and 1 run high or low teach too" in shown
    for id_ in [*ids, ran]:
        client.delete(f"/api/v1/casts/{id_}")
    assert "On the water" not in client.get("/drops").text


def test_masses_are_those_of_the_box_where_none_were_given() -> None:
    """By family and weight of the head, by shape and length of the trailer; what was weighed here stays."""
    record = DropRecord(
        family="swim-jig", head_oz=0.375, trailer="craw", trailer_length_in=4.0, depth_ft=9.0, times_s=[4.0]
    )
    heads = [OwnedHead("bladed-jig", 0.375, "lead", 12.0), OwnedHead("swim-jig", 0.5, "lead", 15.0)]
    mine = [*heads, OwnedHead("swim-jig", 0.375, "lead", 11.1)]
    tails = [OwnedTrailer("chunk", 4.0, 9.0), OwnedTrailer("craw", 3.0, 7.0), OwnedTrailer("craw", 4.0, 9.9)]
    known = weighed(record, tackle_of(mine, tails))
    assert (known.head_g, known.trailer_g) == (11.1, 9.9)
    other = weighed(record, tackle_of(heads, tails[:2]))
    assert (other.head_g, other.trailer_g) == (None, None)
    given = record.model_copy(update={"head_g": 10.0, "trailer_g": 8.0})
    assert weighed(given, tackle_of(mine, tails)) == given


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


LOGBOOK = [
    ("drop", {**RIG, "depth_ft": 10, "times_s": [5.0, 5.2]}),
    ("drop", {**RIG, "depth_ft": 15, "times_s": [7.6, 7.7, 11.0]}),
    ("drop", {**RIG, "depth_ft": 10, "times_s": [9.0, 9.1], "note": "windy"}),
    ("drop", DROP),
    ("depth", {**DEPTH, "line_material": "fluorocarbon", "test_lb": 15}),
    ("mat", MAT),
    ("mat", {**MAT, "through": True, "head_oz": 1.5}),
]


def test_a_logbook_as_it_is_shown(cat: Catalog, session: Session) -> None:
    made = [observations.add(session, observations.checked(cat, kind, data)) for kind, data in LOGBOOK]
    observations.withdraw(session, made[3].id)
    shown = drops_of(cat, observations.listed(session, with_withdrawn=True), own_of(session).learned)
    assert [row.id for row in shown.rows] == [row.id for row in reversed(made)]
    assert [row.withdrawn for row in shown.rows] == [row is made[3] for row in reversed(made)]
    assert 1 <= len(shown.timed) <= MOST_TIMED
    whole = {
        "rows": [(r.what, r.detail, r.tries, r.predicted, r.odd) for r in shown.rows],
        "lessons": shown.lessons,
        "error": shown.error_said,
        "timed": shown.timed,
        "pictures": [(p.name, p.sentence, p.worth, round(p.middle, 1)) for p in shown.pictures],
    }
    holds_to("web.drops", whole, tolerance=1e-4)


@pytest.mark.parametrize(
    ("timed", "now", "tests", "said"),
    [
        (4.5, 4.6, 1, "You timed 4.5 s, 5.7 s was expected; 4.6 s counts now."),
        (
            4.5,
            5.0,
            1,
            "You timed 4.5 s, 5.7 s was expected; 5.0 s counts now, until 2 more tests agree: "
            "a depth a little off or a slow thumb would look the same.",
        ),
        (
            4.5,
            5.0,
            4,
            "You timed 4.5 s, 5.7 s was expected; 5.0 s counts now, until 1 more test agrees: "
            "a depth a little off or a slow thumb would look the same.",
        ),
    ],
)
def test_what_a_kept_test_came_to(timed: float, now: float, tests: int, said: str) -> None:
    assert counts_now(timed, 5.7, now, tests) == said
