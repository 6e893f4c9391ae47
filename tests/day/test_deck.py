"""A stop of the trip under way, else of a plan; a plan and a water as trips."""

from __future__ import annotations

import pytest
from sqlalchemy.orm import Session

from heathdrop.answers.own import STRANGER
from heathdrop.answers.rods_to_hand import Told
from heathdrop.conditions.made import MadeCast, MadeCasts
from heathdrop.conditions.plan import PlanRequest, PositionBody
from heathdrop.day.deck import here_of, next_at, teaches, told_of, trip_of_plan, trip_of_water
from heathdrop.day.made import keep_casts
from heathdrop.day.plan import planned
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import name_of
from heathdrop.search.hunt import Elsewhere
from heathdrop.store import plans, trips
from tests.day.under_way import WATER, cast
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


def test_a_water_as_a_trip_takes_four_rods_on_its_own_line(session: Session) -> None:
    line = {"material": "nylon", "test_lb": 12}
    asked = {"conditions": WATER, "schools": {}, "gear": {"cast_ft": 55, "line": line}}
    name, body = trip_of_water(asked, STRANGER)
    assert name.endswith("on the water")
    assert [r.name for r in body.rods] == ["A", "B", "C", "D"]
    assert {r.line.said for r in body.rods} == {"12 lb nylon"}
    assert (body.stops[0].name, body.stops[0].cast_ft) == ("This water", 55)
    assert len({r.rig for r in body.rods}) == 4


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


def test_a_trip_keeps_what_is_written_on_the_plans_rods(session: Session) -> None:
    spinning = {"kind": "spinning", "power": "medium", "low_oz": 0.125, "high_oz": 0.5}
    rod = {
        "name": "spin",
        "line": {"material": "braid", "test_lb": 15},
        "inches_per_turn": 26,
        "rod": spinning,
    }
    asked = {"stops": [{"name": "Bay", "conditions": WATER}], "rods": [rod], "date": "2027-09-25"}
    _, body = trip_of_plan(plans.keep(session, "One rod", asked), STRANGER)
    (tied,) = body.rods
    assert (tied.name, tied.inches_per_turn, tied.line.said) == ("spin", 26, "15 lb braid")
    assert tied.rod is not None
    assert (tied.rod.kind, tied.rod.high_oz) == ("spinning", 0.5)


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
    assert isinstance(told, Told)
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
