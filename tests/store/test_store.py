"""Nothing lost: files there and back, migrations, backups, a killed process, a file that cannot be
written."""

from __future__ import annotations

import json
import os
import random
import signal
import sqlite3
import subprocess
import sys
import time
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from heathdrop import catalog
from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.store import database as database_module
from heathdrop.store import items, observations, scenarios
from heathdrop.store.database import Database, backup, migrate, restore
from heathdrop.store.files import exchange
from heathdrop.store.files.entry import parsed
from heathdrop.web.app import create_app

CAT = catalog.load()


def filled(path: Path) -> Database:
    database = Database(path)
    ashmoor.fill(database)
    with database.session() as session:
        mat = {
            "family": "punch-rig",
            "head_oz": 1.0,
            "trailer": "beaver",
            "trailer_length_in": 4.0,
            "thickness_in": 4,
            "through": False,
        }
        observations.add(session, observations.checked(CAT, "mat", mat))
    return database


@pytest.mark.slow
def test_an_export_comes_back_the_same(tmp_path: Path) -> None:
    first, second = filled(tmp_path / "a.sqlite"), Database(tmp_path / "b.sqlite")
    with first.session() as session:
        raw = exchange.packed(session)
    with second.session() as session:
        exchange.keep(session, exchange.unpacked(raw))
    with second.session() as session:
        assert exchange.packed(session) == raw
    for name in ("a", "b"):
        argv = [
            sys.executable,
            "-m",
            "heathdrop.cli",
            "export",
            str(tmp_path / f"{name}.zip"),
            "--data",
            str(tmp_path / f"{name}.sqlite"),
        ]
        assert subprocess.run(argv, check=False, capture_output=True).returncode == 0
    assert (tmp_path / "a.zip").read_bytes() == (tmp_path / "b.zip").read_bytes() == raw
    schema = exchange.file_schema("scenarios")
    assert schema["properties"]["version"] == {"const": 1}
    assert "#/$defs/Conditions" in json.dumps(schema["$defs"]["Body"])


@pytest.mark.slow
def test_a_faulty_export_leaves_everything_as_it_was(tmp_path: Path) -> None:
    import io
    import zipfile

    database = filled(tmp_path / "a.sqlite")
    with database.session() as session:
        before = exchange.packed(session)
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(before)) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            text = old.read(name)
            new.writestr(name, text.replace(b"swim-jig", b"swim-toad") if name == "tackle.csv" else text)
    with pytest.raises(BadInput, match=r"tackle\.csv, line \d+, column family was “swim-toad”"):
        exchange.unpacked(out.getvalue())
    bad = subprocess.run(
        [
            sys.executable,
            "-m",
            "heathdrop.cli",
            "import",
            str(tmp_path / "none.zip"),
            "--data",
            str(tmp_path / "a.sqlite"),
        ],
        check=False,
        capture_output=True,
        text=True,
    )
    assert (bad.returncode, "readable" in bad.stderr) == (2, True)
    with database.session() as session:
        assert exchange.packed(session) == before


def test_the_newest_revision_is_the_migrations_head() -> None:
    from alembic.config import Config
    from alembic.script import ScriptDirectory

    config = Config()
    config.set_main_option("script_location", str(Path(database_module.__file__).parent / "migrations"))
    assert ScriptDirectory.from_config(config).get_current_head() == database_module.newest()


@pytest.mark.parametrize("released", ["0001", "0002"])
def test_every_released_version_migrates_with_its_data(tmp_path: Path, released: str) -> None:
    path = tmp_path / "old.sqlite"
    migrate(path, released)
    with sqlite3.connect(path) as old:
        row = (
            "Old wall",
            "note",
            json.dumps({"conditions": {"water_temp_f": 50}}),
            "",
            "2026-01-02 03:04:05.000000",
        )
        old.execute("insert into scenario (name, note, body, pick, created_at) values (?, ?, ?, ?, ?)", row)
    database = Database(path)
    with database.session() as session:
        kept = scenarios.listed(session)
        assert [(s.name, s.body["conditions"]["water_temp_f"]) for s in kept] == [("Old wall", 50)]
        items.add(session, *parsed(CAT, "3/8 swim jig"))
    copies = list((tmp_path / "backups").glob(f"*before-migration-from-{released}.sqlite"))
    assert len(copies) == 1
    with sqlite3.connect(copies[0]) as copy:
        assert copy.execute("select version_num from alembic_version").fetchone() == (released,)


