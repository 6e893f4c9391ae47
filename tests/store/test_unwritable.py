"""A folder that cannot be written, and a disk that fills, as the system itself says it."""

from __future__ import annotations

import re
import sqlite3
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import event

from heathdrop.store import items
from heathdrop.store.database import Database
from heathdrop.web.app import create_app
from tests.web.shown import token

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
def test_a_folder_that_cannot_be_written_is_looked_at(tmp_path: Path) -> None:
    """As another user where this one may do anything: pages and export work, a write is refused in words."""
    home = tmp_path / "lake"
    home.mkdir()
    database = Database(home / "d.sqlite")
    with database.session() as session:
        items.add(session, "head", {"family": "swim-jig", "weight_oz": 0.5, "colour": "quiet brown"})
    database.close()
    for file in home.iterdir():
        file.chmod(0o444)
    home.chmod(0o555)
    # Beside other workers a test's folder lies a level deeper.
    for above in (tmp_path, *tmp_path.parents[:3]):
        above.chmod(above.stat().st_mode | 0o055)
    try:
        told = subprocess.run(
            [sys.executable, "-c", LOOK, str(home / "d.sqlite"), str(tmp_path / "other.sqlite")],
            capture_output=True,
            check=False,
            text=True,
            timeout=120,
        )
    finally:
        home.chmod(0o755)
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
