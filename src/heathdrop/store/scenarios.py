"""Saved scenarios: list, save, delete, undo."""

from collections.abc import Sequence
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from heathdrop import errors
from heathdrop.store import rows
from heathdrop.store.models import SavedScenario, new_uid
from heathdrop.store.versions import CURRENT, upgraded

LONGEST_NAME = 80


def listed(session: Session) -> Sequence[SavedScenario]:
    """Scenarios not deleted, in the order they were saved."""
    return rows.listed(session, SavedScenario)


def body_of(row: SavedScenario) -> dict[str, Any]:
    """A scenario's size request, in today's form."""
    return upgraded("scenario", "*", row.version, row.body)


def named(session: Session, name: str) -> SavedScenario | None:
    """The scenario of that name, when there is one."""
    name = " ".join(name.split())
    query = select(SavedScenario).where(SavedScenario.name == name, SavedScenario.gone_at.is_(None))
    return session.scalars(query).first()


def save(
    session: Session,
    name: str,
    body: dict[str, Any],
    pick: str = "",
    note: str = "",
    uid: str | None = None,
) -> SavedScenario:
    """Save under ``name``; a scenario of that name is replaced. Raises BadInput for an unusable name."""
    name = errors.named(name, LONGEST_NAME)
    row = named(session, name)
    if row is None:
        row = SavedScenario(
            name=name, note=note, body=body, pick=pick, version=CURRENT["scenario"], uid=uid or new_uid()
        )
        session.add(row)
    else:
        row.body, row.pick, row.version = body, pick, CURRENT["scenario"]
    session.flush()
    return row


def delete(session: Session, id_: int) -> SavedScenario | None:
    """Mark the scenario deleted; None when there is none."""
    return rows.put_away(session, SavedScenario, id_)


def undelete(session: Session, id_: int) -> SavedScenario | None:
    """Take a deletion back; None when there is no such scenario."""
    return rows.take_back(session, SavedScenario, id_)