def test_a_backup_is_restored_and_the_present_kept(tmp_path: Path) -> None:
    database = filled(tmp_path / "a.sqlite")
    copy = backup(database.path, "by-hand")
    with database.session() as session:
        for row in items.listed(session):
            items.delete(session, row.id)
    database.close()
    saved = restore(tmp_path / "a.sqlite", copy)
    with Database(tmp_path / "a.sqlite").session() as session:
        assert len(items.listed(session)) > 20
    assert "before-restore" in saved.name
    with pytest.raises(BadInput, match="a whole backup made by this version of Heathdrop"):
        restore(tmp_path / "a.sqlite", tmp_path / "nothing.sqlite")


def _write_for_ever(path: Path, raw: bytes, out: int) -> None:
    """In a child process: keep records and imports, telling each committed id, until killed."""
    database = Database(path)
    for k in range(10**6):
        with database.session() as session:
            if k % 5 == 4:
                exchange.keep(session, exchange.unpacked(raw))
            row = items.add(session, *parsed(CAT, f"3/8 swim jig number {k}"))
        os.write(out, f"{row.id}\n".encode())


@pytest.mark.slow
def test_killing_the_process_loses_nothing_committed(tmp_path: Path) -> None:
    """Killed at random moments of writes and imports, two dozen times over: every record it told of is
    there."""
    with filled(tmp_path / "source.sqlite").session() as session:
        raw = exchange.packed(session)
    path, rng = tmp_path / "mine.sqlite", random.Random(5)
    Database(path).close()
    told: list[int] = []
    for _ in range(24):
        reading, writing = os.pipe()
        child = os.fork()
        if child == 0:
            os.close(reading)
            _write_for_ever(path, raw, writing)
            os._exit(0)
        os.close(writing)
        time.sleep(rng.uniform(0.05, 0.3))
        os.kill(child, signal.SIGKILL)
        os.waitpid(child, 0)
        with os.fdopen(reading) as pipe:
            told += [int(line) for line in pipe.read().split("\n")[:-1]]
    with sqlite3.connect(path) as after:
        assert after.execute("pragma integrity_check").fetchone() == ("ok",)
        kept = {row[0] for row in after.execute("select id from item")}
    assert len(told) > 20
    assert set(told) <= kept
    whole = len(exchange.unpacked(raw).rows["tackle.csv"])
    with Database(path).session() as session:
        brought = [i for i in items.listed(session) if not str(i.body.get("colour", "")).startswith("number")]
    assert len(brought) % whole == 0  # an import came whole or not at all


@pytest.mark.slow
def test_a_file_that_cannot_be_written_is_still_read(tmp_path: Path) -> None:
    path = tmp_path / "mine.sqlite"
    filled(path).close()
    holder = sqlite3.connect(path)
    app = create_app(path)
    with TestClient(app, base_url="http://127.0.0.1") as client:
        token = client.get("/box").text.split('name="token" value="')[1].split('"')[0]
        holder.execute("begin exclusive")
        app.state.database.engine.dispose()
        try:
            answer = client.post(
                "/box", data={"token": token, "entry": "3/8 swim jig"}, headers={"hx-request": "true"}
            )
        finally:
            holder.rollback()
        assert answer.status_code == 503
        assert "cannot be written now" in answer.text
        page = client.get("/box")
        assert page.status_code == 200
        assert "nothing new is kept" in page.text
        again = client.post(
            "/box", data={"token": token, "entry": "3/8 swim jig"}, headers={"hx-request": "true"}
        )
        assert again.status_code == 200
        assert "nothing new is kept" not in client.get("/box").text
    holder.close()
    app.state.database.close()


@pytest.mark.skipif(os.geteuid() == 0, reason="root writes to read-only files")
def test_a_read_only_file_opens_for_reading(tmp_path: Path) -> None:
    path = tmp_path / "mine.sqlite"
    filled(path).close()
    path.chmod(0o400)
    assert Database(path).read_only
