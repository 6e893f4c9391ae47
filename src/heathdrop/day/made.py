"""Casts from the water: kept once each (an idempotent upsert), mended, taken back (a soft delete)."""

import uuid
from dataclasses import dataclass

from sqlalchemy.orm import Session

from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.errors import BadInput
from heathdrop.store import casts, settings, trips
from heathdrop.store.files.dayline import typed_parts


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


#: The setting that holds what was taken back last: the day, and the casts.
LAST_AWAY = "away"


@dataclass(frozen=True)
class Away:
    """What was taken back last: its day, and how many casts."""

    on: str
    casts: int


def take_day_back(session: Session, on: str, typed: str = "") -> Away:
    """Take the casts of a day back, or those alone that were typed in with the cast of this id; what was
    taken is remembered, so that it can be undone."""
    made = casts.of_days(session, on, on)
    if typed:
        made = _typed_with(session, on, typed)
    uids = casts.away(session, [str(c.id) for c in made])
    if uids:  # a second tap takes nothing, and does not empty what the first can be undone by
        settings.keep(session, LAST_AWAY, {"on": on, "uids": uids})
    return Away(on, len(uids))


def _typed_with(session: Session, on: str, id_: str) -> list[MadeCast]:
    """The casts of a day that were typed in by the line that this cast is of; none for another cast."""
    parts = typed_parts(casts.of_days(session, on, on))
    return next((part for part in parts if any(str(c.id) == id_ for c in part)), [])


def last_away(session: Session) -> Away | None:
    """What was taken back last and can be brought back; None when there is nothing."""
    kept = settings.read(session, LAST_AWAY, {})
    return Away(kept["on"], len(kept["uids"])) if kept.get("uids") else None


def bring_back(session: Session) -> Away | None:
    """Undo what was taken back last; None when there was nothing."""
    kept = settings.read(session, LAST_AWAY, {})
    if not kept.get("uids"):
        return None
    settings.keep(session, LAST_AWAY, {})
    return Away(kept["on"], len(casts.back(session, kept["uids"])))


def keep_typed(session: Session, made: list[MadeCast], on: str, instead: str = "") -> bool:
    """Keep the casts of a typed line, in place of those that were typed in with the cast of an id; whether
    there was anything new. Raises BadInput."""
    uids = [str(c.id) for c in made]
    if instead:
        casts.away(session, [str(c.id) for c in _typed_with(session, on, instead)])
    return bool(casts.keep(session, made) + casts.back(session, uids)) or bool(instead)


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
