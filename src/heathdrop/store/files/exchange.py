"""Everything the user owns as one zip, there and back the same; single files by the same registry."""

import io
import json
import lzma
import zipfile
import zlib
from codecs import BOM_UTF8
from dataclasses import dataclass, field
from functools import partial
from typing import Any

from pydantic import BaseModel
from sqlalchemy.orm import Session

from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.trip import TripBody
from heathdrop.errors import BadInput
from heathdrop.store import history, plans, scenarios, trips
from heathdrop.store.database import at_once
from heathdrop.store.files import settings_in
from heathdrop.store.files.csvfile import Row
from heathdrop.store.files.jsonfile import VERSION, json_object, read_record
from heathdrop.store.files.registry import BY_NAME, REGISTRY, new_of
from heathdrop.store.rows import forget_gone

FORMAT, MANIFEST = "heathdrop-export", "manifest.json"
#: Largest file inside an export, bytes; faults said at most.
MOST_BYTES, MOST_FAULTS = 64_000_000, 5
#: Largest sum of the known files, bytes; where the last import's names are kept.
MOST_WHOLE = 128_000_000
#: Names that one statement asks for.
AT_ONCE = 500


@dataclass
class Parcel:
    """What a file holds, typed and checked, ready to be kept: rows by the name of their table's file.

    ``there`` counts the rows that the data file already has, by the same name.
    """

    rows: dict[str, list[Row]] = field(default_factory=dict)
    passed_over: list[str] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)
    there: int = 0

    def said(self) -> str:
        """What would be brought in, in words."""
        counts = [e.counted(len(self.rows.get(e.name, []))) for e in REGISTRY if self.rows.get(e.name)]
        return ", ".join(w for w in counts if w) or "nothing new"


#: The files of a table kept as JSON: the key of its rows, what a row's body is, its other fields.
SCHEMAS: dict[str, tuple[type[BaseModel], dict[str, int]]] = {
    "scenarios": (SizeRequest, {"name": scenarios.LONGEST_NAME, "note": 400, "pick": 200}),
    "plans": (PlanRequest, {"name": plans.LONGEST_NAME}),
    "trips": (TripBody, {"name": trips.LONGEST_NAME}),
}


def file_schema(name: str) -> dict[str, Any]:
    """The published JSON Schema of a file of scenarios, plans or trips. Raises KeyError for another."""
    model, texts = SCHEMAS[name]
    body = model.model_json_schema()
    parts = body.pop("$defs", {})
    properties: dict[str, Any] = {k: {"type": "string", "maxLength": most} for k, most in texts.items()}
    properties["name"]["minLength"] = 1
    row = {
        "type": "object",
        "required": ["name", "body"],
        "properties": {
            **properties,
            "id": {"type": "string", "format": "uuid"},
            "body": {"$ref": "#/$defs/Body"},
        },
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": f"Heathdrop {name}",
        "type": "object",
        "required": ["version", name],
        "properties": {"version": {"const": VERSION}, name: {"type": "array", "items": row}},
        "$defs": {**parts, "Body": body},
    }


def written(session: Session, name: str) -> tuple[str, str]:
    """One table's file and its media type. Raises KeyError for an unknown name."""
    entry = BY_NAME[name]
    return entry.written(entry.rows(session)), entry.media


def packed(session: Session) -> bytes:
    """The export of a data file: the same bytes for the same contents."""
    files = {e.name: e.written(e.rows(session)) for e in REGISTRY}
    manifest = {"format": FORMAT, "version": VERSION, "files": sorted(files)}
    files[MANIFEST] = json.dumps(manifest, indent=1, sort_keys=True) + "\n"
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name in sorted(files):
            info = zipfile.ZipInfo(name, (2020, 1, 1, 0, 0, 0))
            info.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(info, files[name].encode())
    return out.getvalue()


def _files(raw: bytes) -> dict[str, bytes]:
    """The known files of a zip, read within bounds. Raises BadInput for a zip that cannot be read so."""
    try:
        with zipfile.ZipFile(io.BytesIO(raw)) as archive:
            ours = [i for i in archive.infolist() if i.filename in (MANIFEST, *BY_NAME)]
            if len({i.filename for i in ours}) != len(ours):
                raise BadInput("the file", "holding a file twice", "an export made by Heathdrop")
            large = next((i.filename for i in ours if i.file_size > MOST_BYTES), None)
            if large or sum(i.file_size for i in ours) > MOST_WHOLE:
                raise BadInput(large or "the file", "too large", f"at most {MOST_BYTES} bytes")
            contents = {}
            for info in ours:
                with archive.open(info) as one:
                    contents[info.filename] = one.read(MOST_BYTES + 1)
            return contents
    except (zipfile.BadZipFile, zlib.error, lzma.LZMAError, EOFError, OSError) as error:
        raise BadInput("the file", "not a whole zip", "an export made by Heathdrop") from error
    except (NotImplementedError, RuntimeError) as error:
        raise BadInput(
            "the file", "packed or locked in another way", "an export made by Heathdrop"
        ) from error


