"""A plan as people write it: how many rods or each with its line, bounded stops, a real day."""

from __future__ import annotations

from typing import Any

import pytest

from heathdrop.conditions.plan import MOST_RODS, MOST_STOPS, PlanRequest
from tests.said import said_of

STOP: dict[str, Any] = {
    "name": "Bay",
    "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6},
}


def asked(**more: Any) -> Any:
    return said_of(lambda: PlanRequest.model_validate({"stops": [STOP], **more}))


def test_what_is_left_out_is_usual() -> None:
    plan = PlanRequest.model_validate({"stops": [STOP]})
    assert (plan.version, plan.date, plan.box, plan.rods, plan.schools) == (1, "", "standard", 5, {})
    stop = plan.stops[0]
    assert (stop.minutes, stop.importance, stop.cast_ft, stop.rod_tip_height_ft) == (60.0, 1.0, 80.0, 2.0)
    assert plan.day() == ""
    assert PlanRequest.model_validate({"date": "2027-04-03", "stops": [STOP]}).day() == "2027-04-03"


@pytest.mark.parametrize(
    "rods", [1, MOST_RODS, [{"name": "A"}], [{"name": "A", "inches_per_turn": 31}] * MOST_RODS]
)
def test_rods_that_can_be(rods: Any) -> None:
    assert isinstance(asked(rods=rods), dict)


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"rods": 0}, "rods"),
        ({"rods": MOST_RODS + 1}, "rods"),
        ({"rods": []}, "rods"),
        ({"rods": [{"name": ""}]}, "rods"),
        ({"rods": [{"name": "A"}] * (MOST_RODS + 1)}, "rods"),
        ({"stops": []}, "stops"),
        ({"stops": [STOP] * (MOST_STOPS + 1)}, "stops"),
        ({"stops": [STOP | {"minutes": 4}]}, "stops.0.minutes"),
        ({"stops": [STOP | {"minutes": 721}]}, "stops.0.minutes"),
        ({"stops": [STOP | {"importance": 0}]}, "stops.0.importance"),
        ({"stops": [STOP | {"importance": 11}]}, "stops.0.importance"),
        ({"stops": [STOP | {"position": {"lat": 91, "lon": 0}}]}, "stops.0.position.lat"),
        ({"stops": [STOP | {"position": {"lat": 0, "lon": -181}}]}, "stops.0.position.lon"),
        ({"stops": [STOP | {"name": "a\u202eb"}]}, "stops.0.name"),
        ({"stops": [STOP | {"note": "x" * 401}]}, "stops.0.note"),
        ({"box": "attic"}, "box"),
        ({"version": 2}, "version"),
        ({"tide": 1}, "tide"),
    ],
)
def test_what_cannot_be(more: dict[str, Any], field: str) -> None:
    assert str(asked(**more)).startswith(f"invalid: {field}")


@pytest.mark.parametrize("date", ["tomorrow", "2027-13-01", "2027-02-30"])
def test_a_date_that_is_no_day(date: str) -> None:
    plan = PlanRequest.model_validate({"date": date, "stops": [STOP]})
    assert said_of(plan.day) == f"refused: date was “{date}”; it must be a day such as 2027-04-03."
