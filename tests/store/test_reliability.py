"""Nothing lost, nothing let in: each way that a file, a form or a stranger did harm, and no longer does."""

import io
import json
import os
import re
import sqlite3
import threading
import zipfile
from contextlib import closing
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from heathdrop import catalog as catalogue
from heathdrop.cli import app as program
from heathdrop.errors import BadInput
from heathdrop.store import backups as stored
from heathdrop.store import items, observations, scenarios, settings
from heathdrop.store.backups import backup
from heathdrop.store.database import Database, install_secret, restore
from heathdrop.store.files import exchange
from heathdrop.store.files.csvfile import read_tackle
from heathdrop.store.files.entry import parsed
from heathdrop.store.models import Item
from heathdrop.store.own import own_of

HEAD = {"family": "swim-jig", "weight_oz": 0.375}


def pieces(path: Path) -> int:
    """Pieces in the main file alone, as someone who copies that one file would find them."""
    with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro&immutable=1", uri=True)) as connection:
        return int(connection.execute("select count(*) from item").fetchone()[0])


def test_the_one_file_holds_everything_after_a_write(tmp_path: Path) -> None:
    database = Database(tmp_path / "d.sqlite")
    for k in range(3):
        with database.session() as session:
            items.add(session, "head", HEAD)
        assert pieces(database.path) == k + 1
    database.close()
    assert not (tmp_path / "d.sqlite-wal").exists()


def test_backups_make_room_by_age_and_only_among_their_own(tmp_path: Path) -> None:
    Database(tmp_path / "lake.sqlite").close()
    folder = tmp_path / "backups"
    folder.mkdir()
    others = ["lake-1-my-own-copy.sqlite", "lake-2-20250101-000000-000000-before-import.sqlite"]
    for name in others:
        (folder / name).write_bytes(b"mine")
    # A clock that was once in the future: the newest by name are the oldest by age.
    for k in range(20):
        future = folder / f"lake-2031010{k % 10}-00000{k // 10}-000000-before-import.sqlite"
        future.write_bytes(b"x")
        os.utime(future, (1_000_000 + k, 1_000_000 + k))
    made = backup(tmp_path / "lake.sqlite", "before-import")
    assert made.exists()
    assert all((folder / name).exists() for name in others)
    ours = [f for f in folder.iterdir() if f.name not in others]
    assert len(ours) == stored.MOST_BACKUPS
    assert not (folder / "lake-20310100-000000-000000-before-import.sqlite").exists()
    (tmp_path / "my [lake].sqlite").write_bytes((tmp_path / "lake.sqlite").read_bytes())
    for _ in range(23):
        backup(tmp_path / "my [lake].sqlite", "before-import")
    assert sum(f.name.startswith("my [lake]") for f in folder.iterdir()) == stored.MOST_BACKUPS