def unpacked(raw: bytes) -> Parcel:
    """A checked parcel from an export. Raises BadInput naming file, line and column of every fault (the
    first few)."""
    files = _files(raw)
    manifest = json_object(files.get(MANIFEST, b"{}"), MANIFEST)
    version = manifest.get("version")
    supported = isinstance(version, int) and not isinstance(version, bool) and 1 <= version <= VERSION
    if manifest.get("format") != FORMAT or not supported:
        raise BadInput(MANIFEST, version, f"a {FORMAT} of version {VERSION} or older")
    parcel = Parcel()
    for name in (n for n in BY_NAME if n in files):
        read = BY_NAME[name].read(files[name])
        parcel.rows[name] = read.rows
        parcel.faults += [f"{name}, {fault}" for fault in read.faults]
    if parcel.faults:
        said = "mended first: " + " ".join(parcel.faults[:MOST_FAULTS]).removesuffix(".")
        raise BadInput("the file", f"faulty in {len(parcel.faults)} places", said)
    return parcel


def looked_at(raw: bytes, name: str) -> Parcel:
    """What a zip, CSV or JSON file holds, columns passed over, and its faults. Raises BadInput."""
    if raw[:2] == b"PK" or name.lower().endswith(".zip"):
        return unpacked(raw)
    raw = raw.removeprefix(BOM_UTF8)
    if raw.lstrip()[:1] == b"{":
        return _json_parcel(raw, name)
    first = raw[:4000].decode("utf-8", "replace").split("\n", 1)[0].lower()
    table = "drop-tests.csv" if "times_s" in first else "casts.csv" if "outcome" in first else "tackle.csv"
    read = BY_NAME[table].read(raw)
    return Parcel({table: read.rows}, read.passed_over, read.faults)


def _json_parcel(raw: bytes, name: str) -> Parcel:
    """One of the export's JSON files, known by what it holds."""
    holds = json_object(raw, name)
    version = holds.get("version")
    if version != VERSION:
        raise BadInput(f"{name}, version", version, f"{VERSION}")
    if "casts" in holds:
        return Parcel({"casts.csv": read_record(raw, name).rows})
    for key in ("scenarios", "checks", "plans", "trips", "drills", "schools"):
        if key in holds:
            table = "settings.json" if key == "schools" else f"{key}.json"
            return Parcel({table: BY_NAME[table].read(raw).rows})
    raise BadInput(
        "the file",
        name,
        "a JSON file of an export, or a deck card's record",
    )


def sifted(session: Session, parcel: Parcel) -> Parcel:
    """The parcel without what the data file already has, and how much that was."""
    rows, there = {}, 0
    for name, new_rows in parcel.rows.items():
        entry = BY_NAME[name]
        existing = partial(entry.rows, session)
        if entry.table is not None:
            rows[name] = new_of(session, entry.table, new_rows, existing)
        else:
            rows[name] = entry.new(session, new_rows) if entry.new is not None else new_rows
        there += len(new_rows) - len(rows[name]) if entry.table is not None else 0
    return Parcel(rows, parcel.passed_over, parcel.faults, there)


def keep(session: Session, parcel: Parcel) -> dict[str, list[str]]:
    """Keep a parcel beside what is there, and over nothing: a scenario whose name is taken gets another.

    Rows that the data file has are passed over; those that were put away come back. Answers the names for
    good of what came, by file.
    """
    at_once(session)
    new = sifted(session, parcel)
    for name, new_rows in new.rows.items():
        table = BY_NAME[name].table
        names = [str(r["id"]) for r in new_rows if r.get("id")]
        for k in range(0, len(names) if table is not None else 0, AT_ONCE):
            forget_gone(session, table, names[k : k + AT_ONCE])  # type: ignore[arg-type]
    came = {name: BY_NAME[name].keep(session, rows) for name, rows in new.rows.items()}
    if any(came.values()):
        tables: dict[Any, list[str]] = {}
        for name, uids in came.items():
            if BY_NAME[name].table is not None:  # two files may be of one table
                tables.setdefault(BY_NAME[name].table, []).extend(uids)
        set_ = [name for n, names in came.items() if BY_NAME[n].take_back is not None for name in names]
        history.note(session, "import", new.said(), came=tables, settings_set=set_)
    return came


def undo(session: Session, id_: str = "") -> history.Undone | None:
    """Take out what an import brought (the last one, unless it is named), but for what was changed since;
    None when there is none to take out."""
    last = history.latest(session, "import")
    return history.undo(session, id_ or (last.id if last else ""), settings_in.take_back)
