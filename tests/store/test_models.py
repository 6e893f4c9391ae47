"""Rows as they are kept: a name for good, a moment in UTC, no two tables alike."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime

from sqlalchemy.orm import Session

from heathdrop.store.models import Base, CastMade, Item, SavedScenario, new_uid, now


def test_a_new_row_counts_and_has_a_name_for_good(session: Session) -> None:
    row = SavedScenario(name="Bay", body={"a": 1})
    session.add(row)
    session.flush()
    assert uuid.UUID(row.uid).version == 4
    assert (row.version, row.gone_at, row.note, row.pick) == (1, None, "", "")
    assert abs((datetime.now(UTC).replace(tzinfo=None) - row.created_at).total_seconds()) < 60
    assert new_uid() != new_uid()


def test_moments_are_utc_without_saying_so() -> None:
    assert now().tzinfo is None
    assert abs((datetime.now(UTC).replace(tzinfo=None) - now()).total_seconds()) < 5


def test_the_tables_and_what_finds_their_rows() -> None:
    tables = Base.metadata.tables
    assert {"scenario", "plan", "trip", "device", "cast_made", "item", "observation", "setting"} <= set(
        tables
    )
    for model in (SavedScenario, CastMade, Item):
        assert model.__table__.c.uid.unique
    assert CastMade.__table__.c.stop.index
    assert not any(c.name.startswith("ck_") for t in tables.values() for c in t.constraints if c.name)
