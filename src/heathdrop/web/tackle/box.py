"""The Box: one line of text adds a piece, every measure is edited where it stands, nothing is lost by a
slip."""

from dataclasses import replace
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from heathdrop import catalog as catalogue
from heathdrop.conditions.limits import unread
from heathdrop.errors import BadInput
from heathdrop.measures import meant, system
from heathdrop.reading import unit_of
from heathdrop.store import items
from heathdrop.store.database import Database
from heathdrop.store.files.entry import suggested
from heathdrop.store.files.readback import Read, read_lines
from heathdrop.web.shell.deps import Db, OwnForm, is_htmx, writing
from heathdrop.web.shell.refusal import plain_words
from heathdrop.web.shell.rendering import page, problem
from heathdrop.web.tackle.shown.box import MOST_ROWS, ItemRow, item_row, shelf_of

router = APIRouter(include_in_schema=False)
writes = writing()
KINDS = tuple(items.KINDS)
#: Lines taken at once.
MOST_LINES = 200
#: Pieces named after they were added, at most; pieces and faults shown while they are typed; characters read
#: for that.
MOST_SAID, MOST_PREVIEWED, LONGEST_PREVIEW = 4, 12, 20_000


def _matches(row: ItemRow, terms: list[str]) -> bool:
    text = f"{row.what} {row.measures} {row.colour} {row.kind}".lower()
    return all(w in text for w in terms)


def _context(database: Database, query: str = "", said: str = "", undo: int | None = None) -> dict[str, Any]:
    """Everything in the box that the filter lets through, as rows."""
    catalog = catalogue.load()
    with database.session() as session:
        pieces = items.light_items(session)
    rows = [item_row(r) for r in pieces]
    shelf = shelf_of(catalog, pieces)
    terms = query.lower().split()
    matching = [r for r in rows if _matches(r, terms)]
    order = {k: n for n, k in enumerate(KINDS)}
    matching.sort(key=lambda r: order[r.kind])
    return {
        "rows": matching[:MOST_ROWS],
        "more": max(0, len(matching) - MOST_ROWS),
        "total": len(rows),
        "counts": {k: sum(r.kind == k for r in rows) for k in KINDS},
        "shelf": shelf,
        "query": query,
        "said": said,
        "undo": undo,
        "most_lines": MOST_LINES,
        "page": "box",
    }


def _list(request: Request, context: dict[str, Any]) -> Response:
    """The list after a change, for htmx; the whole page for everybody else."""
    return page(request, "tackle/box/list.html" if is_htmx(request) else "tackle/box/page.html", context)


@router.get("/box")
def box(request: Request, database: Db, q: str = "") -> Response:
    """The box, or its list when the filter asks."""
    part = "tackle/box/list.html" if request.headers.get("hx-target") == "boxlist" else "tackle/box/page.html"
    context = _context(database, q[:60])
    return page(request, part, context)


@router.get("/box/understood")
def understood(request: Request, entry: str = "") -> Response:
    """What the lines typed so far would add, piece by piece; nothing is kept."""
    catalog = catalogue.load()
    said: list[str] = []
    unused: list[str] = []
    wanted: list[tuple[str, str, str]] = []
    try:
        first = [line for line in entry[:LONGEST_PREVIEW].splitlines() if line.strip()][:MOST_LINES]
        lines = read_lines(catalog, "tackle", "\n".join(first), system())
    except BadInput:
        lines = []
    for one in lines:
        try:
            sentences = [_item_words(*item) for item in one.items] if one.ready else []
        except BadInput as refusal:
            one, sentences = replace(one, ask=plain_words(refusal)), []
        said += sentences
        unused += one.unused if sentences else ()
        if not sentences:
            wanted.append((one.line, _asked_of(one), suggested(catalog, one.line, system())))
    context = {
        "unused": unused[:MOST_PREVIEWED],
        "said": said[:MOST_PREVIEWED],
        "more": max(0, len(said) - MOST_PREVIEWED),
        "wanted": wanted[:MOST_PREVIEWED],
        "faulty": len(wanted),
    }
    return page(request, "tackle/box/understood.html", context)


