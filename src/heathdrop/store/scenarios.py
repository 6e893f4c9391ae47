"""Saved scenarios: list, save, delete, undo."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from heathdrop.errors import BadInput
from heathdrop.store.models import SavedScenario

LONGEST_NAME = 80


def now() -> datetime:
    """This moment, UTC, as the data file keeps it."""
    return datetime.now(UTC).replace(tzinfo=None)


def listed(session: Session) -> Sequence[SavedScenario]:
    """Scenarios not deleted, in the order they were saved."""
    query = select(SavedScenario).where(SavedScenario.deleted_at.is_(None)).order_by(SavedScenario.id)
    return session.scalars(query).all()


def save(session: Session, name: str, body: dict[str, Any], pick: str = "", note: str = "") -> SavedScenario:
    """Save under ``name``; a scenario of that name is replaced. Raises BadInput for an unusable name."""
    name = " ".join(name.split())
    if not 1 <= len(name) <= LONGEST_NAME:
        raise BadInput("name", name, f"1 to {LONGEST_NAME} characters")
    query = select(SavedScenario).where(SavedScenario.name == name, SavedScenario.deleted_at.is_(None))
    row = session.scalars(query).first()
    if row is None:
        row = SavedScenario(name=name, note=note, body=body, pick=pick, created_at=now())
        session.add(row)
    else:
        row.body, row.pick = body, pick
    session.flush()
    return row


def fetch(session: Session, id_: int) -> SavedScenario | None:
    """The scenario ``id_``, or None when there is none or it was deleted."""
    row = session.get(SavedScenario, id_)
    return row if row is not None and row.deleted_at is None else None


def delete(session: Session, id_: int) -> SavedScenario | None:
    """Mark the scenario deleted; None when there is none."""
    row = fetch(session, id_)
    if row is not None:
        row.deleted_at = now()
    return row


def undelete(session: Session, id_: int) -> SavedScenario | None:
    """Take a deletion back; None when there is no such scenario."""
    row = session.get(SavedScenario, id_)
    if row is not None:
        row.deleted_at = None
    return row
