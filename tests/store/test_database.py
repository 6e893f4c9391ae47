"""The data file: migrations whole or not at all, kills, full disks, folders that cannot be written."""

import json
import os
import random
import re
import shutil
import signal
import sqlite3
import stat
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

import pytest
from alembic import op
from fastapi.testclient import TestClient
from sqlalchemy import event

from heathdrop import catalog
from heathdrop.demo import ashmoor
from heathdrop.errors import BadInput
from heathdrop.store import database as database_module
from heathdrop.store import items, observations, scenarios
from heathdrop.store.backups import MOST_BACKUPS, backup
from heathdrop.store.database import Database, install_secret, migrate, restore
from heathdrop.store.files import exchange
from heathdrop.store.files.entry import parsed
from heathdrop.web.app import create_app
from tests.web.shown import token


def pieces(path: Path) -> int:
    database = Database(path)
    try:
        with database.session() as session:
            return len(items.listed(session))
    finally:
        database.close()


def add(path: Path, count: int) -> None:
    database = Database(path)
    with database.session() as session:
        for _ in range(count):
            items.add(session, "head", {"family": "swim-jig", "weight_oz": 0.375})
    database.close()


def test_restoring_the_oldest_of_many_backups_brings_it_back(tmp_path: Path) -> None:
    """The backup made first must not make room by taking away the copy that is asked for."""
    path = tmp_path / "lake.sqlite"
    add(path, 7)
    oldest = backup(path, "before-import")
    add(path, 19)
    for _ in range(MOST_BACKUPS - 1):
        backup(path, "before-import")
    saved = restore(path, oldest)
    assert pieces(path) == 7
    assert oldest.stat().st_size > 0
    assert saved != oldest
    restore(path, saved)
    assert pieces(path) == 26


@pytest.mark.parametrize("kind", ["text", "garbage pages", "newer", "folder", "other program", "missing"])
def test_nothing_is_touched_by_a_backup_that_is_none(tmp_path: Path, kind: str) -> None:
    path, copy = tmp_path / "lake.sqlite", tmp_path / "copy.sqlite"
    add(path, 3)
    if kind == "folder":
        copy.mkdir()
    elif kind == "text":
        copy.write_text("not a data file, although it is long enough to be one " * 40)
    elif kind == "other program":
        with sqlite3.connect(copy) as other:
            other.execute("create table wine (id integer)")
    elif kind != "missing":
        copy.write_bytes(backup(path, "x").read_bytes())
        if kind == "newer":
            with sqlite3.connect(copy) as newer:
                newer.execute("update alembic_version set version_num = '9999'")
        else:
            raw = bytearray(copy.read_bytes())
            raw[4096:] = b"\xff" * (len(raw) - 4096)
            copy.write_bytes(bytes(raw))
    with pytest.raises(BadInput, match="a whole backup made by this version of Heathdrop or an older one"):
        restore(path, copy)
    assert pieces(path) == 3


