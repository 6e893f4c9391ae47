"""Bad days: kills, sync programs, other people's files, strangers' files."""

import os
import random
import shutil
import sqlite3
import stat
import subprocess
import sys
import time
import uuid
from concurrent.futures import ThreadPoolExecutor
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import select

from bench.hostile_files import sixty
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.trip import TripBody
from heathdrop.errors import BadInput
from heathdrop.store import casts, devices, items, plans, rows, scenarios, trips
from heathdrop.store.backups import backup, damage_said, state_of
from heathdrop.store.database import Database, Replaced, restore
from heathdrop.store.files.exchange import keep, looked_at, packed, undo, unpacked
from heathdrop.store.models import Device, SavedPlan
from tests.store.test_casts import made
from tests.web.shown import token

BODY = {
    "conditions": {"water_temp_f": 44, "bottom_depth_ft": 9, "fish_depth_ft": 6, "cover": {"kind": "open"}}
}


HEAD = {"family": "swim-jig", "weight_oz": 0.375}


#: A writer that dies with half of its change in the file and the rest in a rollback journal.
DIES = """
import os, sqlite3, sys
c = sqlite3.connect(sys.argv[1], isolation_level=None)
c.execute("pragma journal_mode=delete"); c.execute("pragma cache_size=2"); c.execute("pragma synchronous=off")
c.execute("begin immediate")
for k in range(400):
    c.execute("update item set body = ? where id = 1", ("x" * 4000 + str(k),))
    c.execute("insert into item (uid, version, created_at, kind, body) "
              "values (?, 1, '2027-01-01', 'head', ?)", (str(k), "y" * 4000))
os._exit(9)
"""


def lake(path: Path) -> Database:
    database = Database(path)
    with database.session() as session:
        items.add(session, "head", HEAD)
        scenarios.save(session, "Mine", BODY)
    return database


def test_a_hot_journal_is_rolled_back_and_the_file_opens(tmp_path: Path) -> None:
    path = tmp_path / "lake.sqlite"
    lake(path).close()
    with closing(sqlite3.connect(path)) as plain:
        plain.execute("pragma journal_mode=delete")
    died = subprocess.run([sys.executable, "-c", DIES, str(path)], check=False, timeout=60)
    assert died.returncode == 9
    assert path.with_name("lake.sqlite-journal").exists()
    database = Database(path)
    with database.session() as session:
        assert [r.body["family"] for r in items.listed(session)] == ["swim-jig"]
        items.add(session, "head", HEAD)
    database.close()


@pytest.mark.parametrize("then", ["removed", "replaced", "written over", "looked at"])
def test_a_file_that_is_no_longer_the_open_one_takes_no_write(tmp_path: Path, then: str) -> None:
    path = tmp_path / "lake.sqlite"
    database = lake(path)
    copy = tmp_path / "copy.sqlite"
    shutil.copy(path, copy)
    if then in ("removed", "replaced"):
        path.unlink()
    else:  # grown, then a shorter copy written over it in place: the same file to the system
        with database.session() as session:
            for _ in range(60):
                items.add(session, "head", {**HEAD, "colour": "x" * 80})
        path.write_bytes(copy.read_bytes())
    if then == "replaced":
        copy.replace(path)
    if then == "looked at":  # a page that is only read shows what stands there now
        with database.session() as session:
            assert len(items.listed(session)) == 1
    with pytest.raises(Replaced), database.session() as session:
        items.add(session, "head", HEAD)
    if then == "removed":
        return
    # What stands there now is opened, and takes the next write for good.
    with database.session() as session:
        items.add(session, "head", HEAD)
    database.close()
    again = Database(path)
    with again.session() as session:
        assert len(items.listed(session)) == 2
    again.close()
    with closing(sqlite3.connect(path)) as plain:
        assert plain.execute("pragma integrity_check").fetchone() == ("ok",)


def test_a_log_that_another_program_folds_back_in_parts_is_no_other_file(tmp_path: Path) -> None:
    database = lake(tmp_path / "lake.sqlite")
    with closing(sqlite3.connect(database.path)) as other, closing(sqlite3.connect(database.path)) as reader:
        other.execute("update item set kind = kind")
        other.commit()
        reader.execute("begin")
        reader.execute("select count(*) from item").fetchone()  # holds what comes now back in the log
        other.execute("update alembic_version set version_num = version_num")
        other.commit()
        other.execute("pragma wal_checkpoint(passive)")
        with database.session() as session:
            assert len(items.listed(session)) == 1
        reader.rollback()
        other.execute("pragma wal_checkpoint(passive)")
        with database.session() as session:
            items.add(session, "head", HEAD)
    database.close()


