"""What goes out, file by file, and how it is counted."""

from __future__ import annotations

import io
import json
import zipfile
from collections.abc import Iterator
from pathlib import Path

import pytest
from sqlalchemy.orm import Session

from heathdrop.catalog import Catalog
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.trip import TripBody
from heathdrop.store import casts, items, observations, plans, scenarios, settings, trips
from heathdrop.store.database import Database
from heathdrop.store.files import exchange
from heathdrop.store.files.registry import REGISTRY, counted
from tests.golden_file import holds_to
from tests.store.test_casts import made
from tests.store.test_items import CRAW, HEAD
from tests.store.test_observations import DEPTH, DROP, MAT

UID = "00000000-0000-0000-0000-0000000000{:02}"
STOP = {"name": "Bay", "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6}}
WATER = {"conditions": STOP["conditions"], "families": ["swim-jig"]}


@pytest.fixture
def session(tmp_path: Path, cat: Catalog) -> Iterator[Session]:
    """One row of each table, named for good by number."""
    database = Database(tmp_path / "d.sqlite")
    with database.session() as session:
        items.add(session, "head", HEAD, UID.format(1))
        items.add(session, "trailer", CRAW, UID.format(2))
        for n, (kind, row) in enumerate((("drop", DROP), ("depth", DEPTH), ("mat", MAT))):
            observations.add(session, observations.checked(cat, kind, row), UID.format(3 + n))
        scenarios.save(session, "Bay", WATER, "swim-jig:0.375:craw", "a note", UID.format(6))
        scenarios.save(session, "Cove", WATER, "no rig at all", "", UID.format(7))
        plans.keep(session, "A day", {"stops": [STOP], "rods": 2}, UID.format(8))
        body = TripBody.model_validate({"date": "2027-09-25", "stops": [STOP]})
        trips.begin(session, "A trip", body, UID.format(9))
        casts.keep(session, [MadeCast.model_validate(made(1, fish={"length_in": 16.5}, outcome="fish"))])
        settings.keep(session, settings.SCHOOLS, {"weight-lean": "lighter"})
        settings.keep(session, settings.MEASURES, "metric")
        yield session
    database.close()


def test_every_file_to_the_letter(session: Session) -> None:
    files = {e.name: exchange.written(session, e.name) for e in REGISTRY}
    holds_to("store.exchange", files)
    with zipfile.ZipFile(io.BytesIO(exchange.packed(session))) as archive:
        assert sorted(archive.namelist()) == sorted([*files, exchange.MANIFEST])
        assert {n: archive.read(n).decode() for n in files} == {n: text for n, (text, _) in files.items()}
        assert json.loads(archive.read(exchange.MANIFEST)) == {
            "format": "heathdrop-export",
            "version": 1,
            "files": sorted(files),
        }
    assert exchange.packed(session) == exchange.packed(session)
    with pytest.raises(KeyError):
        exchange.written(session, "fish.csv")


def test_counts_are_said_in_words() -> None:
    assert [counted(n, "cast", "casts") for n in (0, 1, 2)] == ["0 casts", "1 cast", "2 casts"]