def test_a_migration_cut_short_leaves_the_file_as_it_was(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    path = tmp_path / "old.sqlite"
    migrate(path, "0003")
    with sqlite3.connect(path) as old:
        old.execute(
            "insert into item (kind, data, created_at) values "
            "('head', '{\"family\": \"swim-jig\", \"weight_oz\": 0.5}', '2026-01-01 00:00:00')"
        )

    def cut(*_: object, **__: object) -> None:
        raise RuntimeError("cut short")

    with monkeypatch.context() as patch:
        patch.setattr(op, "create_index", cut)
        with pytest.raises(RuntimeError, match="cut short"):
            migrate(path)
        with sqlite3.connect(path) as after:
            assert after.execute("select version_num from alembic_version").fetchone() == ("0003",)
            assert after.execute("select count(*) from item where data is not null").fetchone() == (1,)
        fresh = tmp_path / "fresh.sqlite"
        with pytest.raises(RuntimeError, match="cut short"):
            migrate(fresh)
    assert pieces(path) == 1
    assert pieces(fresh) == 0


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


LOOK = """
import os, re, sys
from pathlib import Path
import pytest
from fastapi.testclient import TestClient
from heathdrop.web.app import create_app

def visit(path):
    web = TestClient(create_app(Path(path)), base_url='http://127.0.0.1')
    page = web.get('/box').text
    token = re.search(r'name="token" value="([^"]+)"', page)[1]
    kept = web.post('/box', data={'token': token, 'entry': '3/8 swim jig'}).status_code
    others = [web.get(at).status_code for at in ('/drops', '/export.zip')]
    return 'cannot be written now' in page, kept, 'quiet brown' in page, *others

print(visit(sys.argv[2]))  # loads all that is loaded late, which another user may not be let to
if os.geteuid() == 0:
    os.setgroups([])
    os.setgid(65534)
    os.setuid(65534)
print(visit(sys.argv[1]))
"""


@pytest.mark.slow
def test_a_folder_that_cannot_be_written_is_looked_at() -> None:
    """As another user where this one may do anything: pages and export work, a write is refused in words."""
    above = Path(tempfile.mkdtemp())  # another run of pytest shuts its own folders to other users
    above.chmod(0o755)
    home = above / "lake"
    home.mkdir()
    database = Database(home / "d.sqlite")
    with database.session() as session:
        items.add(session, "head", {"family": "swim-jig", "weight_oz": 0.5, "colour": "quiet brown"})
    database.close()
    for file in home.iterdir():
        file.chmod(0o444)
    home.chmod(0o555)
    try:
        told = subprocess.run(
            [sys.executable, "-c", LOOK, str(home / "d.sqlite"), str(above / "other.sqlite")],
            capture_output=True,
            check=False,
            text=True,
            timeout=120,
        )
    finally:
        home.chmod(0o755)
        shutil.rmtree(above)
    assert told.stdout.splitlines() == ["(False, 200, False, 200, 200)", "(True, 503, True, 200, 200)"], (
        told.stdout + told.stderr[-2000:]
    )


def filled(app: Any) -> None:
    """No page more than the file has now: the engine itself says that the disk is full."""

    def limit(connection: sqlite3.Connection, _: object) -> None:
        pages = connection.execute("PRAGMA page_count").fetchone()[0]
        connection.execute(f"PRAGMA max_page_count={pages}")

    app.state.database.engine.dispose()
    event.listen(app.state.database.engine, "connect", limit)


@pytest.mark.slow
def test_a_disk_that_fills_during_an_import_keeps_nothing_of_it(tmp_path: Path) -> None:
    """Refused as such, nothing half-done, what was there is there, no backup without content, and it goes on
    when there is room again."""
    app = create_app(tmp_path / "d.sqlite")
    web = TestClient(app, base_url="http://127.0.0.1")
    sent = {"token": token(web)}
    web.post("/box", data={**sent, "entry": "3/8 swim jig"})
    rows = "kind,family,weight_oz,colour\n" + "".join(
        f"head,swim-jig,0.375,long colour {k}\n" for k in range(900)
    )
    file = {"file": ("tackle.csv", rows.encode())}
    filled(app)
    refused = web.post("/import", data={**sent, "sure": "yes"}, files=file)
    assert refused.status_code == 503
    assert "full disk" in refused.text
    with app.state.database.session() as session:
        assert len(items.listed(session)) == 1
    assert all(f.stat().st_size > 0 for f in (tmp_path / "backups").iterdir())
    app.state.database.engine.dispose()
    app.state.database._open()
    assert "900 pieces of tackle" in web.post("/import", data={**sent, "sure": "yes"}, files=file).text
    with app.state.database.session() as session:
        assert len(items.listed(session)) == 901


def test_a_full_disk_refuses_one_write_in_words(tmp_path: Path) -> None:
    app = create_app(tmp_path / "d.sqlite", demo=True)
    web = TestClient(app, base_url="http://127.0.0.1")
    sent = {"token": token(web)}
    filled(app)
    long = {"entry": "\n".join(f"3/8 swim jig colour {k}" for k in range(90))}
    refused = web.post("/box", data={**sent, **long})
    assert refused.status_code == 503
    assert re.search(r"nothing was\s+lost", refused.text)
    assert "colour 7" not in web.get("/box").text


CAT = catalog.load()


def filled_store(path: Path) -> Database:
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
    first, second = filled_store(tmp_path / "a.sqlite"), Database(tmp_path / "b.sqlite")
    with first.session() as session:
        raw = exchange.packed(session)
    with second.session() as session:
        exchange.keep(session, exchange.unpacked(raw))
    with second.session() as session:
        assert exchange.packed(session) == raw
    for name in ("a", "b"):
        line = f"-m heathdrop.cli export {tmp_path / name}.zip --data {tmp_path / name}.sqlite"
        argv = [sys.executable, *line.split()]
        assert subprocess.run(argv, check=False, capture_output=True).returncode == 0
    assert (tmp_path / "a.zip").read_bytes() == (tmp_path / "b.zip").read_bytes() == raw
    schema = exchange.file_schema("scenarios")
    assert schema["properties"]["version"] == {"const": 1}
    assert "#/$defs/Conditions" in json.dumps(schema["$defs"]["Body"])


@pytest.mark.slow
def test_a_faulty_export_leaves_everything_as_it_was(tmp_path: Path) -> None:
    import io
    import zipfile

    database = filled_store(tmp_path / "a.sqlite")
    with database.session() as session:
        before = exchange.packed(session)
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(before)) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            text = old.read(name)
            new.writestr(name, text.replace(b"swim-jig", b"swim-toad") if name == "tackle.csv" else text)
    with pytest.raises(BadInput, match=r"tackle\.csv, line \d+, column family was “swim-toad”"):
        exchange.unpacked(out.getvalue())
    line = f"-m heathdrop.cli import {tmp_path / 'none.zip'} --data {tmp_path / 'a.sqlite'}"
    bad = subprocess.run([sys.executable, *line.split()], check=False, capture_output=True, text=True)
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
    database = filled_store(tmp_path / "a.sqlite")
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
    with filled_store(tmp_path / "source.sqlite").session() as session:
        raw = exchange.packed(session)
    path, rng = tmp_path / "mine.sqlite", random.Random(5)
    Database(path).close()
    told: list[int] = []
    for _ in range(24):
        reading, writing = os.pipe()
        child = os.fork()
        if child == 0:
            try:
                os.close(reading)
                _write_for_ever(path, raw, writing)
            finally:
                os._exit(1)
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
    filled_store(path).close()
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
