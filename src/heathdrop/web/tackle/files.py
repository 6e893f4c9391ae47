"""Files: everything out as zip, CSV or JSON; in again after a look, all or nothing; what is missing."""

from functools import lru_cache
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop import catalog as catalogue
from heathdrop.advice.missing import Missing, missing
from heathdrop.answers.own import Own
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.logs import logger
from heathdrop.store import scenarios
from heathdrop.store.backups import backup
from heathdrop.store.files import exchange
from heathdrop.units import inches_said, ounces_as_written
from heathdrop.web.shell.deps import Db, Mine, OwnForm, is_htmx, writing
from heathdrop.web.shell.rendering import page, problem

router = APIRouter(include_in_schema=False)
writes = writing()
LOG = logger("files")
#: Unused pieces named at most.
MOST_NAMED = 8


def _download(content: str | bytes, name: str, kind: str) -> Response:
    return Response(
        content, media_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )


def _part(request: Request, name: str, context: dict[str, Any]) -> Response:
    """A part of the Box page for htmx; a page of its own for everybody else."""
    if is_htmx(request):
        return page(request, name, context)
    return page(request, "tackle/box/alone.html", {**context, "part": name, "page": "box"})


@router.get("/export.zip")
def export_zip(database: Db) -> Response:
    """Everything the user owns."""
    with database.session() as session:
        return _download(exchange.packed(session), "heathdrop.zip", "application/zip")


@router.get("/export/{name}")
def export_one(request: Request, name: str, database: Db) -> Response:
    """One table as a file: tackle or drop tests as CSV, scenarios as JSON."""
    try:
        with database.session() as session:
            content, media = exchange.written(session, name)
    except KeyError:
        return problem(request, "There is no such file.", 404)
    return _download(content, name, media)


@writes.post("/import")
def bring_in(request: Request, form: OwnForm, database: Db) -> Response:
    """Look at a file, or (``sure``) bring it in after a backup."""
    if not form.file_name:
        return problem(request, "Choose a file first: a zip or a CSV.")
    try:
        parcel = exchange.looked_at(form.file, form.file_name)
    except BadInput as refusal:
        return problem(request, refusal)
    with database.session() as session:
        new = exchange.sifted(session, parcel)
    if form.get("sure") != "yes" or parcel.faults:
        return _part(request, "tackle/box/preview.html", {"parcel": new})
    try:
        backup(database.path, "before-import")
        with database.session() as session:
            exchange.keep(session, parcel)
    except BadInput as refusal:
        return problem(request, refusal)
    LOG.info("imported: %s", new.said())
    said = f"Brought in {new.said()}{already(new)}. A backup was made first."
    return _part(request, "tackle/box/came.html", {"said": said, "undo": True})


def already(parcel: exchange.Parcel) -> str:
    """How much of a file was there before, in words."""
    return f"; {parcel.there} already here were passed over" if parcel.there else ""


@writes.post("/import/undo")
def take_out(request: Request, database: Db) -> Response:
    """Take back what the last import brought in."""
    with database.session() as session:
        done = exchange.undo(session)
    said = "There is no import to take back."
    if done is not None:
        left = f" {done.changed} changed since and left as they are." if done.changed else ""
        said = f"Taken back: {done.rows} rows of the last import.{left}"
    return _part(request, "tackle/box/came.html", {"said": said, "undo": False})


@lru_cache(maxsize=4)
def _missing(own: Own, named: tuple[tuple[str, Scenario], ...]) -> Missing:
    return missing(catalogue.load(), own.tackle, named, own.learned)


@router.get("/box/missing")
def what_is_missing(request: Request, database: Db, own: Mine) -> Response:
    """The purchases that would raise the worst fits, over the saved scenarios."""
    with database.session() as session:
        rows = [(s.name, scenarios.body_of(s)) for s in scenarios.listed(session)]
    named = []
    for name, body in rows:
        try:
            named.append((name, SizeRequest.model_validate(body).scenario()))
        except ValueError:
            continue
    if not named or not (own.tackle.heads and own.tackle.trailers):
        return _part(request, "tackle/box/missing.html", {"m": None})
    catalog = catalogue.load()
    missing = _missing(own, tuple(named))
    unused = [
        f"{ounces_as_written(h.weight_oz)} oz {catalog.families[h.family].name}" for h in missing.unused_heads
    ]
    unused += [
        f"{catalog.trailers[t.shape].name} {inches_said(t.length_in)} in" for t in missing.unused_trailers
    ]
    unused = list(dict.fromkeys(unused))
    context = {"m": missing, "unused": unused[:MOST_NAMED], "unused_more": max(0, len(unused) - MOST_NAMED)}
    return _part(request, "tackle/box/missing.html", context)
