"""A plan's request as the core takes it; a plan asked for twice is worked out once."""

from __future__ import annotations

import time
from dataclasses import replace
from typing import Any

import pytest

from heathdrop.answers.jobs import Job
from heathdrop.answers.own import STRANGER
from heathdrop.conditions.plan import PlanRequest
from heathdrop.day.plan import call_off, job_of, the_rods, the_stops
from heathdrop.errors import BadInput
from tests.day.under_way import ROD, WATER

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


def test_rods_and_stops_as_the_core_takes_them() -> None:
    found = the_rods(asked())
    assert isinstance(found, list)
    assert (found[0].name, found[0].reel.inches_per_turn, found[0].line.test_lb) == ("A", 29, 30)
    assert the_rods(asked(rods=3)) == 3
    stop = the_stops(asked())[0]
    assert (stop.name, stop.minutes, stop.importance, stop.position) == ("Bay", 45, 1.0, (50.1, -4.2))


def test_a_rod_that_cannot_be_is_named() -> None:
    for more, field in (
        ({"inches_per_turn": 9.9}, "rods[0].inches_per_turn"),
        ({"line": {"material": "nylon", "test_lb": 0.4}}, "rods[0].line.test_lb"),
    ):
        with pytest.raises(BadInput) as refusal:
            the_rods(asked(rods=[{**RODS[0], **more}]))
        assert refusal.value.field == field


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
