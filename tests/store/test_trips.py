"""Trips as kept: named apart, the newest under way."""

from __future__ import annotations

from sqlalchemy.orm import Session

from heathdrop.conditions.trip import TripBody
from heathdrop.store import trips

STOP = {"name": "Bay", "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6}}


def test_trips_are_named_apart_and_the_newest_under_way_counts(session: Session) -> None:
    body = TripBody.model_validate({"date": "2027-09-25", "stops": [STOP]})
    assert trips.current(session) is None
    names = [trips.begin(session, "  A  day ", body).name for _ in range(3)]
    assert names == ["A day", "A day (2)", "A day (3)"]
    assert trips.begin(session, " ", body).name == "A day (4)"
    last = trips.begin(session, "y" * 200, body, "e" * 36)
    assert (len(last.name), last.uid) == (120, "e" * 36)
    found = trips.current(session)
    assert found is not None
    assert found[0] is last
    trips.write(last, body.model_copy(update={"ended": True}))
    found = trips.current(session)
    assert found is not None
    assert found[0].name == "A day (4)"
    last.body = {"date": "never"}
    assert trips.current(session) is not None
    assert [t.name for t in trips.listed(session)][:2] == names[:2]
