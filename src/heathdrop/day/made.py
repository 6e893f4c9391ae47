"""Casts from the water: kept once each (an idempotent upsert), mended, taken back (a soft delete)."""

import uuid
from dataclasses import dataclass

from sqlalchemy.orm import Session

from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.errors import BadInput
from heathdrop.store import casts, history, trips
from heathdrop.store.files.dayline import typed_parts
from heathdrop.store.models import CastMade
from heathdrop.units import many


def keep_casts(session: Session, made: MadeCasts) -> list[str]:
    """Keep what was sent and give every id in order; sent twice it is kept once. Raises BadInput."""
    casts.keep(session, [_filled(session, c) for c in made.root])
    return [str(c.id) for c in made.root]


def mend_cast(session: Session, id_: uuid.UUID, cast: MadeCast) -> str:
    """Write a cast anew, or keep it when it is not there. Raises BadInput when it names another id."""
    if cast.id != id_:
        raise BadInput("id", str(cast.id), f"{id_}, as in the address")
    casts.mend(session, _filled(session, cast))
    return str(id_)


def take_back(session: Session, id_: uuid.UUID) -> bool:
    """Take a cast back; whether it was there. Asked twice it is taken back once."""
    return casts.withdraw(session, str(id_))


@dataclass(frozen=True)
class Away:
    """What was taken back last: its day, how many casts, and how many were left alone since they changed."""

    on: str
    casts: int
    changed: int = 0


def take_day_back(session: Session, on: str, typed: str = "") -> Away:
    """Take the casts of a day back, or those alone that were typed in with the cast of this id; what was
    taken is noted, so that it can be undone. A second tap takes nothing, and notes nothing."""
    made = casts.of_days(session, on, on)
    if typed:
        made = _typed_with(session, on, typed)
    uids = casts.away(session, [str(c.id) for c in made])
    history.note(session, "away", f"{many(len(uids), 'cast')} of {on}", {CastMade: uids})
    return Away(on, len(uids))


def _typed_with(session: Session, on: str, id_: str) -> list[MadeCast]:
    """The casts of a day that were typed in by the line that this cast is of; none for another cast."""
    parts = typed_parts(casts.of_days(session, on, on))
    return next((part for part in parts if any(str(c.id) == id_ for c in part)), [])


def last_away(session: Session) -> Away | None:
    """What was taken back or said otherwise last and can be brought back; None when there is nothing."""
    kinds = (history.latest(session, kind) for kind in ("away", "typed"))
    latest = max((e for e in kinds if e is not None), key=lambda e: e.at, default=None)
    return None if latest is None else Away(latest.said.rpartition(" ")[2], latest.rows)


def bring_back(session: Session) -> Away | None:
    """Undo what was taken back or said otherwise last; None when there was nothing."""
    kinds = (history.latest(session, kind) for kind in ("away", "typed"))
    latest = max((e for e in kinds if e is not None), key=lambda e: e.at, default=None)
    done = history.undo(session, latest.id) if latest else None
    return None if done is None else Away(done.entry.said.rpartition(" ")[2], done.rows, done.changed)


def keep_typed(session: Session, made: list[MadeCast], on: str, instead: str = "") -> bool:
    """Keep the casts of a typed line, in place of those that were typed in with the cast of an id: fish and
    notes that were written to those since are carried over, and what was there can be brought back. Answers
    whether there was anything new. Raises BadInput."""
    before = _typed_with(session, on, instead) if instead else []
    made = _carried(before, made)
    gone = casts.away(session, [str(c.id) for c in before])
    uids = [str(c.id) for c in made]
    came = casts.keep(session, made) + casts.back(session, uids)
    if gone:
        history.note(session, "typed", f"a typed line of {on}", {CastMade: gone}, {CastMade: uids})
    return bool(came) or bool(instead)


def _carried(before: list[MadeCast], made: list[MadeCast]) -> list[MadeCast]:
    """New casts with the fish and the notes of those before them that came to the same."""
    left, carried = list(before), []
    for cast in made:
        old = next((c for c in left if c.outcome == cast.outcome), None)
        if old is not None:
            left.remove(old)
            cast = cast.model_copy(update={"fish": cast.fish or old.fish, "note": cast.note or old.note})
        carried.append(cast)
    return carried


def _filled(session: Session, cast: MadeCast) -> MadeCast:
    """A cast of the trip under way with the conditions of its stop as they are now, or as they were kept with
    it before; what it says itself counts first."""
    under_way = trips.current(session)
    stop = under_way[1].stop(cast.stop) if under_way and cast.trip == under_way[0].name else None
    before = casts.find(session, cast.id)
    conditions = before.conditions if before and before.conditions else stop.conditions if stop else None
    if conditions is None:
        return cast
    # The bottom as driven is the stop's, and too long to stand with every cast.
    own = {k: v for k, v in {**conditions, **(cast.conditions or {})}.items() if k != "bottom_ft"}
    return cast.model_copy(update={"conditions": own})
