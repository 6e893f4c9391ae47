"""Casts from the deck: filled with the water of their stop, mended, taken back, and what is said next."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from sqlalchemy.orm import Session

from heathdrop.answers.own import STRANGER
from heathdrop.api.casting import here_of, keep_casts, mend_cast, next_casts, take_back
from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.conditions.trip import TripBody
from heathdrop.errors import BadInput
from heathdrop.store import casts, plans, trips
from heathdrop.store.database import Database
from tests.store.test_casts import made
from tests.test_doors import SCENARIO

WATER = SCENARIO["conditions"]
ROD = {
    "name": "A",
    "line": {
        "material": "braid",
        "test_lb": 30,
        "leader": {"material": "fluorocarbon", "test_lb": 12, "length_ft": 8},
    },
    "inches_per_turn": 29,
    "rig": "swim-jig:0.375:craw",
}


@pytest.fixture
def session(tmp_path: Path) -> Iterator[Session]:
    """A trip under way with one stop and one rod, and a plan that has another stop."""
    database = Database(tmp_path / "d.sqlite")
    with database.session() as session:
        stop = {"name": "Bay", "conditions": WATER, "cast_ft": 70}
        body = TripBody.model_validate({"date": "2027-09-25", "stops": [stop], "rods": [ROD]})
        trips.begin(session, "Today", body)
        plans.keep(session, "Day", {"stops": [{"name": "Cove", "conditions": WATER}], "rods": 1})
        yield session
    database.close()


def cast(k: int, **more: Any) -> MadeCast:
    return MadeCast.model_validate(made(k, **{"stop": "Bay", "trip": "Today", **more}))


def test_a_cast_is_kept_with_the_water_of_its_stop(session: Session) -> None:
    own = {"wind_mph": 15.0}
    sent = [cast(1), cast(2, conditions=own), cast(3, trip="Yesterday"), cast(4, stop="Elsewhere")]
    answer = keep_casts(session, MadeCasts(sent))
    assert answer.kept == [str(c.id) for c in sent]
    kept = {str(c.id): c.conditions for c in casts.listed(session)}
    assert kept[answer.kept[0]] == WATER
    assert kept[answer.kept[1]] == {**WATER, **own}
    assert kept[answer.kept[2]] is kept[answer.kept[3]] is None


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
    answers = [take_back(session, cast(1).id) for _ in range(2)]
    assert [(a.id, a.was_there) for a in answers] == [(str(cast(1).id), True), (str(cast(1).id), False)]


def test_a_stop_is_the_trips_else_the_plans(session: Session) -> None:
    keep_casts(session, MadeCasts([cast(1), cast(2), cast(3, trip="Yesterday")]))
    here = here_of(session, "Bay")
    assert (here.name, here.scenario.gear.cast_ft, len(here.rods)) == ("Bay", 70, 1)
    assert [str(c.id) for c in here.made] == [str(cast(k).id) for k in (1, 2)]
    assert here.rods[0].rod.line.leader is not None
    cove = here_of(session, "Cove")
    assert (cove.rods, cove.made) == ((), ())
    with pytest.raises(BadInput, match="stop was “Nowhere”; it must be the name of a stop of the trip"):
        here_of(session, "Nowhere")


def test_the_next_cast_is_said_for_its_rod(session: Session) -> None:
    keep_casts(session, MadeCasts([cast(1, outcome="nothing", head_oz=0.5), cast(2, outcome="ran-high")]))
    answer = next_casts(session, "Bay", STRANGER, 2)
    assert (answer.stop, answer.made, answer.thrown) == ("Bay", 2, "swim-jig:0.375:craw")
    assert answer.mend is not None
    assert answer.mend.symptom == "ran-too-high" or "high" in answer.mend.symptom
    assert answer.mend.change
    assert answer.mend.effect
    first = next(c for c in answer.casts if c.rod)
    assert (first.rod, first.work, first.lands) == ("A", "swim", False)
    assert first.said.rig == "3/8 oz swim jig, craw 4 in"
    assert first.said.line == "30 lb braid with 8 ft of 12 lb fluorocarbon leader"
    assert first.said.turns == f"{10 * first.turns_per_s:.0f}"
    assert first.said.count == f"{first.countdown_s:g}"
    alone = next_casts(session, "Bay", STRANGER, 1, rig="football-jig:0.5:chunk")
    assert (alone.casts[0].rod, alone.casts[0].work, alone.casts[0].lands) == ("", "bottom", True)
