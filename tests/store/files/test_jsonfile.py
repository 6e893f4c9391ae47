"""JSON files of the export: what each row becomes, or the sentence with its place."""

from __future__ import annotations

import json
from typing import Any

from heathdrop.store.files import jsonfile
from tests.golden_file import holds_to
from tests.said import all_said
from tests.store.test_casts import made

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
        found[key] = all_said(lambda text, read=read: read(text.encode()), files)
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
