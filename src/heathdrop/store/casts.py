"""Casts that were made: kept once by their own id, listed in the order they were made, withdrawn."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from pydantic import ValidationError
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.conditions.made import MadeCast
from heathdrop.physics.rig import Rig, rig_by_name
from heathdrop.store import rows
from heathdrop.store.models import CastMade
from heathdrop.store.versions import CURRENT, upgraded


def rig_of(cast: MadeCast, at: str = "") -> Rig:
    """The rig that was thrown. Raises BadInput naming the field under ``at``."""
    named = {k: getattr(cast, k) for k in ("skirt", "plastic", "orientation") if getattr(cast, k)}
    length = cast.trailer_length_in or None
    return rig_by_name(
        catalogue.load(),
        cast.family,
        cast.head_oz,
        cast.trailer,
        at=at,
        head_material=cast.head_material,
        trailer_length_in=length,
        **named,
    )


def keep(session: Session, made: Sequence[MadeCast], at: str = "casts") -> list[str]:
    """Keep casts that are not there yet; the ids of the new ones. Raises BadInput when a rig cannot be: then
    none is kept."""
    for k, cast in enumerate(made):
        rig_of(cast, f"{at}[{k}].")
    there = rows.uids(session, CastMade)
    new = []
    for cast in made:
        uid = str(cast.id)
        if uid in there:
            continue
        there.add(uid)
        body = cast.model_dump(mode="json", exclude_none=True, exclude={"id"})
        session.add(CastMade(uid=uid, version=CURRENT["cast"], stop=cast.stop, body=body))
        new.append(uid)
    session.flush()
    return new


def body_of(row: CastMade) -> dict[str, Any]:
    """A cast's fields in today's form, its id with them."""
    return {"id": row.uid, **upgraded("cast", "*", row.version, row.body)}


def listed(session: Session, stop: str | None = None) -> list[MadeCast]:
    """Casts in the order they were made, at one stop when it is named; what cannot be read is passed over."""
    found = []
    for row in rows.listed(session, CastMade):
        if stop is not None and row.stop != stop:
            continue
        try:
            found.append(MadeCast.model_validate(body_of(row)))
        except ValidationError:
            continue
    return sorted(found, key=lambda c: c.time)


def withdraw(session: Session, uid: str) -> bool:
    """Take a cast back; whether there was one."""
    row = next((r for r in rows.listed(session, CastMade) if r.uid == uid), None)
    return row is not None and rows.put_away(session, CastMade, row.id) is not None
