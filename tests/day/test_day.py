"""What needs the data file: the stop as it is fished, casts from the deck, plans, the log, the trainer."""

import time
import uuid
from dataclasses import replace
from datetime import UTC, datetime
from typing import Any

import pytest
from sqlalchemy.orm import Session

from heathdrop.answers.drill import Named, question_of
from heathdrop.answers.jobs import Job
from heathdrop.answers.own import STRANGER
from heathdrop.answers.rods_to_hand import CastTold
from heathdrop.conditions.drilled import Drilled
from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.conditions.plan import PlanRequest, PositionBody
from heathdrop.day.deck import here_of, next_at, teaches, told_of, trip_of_plan
from heathdrop.day.drills import due_for, missed, next_question, use_hand
from heathdrop.day.made import Away, bring_back, keep_casts, last_away, mend_cast, take_back, take_day_back
from heathdrop.day.plan import call_off, job_of, planned
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import name_of
from heathdrop.search.hunt import Elsewhere
from heathdrop.store import casts, drills, plans, trips
from heathdrop.training.waters import traits_of
from tests.answers.logged import cast as logged
from tests.day.under_way import ROD, WATER, cast
from tests.store.test_casts import made


def test_a_stop_is_the_trips_else_the_plans(session: Session) -> None:
    keep_casts(session, MadeCasts([cast(1), cast(2), cast(3, trip="Yesterday")]))
    here = here_of(session, "Bay")
    assert (here.name, here.scenario.gear.cast_ft, len(here.rods)) == ("Bay", 70, 1)
    assert [str(c.id) for c in here.made] == [str(cast(k).id) for k in (1, 2)]
    assert here.rods[0].rod.line.leader is not None
    assert here.elsewhere == ()
    away = [cast(4, stop="Point", outcome="fish"), cast(5, stop="Point", outcome="nothing")]
    keep_casts(session, MadeCasts(away))
    assert here_of(session, "Bay").elsewhere == (Elsewhere(away[0].family, 2, 1),)
    cove = here_of(session, "Cove")
    assert (cove.rods, cove.made) == ((), ())
    with pytest.raises(BadInput, match="stop was “Nowhere”; it must be the name of a stop of the trip"):
        here_of(session, "Nowhere")


def test_a_plan_as_a_trip_ties_on_what_the_plan_ties_on(session: Session) -> None:
    stop = {"name": "Bay", "conditions": WATER, "cast_ft": 70, "position": {"lat": 50.1, "lon": -4.2}}
    asked = {"stops": [stop, stop], "rods": 2, "date": "2027-09-25"}
    row = plans.keep(session, "Twice the bay", asked)
    name, body = trip_of_plan(row, STRANGER)
    plan = planned(PlanRequest.model_validate(asked))
    assert name.endswith("Twice the bay")
    assert [r.rig for r in body.rods] == [name_of(t.rig).text() for t in plan.rods]
    assert [s.name for s in body.stops] == ["Bay", "Bay (2)"]
    assert [s.position.lat for s in body.stops if s.position] == [50.1, 50.1]


@pytest.mark.parametrize(
    ("counted", "taken"),
    [
        (None, 2.3),
        (2.3, 2.3),
        (2.5, 2.3),
        (2.6, 2.5),
        (3.26, 3.5),
        (3.2, 3.0),
        (119.9, 120.0),
        (500.0, 120.0),
    ],
)
def test_a_cast_is_told_by_the_count_that_was_thrown(counted: float | None, taken: float) -> None:
    thrown = MadeCast.model_construct(
        **{**MadeCast.model_validate(made(1, at_s=4.5)).__dict__, "count_s": counted, "countdown_s": 2.3}
    )
    told = told_of(thrown)
    assert isinstance(told, CastTold)
    assert (told.count_s, told.pace_ft_s, told.outcome, told.at_s) == (taken, 2.2, thrown.outcome, 4.5)
    assert told.rig.trailer.id == "craw"


def test_a_cast_without_a_pace_stops_no_trip(session: Session) -> None:
    keep_casts(session, MadeCasts([cast(1), cast(2, pace_ft_s=0.0)]))
    here, found = next_at(session, "Bay", STRANGER, 1)
    assert [teaches(c) for c in here.made] == [True, False]
    assert found.search.steps