def test_what_another_of_our_programs_writes_is_no_other_file(tmp_path: Path) -> None:
    path = tmp_path / "lake.sqlite"
    one, two = lake(path), Database(path)
    for database in (one, two, two, one):
        with database.session() as session:
            items.add(session, "head", HEAD)
    with two.session() as session:
        assert len(items.listed(session)) == 5
    one.close()
    two.close()


@pytest.mark.slow
def test_more_casts_than_a_season_go_out_and_come_back(tmp_path: Path) -> None:
    database = lake(tmp_path / "lake.sqlite")
    made = [
        MadeCast.model_validate(
            {
                "id": str(uuid.UUID(int=k + 1)),
                "time": f"2027-04-03T06:{k // 60 % 60:02d}:{k % 60:02d}+01:00",
                "family": "swim-jig",
                "head_oz": 0.375,
                "trailer": "craw",
                "trailer_length_in": 4.0,
                "countdown_s": 2.0,
                "pace_ft_s": 2.0,
                "outcome": "nothing",
                "note": "a line\nand another" if k % 50 == 0 else "",
            }
        )
        for k in range(6000)
    ]
    with database.session() as session:
        casts.keep(session, made)
        out = packed(session)
    database.close()
    other = Database(tmp_path / "other.sqlite")
    with other.session() as session:
        keep(session, unpacked(out))
    with other.session() as session:
        assert packed(session) == out
    other.close()


def test_a_second_trip_of_the_longest_name_comes_back(tmp_path: Path) -> None:
    database = Database(tmp_path / "lake.sqlite")
    stop = {"name": "Bay", "conditions": BODY["conditions"]}
    with database.session() as session:
        for _ in range(3):
            trips.begin(session, "n" * 120, TripBody.model_validate({"date": "2027-04-03", "stops": [stop]}))
        out = packed(session)
    assert unpacked(out).rows["trips.json"]
    database.close()


def test_a_file_writes_over_nothing_and_its_undo_takes_only_what_it_brought(tmp_path: Path) -> None:
    database, theirs = lake(tmp_path / "mine.sqlite"), Database(tmp_path / "theirs.sqlite")
    warm = {"conditions": {**BODY["conditions"], "water_temp_f": 88}}
    with theirs.session() as session:
        scenarios.save(session, "Mine", warm)
        out = packed(session)
    with database.session() as session:
        keep(session, unpacked(out))
    with database.session() as session:
        found = {s.name: s.body["conditions"]["water_temp_f"] for s in scenarios.listed(session)}
        assert found == {"Mine": 44, "Mine (from a file)": 88}
        taken = undo(session)
        assert taken is not None
        assert taken.rows == 1
    with database.session() as session:
        assert [s.name for s in scenarios.listed(session)] == ["Mine"]
        # An import that was undone can be done again.
        assert looked_at(out, "x.zip").rows["scenarios.json"]
        keep(session, unpacked(out))
        assert len(scenarios.listed(session)) == 2
    database.close()
    theirs.close()


def test_what_was_put_away_comes_back_from_ones_own_export(tmp_path: Path) -> None:
    database = lake(tmp_path / "lake.sqlite")
    with database.session() as session:
        plans.keep(
            session,
            "Day",
            {"version": 1, "date": "", "box": "standard", "schools": {}, "rods": 2, "stops": []},
        )
        out = packed(session)
        items.delete(session, items.listed(session)[0].id)
        scenarios.delete(session, scenarios.listed(session)[0].id)
        rows.put_away(session, SavedPlan, plans.listed(session)[0].id)
    with database.session() as session:
        keep(session, unpacked(out))
    with database.session() as session:
        assert packed(session) == out
    database.close()


def test_a_restore_lets_no_phone_in_and_takes_only_this_programs_files(tmp_path: Path) -> None:
    path = tmp_path / "lake.sqlite"
    database = lake(path)
    uid = devices.pair(database, "phone")
    copy = backup(path, "before-import")
    with database.session() as session:
        devices.send_off(session, session.scalars(select(Device)).one().id)
    database.close()
    restore(path, copy)
    database = Database(path)
    assert not devices.seen(database, uid)
    database.close()
    other = tmp_path / "other.sqlite"
    with closing(sqlite3.connect(other)) as plain, plain:
        plain.execute("create table customers (id integer)")
        plain.execute("create table alembic_version (version_num text)")
        plain.execute("insert into alembic_version values ('0003')")
    with pytest.raises(BadInput, match="a whole backup made by this version"):
        restore(path, other)
    database = Database(path)
    with database.session() as session:
        assert len(items.listed(session)) == 1
    database.close()


