"""Changes as JSON: the documented body, the answer's fields, one sentence for what cannot be."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from heathdrop.catalog.vocabulary import CHANGES

BODY: dict[str, Any] = {
    "conditions": {"water_temp_f": 58, "bottom_depth_ft": 26, "fish_depth_ft": 18, "cover": {"kind": "open"}},
    "gear": {"line": {"material": "fluorocarbon", "test_lb": 12}, "cast_ft": 95},
    "rig": {"family": "underspin", "head_oz": 0.375, "trailer": "paddle-tail", "trailer_length_in": 3.5},
    "fished": {"countdown_s": 6, "pace_ft_s": 2.0, "rod_tip_height_ft": 2, "work": "slow-roll"},
    "went": "ran-high",
}


def test_the_first_change_and_what_it_leaves(visitor: TestClient) -> None:
    answer = visitor.post("/api/v1/changes", json=BODY).json()
    first = answer["changes"][0]
    assert first["id"] == "slower"
    assert set(first) == {"id", "what", "effect", "mends", "by", "rig", "fished", "runs_ft", "family"}
    assert first["by"] == "model"
    assert first["mends"] is True
    assert first["fished"]["pace_ft_s"] < 2.0
    assert first["fished"]["countdown_s"] == 6.0
    assert answer["ran_ft"] < first["runs_ft"]
    assert first["rig"]["name"] == "underspin:0.375:paddle-tail"
    assert {c["id"] for c in answer["changes"]} <= set(CHANGES)
    named = {**BODY, "rig": {**BODY["rig"], "name": first["rig"]["name"]}}
    assert visitor.post("/api/v1/changes", json=named).json() == answer
    nulls = {**BODY, "fished": dict.fromkeys(BODY["fished"])}
    assert visitor.post("/api/v1/changes", json=nulls).json()["ran_ft"] != answer["ran_ft"]


@pytest.mark.parametrize(
    ("more", "field", "said"),
    [
        ({"went": "sank"}, "went", "went was “sank”; it must be one of"),
        ({"by_ft": 0}, "by_ft", "by_ft was 0; it must be"),
        ({"fished": {"pace_ft_s": 9}}, "fished.pace_ft_s", "fished.pace_ft_s was 9; it must be"),
        (
            {"rig": {"family": "swim-jig", "head_oz": 9, "trailer": "craw"}},
            "rig.head_oz",
            "rig.head_oz was 9",
        ),
        ({"rig": {**BODY["rig"], "trailer": "crab"}}, "rig.trailer", "rig.trailer was “crab”"),
        ({"wents": "fish"}, "wents", "wents was “fish”; it must be left out: there is no such field."),
    ],
)
def test_what_cannot_be_is_one_sentence(
    visitor: TestClient, more: dict[str, Any], field: str, said: str
) -> None:
    refused = visitor.post("/api/v1/changes", json={**BODY, **more})
    assert refused.status_code == 422
    assert refused.json()["field"] == field
    assert refused.json()["detail"].startswith(said)
