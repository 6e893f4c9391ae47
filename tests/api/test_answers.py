"""The JSON answers, each as it is published, and one sentence for what cannot be."""

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from sqlalchemy.orm import Session
from typer.testing import CliRunner

from heathdrop.answers.own import STRANGER
from heathdrop.api import heavy
from heathdrop.api.answers import simulate_answer, size_answer
from heathdrop.api.casting import next_casts
from heathdrop.api.planning import plan_answer
from heathdrop.api.schemas import SimulateRequest
from heathdrop.api.searching import SearchRequest, search_answer
from heathdrop.catalog.vocabulary import CHANGES
from heathdrop.cli import app
from heathdrop.conditions.made import MadeCasts
from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.day.made import keep_casts
from heathdrop.units import count_said, turns_said
from tests.answers.logged import cast
from tests.day.under_way import cast as thrown
from tests.golden_file import holds_to
from tests.said import said_of as said_of_planning
from tests.said import said_of as said_of_searching
from tests.test_doors import CASE, SCENARIO

#: How far a figure out of the compiled simulation may differ between machines.
SIMULATED = 3e-3


def test_a_sized_rig() -> None:
    body = SizeRequest.model_validate({**SCENARIO, "limit": 1})
    holds_to("api.answers.size", size_answer(body).model_dump(mode="json"), SIMULATED)


def test_the_next_cast_is_said_for_its_rod(session: Session) -> None:
    keep_casts(session, MadeCasts([thrown(1, outcome="nothing", head_oz=0.5), thrown(2, outcome="ran-high")]))
    answer = next_casts(session, "Bay", STRANGER, 2)
    assert (answer.stop, answer.made, answer.thrown) == ("Bay", 2, "swim-jig:0.375:craw")
    assert answer.mend is not None
    assert answer.mend.symptom == "It ran too high"
    assert answer.mend.change
    assert answer.mend.effect
    first = next(c for c in answer.casts if c.rod)
    assert (first.rod, first.work, first.lands) == ("A", "swim", False)
    assert first.said.rig == "3/8 oz swim jig, craw 4 in"
    assert first.said.line == "30 lb braid with 8 ft of 12 lb fluorocarbon leader"
    assert first.said.turns == turns_said(first.turns_per_s)
    assert first.said.count == count_said(first.countdown_s)
    alone = next_casts(session, "Bay", STRANGER, 1, rig="football-jig:0.5:chunk")
    assert (alone.casts[0].rod, alone.casts[0].work, alone.casts[0].lands) == ("", "bottom", True)


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


def test_questions_are_reproducible_and_hide_their_answer(visitor: TestClient) -> None:
    first = visitor.get("/api/v1/drill?kind=repair&topic=ran-high&seed=1").json()
    again = visitor.get("/api/v1/drill?kind=repair&topic=ran-high&seed=1").json()
    assert first["question"] == again["question"]
    q = first["question"]
    assert (q["id"], q["answer"]) == ("repair.ran-high.1", ["option"])
    assert len(q["options"]) == 4
    assert "deeper" not in str(q["options"])
    assert {d["kind"] for d in first["due"]} == {"repair"}
    eye = visitor.get("/api/v1/drill?kind=eye&topic=nylon&seed=3").json()["question"]
    assert "truth" not in eye
    assert eye["conditions"]["cover"]["kind"] == "open"
    assert eye["rig"]
    for wrong, said in (("kind=ear", "kind was"), ("kind=eye&topic=silk", "topic was"), ("seed=-1", "seed")):
        refused = visitor.get(f"/api/v1/drill?{wrong}")
        assert refused.status_code == 422
        assert said in refused.text


