"""Settings from a file: they come in where none is set, over nothing, and go back with the import's undo."""

from collections.abc import Sequence
from typing import Any

from sqlalchemy.orm import Session

from heathdrop.measures import IMPERIAL
from heathdrop.store import drills, fish, settings
from heathdrop.store.models import Setting

Row = dict[str, Any]
#: Settings of several choices, each by its name, and those of one; what one is where nobody chose.
SEVERAL = (settings.SCHOOLS, fish.FISH, fish.SPOKEN)
ONE = {settings.MEASURES: IMPERIAL, drills.HAND_IN_USE: False}


def not_set_yet(session: Session, rows: Sequence[Row]) -> list[Row]:
    """The rows with only the choices that nobody has made here; none that has nothing left."""
    unset = []
    for row in rows:
        new: Row = {}
        for key in SEVERAL:
            held = _held(session, key)
            left = {k: v for k, v in (row.get(key) or {}).items() if k not in held}
            new |= {key: left} if left else {}
        for key, usual in ONE.items():
            if row.get(key, usual) != usual and settings.read(session, key) is None:
                new[key] = row[key]
        unset += [new] if new else []
    return unset


def keep(session: Session, rows: Sequence[Row]) -> list[str]:
    """Keep what is not set yet; its names, for the undo."""
    came = []
    for row in not_set_yet(session, rows):
        for key, value in row.items():
            if key in SEVERAL:
                settings.keep(session, key, {**_held(session, key), **value})
                came += [f"{key}.{name}" for name in value]
            else:
                settings.keep(session, key, value)
                came.append(key)
    return came


def take_back(session: Session, came: Sequence[str]) -> int:
    """Unset what an import set; how many."""
    for name in came:
        key, _, part = name.partition(".")
        left = {k: v for k, v in _held(session, key).items() if k != part} if part else {}
        row = session.get(Setting, key)
        if row is not None and left:
            row.value = left
        elif row is not None:
            session.delete(row)
            session.flush()
    return len(came)


def _held(session: Session, key: str) -> dict[str, Any]:
    """The choices under a key; none where what was kept cannot be read."""
    held = settings.read(session, key, {})
    return held if isinstance(held, dict) else {}
