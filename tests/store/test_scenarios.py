"""Scenarios as kept: replaced by name, deleted and back."""

from __future__ import annotations

import pytest
from sqlalchemy.orm import Session

from heathdrop.errors import BadInput
from heathdrop.store import scenarios

BODY = {"conditions": {"water_temp_f": 58}}


def test_a_scenario_of_the_same_name_is_replaced(session: Session) -> None:
    first = scenarios.save(session, "  Mill   bay ", BODY, "swim-jig:0.375:craw", "a note", "c" * 36)
    assert (first.name, first.pick, first.note, first.uid) == (
        "Mill bay",
        "swim-jig:0.375:craw",
        "a note",
        "c" * 36,
    )
    again = scenarios.save(session, "Mill bay", {"conditions": {}}, "", "other note")
    assert again is first
    assert (scenarios.body_of(first), first.pick, first.note) == ({"conditions": {}}, "", "a note")
    assert scenarios.named(session, " Mill  bay") is first
    assert scenarios.named(session, "mill") is None
    with pytest.raises(BadInput):
        scenarios.save(session, "x" * 81, BODY)
    assert scenarios.delete(session, first.id) is first
    assert (scenarios.named(session, "Mill bay"), scenarios.listed(session)) == (None, [])
    assert scenarios.undelete(session, first.id) is first
    assert [s.id for s in scenarios.listed(session)] == [first.id]
