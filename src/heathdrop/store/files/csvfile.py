"""Tackle and drop tests as CSV: written plainly, read as people save it.

Reading takes commas, semicolons or tabs, a byte-order mark, other columns (passed over and said),
``3/8``, ``10 g``, a decimal comma. Faults name line and column; with one fault nothing is taken.
"""

import csv
import io
import json
import uuid
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from pydantic import BaseModel, ValidationError

from heathdrop.catalog import Catalog
from heathdrop.conditions.limits import schema_of, unread
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.validation import bad_input
from heathdrop.errors import BadInput
from heathdrop.reading import number_of, read, unit_of
from heathdrop.store import items, observations

#: The columns of each table are the fields of its models.
_OWN = dict.fromkeys(
    f for k in items.KINDS.values() for f in k.model_fields if f not in items.ItemBody.model_fields
)
TACKLE_COLUMNS = ("kind", *_OWN, *items.ItemBody.model_fields, "id")
DROP_COLUMNS = (*observations.DropRecord.model_fields, "id")
CAST_COLUMNS = (
    *dict.fromkeys(f for f in ("time", "trip", "stop", "lat", "lon", *MadeCast.model_fields) if f != "id"),
    "id",
)
#: Columns of casts that hold JSON.
NESTED = ("line", "fish", "conditions")
_MODELS: tuple[type[BaseModel], ...] = (*items.KINDS.values(), observations.DropRecord)
#: What a column of tackle or drop tests holds, by the JSON schema of its field.
TYPES = {
    name: schema_of(model, name).get("type", "string") for model in _MODELS for name in model.model_fields
}
YES_NO = {
    "yes": True,
    "true": True,
    "1": True,
    "y": True,
    "no": False,
    "false": False,
    "0": False,
    "n": False,
}
#: A cell that a spreadsheet would run begins with one of these; it is written with an apostrophe before it.
RUNS = ("=", "+", "-", "@", "\t", "\r", "|", "%", "＝", "＋", "－", "＠", "−")
#: The longest cell, and the most columns, that are read.
MOST_CELL, MOST_COLUMNS = 2000, 60
MOST_ROWS = 200_000
Row = dict[str, Any]


@dataclass
class Read:
    """What a file holds: rows ready to keep, columns passed over, faults with line and column."""

    rows: list[dict[str, Any]] = field(default_factory=list)
    passed_over: list[str] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)


def written(columns: Sequence[str], rows: Sequence[dict[str, Any]]) -> str:
    """Rows as CSV text (RFC 4180)."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(columns)
    for row in rows:
        writer.writerow([_cell(row.get(c)) for c in columns])
    return out.getvalue()


def _cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return " ".join(f"{v!r}" for v in value)
    if isinstance(value, float):
        return repr(value)
    text = str(value)
    return f"'{text}" if text.startswith((*RUNS, "'")) else text


def _plain(cell: str) -> str:
    """A cell as it was meant: without the apostrophe that keeps a spreadsheet from running it."""
    text = cell.strip()
    return text[1:] if text.startswith("'") and text[1:].startswith((*RUNS, "'")) else text


def _text(raw: bytes) -> str:
    if raw.startswith((b"\xff\xfe", b"\xfe\xff")):
        return raw.decode("utf-16", "replace")
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            return raw.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise BadInput("the file", "not text", "a CSV file in UTF-8")


def _value(name: str, text: str) -> Any:
    """A cell's text as its field wants it; as it stands where it cannot be, for the field to refuse."""
    holds = TYPES.get(name, "string")
    try:
        if holds == "boolean":
            return YES_NO.get(text.lower(), text)
        if holds == "array":
            return [number_of(part) for part in text.replace(";", " ").split()]
        value = text if holds == "string" else read(text, unit_of(name))
        if holds == "integer":
            return int(value) if value == int(value) else text
        return value
    except (ValueError, ZeroDivisionError):
        return unread(text)


