"""The data file: migrations whole or not at all, restoring without loss."""

from __future__ import annotations

import sqlite3
import stat
from pathlib import Path

import pytest
from alembic import op

from heathdrop.errors import BadInput
from heathdrop.store import items, scenarios
from heathdrop.store.database import MOST_BACKUPS, Database, backup, install_secret, migrate, restore


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
