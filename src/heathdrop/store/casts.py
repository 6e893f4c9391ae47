"""Casts that were made: kept once by their own id, listed in the order they were made, withdrawn."""

import json
import uuid
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from pydantic import ValidationError
from sqlalchemy import select, text
from sqlalchemy.orm import Session

from heathdrop.answers.thrown import rig_of
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import ROWS
from heathdrop.store import rows
from heathdrop.store.database import at_once
from heathdrop.store.models import CastMade, now
from heathdrop.store.versions import CURRENT, upgraded


def keep(session: Session, made: Sequence[MadeCast], at: str = "casts") -> list[str]:
    """Keep casts that are not there yet; the ids of the new ones. Raises BadInput when a rig cannot be: then
    none is kept."""
    for k, cast in enumerate(made):
        rig_of(cast, f"{at}[{k}].")
    at_once(session)  # two phones may send the same cast at the same moment
    there = _there(session, [str(cast.id) for cast in made])
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


def _there(session: Session, uids: Sequence[str]) -> set[str]:
    """Those of these names for good that are on record, taken back or not."""
    present: set[str] = set()
    for at in range(0, len(uids), AT_ONCE):
        present |= set(session.scalars(select(CastMade.uid).where(CastMade.uid.in_(uids[at : at + AT_ONCE]))))
    return present


def mend(session: Session, cast: MadeCast) -> None:
    """Write a cast anew: one that was taken back counts again, one that is not there is kept. Raises
    BadInput."""
    rig_of(cast)
    row = _row(session, str(cast.id))
    if row is None:
        keep(session, [cast])
        return
    row.body = cast.model_dump(mode="json", exclude_none=True, exclude={"id"})
    row.stop, row.version, row.gone_at = cast.stop, CURRENT["cast"], None


def _row(session: Session, uid: str) -> CastMade | None:
    """A cast's row, taken back or not."""
    return session.scalars(select(CastMade).where(CastMade.uid == uid)).first()


def find(session: Session, id_: uuid.UUID) -> MadeCast | None:
    """The cast of an id, taken back or not; None when there is none, or it cannot be read."""
    row = _row(session, str(id_))
    try:
        return None if row is None else MadeCast.model_validate(body_of(row))
    except ValidationError:
        return None


def body_of(row: CastMade) -> dict[str, Any]:
    """A cast's fields in today's form, its id with them."""
    return {"id": row.uid, **upgraded("cast", "*", row.version, row.body)}


#: Casts that are remembered as read: a season of many, so that a page reads only what is new.
REMEMBERED = 32768


@lru_cache(maxsize=REMEMBERED)
def _read(uid: str, version: int, text: str) -> MadeCast | None:
    """A cast from its row's text; None for one that cannot be read. The same object each time: it is not
    changed, but copied where it must differ."""
    try:
        return MadeCast.model_validate({"id": uid, **upgraded("cast", "*", version, json.loads(text))})
    except (ValidationError, ValueError):
        return None


def listed(session: Session, stop: str | None = None, trip: str | None = None) -> list[MadeCast]:
    """Casts in the order they were made, at one stop and of one trip where they are named; what cannot be
    read is passed over."""
    session.flush()
    where = "" if stop is None else " and stop = :stop"
    query = f"select uid, version, cast(body as text) from cast_made where gone_at is null{where} order by id"
    rows_ = session.execute(text(query), {} if stop is None else {"stop": stop})
    all_casts = (_read(str(uid), int(version), str(body)) for uid, version, body in rows_)
    made = [c for c in all_casts if c is not None and (trip is None or c.trip == trip)]
    return sorted(made, key=lambda c: c.time)


#: Names asked of the database at once.
AT_ONCE = 500
#: A cast as its row has it: name for good, version, body as text.
Text = tuple[str, int, str]
#: Contacts that are looked at, the latest.
CONTACTS = 200
#: The name of the trip under way, the newest that has not ended; null when there is none.
UNDER_WAY = (
    "select name from trip where gone_at is null and not coalesce(json_extract(body, '$.ended'), 0) "
    "order by id desc limit 1"
)


