"""The size request as people write it."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.wanted import Wanted

WATER = {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6}


def test_a_request_is_its_scenario() -> None:
    body = {
        "conditions": {**WATER, "cover": {"kind": "wood", "density": None}},
        "families": ["swim-jig", "bladed-jig", "swim-jig"],
        "schools": {"b": "2", "a": "1"},
        "depth_band_ft": {"top": 2, "low": 5},
    }
    scenario = SizeRequest.model_validate(body).scenario()
    assert scenario.families == ("swim-jig", "bladed-jig")
    assert scenario.schools == (("a", "1"), ("b", "2"))
    assert scenario.wanted == Wanted(depth_ft=(2.0, 5.0))
    own = {"depth_ft": [4, 6], "passes": 0.9}
    both = SizeRequest.model_validate({**body, "targets": own}).scenario()
    assert both.wanted == Wanted(depth_ft=(4.0, 6.0), passes=0.9)
    assert scenario.conditions.cover.stands == "moderate"
    assert SizeRequest.model_validate({"conditions": WATER}).scenario().families == ()


@pytest.mark.parametrize(
    "body",
    [
        {},
        {"conditions": WATER, "limit": 0},
        {"conditions": WATER, "limit": 501},
        {"conditions": WATER, "families": []},
        {"conditions": {**WATER, "colour": "red"}},
        {"conditions": WATER, "gear": {"line": {"test": 3}}},
        {"conditions": {**WATER, "wind_mph": float("nan")}},
    ],
)
def test_what_is_no_request(body: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        SizeRequest.model_validate(body)


def test_the_schema_knows_ranges_and_words() -> None:
    parts = SizeRequest.model_json_schema()["$defs"]
    wind, trend = (parts["Conditions"]["properties"][k] for k in ("wind_mph", "trend"))
    assert (wind["minimum"], wind["maximum"], wind["default"]) == (0, 40, 5.0)
    assert trend["enum"] == ["rising", "steady", "falling"]
    thick = parts["Cover"]["properties"]["thickness_in"]["anyOf"]
    assert thick[0]["maximum"] == 36
    assert thick[1] == {"type": "null"}
