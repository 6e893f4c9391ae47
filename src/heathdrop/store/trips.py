"""Trips: begun, the one under way, its water changed, ended. Casts name their trip by its name."""

from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop.conditions.trip import TripBody
from heathdrop.store import rows
from heathdrop.store.models import Trip, new_uid
from heathdrop.store.versions import CURRENT, upgraded

LONGEST_NAME = 120


def listed(session: Session) -> Sequence[Trip]:
    """Trips in the order they were begun."""
    return rows.listed(session, Trip)


def body_of(row: Trip) -> dict[str, Any]:
    """A trip's body, in today's form."""
    return upgraded("trip", "*", row.version, row.body)


def begin(session: Session, name: str, body: TripBody, uid: str | None = None) -> Trip:
    """A new trip; a name that is taken gets a number."""
    name, taken = " ".join(name.split())[:LONGEST_NAME] or "A day", {t.name for t in listed(session)}
    called, k = name, 2
    while called in taken:
        tail = f" ({k})"
        called, k = name[: LONGEST_NAME - len(tail)] + tail, k + 1
    row = Trip(name=called, body=body.model_dump(mode="json"), version=CURRENT["trip"], uid=uid or new_uid())
    session.add(row)
    session.flush()
    return row


def current(session: Session) -> tuple[Trip, TripBody] | None:
    """The trip under way: the newest that has not ended; None when there is none."""
    for row in reversed(listed(session)):
        try:
            body = TripBody.model_validate(body_of(row))
        except ValidationError:
            continue
        if not body.ended:
            return row, body
    return None


def write(row: Trip, body: TripBody) -> None:
    """Write a trip anew."""
    row.body, row.version = body.model_dump(mode="json"), CURRENT["trip"]
