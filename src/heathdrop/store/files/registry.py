"""What goes out of a data file and comes back: one entry a table.

Each entry knows its file's name, how its rows are written, how a file of it is read (every fault named)
and how read rows are kept. The zip, the single downloads, the import and their words are made from it.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any

from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.store import items, observations, scenarios, settings
from heathdrop.store.files import csvfile
from heathdrop.validation import bad_input

VERSION = 1
Row = dict[str, Any]


@dataclass
class Read:
    """What a file holds: rows ready to keep, columns passed over, faults in words."""

    rows: list[Row] = field(default_factory=list)
    passed_over: list[str] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Exported:
    """One table's way out and back. ``counted`` says how many came, in words."""

    name: str
    media: str
    counted: Callable[[int], str]
    rows: Callable[[Session], list[Row]]
    written: Callable[[list[Row]], str]
    read: Callable[[bytes], Read]
    keep: Callable[[Session, Sequence[Row]], None]


def _json(value: Any) -> str:
    return json.dumps(value, indent=1, sort_keys=True, ensure_ascii=False) + "\n"


def json_object(raw: bytes, name: str) -> Row:
    """The JSON object in a file. Raises BadInput."""
    try:
        value = json.loads(raw)
    except ValueError as error:
        raise BadInput(name, "not JSON", "a JSON object") from error
    if not isinstance(value, dict):
        raise BadInput(name, "not an object", "a JSON object")
    return value


def _listed(raw: bytes, name: str, key: str) -> list[Any]:
    rows = json_object(raw, name).get(key, [])
    if not isinstance(rows, list):
        raise BadInput(f"{name}, {key}", "not a list", "a list")
    return rows


def _of(csv: csvfile.Read) -> Read:
    return Read(csv.rows, csv.passed_over, csv.faults)


def counted(count: int, one: str, many: str) -> str:
    """``1 drop test``, ``3 drop tests``."""
    return f"{count} {one if count == 1 else many}"


def _tackle_rows(session: Session) -> list[Row]:
    return [{"kind": r.kind, **items.body_of(r)} for r in items.listed(session)]


def _keep_tackle(session: Session, rows: Sequence[Row]) -> None:
    for row in rows:
        items.add(session, row["kind"], {k: v for k, v in row.items() if k != "kind"})


def _drop_rows(session: Session) -> list[Row]:
    return [observations.body_of(r) for r in observations.listed(session) if r.kind == "drop"]


def _keep_drops(session: Session, rows: Sequence[Row]) -> None:
    for row in rows:
        observations.add(session, observations.checked(catalogue.load(), "drop", row))


def _check_rows(session: Session) -> list[Row]:
    kept = observations.listed(session)
    return [{"kind": r.kind, **observations.body_of(r)} for r in kept if r.kind != "drop"]


def _read_checks(raw: bytes) -> Read:
    read = Read()
    for k, row in enumerate(_listed(raw, "checks.json", "checks")):
        at = f"checks.json, checks[{k}]"
        if not isinstance(row, dict):
            raise BadInput(at, "not an object", "an object")
        plain = {name: value for name, value in row.items() if name != "kind"}
        record = observations.checked(catalogue.load(), str(row.get("kind", "")), plain, f"{at}.")
        read.rows.append({"kind": record.kind, **record.model_dump(exclude_none=True)})
    return read


def _keep_checks(session: Session, rows: Sequence[Row]) -> None:
    for row in rows:
        plain = {name: value for name, value in row.items() if name != "kind"}
        observations.add(session, observations.checked(catalogue.load(), row["kind"], plain))


def _scenario_rows(session: Session) -> list[Row]:
    saved = scenarios.listed(session)
    return [{"name": s.name, "note": s.note, "pick": s.pick, "body": scenarios.body_of(s)} for s in saved]


def _read_scenarios(raw: bytes) -> Read:
    rows = _listed(raw, "scenarios.json", "scenarios")
    return Read([_scenario(k, row) for k, row in enumerate(rows)])


def _scenario(k: int, row: Any) -> Row:
    at = f"scenarios.json, scenarios[{k}]"
    if not isinstance(row, dict) or not isinstance(row.get("name"), str):
        raise BadInput(f"{at}.name", None, "a text")
    try:
        SizeRequest.model_validate(row.get("body"))
    except ValidationError as error:
        first = bad_input(error.errors())
        raise BadInput(f"{at}.body.{first.field}", first.given, first.allowed) from error
    return row


def _keep_scenarios(session: Session, rows: Sequence[Row]) -> None:
    for row in rows:
        scenarios.save(session, row["name"], row["body"], row.get("pick", ""), row.get("note", ""))


def _setting_rows(session: Session) -> list[Row]:
    return [{"schools": settings.read(session, settings.SCHOOLS, {})}]


def _keep_settings(session: Session, rows: Sequence[Row]) -> None:
    for row in rows:
        if row.get("schools"):
            settings.keep(session, settings.SCHOOLS, row["schools"])


#: Every table that goes out and comes back.
REGISTRY: tuple[Exported, ...] = (
    Exported(
        "tackle.csv",
        "text/csv; charset=utf-8",
        lambda n: counted(n, "piece of tackle", "pieces of tackle"),
        _tackle_rows,
        lambda rows: csvfile.written(csvfile.TACKLE_COLUMNS, rows),
        lambda raw: _of(csvfile.read_tackle(raw)),
        _keep_tackle,
    ),
    Exported(
        "drop-tests.csv",
        "text/csv; charset=utf-8",
        lambda n: counted(n, "drop test", "drop tests"),
        _drop_rows,
        lambda rows: csvfile.written(csvfile.DROP_COLUMNS, rows),
        lambda raw: _of(csvfile.read_drops(catalogue.load(), raw)),
        _keep_drops,
    ),
    Exported(
        "checks.json",
        "application/json",
        lambda n: counted(n, "depth or mat check", "depth and mat checks"),
        _check_rows,
        lambda rows: _json({"version": VERSION, "checks": rows}),
        _read_checks,
        _keep_checks,
    ),
    Exported(
        "scenarios.json",
        "application/json",
        lambda n: counted(n, "scenario", "scenarios"),
        _scenario_rows,
        lambda rows: _json({"version": VERSION, "scenarios": rows}),
        _read_scenarios,
        _keep_scenarios,
    ),
    Exported(
        "settings.json",
        "application/json",
        lambda _: "",
        _setting_rows,
        lambda rows: _json({"version": VERSION, **rows[0]}),
        lambda raw: Read([json_object(raw, "settings.json")]),
        _keep_settings,
    ),
)
BY_NAME = {e.name: e for e in REGISTRY}
