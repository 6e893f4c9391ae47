"""The trainer as JSON: what is due, a question without its answer, marking, kept once."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient


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