def test_data_backups_and_key_are_the_owners_alone(tmp_path: Path) -> None:
    path = tmp_path / "lake.sqlite"
    lake(path).close()
    (tmp_path / "backups").mkdir()
    stale = tmp_path / "backups" / "lake-20270101-000000-000000-before-import.part"
    stale.write_bytes(b"half")
    os.utime(stale, (time.time() - 90.0,) * 2)  # a younger one may be in the making
    copy = backup(path, "before-import")
    Database(path).close()
    for file in (path, copy):
        assert stat.S_IMODE(file.stat().st_mode) == 0o600, file.name
    assert not stale.exists()


def bent(path: Path) -> None:
    """Twelve pages of a data file bent, as a disk does."""
    raw = bytearray(path.read_bytes())
    for page in range(2, min(14, len(raw) // 4096)):
        raw[page * 4096 : page * 4096 + 4096] = b"\xa5" * 4096
    path.write_bytes(bytes(raw))


def test_a_damaged_file_is_said_makes_no_room_and_is_put_right(client: TestClient) -> None:
    """Its backups push no sound one out; pages and command say which backup to put back; restore does."""
    app: Any = client.app
    path: Path = app.state.database.path
    sound = backup(path, "before-import")
    app.state.database.engine.dispose()
    for beside in ("-wal", "-shm"):
        path.with_name(path.name + beside).unlink(missing_ok=True)
    bent(path)
    with pytest.raises(sqlite3.DatabaseError):
        backup(path, "before-import")
    assert [f.name for f in sound.parent.iterdir()] == [sound.name]
    assert state_of(path) == ("damaged", [(sound.name, True)])
    assert sound.name in damage_said(path)
    checked = subprocess.run(
        [sys.executable, "-m", "heathdrop.cli", "check", "--data", str(path)],
        capture_output=True,
        text=True,
        check=False,
    )
    assert (checked.returncode, checked.stdout.splitlines()[0]) == (1, f"{path.name}: damaged")
    aside = restore(path, sound)
    assert aside.suffix == ".damaged"
    assert state_of(path)[0] == "sound"


def test_a_file_called_backups_is_said(tmp_path: Path) -> None:
    lake(tmp_path / "lake.sqlite").close()
    (tmp_path / "backups").write_text("")
    with pytest.raises(BadInput, match="the folder of backups was “backups”"):
        backup(tmp_path / "lake.sqlite", "before-import")


def test_eight_backups_at_once_are_eight(tmp_path: Path) -> None:
    lake(tmp_path / "lake.sqlite").close()
    with ThreadPoolExecutor(8) as pool:
        made_ = list(pool.map(lambda _: backup(tmp_path / "lake.sqlite", "before-import"), range(8)))
    assert len({f.name for f in made_ if f.exists()}) == 8


PAGES = ("/box", "/drops", "/plan", "/deck", "/deck/record")


@pytest.mark.slow
@pytest.mark.long
@pytest.mark.parametrize("seed", [1, 2])
def test_no_file_breaks_anything_or_is_kept_in_part(client: TestClient, seed: int) -> None:
    """Each is refused in one sentence and nothing changed, or it is kept whole; every page stands."""
    sent = {"token": token(client), "sure": "yes"}
    client.post("/api/v1/casts", json=[made(1), made(2, fish={"length_in": 14.0})])
    client.post("/deck", data={"token": sent["token"]})
    export, refused = client.get("/export.zip").content, 0
    own = client.post("/import", data=sent, files={"file": ("x.zip", export)})
    assert own.status_code == 200
    for name, content in sixty(export, random.Random(seed)):
        answer = client.post("/import", data=sent, files={"file": ("x.zip", content)})
        assert answer.status_code in (200, 422, 413), (name, answer.text[:300])
        assert "<img src=x" not in answer.text, name
        now = client.get("/export.zip").content
        if answer.status_code == 200:
            export = now
        else:
            refused += 1
            assert now == export, name
        for page in PAGES if answer.status_code == 200 or refused % 10 == 0 else ():
            assert client.get(page).status_code == 200, (name, page)
    assert refused >= 40