@writes.post("/box")
def add(request: Request, form: OwnForm, database: Db) -> Response:
    """Add every line of the entry that is whole; the others stay in the field, each with what is asked."""
    kept_items: list[tuple[str, dict[str, Any]]] = []
    left: list[Read] = []
    again = 0
    if not form.get("entry").strip():
        return problem(request, "Nothing to add yet.")
    try:
        lines = read_lines(catalogue.load(), "tackle", form.get("entry"), system())
        with database.session() as session:
            before = [(k.kind, k.body.model_dump(exclude={"quantity"})) for k in items.light_items(session)]
            for one in lines:
                try:
                    made = (
                        [(kind, items.checked(kind, data)) for kind, data in one.items] if one.ready else []
                    )
                except BadInput as refusal:
                    one, made = replace(one, ask=plain_words(refusal)), []
                if not made:
                    left.append(one)
                for kind, item in made:
                    again += (kind, item.model_dump(exclude={"quantity"})) in before
                    items.add(session, kind, item.model_dump(exclude_unset=True))
                    kept_items.append((kind, item.model_dump(exclude_unset=True)))
    except BadInput as refusal:
        return problem(request, plain_words(refusal))
    if not kept_items:
        return problem(request, " ".join(_asked_of(one) for one in left[:MOST_SAID]))
    said = "Added: " + "; ".join(_item_words(*one) for one in kept_items[:MOST_SAID])
    said += f" and {len(kept_items) - MOST_SAID} more." if len(kept_items) > MOST_SAID else "."
    if again:
        said += f" {again} of them alike to a piece that was there: it is a row of its own now."
    asked = [_asked_of(one) for one in left]
    stays = {
        "left": "\n".join(one.line for one in left),
        "asked": asked[:MOST_PREVIEWED],
        "kept_back": len(left),
    }
    return _list(request, _context(database, said=said) | stays)


def _asked_of(one: Read) -> str:
    """A line that is not whole, with what is asked of it."""
    return f"“{one.line}”: {one.ask}"


def _item_words(kind: str, data: dict[str, Any]) -> str:
    """A just added piece, in words."""
    shown = item_row(items.Kept(0, kind, items.checked(kind, data)))
    many = f" ×{data['quantity']}" if data.get("quantity", 1) != 1 else ""
    return f"{shown.what}, {shown.measures}" + (f", {shown.colour}" if shown.colour else "") + many


NUMBERS = ("mass_g", "length_in", "width_in")


@writes.post("/box/{id_}")
def change(request: Request, id_: int, form: OwnForm, database: Db) -> Response:
    """Change one field of a piece where it stands."""
    changes: dict[str, Any] = {}
    try:
        for name, text in form.texts.items():
            if name in NUMBERS:
                changes[name] = _number(name, text) if text.strip() else ""
            elif name == "quantity":
                changes[name] = _number(name, text)
            elif name == "colour":
                changes[name] = text
        with database.session() as session:
            row = items.edit(session, id_, changes)
            if row is None:
                return problem(request, "That piece is no longer in the box.", 404)
            shown = item_row(items.light(row))
    except BadInput as refusal:
        return problem(request, refusal)
    if not is_htmx(request):
        return _list(request, _context(database, said=f"Changed: {shown.what}."))
    return page(request, "tackle/box/row.html", {"r": shown})


def _number(name: str, text: str) -> float | str:
    """A typed number; the text itself where it is none, for the field to refuse."""
    try:
        return meant(text, unit_of(name), system())
    except (ValueError, ZeroDivisionError):
        return unread(text)


@writes.post("/box/{id_}/{act}")
def act(request: Request, id_: int, act: str, form: OwnForm, database: Db) -> Response:
    """Duplicate or delete a piece, or take a deletion back."""
    acts = {"duplicate": items.duplicate, "delete": items.delete, "undelete": items.undelete}
    if act not in acts:
        return problem(request, "There is no such action.", 404)
    with database.session() as session:
        row = acts[act](session, id_)
    if row is None:
        return problem(request, "That piece is no longer in the box.", 404)
    piece_said = _item_words(row.kind, items.body_of(row))
    said = {"duplicate": "Copied", "delete": "Deleted", "undelete": "Back in the box"}[act]
    undo = row.id if act == "delete" else None
    return _list(request, _context(database, form.get("q"), f"{said}: {piece_said}.", undo))
