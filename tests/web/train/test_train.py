"""The trainer's pages: a question, its marking, the hand agreed to."""

import re
import uuid
from datetime import UTC, datetime, timedelta

import pytest
from fastapi.testclient import TestClient

from heathdrop.answers.drill import Named, mark_of, question_of
from heathdrop.api.drilling import HandAnswer
from heathdrop.conditions.drilled import Drilled
from heathdrop.training.spacing import Due
from heathdrop.web.train.shown import (
    answer_picture,
    begin_with,
    hand_said,
    kind_rows,
    picture_of,
    round_of,
)


def token(client: TestClient) -> str:
    found = re.search(r'name="token"\s+value="([^"]+)"', client.get("/train/call?topic=wood&seed=1").text)
    assert found is not None
    return found.group(1)


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
    assert shown.partition('class="rates"')[2].count("<tr") == 1 + len(door["board"])


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


NOW = datetime(2026, 11, 29, tzinfo=UTC)


def eye(k: int, mark: float, weeks_ago: float) -> Drilled:
    return Drilled(
        id=uuid.UUID(int=k + 1), question="eye.nylon.1", time=NOW - timedelta(weeks=weeks_ago), mark=mark
    )


def test_marks_by_the_week() -> None:
    due = [
        Due("eye.nylon", NOW - timedelta(days=1), 3, 0.5),
        Due("eye.braid", NOW + timedelta(days=1), 3, 0.9),
        Due("call.wood", None, 0, None),
    ]
    rows = {r.id: r for r in kind_rows(due, [eye(0, 0.25, 2), eye(1, 0.5, 0), eye(2, 1.0, 0)], NOW)}
    assert (rows["eye"].due, rows["eye"].answered, rows["eye"].lately) == (1, 3, 58)
    assert rows["eye"].points == "180.0,30.0 220.0,10.0"
    assert rows["eye"].weeks == "25, 75"
    assert (rows["call"].due, rows["call"].lately, rows["call"].points) == (1, None, "")
    assert begin_with(list(rows.values())) == "call"  # never tried
    assert begin_with([rows["eye"]]) == "eye"
    assert begin_with([rows["repair"]]) == ""


def test_the_hand_in_sentences() -> None:
    hand = HandAnswer(
        bias=-0.05,
        low=-0.07,
        high=-0.03,
        scatter=0.08,
        rounds=34,
        enough=True,
        in_use=False,
        stale=True,
        by_length={},
    )
    assert hand_said(hand) == [
        "You count 5 % fast (eight of ten: -7 to -3 %), each count uneven by 8 %; 34 rounds.",
        "Your ten is 9.5 s: where it says 10, count 10.5.",
        "The last round is a season old: ten taps bring it up to date.",
    ]
    assert hand_said(None) == ["No count was tapped yet: ten rounds tell how fast you count."]


def test_a_question_stands_in_its_water_and_the_answer_is_drawn_after() -> None:
    """The eye's rig is drawn and not its path; a call's water without a rig; a repair as it ran."""
    q = question_of(Named("eye", "nylon", 4))
    before, after = picture_of(q), answer_picture(q, mark_of(q.named, {"depth_ft": 5.0}), 5.0)
    assert before is not None
    assert before.rig is not None
    assert [(s.frame, s.path, s.lure, s.fish) for s in before.sections] == [
        ("wide", "", None, ()),
        ("narrow", "", None, ()),
    ]
    assert after is not None
    for section, asked in zip(after.sections, after.asked, strict=True):
        assert section.lure is not None
        assert asked.guess_y == pytest.approx(section.surface_y + 5.0 * section.per_said, abs=0.1)
        assert asked.half_x == pytest.approx(section.lure.x, abs=6.0)
    call = question_of(Named("call", "wood", 1))
    board = answer_picture(
        call,
        mark_of(call.named, {"way": "into", "family": "flipping-jig", "head_oz": 0.5, "trailer": "craw"}),
    )
    water = picture_of(call)
    assert water is not None
    assert (water.rig, water.sections[0].path, len(water.sections[0].fish)) == (None, "", 2)
    assert board is not None
    assert [mark for mark, _, _ in board.sections[0].rivals] == ["yours"]
    high = picture_of(question_of(Named("repair", "ran-high", 1)))
    assert high is not None
    (mark, _, at), meant = high.sections[0].rivals[0], high.sections[0].lure
    assert meant is not None
    assert (mark, high.said) == ("as it ran", "As it was meant to run; dashed, as it ran.")
    assert at.y < meant.y
    assert picture_of(question_of(Named("count", "long", 1))) is None


def test_a_round_says_what_it_showed_and_what_comes_back() -> None:
    due = [
        Due("eye.nylon", NOW + timedelta(hours=20), 3, 0.5),
        Due("eye.braid", NOW + timedelta(days=3), 3, 0.9),
        Due("call.wood", NOW - timedelta(days=1), 2, 0.5),
    ]
    braid = [eye(20 + k, 0.9, 0).model_copy(update={"question": "eye.braid.1"}) for k in range(5)]
    done = [*(eye(k, 0.4, 1) for k in range(10)), *(eye(10 + k, 0.5, 0) for k in range(5)), *braid]
    over = round_of("eye", due, done, NOW)
    assert over is not None
    assert over.lines == (
        "70 of 100 on average; 40 in the round before.",
        "Best at braid (90), weakest at nylon (50).",
        "By tomorrow these come back: nylon.",
        "Also due by then: call.",
    )
    assert round_of("call", due, done, NOW) is None
