"""Choices that persist, read with care."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from sqlalchemy.orm import Session

from heathdrop.store import settings
from heathdrop.store.database import Database


@pytest.fixture
def database(tmp_path: Path) -> Iterator[Database]:
    found = Database(tmp_path / "d.sqlite")
    yield found
    found.close()


@pytest.fixture
def session(database: Database) -> Iterator[Session]:
    with database.session() as session:
        yield session


def test_settings_are_read_with_care(session: Session) -> None:
    assert (settings.schools(session), settings.measures(session)) == ({}, "imperial")
    assert settings.read(session, "other", 3) == 3
    settings.keep(session, settings.SCHOOLS, {"a": "b", "c": 4})
    settings.keep(session, settings.MEASURES, "metric")
    session.flush()
    assert (settings.schools(session), settings.measures(session)) == ({"a": "b"}, "metric")
    settings.keep(session, settings.SCHOOLS, [1])
    settings.keep(session, settings.MEASURES, "furlongs")
    session.flush()
    assert (settings.schools(session), settings.measures(session)) == ({}, "imperial")
