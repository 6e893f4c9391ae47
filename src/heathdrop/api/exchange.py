"""Everything the user owns as one zip, there and back the same."""

from __future__ import annotations

import io
import json
import zipfile
from dataclasses import dataclass, field
from typing import Any

from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.api.schemas import SizeRequest
from heathdrop.api.words import bad_input
from heathdrop.errors import BadInput
from heathdrop.store import csvfile, items, observations, scenarios, settings

FORMAT, VERSION = "heathdrop-export", 1
TACKLE, DROPS, CHECKS, SCENARIOS, SETTINGS = "tackle.csv", "drop-tests.csv", "checks.json", "scenarios.json", "settings.json"
MANIFEST = "manifest.json"
#: Largest file inside an export, bytes.
MOST_BYTES = 8_000_000


@dataclass
class Parcel:
    """What an export holds, typed and checked, ready to be kept."""

    tackle: list[dict[str, Any]] = field(default_factory=list)
    drops: list[dict[str, Any]] = field(default_factory=list)
    checks: list[dict[str, Any]] = field(default_factory=list)
    scenarios: list[dict[str, Any]] = field(default_factory=list)
    settings: dict[str, Any] = field(default_factory=dict)

    def said(self) -> str:
        """What would be brought in, in words."""
        return (
            f"{len(self.tackle)} pieces of tackle, {len(self.drops)} drop tests, {len(self.checks)} depth and mat checks, "
            f"{len(self.scenarios)} scenarios"
        )


def scenario_schema() -> dict[str, Any]:
    """The published JSON Schema of a saved scenario file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Heathdrop scenarios",
        "type": "object",
        "required": ["version", "scenarios"],
        "properties": {
            "version": {"const": VERSION},
            "scenarios": {
                "type": "array",
                "items": {
                    "type": "object",
                    "required": ["name", "body"],
                    "properties": {
                        "name": {"type": "string", "minLength": 1, "maxLength": scenarios.LONGEST_NAME},
                        "note": {"type": "string", "maxLength": 400},
                        "pick": {"type": "string", "maxLength": 120},
                        "body": {"$ref": "#/$defs/SizeRequest"},
                    },
                },
            },
        },
        "$defs": {**SizeRequest.model_json_schema().pop("$defs", {}), "SizeRequest": _without_defs()},
    }


def _without_defs() -> dict[str, Any]:
    schema = SizeRequest.model_json_schema()
    schema.pop("$defs", None)
    return schema


def _json(value: Any) -> str:
    return json.dumps(value, indent=1, sort_keys=True, ensure_ascii=False) + "\n"


def packed(session: Session) -> bytes:
    """The export of a data file: the same bytes for the same contents."""
    kept = [{"kind": r.kind, **r.data} for r in items.listed(session)]
    seen = observations.listed(session)
    drops = [r.data for r in seen if r.kind == "drop"]
    checks = [{"kind": r.kind, **r.data} for r in seen if r.kind != "drop"]
    saved = [{"name": s.name, "note": s.note, "pick": s.pick, "body": s.body} for s in scenarios.listed(session)]
    files = {
        TACKLE: csvfile.written(csvfile.TACKLE_COLUMNS, kept),
        DROPS: csvfile.written(csvfile.DROP_COLUMNS, drops),
        CHECKS: _json({"version": VERSION, "checks": checks}),
        SCENARIOS: _json({"version": VERSION, "scenarios": saved}),
        SETTINGS: _json({"version": VERSION, "schools": settings.read(session, settings.SCHOOLS, {})}),
    }
    files[MANIFEST] = _json({"format": FORMAT, "version": VERSION, "files": sorted(files)})
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name in sorted(files):
            info = zipfile.ZipInfo(name, (2020, 1, 1, 0, 0, 0))
            info.compress_type = zipfile.ZIP_DEFLATED
            archive.writestr(info, files[name].encode())
    return out.getvalue()


def unpacked(raw: bytes) -> Parcel:
    """A checked parcel from an export. Raises BadInput naming file, line and column of every fault (the first few)."""
    try:
        with zipfile.ZipFile(io.BytesIO(raw)) as archive:
            large = [i.filename for i in archive.infolist() if i.file_size > MOST_BYTES]
            if large:
                raise BadInput(large[0], "too large", f"at most {MOST_BYTES} bytes")
            files = {name: archive.read(name) for name in archive.namelist()}
    except zipfile.BadZipFile as error:
        raise BadInput("the file", "not a zip", "an export made by Heathdrop") from error
    manifest = _object(files, MANIFEST)
    if manifest.get("format") != FORMAT or manifest.get("version") != VERSION:
        raise BadInput(MANIFEST, manifest.get("version"), f"a {FORMAT} of version {VERSION}")
    catalog = catalogue.load()
    tackle, drops = csvfile.read_tackle(files.get(TACKLE, b"")), csvfile.read_drops(catalog, files.get(DROPS, b""))
    faults = [f"{TACKLE}, {f}" for f in tackle.faults] + [f"{DROPS}, {f}" for f in drops.faults]
    parcel = Parcel(tackle.rows, drops.rows)
    for k, row in enumerate(_object(files, CHECKS).get("checks", [])):
        plain = dict(row)
        record = observations.checked(catalog, str(plain.pop("kind", "")), plain, f"{CHECKS}, checks[{k}].")
        parcel.checks.append({"kind": record.kind, **record.model_dump(exclude_none=True)})
    for k, row in enumerate(_object(files, SCENARIOS).get("scenarios", [])):
        parcel.scenarios.append(_scenario(k, row))
    parcel.settings = _object(files, SETTINGS)
    if faults:
        raise BadInput("the file", f"faulty in {len(faults)} places", "mended first: " + " ".join(faults[:5]))
    return parcel


def _object(files: dict[str, bytes], name: str) -> dict[str, Any]:
    try:
        value = json.loads(files.get(name, b"{}"))
    except ValueError as error:
        raise BadInput(name, "not JSON", "a JSON object") from error
    if not isinstance(value, dict):
        raise BadInput(name, "not an object", "a JSON object")
    return value


def _scenario(k: int, row: Any) -> dict[str, Any]:
    at = f"{SCENARIOS}, scenarios[{k}]"
    if not isinstance(row, dict) or not isinstance(row.get("name"), str):
        raise BadInput(f"{at}.name", None, "a text")
    try:
        SizeRequest.model_validate(row.get("body"))
    except ValidationError as error:
        first = bad_input(error.errors())
        raise BadInput(f"{at}.body.{first.field}", first.given, first.allowed) from error
    return row


def kept(session: Session, parcel: Parcel) -> None:
    """Keep a parcel beside what is there; a scenario of the same name is replaced."""
    catalog = catalogue.load()
    for row in parcel.tackle:
        data = dict(row)
        items.add(session, data.pop("kind"), data)
    for row in parcel.drops:
        observations.add(session, observations.checked(catalog, "drop", row))
    for row in parcel.checks:
        data = dict(row)
        observations.add(session, observations.checked(catalog, data.pop("kind"), data))
    for row in parcel.scenarios:
        scenarios.save(session, row["name"], row["body"], row.get("pick", ""), row.get("note", ""))
    if parcel.settings.get("schools"):
        settings.keep(session, settings.SCHOOLS, parcel.settings["schools"])
