"""The log with the data file: days like a water, lessons at a stop."""

from __future__ import annotations

import pytest
from sqlalchemy.orm import Session

from heathdrop.conditions.made import MadeCasts
from heathdrop.day.deck import here_of
from heathdrop.day.log import last_time, lessons_at
from heathdrop.day.made import keep_casts
from heathdrop.errors import BadInput
from tests.day.under_way import cast


def test_the_days_like_a_stop_are_those_of_its_water(session: Session) -> None:
    water = here_of(session, "Bay").scenario
    assert last_time(session, water) == []
    assert lessons_at(session).casts == 0
    keep_casts(session, MadeCasts([cast(1, outcome="nothing"), cast(2), cast(3, outcome="nothing")]))
    days = last_time(session, water)
    assert [(d.stop, d.casts, d.bites) for d in days] == [("Bay", 3, 1)]
    found = lessons_at(session, "Bay")
    assert (found.casts, found.bites, found.like_today) == (3, 1, tuple(days))
    assert lessons_at(session).like_today == ()
    with pytest.raises(BadInput, match="stop was"):
        lessons_at(session, "Nowhere")
