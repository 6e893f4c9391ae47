"""Answers to the trainer's questions: kept once by their own id (idempotent upsert), in their order."""

from collections.abc import Sequence
from contextlib import suppress
from datetime import UTC, datetime, timedelta
from typing import Any

from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop.conditions.drilled import Drilled
from heathdrop.store import rows, settings
from heathdrop.store.models import DrillDone
from heathdrop.store.versions import CURRENT, upgraded
from heathdrop.training.hand import STALE_DAYS, HandError, hand_of, tapped
from heathdrop.training.spacing import Marked

#: The setting that says whether one's own hand is in use.
HAND_IN_USE = "hand"
#: Rounds that a hand is told from: the latest.
LATEST = 120


def keep(session: Session, done: Sequence[Drilled]) -> list[str]:
    """Keep answers that are not there yet; the ids of the new ones."""
    there, new = rows.uids(session, DrillDone), []
    for one in done:
        uid = str(one.id)
        if uid not in there:
            there.add(uid)
            body = one.model_dump(mode="json", exclude_none=True, exclude={"id"})
            session.add(DrillDone(uid=uid, version=CURRENT["drill"], body=body))
            new.append(uid)
    session.flush()
    return new


def body_of(row: DrillDone) -> dict[str, Any]:
    """An answer's fields in today's form, its id with them."""
    return {"id": row.uid, **upgraded("drill", "*", row.version, row.body)}


def listed(session: Session) -> list[Drilled]:
    """Answers in the order they were given."""
    drilled = []
    for row in rows.listed(session, DrillDone):
        with suppress(ValidationError):  # one that cannot be read is passed over, and stays where it is
            drilled.append(Drilled.model_validate(body_of(row)))
    return sorted(drilled, key=lambda d: utc(d.time))


def utc(time: datetime) -> datetime:
    """A moment in UTC; one without an offset is taken to be so already."""
    return time.replace(tzinfo=UTC) if time.tzinfo is None else time.astimezone(UTC)


def marked(done: Sequence[Drilled]) -> list[Marked]:
    """Answers as the scheduler takes them."""
    return [Marked(d.question.rpartition(".")[0], utc(d.time), d.mark) for d in done]


def _rounds_of(done: Sequence[Drilled], kind: str = "count") -> list[Drilled]:
    """The latest rounds of a hand's kind."""
    of_kind = [d for d in done if d.question.startswith(f"{kind}.") and d.asked_s and d.tapped_s]
    return of_kind[-LATEST:]


def hand(session: Session, kind: str = "count") -> HandError | None:
    """The hand that the rounds tell; None without any."""
    rounds = _rounds_of(listed(session), kind)
    return hand_of([tapped(d.asked_s or 0.0, d.tapped_s or 0.0) for d in rounds])


def stale(session: Session, now: datetime | None = None, kind: str = "count") -> bool:
    """Whether the last round of a hand's kind lies longer back than a season."""
    rounds = _rounds_of(listed(session), kind)
    return not rounds or (now or datetime.now(UTC)) - utc(rounds[-1].time) > timedelta(days=STALE_DAYS)


def in_use(session: Session) -> bool:
    """Whether the angler agreed to have their own hand used."""
    return settings.read(session, HAND_IN_USE, False) is True


def use(session: Session, used: bool) -> None:
    """Agree to have one's own hand used, or withdraw that."""
    settings.keep(session, HAND_IN_USE, used)


def hand_used(session: Session, kind: str = "count") -> HandError | None:
    """The hand that bands use, counting or turning (``pace``): agreed to, from enough rounds, not stale; None
    for the one assumed."""
    if not in_use(session):
        return None
    error = hand(session, kind)
    return error if error is not None and error.enough and not stale(session, kind=kind) else None
