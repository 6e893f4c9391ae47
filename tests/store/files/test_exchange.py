"""Files out and in: to the letter, every fault refused with its place, settings over nothing."""

import csv
import io
import json
import re
import zipfile
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy.orm import Session

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.store import fish, settings
from heathdrop.store.database import Database
from heathdrop.store.files import exchange, jsonfile
from heathdrop.store.files.csvfile import (
    MOST_CELL,
    MOST_COLUMNS,
    MOST_ROWS,
    TACKLE_COLUMNS,
    cast_cells,
    read_casts,
    read_drops,
    read_tackle,
    written,
)
from heathdrop.store.files.registry import REGISTRY, counted
from tests.golden_file import holds_to
from tests.said import all_said, said_of
from tests.store.test_casts import made


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
        taken = exchange.undo(there)
        assert taken is not None
        assert (taken.rows, taken.changed) == (12, 0)
        there.flush()
        assert exchange.undo(there) is None
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


TACKLE = (
    "kind,family,weight_oz,mass_g\nhead,swim-jig,3/8,10\nhead,swim-jig,heavy,10\nhead,toad,1/2,\ntrailer,,,\n",
    "Kind;Family;Weight oz;Mass g;Colour;Shelf\r\nhead;swim-jig;3/8;10,9 g;black;left\r\n"
    ";bladed-jig;1/2 oz;;;\r\n",
    "shape\tlength_in\tsplit\tquantity\tappendages\ncraw\t10 cm\tno\t3\t2\n"
    "chunk\t3\tYes\t2.5\t\nnone\t2\t\t\t\n",
    "shape,length_in,split\ncraw,4,perhaps\ncraw,4,N\ncraw,4,1\ncraw,1/0,\n",
    "test_lb,material,diameter_mm\n15,nylon,0.4 mm\n15,hemp,\n1,braid,\n",
    "inches_per_turn,name\n29,'=quick\n74 cm,\n5,\n",
    "length_ft,colour\n7.5,\n2 m,blue\n,\n",
    "kind,family,weight_oz\nspoon,swim-jig,1\n\n,,\n",
    "kind,family,weight_oz,id\nhead,swim-jig,1,00000000-0000-0000-0000-000000000001\nhead,swim-jig,1,mine\n",
    "a,b\n1,2\n",
    "",
    'kind,family\n"head,swim-jig\n',
    "kind\n" + "x" * (MOST_CELL + 1),
    "kind\n" + "," * MOST_COLUMNS,
)


DROPS = (
    "family,head_oz,trailer,trailer_length_in,depth_ft,times_s,off_reel\n"
    "swim-jig,3/8,craw,4,10,4.9 5.1;5,yes\nswim-jig,3/8,craw,4,3 m,5,no\nswim-jig,3/8,craw,4,10,,\n"
    "swim-jig,3/8,craw,4,10,0.1,\nswim-jig,3/8,craw,4,10,fast,\nswim-jig,3/8,toad,4,10,5,\n",
    "family,head_oz,trailer,trailer_length_in,depth_ft,times_s,water_temp_f,id\n"
    "swim-jig,10 g,craw,4,10,5,15 C,00000000-0000-0000-0000-000000000002\nswim-jig,1,craw,4,99,5,60,x\n",
)


def test_tackle_and_drops(cat: Catalog) -> None:
    holds_to(
        "store.csvfile",
        {
            "tackle": [said_of(lambda t=text: read_tackle(t.encode())) for text in TACKLE],
            "drops": [said_of(lambda t=text: read_drops(cat, t.encode())) for text in DROPS],
        },
    )


@pytest.mark.slow
def test_too_many_rows_are_refused() -> None:
    with pytest.raises(BadInput, match=rf"the file was “{MOST_ROWS + 2} lines long”; it must be at most"):
        read_tackle(("kind\n" + "head\n" * (MOST_ROWS + 1)).encode())
    assert len(read_tackle(("kind\n" + "head\n" * MOST_ROWS).encode()).faults) == MOST_ROWS


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "cp1252", "utf-16"])
def test_as_other_programs_save_it(encoding: str) -> None:
    raw = "kind,family,weight_oz,colour\nhead,swim-jig,1/2,rosé\n".encode(encoding)
    assert read_tackle(raw).rows[0]["colour"] == "rosé"


