"""What every kept table can do: list, fetch, put away, take back."""

from collections.abc import Collection, Sequence
from typing import TypeVar

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from heathdrop.store.models import Kept, now

K = TypeVar("K", bound=Kept)
#: The largest id SQLite has.
MOST_ID = 2**63 - 1


def listed(session: Session, table: type[K], with_gone: bool = False) -> Sequence[K]:
    """Rows in the order they came; those put away only when asked for."""
    query = select(table).order_by(table.id)
    return session.scalars(query if with_gone else query.where(table.gone_at.is_(None))).all()


def fetch(session: Session, table: type[K], id_: int) -> K | None:
    """The row ``id_``, None when there is none or it was put away."""
    row = _at(session, table, id_)
    return row if row is not None and row.gone_at is None else None


def _at(session: Session, table: type[K], id_: int) -> K | None:
    """The row ``id_``, gone or not; None too for a number that no table counts to."""
    return session.get(table, id_) if 0 < id_ <= MOST_ID else None


def uids(session: Session, table: type[Kept]) -> set[str]:
    """The names for good of every row, those put away too."""
    return set(session.scalars(select(table.uid)))


def living(session: Session, table: type[Kept]) -> set[str]:
    """The names for good of the rows that are not put away."""
    return set(session.scalars(select(table.uid).where(table.gone_at.is_(None))))


def forget_gone(session: Session, table: type[Kept], names: Collection[str]) -> None:
    """Take out for good the rows of these names that were put away, so that they can come back anew."""
    if names:
        session.execute(delete(table).where(table.uid.in_(names), table.gone_at.is_not(None)))


def put_away(session: Session, table: type[K], id_: int) -> K | None:
    """Mark a row as gone: deleted, or withdrawn. None when there is none."""
    row = fetch(session, table, id_)
    if row is not None:
        row.gone_at = now()
    return row


def take_back(session: Session, table: type[K], id_: int) -> K | None:
    """Undo that. None when there is no such row."""
    row = _at(session, table, id_)
    if row is not None:
        row.gone_at = None
    return row
