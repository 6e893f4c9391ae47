"""Files: everything out as zip, CSV or JSON; in again after a look, all or nothing; what is missing."""

from __future__ import annotations

import json
from functools import lru_cache
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response
from starlette.datastructures import UploadFile

from heathdrop import catalog as catalogue
from heathdrop.advice.missing import Missing, missing
from heathdrop.api import exchange
from heathdrop.api.schemas import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.sizing.scenario import Scenario
from heathdrop.store import csvfile, items, observations, scenarios
from heathdrop.store.database import Database, backup
from heathdrop.store.mine import Mine
from heathdrop.units import ounces_as_written
from heathdrop.web.forms import STALE, is_ours, mine, problem, templates

router = APIRouter(include_in_schema=False)
#: Unused pieces named at most.
MOST_NAMED = 8


def _download(content: str | bytes, name: str, kind: str) -> Response:
    return Response(content, media_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@router.get("/export.zip")
def export_zip(request: Request) -> Response:
    """Everything the user owns."""
    database: Database = request.app.state.database
    with database.session() as session:
        return _download(exchange.packed(session), "heathdrop.zip", "application/zip")


@router.get("/export/{name}")
def export_one(request: Request, name: str) -> Response:
    """Tackle or drop tests as CSV, scenarios as JSON."""
    database: Database = request.app.state.database
    with database.session() as session:
        if name == "tackle.csv":
            rows = [{"kind": r.kind, **r.data} for r in items.listed(session)]
            return _download(csvfile.written(csvfile.TACKLE_COLUMNS, rows), name, "text/csv; charset=utf-8")
        if name == "drop-tests.csv":
            drops = [r.data for r in observations.listed(session) if r.kind == "drop"]
            return _download(csvfile.written(csvfile.DROP_COLUMNS, drops), name, "text/csv; charset=utf-8")
        if name == "scenarios.json":
            saved = [{"name": s.name, "note": s.note, "pick": s.pick, "body": s.body} for s in scenarios.listed(session)]
            return _download(json.dumps({"version": 1, "scenarios": saved}, indent=1), name, "application/json")
    return problem(request, "There is no such file.", 404)


@router.post("/import")
async def bring_in(request: Request) -> Response:
    """Look at a file, or (``sure``) bring it in after a backup."""
    async with request.form() as form:
        texts = {k: v for k, v in form.items() if isinstance(v, str)}
        upload = form.get("file")
        raw, name = (await upload.read(), upload.filename or "") if isinstance(upload, UploadFile) else (b"", "")
    if not is_ours(request, texts):
        return problem(request, STALE, 403)
    if not name:
        return problem(request, "file was not given; it must be a zip or CSV file.")
    try:
        parcel, passed_over, faults = looked_at(raw, name)
    except BadInput as refusal:
        return problem(request, str(refusal))
    context: dict[str, Any] = {"said": f"This file holds {parcel.said()}.", "passed_over": passed_over, "faults": faults}
    if texts.get("sure") != "yes" or faults:
        return templates.TemplateResponse(request, "preview.html", context)
    database: Database = request.app.state.database
    backup(database.path, "before-import")
    with database.session() as session:
        exchange.kept(session, parcel)
    return templates.TemplateResponse(request, "came.html", {"said": f"Brought in {parcel.said()}. A backup was made first."})


def looked_at(raw: bytes, name: str) -> tuple[exchange.Parcel, list[str], list[str]]:
    """What a zip or CSV file holds, columns passed over, and its faults. Raises BadInput."""
    if raw[:2] == b"PK" or name.lower().endswith(".zip"):
        return exchange.unpacked(raw), [], []
    catalog = catalogue.load()
    first = raw.decode("utf-8", "replace").split("\n", 1)[0].lower()
    if "times_s" in first:
        read = csvfile.read_drops(catalog, raw)
        return exchange.Parcel(drops=read.rows), read.passed_over, read.faults
    read = csvfile.read_tackle(raw)
    return exchange.Parcel(tackle=read.rows), read.passed_over, read.faults


@lru_cache(maxsize=4)
def _missing(own: Mine, named: tuple[tuple[str, Scenario], ...]) -> Missing:
    return missing(catalogue.load(), own.tackle, named, own.learned)


@router.get("/box/missing")
def what_is_missing(request: Request) -> Response:
    """The purchases that would raise the worst fits, over the saved scenarios."""
    own = mine(request)
    database: Database = request.app.state.database
    with database.session() as session:
        rows = [(s.name, s.body) for s in scenarios.listed(session)]
    named = []
    for name, body in rows:
        try:
            named.append((name, SizeRequest.model_validate(body).scenario(call=False)))
        except ValueError:
            continue
    if not named or not (own.tackle.heads and own.tackle.trailers):
        return templates.TemplateResponse(request, "missing.html", {"m": None})
    catalog = catalogue.load()
    found = _missing(own, tuple(named))
    unused = [f"{ounces_as_written(h.weight_oz)} oz {catalog.families[h.family].name}" for h in found.unused_heads]
    unused += [f"{catalog.trailers[t.shape].name} {t.length_in:g} in" for t in found.unused_trailers]
    unused = list(dict.fromkeys(unused))
    context = {"m": found, "unused": unused[:MOST_NAMED], "unused_more": max(0, len(unused) - MOST_NAMED)}
    return templates.TemplateResponse(request, "missing.html", context)