def test_a_stop_that_is_worked_out_is_left_for_the_best_of_the_trips_others(session: Session) -> None:
    """With the ride counted; where the others bring no more, it is not left."""
    row, body = trips.current(session) or pytest.fail("no trip")
    keep_casts(session, MadeCasts([cast(k, outcome="nothing") for k in range(1, 41)]))
    alone = next_at(session, "Bay", STRANGER, 6)[1].search
    assert "a fresh stop like this" in (alone.move_on or "")
    bay = body.stops[0]
    at = {
        name: PositionBody(lat=lat, lon=-4.2) for name, lat in (("Bay", 50.1), ("Far", 50.4), ("Near", 50.11))
    }
    stops = [bay.model_copy(update={"name": name, "position": where}) for name, where in at.items()]
    trips.write(row, body.model_copy(update={"stops": stops}))
    said = next_at(session, "Bay", STRANGER, 6)[1].search.move_on or ""
    # 0.69 of a mile at 25 mph and three minutes to stow and set up.
    assert said.startswith("Move on to Near: ten minutes there bring ")
    assert said.endswith(f", 5 minutes to get there counted; ten more here {alone.ten_min:.2f}.")
    for k in range(100, 180):
        keep_casts(session, MadeCasts([cast(k, stop=("Near", "Far")[k % 2], outcome="nothing")]))
    assert next_at(session, "Bay", STRANGER, 6)[1].search.move_on is None


def test_a_hand_of_too_few_rounds_is_not_used(session: Session) -> None:
    with pytest.raises(BadInput, match="10 rounds of counts or of turns first"):
        use_hand(session, True)
    use_hand(session, False)
    assert drills.hand_used(session) is None
    with pytest.raises(BadInput, match="kind was"):
        due_for(session, "ear")


def test_the_call_leans_to_the_waters_that_are_missed_and_never_asks_one_twice(session: Session) -> None:
    """Every call in clear water missed, every other one right: the next of a topic is in clear water."""
    topic = "open"

    def kept(k: int, seed: int, mark: float) -> None:
        name = Named("call", topic, seed).text
        drills.keep(session, [Drilled(id=uuid.UUID(int=k), question=name, time=datetime.now(UTC), mark=mark)])

    def clear(seed: int) -> bool:
        scenario = question_of(Named("call", topic, seed)).scenario
        assert scenario is not None
        return "clear" in traits_of(scenario.conditions)

    for seed in range(12):
        kept(100 + seed, seed, 0.1 if clear(seed) else 0.95)
    assert missed(session)[0] == "clear"
    first = next_question(session, "call", topic)[0].named.seed
    assert any(clear(seed) for seed in range(12, 18))
    assert clear(first)
    asked = {first}
    for k in range(5):
        kept(200 + k, first if k == 0 else seed, 0.5)
        seed = next_question(session, "call", topic)[0].named.seed
        assert seed not in asked | set(range(12))
        asked.add(seed)


def test_a_question_that_is_no_more_is_passed_over(session: Session) -> None:
    gone = Drilled(id=uuid.UUID(int=9), question="call.lava.1", time=datetime.now(UTC), mark=0.1)
    drills.keep(session, [gone])
    assert missed(session) == []
    assert next_question(session, "call", "open")[0].named == Named("call", "open", 0)


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


RODS: Any = [{k: v for k, v in ROD.items() if k != "rig"}]


STOP: Any = {"name": "Bay", "conditions": WATER, "minutes": 45, "position": {"lat": 50.1, "lon": -4.2}}


def wait_for(job: Job[Any]) -> None:
    """Until the job is done: long, for a machine that is busy with other work."""
    for _ in range(1200):
        if job.done:
            return
        time.sleep(0.05)


def asked(**more: Any) -> PlanRequest:
    return PlanRequest.model_validate({"date": "2027-09-25", "stops": [STOP], "rods": RODS, **more})


def test_the_same_plan_is_one_job() -> None:
    body = {"date": "2027-09-25", "stops": [STOP], "rods": 1}
    job = job_of(body, STRANGER)
    assert job_of(dict(body), STRANGER) is job
    assert job_of({**body, "rods": 2}, STRANGER) is not job
    call_off({**body, "rods": 2}, STRANGER)
    call_off(body, STRANGER)


def test_who_asks_is_part_of_the_job() -> None:
    """Calling off another angler's plan leaves this one's; the work says how far it is."""
    body = {"date": "2027-09-26", "stops": [STOP], "rods": 1}
    mine = job_of(body, STRANGER)
    call_off(body, replace(STRANGER, schools=(("weight-lean", "lighter"),)))
    assert not mine.called_off
    wait_for(mine)
    assert mine.answer is not None
    assert mine.share >= 0.8
    assert mine.doing == "the stops one by one"
    first, waits = (job_of({**body, "date": f"2027-10-0{n}"}, STRANGER) for n in (1, 2))
    call_off({**body, "date": "2027-10-02"}, STRANGER)
    assert waits.called_off or waits.answer is not None
    assert not first.called_off
