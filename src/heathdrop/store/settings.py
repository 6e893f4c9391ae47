"""Choices that persist: small settings of this data file."""

from typing import Any

from sqlalchemy.orm import Session

from heathdrop.measures import IMPERIAL, SYSTEMS
from heathdrop.store.models import Setting

SCHOOLS, MEASURES = "schools", "measures"


def read(session: Session, key: str, default: Any = None) -> Any:
    """The setting ``key``, or ``default`` when it was never kept."""
    row = session.get(Setting, key)
    return default if row is None else row.value


def schools(session: Session) -> dict[str, str]:
    """The schools held to, by topic; nothing where what was kept cannot be read."""
    held = read(session, SCHOOLS, {})
    if not isinstance(held, dict):
        return {}
    return {str(t): s for t, s in held.items() if isinstance(s, str)}


def measures(session: Session) -> str:
    """The system figures are said in (:data:`heathdrop.measures.SYSTEMS`)."""
    held = read(session, MEASURES, IMPERIAL)
    return held if held in dict(SYSTEMS) else IMPERIAL


def keep(session: Session, key: str, value: Any) -> None:
    """Keep ``value`` under ``key``, replacing what was there."""
    session.merge(Setting(key=key, value=value))