def test_bytes_that_are_no_text_are_refused() -> None:
    with pytest.raises(BadInput) as refusal:
        read_tackle(b"kind\n\x81\x8d\x8f\n")
    assert str(refusal.value) == "the file was “not text”; it must be a CSV file in UTF-8."


def test_casts_come_back_and_faults_are_named() -> None:
    from heathdrop.store.files.csvfile import CAST_COLUMNS

    one = {k: v for k, v in made(3, head_g=11.2, fused=True).items() if v is not None}
    text = written(CAST_COLUMNS, [cast_cells(one)])
    back = read_casts(text.encode())
    assert back.faults == []
    assert {k: back.rows[0][k] for k in ("id", "stop", "line", "countdown_s", "head_g", "fused")} == {
        k: one[k] for k in ("id", "stop", "line", "countdown_s", "head_g", "fused")
    }
    rows = [{**cast_cells(one), "line": "{no", "id": ""}, cast_cells({**one, "outcome": "ate"})]
    holds_to("store.csvfile.casts", read_casts(written(CAST_COLUMNS, rows).encode()).faults)
    # Words of a line that look like JSON, or are quoted, come back as they were.
    for words in ("{not json", '"braid"', "{}", "braid 30"):
        cells = cast_cells({**one, "line": words})
        assert read_casts(written(CAST_COLUMNS, [cells]).encode()).rows[0]["line"] == words


UID = "00000000-0000-0000-0000-00000000000"


WATER = {
    "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6},
    "families": ["swim-jig"],
}


