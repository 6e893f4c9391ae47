"""The export as one zip: what is in it to the letter, and every file that is refused, with its sentence."""

from __future__ import annotations

import csv
import io
import json
import re
import zipfile
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy.orm import Session

from heathdrop.store import settings
from heathdrop.store.database import Database
from heathdrop.store.files import exchange
from tests.golden_file import holds_to
from tests.said import said_of


def zipped(files: dict[str, Any], manifest: Any = None) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        said = {"format": exchange.FORMAT, "version": 1} if manifest is None else manifest
        archive.writestr(exchange.MANIFEST, json.dumps(said))
        for name, text in files.items():
            archive.writestr(name, text)
    return out.getvalue()


def test_it_comes_back_once_and_can_be_taken_back(whole: Session, tmp_path: Path) -> None:
    raw = exchange.packed(whole)
    parcel = exchange.unpacked(raw)
    assert parcel.said() == (
        "2 pieces of tackle, 1 drop test, 2 depth and mat checks, 2 scenarios, 1 plan, 1 trip, 1 cast, "
        "settings"
    )
    assert exchange.sifted(whole, parcel).said() == "nothing new"
    assert exchange.sifted(whole, parcel).there == 10
    other = Database(tmp_path / "other.sqlite")
    with other.session() as there:
        came = exchange.keep(there, parcel)
        there.flush()
        assert {k: len(v) for k, v in came.items()} == {
            "tackle.csv": 2,
            "drop-tests.csv": 1,
            "checks.json": 2,
            "scenarios.json": 2,
            "plans.json": 1,
            "trips.json": 1,
            "casts.csv": 1,
            "drills.json": 0,
            "settings.json": 2,
        }
        again = exchange.packed(there)
        assert again == raw
        assert exchange.undo(there) == 12
        there.flush()
        assert exchange.undo(there) == 0
        assert exchange.sifted(there, exchange.unpacked(exchange.packed(there))).said() == "nothing new"
        assert settings.measures(there) == "imperial"
    other.close()


@pytest.mark.parametrize("name", ["tackle.csv", "drop-tests.csv"])
def test_rows_without_ids_are_known_again_by_what_they_say(whole: Session, name: str) -> None:
    """One's own spreadsheet has no ids: read twice it brings nothing new, a row more brings that one."""
    lines = exchange.written(whole, name)[0].splitlines()
    at = lines[0].split(",").index("id")
    bare = list(csv.reader(lines))
    rows = [[cell for k, cell in enumerate(row) if k != at] for row in bare]
    text = "\n".join(",".join(f'"{cell}"' for cell in row) for row in [*rows, rows[-1]])
    parcel = exchange.looked_at(text.encode(), name)
    assert parcel.faults == []
    new = exchange.sifted(whole, parcel)
    assert (len(new.rows[name]), new.there) == (1, len(rows) - 1)
    exchange.keep(whole, parcel)
    assert exchange.sifted(whole, parcel).said() == "nothing new"


def test_what_is_refused_and_how() -> None:
    twice = zipped({"plans.json": '{"plans": []}'})
    big = zipped({"plans.json": " " * (exchange.MOST_BYTES + 1)})
    rows = "kind,family,weight_oz\n" + "head,toad,1\n" * 7
    given: dict[str, tuple[bytes, str]] = {
        "no zip": (b"PK nothing", "a.zip"),
        "cut": (twice[: len(twice) // 2], "a.zip"),
        "empty": (b"", "a.zip"),
        "no manifest": (zipped({}, {}), "a.zip"),
        "another's": (zipped({}, {"format": "other", "version": 1}), "a.zip"),
        "newer": (zipped({}, {"format": exchange.FORMAT, "version": 2}), "a.zip"),
        "no number": (zipped({}, {"format": exchange.FORMAT, "version": True}), "a.zip"),
        "nought": (zipped({}, {"format": exchange.FORMAT, "version": 0}), "a.zip"),
        "too large": (big, "a.zip"),
        "faulty": (zipped({"tackle.csv": rows}), "a.zip"),
        "json of nothing": (b'{"version": 1, "fish": []}', "a.json"),
        "json newer": (b'{"version": 2, "plans": []}', "a.json"),
        "json": (b' {"version": 1, "plans": []}', "a.json"),
        "schools": (b'{"version": 1, "schools": {"weight-lean": "lighter"}}', "a.json"),
        "record": (b'{"version": 1, "casts": []}', "a.json"),
        "csv": (rows.encode(), "a.csv"),
        "drops": (b"family,times_s\nswim-jig,5\n", "a.csv"),
        "casts": (b"family,outcome\nswim-jig,fish\n", "a.csv"),
    }
    holds_to(
        "store.exchange.refused", {k: said_of(lambda g=g: exchange.looked_at(*g)) for k, g in given.items()}
    )


def test_a_file_twice_in_a_zip_is_refused() -> None:
    out = io.BytesIO(zipped({"plans.json": "{}"}))
    with zipfile.ZipFile(out, "a") as archive, pytest.warns(UserWarning, match="Duplicate"):
        archive.writestr("plans.json", "{}")
    assert re.match(
        "refused: the file was “holding a file twice”; it must be an export made by Heathdrop.",
        said_of(lambda: exchange.unpacked(out.getvalue())),
    )


def test_the_published_schemas() -> None:
    found = {name: exchange.file_schema(name) for name in exchange.SCHEMAS}
    holds_to(
        "store.exchange.schemas", {n: {k: v for k, v in s.items() if k != "$defs"} for n, s in found.items()}
    )
    assert all(s["$defs"]["Body"]["type"] == "object" and len(s["$defs"]) > 2 for s in found.values())
    with pytest.raises(KeyError):
        exchange.file_schema("casts")
