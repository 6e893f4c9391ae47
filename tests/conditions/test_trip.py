"""A trip's body: its stops by name, and what it may not be."""

from __future__ import annotations

from typing import Any

import pytest
from pydantic import ValidationError

from heathdrop.conditions.trip import TripBody

STOP = {"name": "Bay", "conditions": {"water_temp_f": 58}}
ROD = {
    "name": "A",
    "line": {"material": "nylon", "test_lb": 12},
    "inches_per_turn": 29,
    "rig": "swim-jig:0.5:craw",
}
BODY: dict[str, Any] = {"date": "2027-09-25", "stops": [STOP], "rods": [ROD]}


def test_a_stop_by_its_name() -> None:
    body = TripBody.model_validate(BODY)
    found = body.stop("Bay")
    assert found is body.stops[0]
    assert body.stop("Cove") is None
    assert (body.box, body.ended, body.version, found.cast_ft) == ("standard", False, 1, 80.0)


@pytest.mark.parametrize(
    "more",
    [
        {"stops": []},
        {"stops": [{**STOP, "name": ""}]},
        {"stops": [{**STOP, "by": {"wind_mph": "a guess"}}]},
        {"rods": [{**ROD, "rig": "jig"}]},
        {"box": "theirs"},
        {"date": "soon"},
        {"version": 2},
        {"boat": 1},
    ],
)
def test_what_it_may_not_be(more: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        TripBody.model_validate({**BODY, **more})