DEEP = {"conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 12}}


RIG = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", "trailer_length_in": 4}


STOP = {"name": "Bay", "conditions": WATER["conditions"]}


DAY = {"stops": [STOP], "rods": 2}


FILES: dict[str, tuple[Any, list[Any]]] = {
    "checks": (
        jsonfile.read_checks,
        [
            {"kind": "mat", **RIG, "thickness_in": 4, "through": True, "id": UID + "1"},
            {"kind": "depth", **RIG, "pace_ft_s": 2, "count_s": 3, "depth_ft": 4},
            {"kind": "depth", **RIG, "pace_ft_s": 20, "count_s": 3, "depth_ft": 4},
            {"kind": "mat", **RIG, "through": True},
            {"kind": "mat", **RIG, "thickness_in": 4, "through": True, "trailer": "toad"},
            {"kind": "splash"},
            {"kind": "mat", **RIG, "thickness_in": 4, "through": True, "id": "mine"},
            7,
        ],
    ),
    "scenarios": (
        jsonfile.read_scenarios,
        [
            {"name": "Bay", "body": WATER, "pick": "swim-jig:0.375:craw", "id": UID + "2"},
            {"name": "Bay", "body": DEEP},
            {"name": "", "body": WATER},
            {"name": "Bay", "body": WATER, "pick": "a jig"},
            {"name": "Bay", "body": WATER, "colour": "red"},
            {"name": "Bay", "body": {"conditions": {}}},
            {"name": "Bay", "body": WATER, "id": 3},
            "Bay",
        ],
    ),
    "plans": (
        jsonfile.read_plans,
        [
            {"name": "Day", "body": DAY, "id": UID + "3"},
            {"name": "Day", "body": {**DAY, "stops": []}},
            {"name": "Day", "body": {**DAY, "rods": 0}},
            {"name": "Day", "body": {**DAY, "stops": [{**STOP, "conditions": DEEP["conditions"]}]}},
            {"name": "x" * 81, "body": DAY},
            {"body": DAY},
            [],
        ],
    ),
    "trips": (
        jsonfile.read_trips,
        [
            {"name": "Trip", "body": {"date": "2027-09-25", "stops": [STOP]}, "id": UID + "4"},
            {"name": "Trip", "body": {"date": "yesterday", "stops": [STOP]}},
            {"name": "x" * 121, "body": {}},
            None,
        ],
    ),
}


def test_every_row_or_its_fault() -> None:
    found = {}
    for key, (read, rows) in FILES.items():
        files = [json.dumps({key: [row]}) for row in rows] + [json.dumps({key: rows}), json.dumps({key: 1})]
        found[key] = [said_of(lambda text=text, read=read: read(text.encode())) for text in files]
    holds_to("store.jsonfile", found)


def test_records_settings_and_files_that_are_none() -> None:
    records = [{"casts": [made(1)]}, {"casts": [made(1), made(2, trailer="toad")]}, {"casts": [{}]}, {}]
    settings = [
        {"schools": {"weight-lean": "lighter"}, "measures": "metric"},
        {"schools": {"weight-lean": "much"}},
        {"schools": {"colour": "red"}},
        {"schools": [1]},
        {"schools": {"weight-lean": 2}},
        {"measures": "furlongs"},
        {},
    ]
    texts = ["[]", "{", "", '{"casts": {}}', '{"casts": ' + json.dumps([0] * 5001) + "}"]
    said = all_said(lambda t: jsonfile.read_record(t.encode(), "record.json"), map(json.dumps, records))
    said += [
        [text[:20], *row[1:]]
        for text, row in zip(
            texts, all_said(lambda t: jsonfile.read_record(t.encode(), "r.json"), texts), strict=True
        )
    ]
    said += all_said(lambda t: jsonfile.read_settings(t.encode()), map(json.dumps, settings))
    holds_to("store.jsonfile.others", said)


def test_what_is_written_is_sorted_and_ends_its_line() -> None:
    assert jsonfile.written({"b": "é", "a": 1}) == '{\n "a": 1,\n "b": "é"\n}\n'
    assert jsonfile.without({"a": 1, "b": 2, "c": 3}, "a", "c") == {"b": 2}


def test_every_file_to_the_letter(whole: Session) -> None:
    files = {e.name: exchange.written(whole, e.name) for e in REGISTRY}
    holds_to("store.exchange", files)
    with zipfile.ZipFile(io.BytesIO(exchange.packed(whole))) as archive:
        assert sorted(archive.namelist()) == sorted([*files, exchange.MANIFEST])
        assert {n: archive.read(n).decode() for n in files} == {n: text for n, (text, _) in files.items()}
        assert json.loads(archive.read(exchange.MANIFEST)) == {
            "format": "heathdrop-export",
            "version": 1,
            "files": sorted(files),
        }
    assert exchange.packed(whole) == exchange.packed(whole)
    with pytest.raises(KeyError):
        exchange.written(whole, "fish.csv")


def test_counts_are_said_in_words() -> None:
    assert [counted(n, "cast", "casts") for n in (0, 1, 2)] == ["0 casts", "1 cast", "2 casts"]


FILE = {
    "schools": {"weight-lean": "lighter", "cold-water-weight": "heavy-dragged"},
    "measures": "metric",
    "hand": True,
    fish.FISH: {"head weight": {"value": 1.1, "casts": 90}},
}


def test_an_import_of_settings_is_said_and_can_be_taken_back(session: Session) -> None:
    """Counted before it is brought in, nothing where all is set, gone after the undo."""
    parcel = exchange.Parcel({"settings.json": [FILE]})
    assert exchange.sifted(session, parcel).said() == "settings"
    assert len(exchange.keep(session, parcel)["settings.json"]) == 5
    assert settings.measures(session) == "metric"
    assert exchange.sifted(session, parcel).said() == "nothing new"
    assert not any(exchange.keep(session, parcel).values())  # brought in twice, taken back once
    taken = exchange.undo(session)
    assert taken is not None
    assert taken.rows == 5
    assert (settings.measures(session), settings.schools(session)) == ("imperial", {})
    assert exchange.undo(session) is None


def test_what_is_written_comes_back() -> None:
    rows: list[dict[str, Any]] = [
        {"kind": "head", "family": "swim-jig", "weight_oz": 0.375, "material": "lead", "colour": "=black"},
        {
            "kind": "trailer",
            "shape": "craw",
            "length_in": 4.0,
            "split": False,
            "name": "'mine",
            "quantity": 2,
        },
    ]
    text = written(TACKLE_COLUMNS, rows)
    assert text.splitlines()[1] == "head,swim-jig,0.375,lead,,,,,,,,,,,,,,,,,,,'=black,,"
    assert text.splitlines()[2] == "trailer,,,,,,craw,4.0,,,,,no,,,,,,,,,''mine,,2,"
    back = read_tackle(text.encode()).rows
    assert [{k: b[k] for k in r} for b, r in zip(back, rows, strict=True)] == rows
