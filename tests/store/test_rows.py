"""Rows put away and taken back."""

from __future__ import annotations

from sqlalchemy.orm import Session

from heathdrop.store import rows, scenarios
from heathdrop.store.models import SavedScenario

BODY = {"conditions": {"water_temp_f": 58}}


def test_rows_are_put_away_and_taken_back(session: Session) -> None:
    one, two = (scenarios.save(session, n, BODY) for n in "ab")
    assert rows.put_away(session, SavedScenario, one.id) is one
    assert rows.put_away(session, SavedScenario, one.id) is None
    assert rows.fetch(session, SavedScenario, one.id) is None
    assert [r.name for r in rows.listed(session, SavedScenario)] == ["b"]
    assert [r.name for r in rows.listed(session, SavedScenario, with_gone=True)] == ["a", "b"]
    assert rows.uids(session, SavedScenario) == {one.uid, two.uid}
    assert rows.take_back(session, SavedScenario, one.id) is one
    assert rows.fetch(session, SavedScenario, one.id) is one
    for id_ in (0, -1, rows.MOST_ID + 1, 99):
        assert rows.fetch(session, SavedScenario, id_) is None
        assert rows.take_back(session, SavedScenario, id_) is None