def test_a_backup_that_fails_leaves_nothing_behind(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    Database(tmp_path / "d.sqlite").close()

    def full(path: Path) -> sqlite3.Connection:
        raise sqlite3.OperationalError("database or disk is full")

    monkeypatch.setattr(stored, "reading", full)
    with pytest.raises(sqlite3.OperationalError):
        backup(tmp_path / "d.sqlite", "before-import")
    assert list((tmp_path / "backups").iterdir()) == []


@pytest.mark.parametrize("name", ["a?b.sqlite", "a#b.sqlite", "a%20b.sqlite", "my [x].sqlite", "ä b.sqlite"])
def test_any_file_name_will_do(tmp_path: Path, name: str) -> None:
    database = Database(tmp_path / name)
    with database.session() as session:
        items.add(session, "head", HEAD)
    database.close()
    assert {f.name for f in tmp_path.iterdir()} == {name}
    with Database(tmp_path / name).session() as session:
        assert len(items.listed(session)) == 1
    assert restore(tmp_path / name, backup(tmp_path / name, "before-import")).exists()


def test_another_programs_file_is_not_touched(tmp_path: Path) -> None:
    other = tmp_path / "other.sqlite"
    with closing(sqlite3.connect(other)) as connection:
        connection.execute("create table theirs (x)")
        connection.commit()
    before = other.read_bytes()
    with pytest.raises(BadInput, match="this is another program's"):
        Database(other)
    assert other.read_bytes() == before
    (tmp_path / "text.sqlite").write_text("not a data file at all, only words " * 40)
    with pytest.raises(BadInput, match="this is not one"):
        Database(tmp_path / "text.sqlite")
    with pytest.raises(BadInput, match="this is a folder"):
        Database(tmp_path)


def test_a_key_is_whole_and_never_the_data_file(tmp_path: Path) -> None:
    keeper = tmp_path / "d.key"
    keeper.write_bytes(b"")
    secret = install_secret(tmp_path / "d.sqlite")
    assert len(secret) == 32
    assert install_secret(tmp_path / "d.sqlite") == secret == keeper.read_bytes()
    assert keeper.stat().st_mode & 0o077 == 0
    own = tmp_path / "q.key"
    own.write_bytes(b"the data file")
    assert install_secret(own) != own.read_bytes()
    assert own.read_bytes() == b"the data file"


@pytest.mark.slow
def test_two_hands_at_one_piece_lose_nothing(tmp_path: Path) -> None:
    first, second = (Database(tmp_path / "d.sqlite") for _ in range(2))
    with first.session() as session:
        ids = [items.add(session, "head", HEAD).id for _ in range(10)]

    def edits(database: Database, change: dict[str, object]) -> None:
        for id_ in ids:
            with database.session() as session:
                items.edit(session, id_, change)

    hands = [
        threading.Thread(target=edits, args=args)
        for args in ((first, {"mass_g": 11.0}), (second, {"colour": "black"}))
    ]
    for hand in hands:
        hand.start()
    for hand in hands:
        hand.join()
    with first.session() as session:
        bodies = [items.body_of(row) for row in items.listed(session)]
    assert all((b["mass_g"], b["colour"]) == (11.0, "black") for b in bodies)


@pytest.fixture
def token(client: TestClient) -> str:
    found = re.search(r'name="token" value="(\w+)"', client.get("/box").text)
    assert found
    return found[1]


@pytest.fixture
def filled(tmp_path: Path) -> Database:
    database = Database(tmp_path / "d.sqlite")
    with database.session() as session:
        items.add(session, "head", {**HEAD, "colour": "=cmd|'/c calc'!A0"})
        items.add(session, "trailer", {"shape": "craw", "length_in": 4, "name": "'twas"})
        observations.add(
            session,
            observations.checked(
                catalogue.load(),
                "drop",
                {**{"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", "trailer_length_in": 4},
                 "depth_ft": 8, "times_s": [4.0, 4.2]},
            ),
        )  # fmt: skip
        body = {"conditions": {"water_temp_f": 60, "bottom_depth_ft": 9, "fish_depth_ft": 6}}
        scenarios.save(session, "Mill bay", body)
        settings.keep(session, settings.SCHOOLS, {"mat-entry": "lobbed"})
    return database


def test_a_spreadsheet_does_not_run_what_was_written(filled: Database) -> None:
    with filled.session() as session:
        text, _ = exchange.written(session, "tackle.csv")
    assert "'=cmd|'/c calc'!A0" in text
    back = read_tackle(text.encode()).rows
    assert back[0]["colour"] == "=cmd|'/c calc'!A0"
    assert back[1]["name"] == "'twas"


def test_bounds_are_looked_at_before_anything_is_read() -> None:
    with pytest.raises(BadInput, match="at most 200 characters"):
        parsed(catalogue.load(), "3/8 swim jig " + "9" * 16000)
    with pytest.raises(BadInput, match="at most 200000 rows"):
        read_tackle(b"kind\n" + b"\n" * 3_800_000)
    with pytest.raises(BadInput, match="at most 60 columns"):
        read_tackle(b"kind,family\nhead," + b"x" * 5000)
    assert not read_tackle("kind,family,weight_oz\nhead,swim-jig,0.5\n".encode("utf-16")).faults
    assert len(read_tackle(b"kind,family,weight_oz\rhead,swim-jig,0.5\r").rows) == 1


def zipped(**files: str | bytes) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        if "manifest__json" not in files:
            archive.writestr("manifest.json", json.dumps({"format": "heathdrop-export", "version": 1}))
        for name, text in files.items():
            archive.writestr(name.replace("__", ".").replace("_", "-"), text)
    return out.getvalue()


GOOD = {"water_temp_f": 60, "bottom_depth_ft": 9, "fish_depth_ft": 6}


def scenario(name: object = "a", conditions: object = GOOD, **more: object) -> bytes:
    """A zip with one scenario."""
    row = {"name": name, "body": {"conditions": conditions}, **more}
    return zipped(scenarios__json=json.dumps({"scenarios": [row]}))


HOSTILE = [
    zipped(settings__json='{"schools": "abc"}'),
    zipped(settings__json='{"schools": {"cold-water-weight": {"a": 1}}}'),
    zipped(settings__json='{"schools": {"no-topic": "x"}}'),
    zipped(scenarios__json='{"scenarios": 5}'),
    zipped(scenarios__json='{"scenarios": [5]}'),
    scenario("x" * 100),
    scenario(note="x" * 1000),
    scenario("a\0b"),
    scenario(conditions={**GOOD, "water_temp_f": 9999}),
    scenario(conditions={**GOOD, "bottom_depth_ft": -9}),
    scenario(pick={}),
    zipped(scenarios__json='{"scenarios": [{"name": "\\ud800", "body": {}}]}'),
    zipped(scenarios__json="[" * 100_000),
    zipped(checks__json='{"checks": "abc"}'),
    zipped(checks__json='{"checks": [null]}'),
    zipped(checks__json='{"checks": [["x"]]}'),
    zipped(tackle__csv="kind,family,weight_oz,quantity\nhead,swim-jig,0.5,1e999\n"),
    zipped(tackle__csv="kind,family,weight_oz,colour\nhead,swim-jig,0.5,\u202eevil\n"),
    zipped(manifest__json="5"),
    zipped(tackle__csv=b"\0" * 9_000_000),
    zipped()[:-30],
    b"PK\x03\x04 nothing",
    b"{",
    b'{"version": 99, "scenarios": []}',
    b'{"version": 1, "others": []}',
    b"",
]  # fmt: skip


@pytest.mark.parametrize("k", range(len(HOSTILE)))
def test_a_hostile_file_is_refused_in_one_sentence_and_keeps_nothing(
    client: TestClient, token: str, k: int
) -> None:
    def boxed() -> str:
        return client.get("/export/scenarios.json").text + client.get("/export/tackle.csv").text

    before = boxed()
    for sure in ("no", "yes"):
        answer = client.post(
            "/import",
            data={"token": token, "sure": sure},
            files={"file": ("x.zip" if k < 20 else "x", HOSTILE[k])},
        )
        assert answer.status_code in (200, 422)
        assert answer.headers["content-type"].startswith("text/html")
        assert "error" in answer.text
    assert boxed() == before
    assert client.get("/").status_code == 200


def test_no_refusal_of_a_page_is_hypertext_or_json(client: TestClient, token: str) -> None:
    name = "<i hx-post=/box/1/delete hx-trigger=load>" + "n" * 80
    hostile = zipped(
        scenarios__json=json.dumps({"scenarios": [{"name": name, "body": {"conditions": GOOD}}]})
    )
    answer = client.post("/import", data={"token": token, "sure": "yes"}, files={"file": ("x.zip", hostile)})
    assert answer.status_code == 422
    assert "<i hx-post" not in answer.text
    assert answer.headers["content-type"].startswith("text/html")
    gone = client.get("/nowhere")
    assert gone.status_code == 404
    assert "There is no such page." in gone.text
    assert client.get("/api/v1/nowhere").headers["content-type"] == "application/json"


@pytest.mark.parametrize(
    ("path", "form", "status"),
    [
        ("/box/1", {"quantity": "inf"}, 422), ("/box/1", {"quantity": "nan"}, 422),
        ("/box/1", {"quantity": "1e400"}, 422), ("/box/1", {"quantity": "2.7"}, 422),
        ("/box/99999999999999999999/delete", {}, 404), ("/drops/99999999999999999999/withdraw", {}, 404),
        ("/scenarios/99999999999999999999/delete", {}, 404), ("/box", {"entry": "3/0 swim jig"}, 422),
        ("/box", {"entry": "3/8 swim jig x" + "9" * 400}, 422),
        ("/box", {"entry": "3/8 swim jig \u202eevil"}, 422),
    ],
)  # fmt: skip
def test_plain_input_never_breaks_a_page(
    client: TestClient, token: str, path: str, form: dict[str, str], status: int
) -> None:
    assert client.post(path, data={"token": token, **form}).status_code == status


def test_a_bad_row_never_stops_a_page(tmp_path: Path) -> None:
    database = Database(tmp_path / "d.sqlite")
    with database.session() as session:
        settings.keep(session, settings.SCHOOLS, "abc")
    with database.session() as session:
        assert own_of(session).schools == ()


@pytest.mark.parametrize(
    "argv",
    [["export", "OUT.zip", "--data", "none.sqlite"], ["import", "text.zip", "--data", "d.sqlite"],
     ["restore", "text.zip", "--data", "d.sqlite"], ["export", "OUT.zip", "--data", "text.zip"],
     ["size", "case.json", "--data", "text.zip"], ["export", "OUT.zip", "--data", "."]],
)  # fmt: skip
def test_hostile_command_lines_end_in_one_sentence(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, argv: list[str]
) -> None:
    monkeypatch.chdir(tmp_path)
    Path("text.zip").write_text("only words " * 100)
    Path("case.json").write_text(json.dumps({"conditions": GOOD, "families": ["swim-jig"], "limit": 1}))
    done = CliRunner().invoke(program, argv)
    assert done.exit_code == 2
    assert done.exception is None or isinstance(done.exception, SystemExit)
    assert len(done.stderr.strip().splitlines()) == 1
    assert not Path("none.sqlite").exists()


def test_rows_keep_their_names_for_good(filled: Database) -> None:
    with filled.session() as session:
        row = session.get(Item, 1)
        assert row is not None
        name = row.uid
        items.edit(session, 1, {"quantity": 3})
        assert row.uid == name
