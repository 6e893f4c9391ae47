"""Saved plans: list, keep, change, copy, delete, undo."""

from collections.abc import Sequence
from typing import Any

from sqlalchemy.orm import Session

from heathdrop.conditions.plan import PlanRequest
from heathdrop.errors import named
from heathdrop.store import rows
from heathdrop.store.models import SavedPlan, new_uid
from heathdrop.store.versions import CURRENT, upgraded

LONGEST_NAME = 80


def listed(session: Session) -> Sequence[SavedPlan]:
    """Plans not deleted, in the order they were made."""
    return rows.listed(session, SavedPlan)


def body_of(row: SavedPlan) -> dict[str, Any]:
    """A plan's request, in today's form."""
    return upgraded("plan", "*", row.version, row.body)


def request_of(row: SavedPlan) -> PlanRequest:
    """A plan's request, checked. Raises pydantic's ValidationError for a body that cannot be."""
    return PlanRequest.model_validate(body_of(row))


def keep(session: Session, name: str, body: dict[str, Any], uid: str | None = None) -> SavedPlan:
    """Keep a new plan. Raises BadInput for an unusable name."""
    row = SavedPlan(name=named(name, LONGEST_NAME), body=body, version=CURRENT["plan"], uid=uid or new_uid())
    session.add(row)
    session.flush()
    return row


def change(session: Session, id_: int, body: dict[str, Any], name: str | None = None) -> SavedPlan | None:
    """Write a plan anew; None when there is none."""
    row = rows.fetch(session, SavedPlan, id_)
    if row is not None:
        called = row.name if name is None else named(name, LONGEST_NAME)
        row.name, row.body, row.version = called, body, CURRENT["plan"]
    return row


def fetch(session: Session, id_: int) -> SavedPlan | None:
    """The plan, None when there is none."""
    return rows.fetch(session, SavedPlan, id_)


def delete(session: Session, id_: int) -> SavedPlan | None:
    """Mark a plan deleted; None when there is none."""
    return rows.put_away(session, SavedPlan, id_)


def undelete(session: Session, id_: int) -> SavedPlan | None:
    """Take a deletion back; None when there is no such plan."""
    return rows.take_back(session, SavedPlan, id_)
