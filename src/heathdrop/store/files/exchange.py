"""Everything the user owns as one zip, there and back the same; single files by the same registry."""

from __future__ import annotations

import io
import json
import zipfile
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy.orm import Session

from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.store import scenarios
from heathdrop.store.files.registry import BY_NAME, REGISTRY, VERSION, Row, json_object

FORMAT, MANIFEST = "heathdrop-export", "manifest.json"
#: Largest file inside an export, bytes; faults said at most.
MOST_BYTES, MOST_FAULTS = 8_000_000, 5


@dataclass
class Parcel:
    """What a file holds, typed and checked, ready to be kept: rows by the name of their table's file."""

    rows: dict[str, list[Row]] = field(default_factory=dict)
    passed_over: list[str] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)

    def said(self) -> str:
        """What would be brought in, in words."""
        words = [e.counted(len(self.rows.get(e.name, []))) for e in REGISTRY]
        return ", ".join(w for w in words if w)


def scenario_schema() -> dict[str, Any]:
    """The published JSON Schema of a saved scenario file."""
    request = SizeRequest.model_json_schema()
    parts = request.pop("$defs", {})
    row = {
        "type": "object",
        "required": ["name", "body"],
        "properties": {
            "name": {"type": "string", "minLength": 1, "maxLength": scenarios.LONGEST_NAME},
            "note": {"type": "string", "maxLength": 400},
            "pick": {"type": "string", "maxLength": 200},
            "body": {"$ref": "#/$defs/SizeRequest"},
        },
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Heathdrop scenarios",
        "type": "object",
        "required": ["version", "scenarios"],
        "properties": {"version": {"const": VERSION}, "scenarios": {"type": "array", "items": row}},
        "$defs": {**parts, "SizeRequest": request},
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


def unpacked(raw: bytes) -> Parcel:
    """A checked parcel from an export. Raises BadInput naming file, line and column of every fault (the
    first few)."""
    try:
        with zipfile.ZipFile(io.BytesIO(raw)) as archive:
            large = [i.filename for i in archive.infolist() if i.file_size > MOST_BYTES]
            if large:
                raise BadInput(large[0], "too large", f"at most {MOST_BYTES} bytes")
            names = {MANIFEST, *BY_NAME} & set(archive.namelist())
            files = {name: archive.read(name) for name in names}
    except zipfile.BadZipFile as error:
        raise BadInput("the file", "not a zip", "an export made by Heathdrop") from error
    manifest = json_object(files.get(MANIFEST, b"{}"), MANIFEST)
    version = manifest.get("version")
    if manifest.get("format") != FORMAT or not isinstance(version, int) or not 1 <= version <= VERSION:
        raise BadInput(MANIFEST, version, f"a {FORMAT} of version {VERSION} or older")
    parcel = Parcel()
    for name in (n for n in BY_NAME if n in files):
        read = BY_NAME[name].read(files[name])
        parcel.rows[name] = read.rows
        parcel.faults += [f"{name}, {fault}" for fault in read.faults]
    if parcel.faults:
        said = "mended first: " + " ".join(parcel.faults[:MOST_FAULTS])
        raise BadInput("the file", f"faulty in {len(parcel.faults)} places", said)
    return parcel


def looked_at(raw: bytes, name: str) -> Parcel:
    """What a zip or CSV file holds, columns passed over, and its faults. Raises BadInput."""
    if raw[:2] == b"PK" or name.lower().endswith(".zip"):
        return unpacked(raw)
    first = raw.decode("utf-8", "replace").split("\n", 1)[0].lower()
    table = "drop-tests.csv" if "times_s" in first else "tackle.csv"
    read = BY_NAME[table].read(raw)
    return Parcel({table: read.rows}, read.passed_over, read.faults)


def keep(session: Session, parcel: Parcel) -> None:
    """Keep a parcel beside what is there; a scenario of the same name is replaced."""
    for name, rows in parcel.rows.items():
        BY_NAME[name].keep(session, rows)
