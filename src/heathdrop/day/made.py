"""Casts from the water: kept once each (an idempotent upsert), mended, taken back (a soft delete)."""

from __future__ import annotations

import uuid

from sqlalchemy.orm import Session

from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.errors import BadInput
from heathdrop.store import casts, trips


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


def _filled(session: Session, cast: MadeCast) -> MadeCast:
    """A cast of the trip under way with the conditions of its stop as they are now, or as they were kept with
    it before; what it says itself counts first."""
    under_way = trips.current(session)
    stop = under_way[1].stop(cast.stop) if under_way and cast.trip == under_way[0].name else None
    before = casts.find(session, cast.id)
    known = before.conditions if before and before.conditions else stop.conditions if stop else None
    if known is None:
        return cast
    # The bottom as driven is the stop's, and too long to stand with every cast.
    own = {k: v for k, v in {**known, **(cast.conditions or {})}.items() if k != "bottom_ft"}
    return cast.model_copy(update={"conditions": own})


__all__ = ["keep_casts", "mend_cast", "take_back"]
