"""Your data: everything out and in, what was taken away in the last month, backups, beginning afresh."""

from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop.store import history
from heathdrop.store.backups import backup, state_of
from heathdrop.store.files import settings_in
from heathdrop.web.shell.deps import Db, OwnForm, writing
from heathdrop.web.shell.rendering import page, problem

router = APIRouter(include_in_schema=False)
writes = writing()
#: Entries and backups shown.
MOST_SHOWN, MOST_BACKUPS = 60, 6
#: What an entry's undo is called, by its kind.
UNDO = {"import": "Take it out again"}
ONLY_HERE = "Everything is put away on the laptop's own screen alone."


def _context(database: Any, said: str = "") -> dict[str, Any]:
    with database.session() as session:
        entries = history.entries(session)
    state, backups = state_of(database.path)
    return {
        "entries": [
            (e.id, f"{e.at.astimezone():%-d %B, %H:%M}", _said(e), UNDO.get(e.kind, "Bring back"))
            for e in entries[:MOST_SHOWN]
        ],
        "more": max(0, len(entries) - MOST_SHOWN),
        "file": database.path.name,
        "sound": state == "sound",
        "backups": backups[:MOST_BACKUPS],
        "said": said,
        "page": "box",
    }


def _said(entry: history.Entry) -> str:
    """An entry in words: what was deleted, said otherwise or brought in."""
    what = {"import": "Brought in: ", "typed": "Said otherwise: "}.get(entry.kind, "Deleted: ")
    return what + entry.said


@router.get("/data")
def data(request: Request, database: Db) -> Response:
    """The page."""
    return page(request, "tackle/data.html", _context(database))


@writes.post("/data/back")
def bring_back(request: Request, form: OwnForm, database: Db) -> Response:
    """Undo one entry; what was changed since is left alone, and that is said."""
    with database.session() as session:
        done = history.undo(session, form.get("id"), settings_in.take_back)
    if done is None:
        return problem(request, "That was undone already, or is older than a month.", 404)
    rows = f"{done.rows} row{'' if done.rows == 1 else 's'}"
    went = "taken out again" if done.entry.kind == "import" else "back"
    left = f" {done.changed} changed since and left as they are." if done.changed else ""
    said = f"{done.entry.said[:1].upper()}{done.entry.said[1:]}: {rows} {went}.{left}"
    return page(request, "tackle/data.html", _context(database, said))


@writes.post("/data/afresh")
def afresh(request: Request, form: OwnForm, database: Db) -> Response:
    """Put everything away after a backup, so that a new book begins; it can be brought back for a month."""
    if not request.state.here:
        return problem(request, ONLY_HERE, 403)
    if form.get("sure") != "yes":
        return problem(request, "Tick that you mean it first.")
    copy = backup(database.path, "before-import")
    with database.session() as session:
        count = history.put_all_away(session)
    said = f"Begun afresh: {count} rows put away. The backup is {copy.name}."
    return page(request, "tackle/data.html", _context(database, said))
