"""Phones that were paired: named, last seen, sent off. They are this machine's, and are not exported."""

import time
from collections.abc import Sequence
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session

from heathdrop.store import rows
from heathdrop.store.database import Database
from heathdrop.store.models import Device, now

LONGEST_NAME = 40
#: A phone's last sight is written at most this often, s.
APART_S = 60.0
#: What a browser says it is on, and what the phone is called where it was given no name.
KINDS = (("iPhone", "iPhone"), ("iPad", "iPad"), ("Android", "Android phone"), ("Mobile", "phone"))
_written: dict[str, float] = {}


def listed(session: Session) -> Sequence[Device]:
    """Phones that may come in, in the order they were paired."""
    return rows.listed(session, Device)


def pair(database: Database, name: str, agent: str = "") -> str:
    """Let a phone in; its name for good."""
    kind = next((said for word, said in KINDS if word in agent), "computer")
    called = " ".join("".join(c for c in name if c.isprintable()).split())[:LONGEST_NAME] or kind
    with database.session() as session:
        row = Device(name=called, seen_at=now())
        session.add(row)
        session.flush()
        return row.uid


def seen(database: Database, uid: str) -> bool:
    """Whether a phone may come in; when it was here is written down."""
    with database.session() as session:
        row = session.scalars(select(Device).where(Device.uid == uid, Device.gone_at.is_(None))).first()
        if row is None:
            return False
        id_ = row.id
    if time.monotonic() - _written.get(uid, -APART_S) >= APART_S:
        _written[uid] = time.monotonic()
        try:
            with database.session() as session:
                device = rows.fetch(session, Device, id_)
                if device is not None:
                    device.seen_at = now()
        except OperationalError:
            # A file that cannot be written now: the phone is known all the same.
            return True
    return True


def send_off(session: Session, id_: int) -> Device | None:
    """A phone may not come in any more; None when there is none."""
    return rows.put_away(session, Device, id_)


def ago(seen_at: datetime) -> str:
    """How long ago, in words."""
    minutes = int((now() - seen_at).total_seconds() // 60)
    if minutes < 2:
        return "just now"
    if minutes < 120:
        return f"{minutes} minutes ago"
    return f"{minutes // 60} hours ago" if minutes < 2880 else f"{minutes // 1440} days ago"