def contacts(session: Session) -> tuple[Text, ...]:
    """The latest casts that touched the bottom or the top of the cover at a second that is on record, or ran
    high or low, in the order they were kept. What ran off on the trip under way is not among them: there the
    search takes it to run so already, and it is not to count twice."""
    session.flush()
    shows = ", ".join(f"'{row.id}'" for row in ROWS if row.shows)
    ran = ", ".join(f"'{row.id}'" for row in ROWS if row.ran_off)
    query = (
        "select uid, version, cast(body as text) from cast_made where gone_at is null "
        f"and (json_extract(body, '$.outcome') in ({ran}) "
        f"and coalesce(json_extract(body, '$.trip'), '') is not ({UNDER_WAY}) "
        f"or json_extract(body, '$.outcome') in ({shows}) and json_extract(body, '$.at_s') is not null) "
        f"order by id desc limit {CONTACTS}"
    )
    contact_rows = session.execute(text(query)).all()[::-1]
    return tuple((str(uid), int(version), str(body)) for uid, version, body in contact_rows)


def read(rows_: Sequence[Text]) -> list[MadeCast]:
    """Casts of their rows, in the order they were made; what cannot be read is passed over."""
    made = (_read(*row) for row in rows_)
    return sorted((c for c in made if c is not None), key=lambda c: c.time)


@dataclass(frozen=True)
class DayCount:
    """A day on record: its date (``2026-04-11``, by the clock of its casts), casts, bites, stops."""

    date: str
    casts: int
    bites: int
    stops: str = ""


def days(session: Session) -> list[DayCount]:
    """Every day on record, the newest first, counted by the database."""
    session.flush()
    bitten = ", ".join(f"'{row.id}'" for row in ROWS if row.bitten)
    query = (
        "select substr(json_extract(body, '$.time'), 1, 10) as day, count(*), "
        f"sum(json_extract(body, '$.outcome') in ({bitten})), group_concat(distinct stop) "
        "from cast_made where gone_at is null group by day order by day desc"
    )
    rows_ = session.execute(text(query))
    return [DayCount(str(day), int(n), int(bites), stops or "") for day, n, bites, stops in rows_ if day]


def of_id(session: Session, id_: uuid.UUID) -> MadeCast | None:
    """The cast of an id; None where it is not on record or cannot be read."""
    session.flush()
    query = "select uid, version, cast(body as text) from cast_made where gone_at is null and uid = :uid"
    row = session.execute(text(query), {"uid": str(id_)}).first()
    return None if row is None else _read(str(row[0]), int(row[1]), str(row[2]))


def of_days(session: Session, first: str, last: str, dates: Iterable[str] = ()) -> list[MadeCast]:
    """The casts of the days from ``first`` to ``last`` (of ``dates`` among them alone, where named), in the
    order they were made."""
    session.flush()
    days_ = json.dumps(sorted(dates))
    among = "" if days_ == "[]" else "and day in (select value from json_each(:days)) "
    query = (
        "select uid, version, body from (select id, uid, version, cast(body as text) as body, "
        "substr(json_extract(body, '$.time'), 1, 10) as day from cast_made where gone_at is null) "
        f"where day between :first and :last {among}order by id"
    )
    rows_ = session.execute(text(query), {"first": first, "last": last} | ({"days": days_} if among else {}))
    made = (_read(str(uid), int(version), str(body)) for uid, version, body in rows_)
    return sorted((c for c in made if c is not None), key=lambda c: c.time)


def first_of_stops(session: Session) -> list[MadeCast]:
    """The first cast of every day at every stop whose water is on record."""
    session.flush()
    query = (
        "select uid, version, cast(body as text) from cast_made where id in (select min(id) from cast_made "
        "where gone_at is null and json_extract(body, '$.conditions') is not null "
        "group by substr(json_extract(body, '$.time'), 1, 10), stop)"
    )
    made = (_read(str(uid), int(version), str(body)) for uid, version, body in session.execute(text(query)))
    return [c for c in made if c is not None]


def away(session: Session, uids: Sequence[str]) -> list[str]:
    """Take casts back; those of them that counted until now."""
    return _marked(session, uids, gone=True)


def back(session: Session, uids: Sequence[str]) -> list[str]:
    """Bring casts back that were taken back; those of them that do not count now."""
    return _marked(session, uids, gone=False)


def _marked(session: Session, uids: Sequence[str], gone: bool) -> list[str]:
    is_gone = CastMade.gone_at.is_not(None)
    marked: list[str] = []
    for at in range(0, len(uids), AT_ONCE):
        chosen = CastMade.uid.in_(uids[at : at + AT_ONCE])
        for row in session.scalars(select(CastMade).where(chosen, ~is_gone if gone else is_gone)):
            row.gone_at = now() if gone else None
            marked.append(row.uid)
    session.flush()
    return marked


def withdraw(session: Session, uid: str) -> bool:
    """Take a cast back; whether there was one."""
    row = _row(session, uid)
    return row is not None and rows.put_away(session, CastMade, row.id) is not None
