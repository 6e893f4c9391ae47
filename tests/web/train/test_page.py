"""The trainer's pages: a question, its marking, a wrong answer asked again, the hand agreed to."""

from __future__ import annotations

import re

import pytest
from fastapi.testclient import TestClient


def token(client: TestClient) -> str:
    found = re.search(r'name="token"\s+value="([^"]+)"', client.get("/train/call?topic=wood&seed=1").text)
    assert found is not None
    return found.group(1)


@pytest.mark.slow
def test_every_kind_asks_and_the_front_page_lists_them(visitor: TestClient) -> None:
    front = visitor.get("/train").text
    for kind in ("count", "pace", "eye", "call", "repair"):
        assert f'href="/train/{kind}"' in front
        assert visitor.get(f"/train/{kind}").status_code == 200
    assert "ten rounds tell how fast you count" in front
    assert visitor.get("/train/ear").status_code == 404
    assert visitor.get("/train/eye?n=11", follow_redirects=False).headers["location"] == "/train"


@pytest.mark.slow
def test_a_call_on_the_page_says_what_the_door_says(client: TestClient) -> None:
    given = {"way": "into", "family": "flipping-jig", "head_oz": "0.5", "trailer": "craw"}
    form = {"token": token(client), "id": "call.wood.1", "n": "3", "units": "imperial", **given}
    shown = client.post("/train/answer", data=form).text
    door = client.post(
        "/api/v1/drill/answer", json={"id": "call.wood.1", "answer": {**given, "head_oz": 0.5}}
    ).json()
    assert f"{100 * door['mark']:.0f} of 100. {door['said']}" in shown
    assert 'href="/train/call?n=4"' in shown
    assert shown.count("<tr") == 1 + len(door["board"])


def test_a_wrong_answer_is_asked_again_and_keeps_what_was_typed(client: TestClient) -> None:
    form = {"token": token(client), "id": "eye.nylon.4", "n": "1", "units": "imperial", "depth_ft": "deep"}
    answer = client.post("/train/answer", data=form)
    assert answer.status_code == 422
    assert "The depth (deep) must be a number." in answer.text
    assert 'value="deep"' in answer.text
    late = {k: v for k, v in form.items() if k != "depth_ft"} | {"id": "count.long.1", "tapped_s": "1"}
    slipped = client.post("/train/answer", data=late)
    assert "The time between the taps (1) must be" in slipped.text
    assert client.post("/train/answer", data={**form, "token": "no"}).status_code in (403, 422)


def test_a_depth_in_metres_is_the_same_depth(client: TestClient) -> None:
    form = {"token": token(client), "id": "eye.nylon.4", "n": "1", "units": "metric", "depth_ft": "1.524"}
    shown = client.post("/train/answer", data=form).text
    door = client.post("/api/v1/drill/answer", json={"id": "eye.nylon.4", "answer": {"depth_ft": 5.0}}).json()
    assert f"{100 * door['mark']:.0f} of 100" in shown


@pytest.mark.slow
def test_the_hand_is_used_when_agreed_and_withdrawn(client: TestClient) -> None:
    for k in range(12):
        q = client.get(f"/api/v1/drill?kind=count&topic=middle&seed={k}").json()["question"]
        client.post("/api/v1/drill/answer", json={"id": q["id"], "answer": {"tapped_s": 1.05 * q["seconds"]}})
    assert "You count 5 % slow" in client.get("/train").text
    agreed = {"token": token(client), "use": "yes"}
    assert "The bands of counts and depths use it." in client.post("/train/hand", data=agreed).text
    water = {
        "conditions": {"water_temp_f": 60, "bottom_depth_ft": 9, "fish_depth_ft": 6},
        "families": ["swim-jig"],
    }
    why = client.post("/api/v1/size", json=water).json()["rigs"][0]["why"]
    assert any(line.startswith("Its bands rest on your own count, uneven by") for line in why)
    client.post("/train/hand", data={**agreed, "use": "no"})
    assert "your own count" not in str(client.post("/api/v1/size", json=water).json()["rigs"][0]["why"])
