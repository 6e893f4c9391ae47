"""What was taken away, brought in or said otherwise, for a month: each can be brought back, one by one.

What was put away one row at a time is read from the rows themselves; what went or came many at once is noted.
"""

import hashlib
import json
import uuid
from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from heathdrop.store import settings
from heathdrop.store.models import (
    CastMade,
    DrillDone,
    Item,
    Kept,
    Observation,
    SavedPlan,
    SavedScenario,
    Trip,
    now,
)

#: The setting that notes live under; days and notes that are kept; names asked of the database at once.
HISTORY, KEPT_DAYS, MOST_NOTES, AT_ONCE = "history", 31, 40, 500
#: What is put away row by row, and what one of them is called.
CALLED: tuple[tuple[type[Kept], str], ...] = (
    (SavedScenario, "saved water"),
    (SavedPlan, "plan"),
    (Trip, "trip"),
    (Item, "piece of tackle"),
    (Observation, "drop test"),
    (CastMade, "cast"),
    (DrillDone, "answer to the trainer"),
)
TABLES = {table.__tablename__: table for table, _ in CALLED}


@dataclass(frozen=True)
class Entry:
    """Something that can be brought back or taken out again: its name, when it was (UTC), its kind (``away``,
    ``typed``, ``import``, ``one``), what it is called, how many rows."""

    id: str
    at: datetime
    kind: str
    said: str
    rows: int


@dataclass(frozen=True)
class Undone:
    """What an undo did: rows that came back or went, and those left alone since they were changed."""

    entry: Entry
    rows: int
    changed: int = 0


def note(
    session: Session,
    kind: str,
    said: str,
    away: Mapping[type[Kept], Collection[str]] | None = None,
    came: Mapping[type[Kept], Collection[str]] | None = None,
    settings_set: Collection[str] = (),
) -> None:
    """Note what went away (names for good by table), what came, and which settings were set."""
    session.flush()
    gone = {table.__tablename__: sorted(uids) for table, uids in (away or {}).items() if uids}
    new = {
        table.__tablename__: {row.uid: digest(row) for row in _rows(session, table, uids)}
        for table, uids in (came or {}).items()
        if uids
    }
    if gone or new or settings_set:
        one = {
            "id": uuid.uuid4().hex,
            "at": now().isoformat(),
            "kind": kind,
            "said": said,
            "away": gone,
            "came": new,
            "settings": list(settings_set),
        }
        settings.keep(session, HISTORY, [one, *_notes(session)][:MOST_NOTES])


def digest(row: Kept) -> str:
    """A short word for what a row says: another one says that it was changed."""
    own = {
        c.name: getattr(row, c.name)
        for c in row.__table__.columns
        if c.name not in ("id", "uid", "created_at", "gone_at", "version")
    }
    text = json.dumps(own, sort_keys=True, default=str)
    return hashlib.blake2b(text.encode(), digest_size=6).hexdigest()


def latest(session: Session, kind: str) -> Entry | None:
    """The newest note of a kind that was not undone."""
    return next((_entry(one) for one in _notes(session) if one["kind"] == kind), None)


def entries(session: Session) -> list[Entry]:
    """Everything that can be undone, the newest first."""
    notes = _notes(session)
    noted = {uid for one in notes for uids in one["away"].values() for uid in uids}
    since = now() - timedelta(days=KEPT_DAYS)
    listed = [_entry(one) for one in notes]
    for table, called in CALLED:
        query = select(table).where(table.gone_at > since).order_by(table.gone_at.desc()).limit(MOST_NOTES)
        listed += [
            Entry(
                f"{table.__tablename__}-{row.uid}", _utc(row.gone_at or since), "one", _called(called, row), 1
            )
            for row in session.scalars(query)
            if row.uid not in noted
        ]
    return sorted(listed, key=lambda e: e.at, reverse=True)


def undo(
    session: Session, id_: str, unset: Callable[[Session, Sequence[str]], int] = lambda _s, _n: 0
) -> Undone | None:
    """Bring back what went and put away what came, but for rows that were changed since; ``unset`` takes
    settings back. None when there is no such entry."""
    table, _, uid = id_.partition("-")
    if table in TABLES:
        rows = list(_rows(session, TABLES[table], [uid]))
        if not rows or rows[0].gone_at is None:
            return None
        entry = next(e for e in entries(session) if e.id == id_)
        rows[0].gone_at = None
        return Undone(entry, 1)
    one = next((n for n in _notes(session) if n["id"] == id_), None)
    if one is None:
        return None
    count = changed = 0
    for name, was in one["came"].items():
        for row in _rows(session, TABLES[name], was):
            if row.gone_at is None and digest(row) == was[row.uid]:
                row.gone_at = now()
                count += 1
            elif row.gone_at is None:
                changed += 1
    for name, uids in one["away"].items():
        for row in _rows(session, TABLES[name], uids):
            if row.gone_at is not None:
                row.gone_at = None
                count += 1
    count += unset(session, one["settings"])
    settings.keep(session, HISTORY, [n for n in _notes(session) if n["id"] != id_])
    return Undone(_entry(one), count, changed)


def put_all_away(session: Session) -> int:
    """Begin afresh: everything that counts is put away, and noted; how many rows."""
    away = {
        table: list(session.scalars(select(table.uid).where(table.gone_at.is_(None)))) for table, _ in CALLED
    }
    at = now()
    for table, uids in away.items():
        for row in _rows(session, table, uids):
            row.gone_at = at
    count = sum(map(len, away.values()))
    note(session, "all", f"everything, {count} rows, to begin afresh", away)
    return count


def _notes(session: Session) -> list[dict[str, Any]]:
    """The notes that are young enough, the newest first; none where they cannot be read."""
    notes = settings.read(session, HISTORY, [])
    since = (now() - timedelta(days=KEPT_DAYS)).isoformat()
    return [n for n in notes if isinstance(n, dict) and str(n.get("at", "")) > since] if notes else []


def _entry(one: dict[str, Any]) -> Entry:
    rows = sum(len(uids) for part in (one["away"], one["came"]) for uids in part.values())
    at = _utc(datetime.fromisoformat(one["at"]))
    return Entry(one["id"], at, one["kind"], one["said"], rows + len(one["settings"]))


def _utc(at: datetime) -> datetime:
    return at.replace(tzinfo=UTC)


def _rows(session: Session, table: type[Kept], uids: Iterable[str]) -> Iterable[Kept]:
    """Rows by their names for good."""
    names = list(uids)
    for k in range(0, len(names), AT_ONCE):
        yield from session.scalars(select(table).where(table.uid.in_(names[k : k + AT_ONCE])))


def _called(called: str, row: Kept) -> str:
    """What a row is called: by its name where it has one, a cast by its day, a piece by what it is."""
    body: dict[str, Any] = getattr(row, "body", None) or {}
    if named := getattr(row, "name", ""):
        return f"{called} “{named}”"
    if isinstance(row, CastMade):
        return f"cast of {str(body.get('time', ''))[:10]}{f' at {row.stop}' if row.stop else ''}"
    if isinstance(row, Observation):
        called = {"drop": "drop test", "depth": "depth check", "mat": "mat tried"}.get(row.kind, called)
        return f"{called}: {body.get('head_oz', '')} oz {body.get('family', '')}".replace("-", " ")
    parts = [row.kind] if isinstance(row, Item) else []
    parts += [str(body[k]) for k in ("weight_oz", "family", "length_in", "shape", "name") if body.get(k)]
    return f"{called}: {' '.join(parts)}".replace("-", " ")