def test_an_answer_is_marked_and_kept_once(client: TestClient) -> None:
    given = {
        "id": "count.short.1",
        "answer": {"tapped_s": 3.7},
        "uid": "8d0b2b52-31f3-4c0e-8a8e-0d7f3f9f1a01",
    }
    marked = client.post("/api/v1/drill/answer", json=given).json()
    assert marked["said"] == "3.7 s for 3.5: 6 % slow."
    assert 0.8 < marked["mark"] < 0.9
    assert client.post("/api/v1/drill/answer", json=given).json() == marked
    after = client.get("/api/v1/drill?kind=count").json()
    assert after["hand"]["rounds"] == 1
    assert after["hand"]["in_use"] is False
    answered = {d["topic"]: d["answered"] for d in after["due"]}
    assert answered == {"short": 1, "middle": 0, "long": 0}
    for wrong in (
        {"id": "count.short.1", "answer": {"tapped_s": 60.0}},
        {"id": "count.short.1", "answer": {}},
        {"id": "no", "answer": {"tapped_s": 3.0}},
        {"id": "count.short.1", "answer": {"tapped_s": None}},
    ):
        assert client.post("/api/v1/drill/answer", json=wrong).status_code == 422
    assert client.get("/api/v1/drill?kind=count").json()["hand"]["rounds"] == 1


@pytest.mark.slow
def test_the_next_question_is_another_one(client: TestClient) -> None:
    ids = []
    for _ in range(4):
        q = client.get("/api/v1/drill?kind=eye").json()["question"]
        ids.append(q["id"])
        client.post("/api/v1/drill/answer", json={"id": q["id"], "answer": {"depth_ft": 5.0}})
    assert len(set(ids)) == 4
    assert {i.split(".")[1] for i in ids[:3]} == {"fluorocarbon", "nylon", "braid"}


@pytest.mark.parametrize(("path", "queue"), [("/api/v1/plan", heavy.heavy), ("/api/v1/size", heavy.quick)])
def test_a_full_queue_is_said(
    visitor: TestClient, monkeypatch: pytest.MonkeyPatch, path: str, queue: heavy.Queue
) -> None:
    monkeypatch.setattr(queue, "waiting", -queue.at_once)
    refused = visitor.post(path, json={})
    assert (refused.status_code, refused.json()["detail"]) == (503, heavy.FULL)
    assert refused.headers["retry-after"] == "5"
    monkeypatch.undo()
    assert visitor.post(path, json={}).status_code == 422


def sent(client: TestClient, count: int = 40) -> None:
    made = [cast(k, "fish" if k % 5 == 0 else "nothing", head_oz=(0.25, 0.5)[k % 2]) for k in range(count)]
    body = [c.model_dump(mode="json", exclude_none=True) for c in made]
    assert client.post("/api/v1/casts", json=body).status_code == 200


def test_the_door_the_page_and_the_command_line_agree(client: TestClient) -> None:
    sent(client)
    found = client.get("/api/v1/lessons").json()
    assert (found["casts"], found["bites"]) == (40, 8)
    heads = {r["bin"]: r for r in found["rates"] if r["by"] == "head"}
    assert heads["1/4 oz"]["casts"] == heads["1/2 oz"]["casts"] == 20
    assert heads["1/4 oz"]["low"] < heads["1/4 oz"]["per_hour"] < heads["1/4 oz"]["high"]
    page = client.get("/log").text
    assert "8 bites in 40 casts on record" in page
    assert "By head" in client.get("/log/taught").text
    database = client.app.state.database  # type: ignore[attr-defined]
    database.fold()
    said = CliRunner().invoke(app, ["lessons", "--data", str(database.path)])
    assert said.exit_code == 0, said.output
    assert json.loads(said.stdout) == found


ROD_PLANNING: dict[str, Any] = {
    "name": "A",
    "line": {"material": "fluorocarbon", "test_lb": 15},
    "inches_per_turn": 29,
}


def day(**more: Any) -> dict[str, Any]:
    water = SCENARIO["conditions"]
    bay = {"name": "Bay", "conditions": water, "minutes": 45, "position": {"lat": 50.1, "lon": -4.2}}
    causeway = {
        "name": "Causeway",
        "conditions": {**water, "fish_depth_ft": 9, "cover": {"kind": "rock", "detail": "chunk"}},
        "importance": 2,
        "cast_ft": 60,
    }
    return {
        "date": "2027-09-25",
        "stops": [bay, causeway],
        "rods": [ROD_PLANNING, {**ROD_PLANNING, "name": "B"}],
        **more,
    }


