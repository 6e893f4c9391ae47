"""Casts from the deck: filled with the water of their stop, mended, taken back."""

from __future__ import annotations

import uuid

import pytest
from sqlalchemy.orm import Session

from heathdrop.conditions.made import MadeCasts
from heathdrop.day.made import (
    Away,
    bring_back,
    keep_casts,
    last_away,
    mend_cast,
    take_back,
    take_day_back,
)
from heathdrop.errors import BadInput
from heathdrop.store import casts, trips
from tests.answers.logged import cast as logged
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


@pytest.mark.slow
def test_a_day_of_many_casts_is_taken_back_and_brought_back(session: Session) -> None:
    """More than the database is asked for at once; another day's casts stay, and what was gone stays gone."""
    first = logged(0)
    many = [first, *(logged(k).model_copy(update={"time": first.time}) for k in range(1, 1203))]
    other = logged(5000)
    casts.keep(session, [*many, other])
    take_back(session, many[7].id)
    assert last_away(session) is None
    on = many[0].time.date().isoformat()
    assert take_day_back(session, on) == Away(on, 1202)
    assert [c.id for c in casts.listed(session)] == [other.id]
    assert last_away(session) == Away(on, 1202)
    assert take_day_back(session, on) == Away(on, 0)  # a second tap leaves the undo alone
    assert bring_back(session) == Away(on, 1202)
    assert len(casts.listed(session)) == 1203
    assert bring_back(session) is None
