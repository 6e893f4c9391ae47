"""Choices that persist, read with care."""

from __future__ import annotations

from sqlalchemy.orm import Session

from heathdrop.store import settings


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
