"""Every way of working a lure through the JSON door, hostile requests, and what the documents promise."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from heathdrop import catalog
from heathdrop.errors import BadInput
from heathdrop.store.files.csvfile import read_tackle
from tests.test_doors import CASE, SCENARIO

NAMED = CASE | {
    "lure": {
        "family": "casting-jig",
        "head_oz": 0.5,
        "trailer": "craw",
        "plastic": "floating",
        "orientation": "vertical",
    },
    "line": {"material": "fluorocarbon", "test_lb": 15},
    "cast": {"distance_ft": 70, "rod_tip_height_ft": 3, "bottom_ft": [[0, 6], [35, 6], [36, 10], [200, 10]]},
}
DOWN = {"do": "fall", "line": "slack"}
PROGRAMS: list[tuple[str, list[dict[str, Any]]]] = [
    ("slow roll", [DOWN, {"do": "slow-roll", "speed_ft_s": 1.5, "for_s": 20}]),
    ("drag", [DOWN, {"do": "drag", "lift_in": 24, "times": 3}]),
    ("hop", [DOWN, {"do": "hop", "lift_in": 5, "times": 4, "wait_s": 0.5}]),
    ("shake", [DOWN, {"do": "shake", "for_s": 4}]),
    ("yo-yo", [DOWN, {"do": "yo-yo", "lift_in": 36, "times": 2}]),
    ("burn and drop", [DOWN, {"do": "burn-and-drop", "speed_ft_s": 4, "for_s": 2, "times": 2}]),
    ("ledges", [DOWN, {"do": "lift-and-drop", "lift_in": 40, "times": 2}]),
    ("tight swing", [{"do": "fall", "line": "tight", "to_depth_ft": 5}]),
    (
        "kill and home",
        [
            {"do": "fall", "line": "slack", "for_s": 2},
            {"do": "retrieve", "speed_ft_s": 2, "for_s": 6},
            {"do": "kill", "for_s": 2},
            {"do": "retrieve", "speed_ft_s": 2, "rod_tip_height_ft": 6},
        ],
    ),
    (
        "off the reel",
        [
            {"do": "fall", "line": "slack", "pulled_off_reel": True, "to_depth_ft": 6},
            {"do": "pause", "for_s": 3},
        ],
    ),
]


@pytest.mark.parametrize(("name", "program"), PROGRAMS, ids=[n for n, _ in PROGRAMS])
def test_every_way_of_working_comes_through_the_door(
    visitor: TestClient, name: str, program: list[dict[str, Any]]
) -> None:
    answer = visitor.post("/api/v1/simulate", json=NAMED | {"program": program})
    assert answer.status_code == 200, answer.text
    body = answer.json()
    times = [s["t_s"] for s in body["samples"]]
    assert max(b - a for a, b in zip(times, times[1:], strict=False)) <= 0.25
    assert {s["phase"] for s in body["samples"]} <= set(range(len(program)))
    assert body["samples"][-1]["phase"] == len(program) - 1
    assert all(0 <= s["depth_ft"] <= 10.3 for s in body["samples"])
    if name in ("drag", "shake"):
        assert body["summary"]["bottom_s"] > 0.8 * (body["summary"]["cast_s"] - body["summary"]["fall_s"])
    if body["summary"]["fall_s"] > 0:
        low, high = body["summary"]["fall_band_s"].values()
        assert low < body["summary"]["fall_s"] < high


def test_hostile_sizes_are_bounded(client: TestClient) -> None:
    kind = {"content-type": "application/json"}
    nested = "[" * 100_000
    assert client.post("/api/v1/simulate", content=nested, headers=kind).status_code == 422
    many = SCENARIO | {"families": ["swim-jig"] * 500}
    assert client.post("/api/v1/size", json=many).status_code == 422
    assert client.post("/api/v1/size", json=SCENARIO | {"limit": 10**9}).status_code == 422
    profile = NAMED | {"cast": NAMED["cast"] | {"bottom_ft": [[k, 5] for k in range(500)]}}
    assert client.post("/api/v1/simulate", json=profile).status_code == 422


@pytest.mark.slow
def test_the_product_calls_the_families_when_none_are_named(client: TestClient) -> None:
    body = {k: v for k, v in SCENARIO.items() if k != "families"}
    answer = client.post("/api/v1/size", json=body | {"limit": 500}).json()
    found = {r["family"] for r in answer["rigs"]}
    assert len(found) == 4
    assert "bladed-jig" in found
    kinds = {a["kind"] for a in answer["advice"]}
    assert kinds == {"model", "rule", "school"}
    assert all(a["school"] for a in answer["advice"] if a["kind"] == "school")
    topics = {t["id"]: t for t in client.get("/api/v1/schools").json()["topics"]}
    one = client.post(
        "/api/v1/size", json=SCENARIO | {"families": ["bladed-jig"], "schools": {"bladed-ladder": "one"}}
    ).json()
    assert one["rigs"][0]["head_oz"] == 0.5
    assert topics["bladed-ladder"]["default"] == "step"
    mine = client.post("/api/v1/size", json=SCENARIO | {"families": ["swim-jig"], "box": "mine"}).json()
    assert {r["head_oz"] for r in mine["rigs"]} == {0.25, 0.375, 0.5}


@settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.binary(max_size=400))
def test_any_bytes_as_a_csv_are_read_or_refused_in_a_sentence(raw: bytes) -> None:
    try:
        said = read_tackle(raw).faults
    except BadInput as refusal:
        said = [str(refusal)]
    assert all(sentence.endswith(".") for sentence in said)


@settings(max_examples=40, deadline=None)
@given(
    st.dictionaries(
        st.sampled_from(["water", "lure", "line", "cast", "program", "x"]),
        st.one_of(st.none(), st.integers(), st.text(max_size=9)),
    )
)
def test_any_object_is_refused_in_a_sentence(body: dict[str, Any]) -> None:
    from heathdrop.api.schemas import SimulateRequest
    from heathdrop.conditions.validation import read_json

    with pytest.raises(BadInput, match=r"; it must be .*\.$"):
        read_json(SimulateRequest, json.dumps(body).encode())


def test_every_rule_and_school_reads_as_a_sentence() -> None:
    cat = catalog.load()
    said = [r.says for r in cat.rules.values()] + [
        s.says for t in cat.topics.values() for s in t.schools.values()
    ]
    assert all(text[0].isupper() or text[0].isdigit() for text in said)
    assert all(text.endswith(".") for text in said)
    assert len(set(said)) == len(said)