def _table(raw: bytes, columns: Sequence[str]) -> tuple[list[tuple[int, dict[str, str]]], list[str]]:
    """The file's rows as (line number, texts by column), and the columns passed over. Raises BadInput."""
    text = _text(raw)
    if text.count("\n") > MOST_ROWS + 1 or text.count("\r") > MOST_ROWS + 1:
        raise BadInput(
            "the file",
            f"{max(text.count(chr(10)), text.count(chr(13)))} lines long",
            f"at most {MOST_ROWS} rows",
        )
    head = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=head.count)
    reader = csv.reader(io.StringIO(text.replace("\r\n", "\n").replace("\r", "\n")), delimiter=delimiter)
    try:
        table = [(reader.line_num, row) for row in reader]
    except csv.Error as error:
        raise BadInput(
            "the file", f"broken at line {reader.line_num}", "a CSV file with a header row"
        ) from error
    if not table:
        raise BadInput("the file", "empty", "a CSV file with a header row")
    longest = max((len(c) for _, row in table for c in row), default=0)
    if longest > MOST_CELL or max(len(row) for _, row in table) > MOST_COLUMNS:
        raise BadInput("the file", "too wide", f"at most {MOST_COLUMNS} columns of {MOST_CELL} characters")
    names = [n.strip().lower().replace(" ", "_") for n in table[0][1]]
    if not set(names) & set(columns):
        raise BadInput("line 1", head[:60], "a header row with some of " + ", ".join(columns))
    if len(table) - 1 > MOST_ROWS:
        raise BadInput("the file", f"{len(table) - 1} rows long", f"at most {MOST_ROWS} rows")
    rows = [
        (n, dict(zip(names, (_plain(c) for c in row), strict=False)))
        for n, row in table[1:]
        if any(c.strip() for c in row)
    ]
    return rows, [n for n in names if n and n not in columns]


def _typed(texts: dict[str, str], columns: Sequence[str]) -> dict[str, Any]:
    return {name: _value(name, texts[name]) for name in columns if texts.get(name)}


def read_tackle(raw: bytes) -> Read:
    """Tackle from a CSV file: every row checked; faults say line and column. Raises BadInput for no table at
    all."""
    rows, passed_over = _table(raw, TACKLE_COLUMNS)
    read = Read(passed_over=passed_over)
    for line, texts in rows:
        try:
            data = _typed(texts, TACKLE_COLUMNS)
            uid = _uid(line, data.pop("id", None))
            kind = str(data.pop("kind", "") or _guessed(data))
            body = items.checked(kind, data, f"line {line}, column ")
            read.rows.append({"kind": kind, **body.model_dump(exclude_none=True), **uid})
        except BadInput as refusal:
            read.faults.append(str(refusal))
    return read


def _uid(line: int, text: str | None) -> dict[str, str]:
    """A row's name for good as it came; nothing when it has none."""
    if text is None:
        return {}
    try:
        return {"id": str(uuid.UUID(text))}
    except ValueError as error:
        raise BadInput(f"line {line}, column id", text, "as the export wrote it, or empty") from error


def _guessed(data: dict[str, Any]) -> str:
    """What a row without a kind must be."""
    for column, kind in (
        ("family", "head"),
        ("shape", "trailer"),
        ("test_lb", "line"),
        ("inches_per_turn", "reel"),
    ):
        if column in data:
            return kind
    return "rod" if "length_ft" in data else ""


def read_drops(catalog: Catalog, raw: bytes) -> Read:
    """Drop tests from a CSV file, as :func:`read_tackle`."""
    rows, passed_over = _table(raw, DROP_COLUMNS)
    read = Read(passed_over=passed_over)
    for line, texts in rows:
        try:
            data = _typed(texts, DROP_COLUMNS)
            uid = _uid(line, data.pop("id", None))
            record = observations.checked(catalog, "drop", data, f"line {line}, column ")
            read.rows.append({**record.model_dump(exclude_none=True), **uid})
        except BadInput as refusal:
            read.faults.append(str(refusal))
    return read


def cast_cells(row: dict[str, Any]) -> dict[str, Any]:
    """A cast as cells: what has parts of its own is JSON."""
    return {
        k: json.dumps(v, separators=(",", ":"), sort_keys=True)
        if isinstance(v, dict) or (k in NESTED and str(v).startswith(("{", '"')))
        else v
        for k, v in row.items()
    }


def read_casts(raw: bytes) -> Read:
    """Casts from a CSV file, as :func:`read_tackle`."""
    rows, passed_over = _table(raw, CAST_COLUMNS)
    read = Read(passed_over=passed_over)
    for line, texts in rows:
        try:
            read.rows.append(_cast(line, texts))
        except BadInput as refusal:
            read.faults.append(str(refusal))
    return read


def _cast(line: int, texts: dict[str, str]) -> dict[str, Any]:
    """A line's cast, checked. Raises BadInput naming line and column."""
    data: dict[str, Any] = {k: texts[k] for k in CAST_COLUMNS if texts.get(k)}
    for name in NESTED:
        if str(data.get(name, "")).startswith(("{", '"')):
            try:
                data[name] = json.loads(data[name])
            except (ValueError, RecursionError) as error:
                raise BadInput(f"line {line}, column {name}", data[name], "JSON, or plain words") from error
    try:
        cast = MadeCast.model_validate({"id": str(uuid.uuid4()), **data})
    except ValidationError as error:
        first = bad_input(error.errors())
        raise BadInput(f"line {line}, column {first.field}", first.given, first.allowed) from error
    return cast.model_dump(mode="json", exclude_none=True)
