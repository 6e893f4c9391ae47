"""Casts from the deck: filled with the water of their stop, mended, taken back."""

from __future__ import annotations

import uuid

import pytest
from sqlalchemy.orm import Session

from heathdrop.conditions.made import MadeCasts
from heathdrop.day.made import keep_casts, mend_cast, take_back
from heathdrop.errors import BadInput
from heathdrop.store import casts, trips
from tests.day.under_way import WATER, cast


def test_a_cast_is_kept_with_the_water_of_its_stop(session: Session) -> None:
    own = {"wind_mph": 15.0}
    sent = [cast(1), cast(2, conditions=own), cast(3, trip="Yesterday"), cast(4, stop="Elsewhere")]
    kept_ids = keep_casts(session, MadeCasts(sent))
    assert kept_ids == [str(c.id) for c in sent]
    kept = {str(c.id): c.conditions for c in casts.listed(session)}
    assert kept[kept_ids[0]] == WATER
    assert kept[kept_ids[1]] == {**WATER, **own}
    assert kept[kept_ids[2]] is kept[kept_ids[3]] is None


def test_a_mended_cast_keeps_the_water_it_had(session: Session) -> None:
    keep_casts(session, MadeCasts([cast(1)]))
    row, body = trips.current(session)  # type: ignore[misc]
    body.stops[0].conditions = {**WATER, "wind_mph": 20}
    trips.write(row, body)
    session.flush()
    mend_cast(session, cast(1).id, cast(1, outcome="fish", note="off the stump"))
    found = casts.find(session, cast(1).id)
    assert found is not None
    assert (found.outcome, found.note, found.conditions) == ("fish", "off the stump", WATER)
    other = uuid.uuid4()
    with pytest.raises(BadInput) as refusal:
        mend_cast(session, other, cast(1))
    assert str(refusal.value) == f"id was “{cast(1).id}”; it must be {other}, as in the address."


def test_taken_back_once(session: Session) -> None:
    keep_casts(session, MadeCasts([cast(1)]))
    assert [take_back(session, cast(1).id) for _ in range(2)] == [True, False]