def test_refused_plans() -> None:
    stop = day()["stops"][0]
    deep = {**stop, "conditions": {**stop["conditions"], "fish_depth_ft": 12}}
    bodies = [
        day(stops=[]),
        day(stops=[stop, deep]),
        day(stops=[{**stop, "conditions": {}}]),
        day(stops=[{**stop, "conditions": {**stop["conditions"], "light": "dim"}}]),
        day(stops=[{**stop, "position": {"lat": 95, "lon": 0}}]),
        day(rods=[{**ROD_PLANNING, "inches_per_turn": 9.9}]),
        day(rods=[{**ROD_PLANNING, "inches_per_turn": 45.1}]),
        day(rods=[{**ROD_PLANNING, "line": {"material": "hemp", "test_lb": 15}}]),
        day(rods=0),
        day(date="some day"),
        day(stops=[{**stop, "targets": {"depth_ft": [4, 12]}}]),
    ]
    holds_to(
        "api.planning.refused",
        [said_of_planning(lambda b=b: plan_answer(PlanRequest.model_validate(b)).total) for b in bodies],
    )


def test_a_line_is_told_with_what_it_lacks(visitor: TestClient) -> None:
    asked = {"what": "tackle", "text": "3/8 swim jig black x4\ncraw 5/0 hook"}
    whole, lacking = visitor.post("/api/v1/read", json=asked).json()["lines"]
    assert whole == {
        "line": "3/8 swim jig black x4",
        "items": [
            {"kind": "head", "family": "swim-jig", "weight_oz": 0.375, "colour": "black", "quantity": 4}
        ],
        "missing": [],
        "unused": [],
        "ask": None,
        "ready": True,
    }
    assert (lacking["missing"], lacking["unused"], lacking["ready"]) == (["length_in"], ["5/0 hook"], False)
    assert lacking["ask"] == "How long?"
    assert visitor.post("/api/v1/read", json={**asked, "what": "boats"}).status_code == 422


SWIM = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", "trailer_length_in": 4}


def test_a_search() -> None:
    told = {**SWIM, "countdown_s": 2.0, "pace_ft_s": 2.2, "outcome": "ran-high"}
    body = {**SCENARIO, "families": ["swim-jig"], "rods": [SWIM], "casts": [told], "limit": 2}
    answer = search_answer(SearchRequest.model_validate(body)).model_dump(mode="json")
    answer["belief"] = answer["belief"][:4]
    holds_to("api.searching", answer, SIMULATED)


def test_refused_searches() -> None:
    told = {**SWIM, "countdown_s": 2.0, "pace_ft_s": 2.2, "outcome": "ran-high"}
    bodies = [
        {**SCENARIO, "rods": [{**SWIM, "trailer": "toad"}]},
        {**SCENARIO, "casts": [told, {**told, "head_oz": 9}]},
        {**SCENARIO, "casts": [{**told, "outcome": "ate"}]},
        {**SCENARIO, "limit": 0},
        {**SCENARIO, "rods": [SWIM] * 13},
    ]
    said = [said_of_searching(lambda b=b: search_answer(SearchRequest.model_validate(b))) for b in bodies]
    holds_to("api.searching.refused", said)


def test_a_simulated_cast() -> None:
    named = {**CASE, "lure": {"family": "swim-jig", "head_oz": 0.5, "trailer": "craw"}}
    found = {}
    for name, body in (("areas", CASE), ("rig", named)):
        answer = simulate_answer(SimulateRequest.model_validate(body)).model_dump(mode="json")
        samples = answer.pop("samples")
        assert len(samples) > 50
        found[name] = [answer, samples[3], samples[-2]]
    holds_to("api.answers.simulate", found, SIMULATED)


def test_a_plan() -> None:
    answer = plan_answer(PlanRequest.model_validate(day())).model_dump(by_alias=True, mode="json")
    assert answer.pop("seconds") > 0.0
    for stop in answer["stops"]:
        stop["search"], stop["if"] = stop["search"][:1], stop["if"][:2]
        for step in stop["search"]:  # what it covers is held to with the search
            assert sum(part["seconds"] for part in step.pop("covers")) > 0.0
        for rig in (stop["with"]["rig"], stop["ideal"]["rig"], *(e["rig"] for e in stop["also"])):
            # Field by field the rig stands with its rod; here by its name.
            assert rig.items() >= {"family": rig["name"].split(":")[0]}.items()
            for field in [k for k in rig if k != "name"]:
                del rig[field]
    holds_to("api.planning", answer, SIMULATED)
