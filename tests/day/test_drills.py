"""The trainer with the data file: a question not asked yet, marked and kept once, the hand."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime

import pytest
from sqlalchemy.orm import Session

from heathdrop.answers.drill import Named, question_of
from heathdrop.conditions.drilled import Drilled
from heathdrop.day.drills import due_for, mark_and_keep, missed, next_question, use_hand
from heathdrop.errors import BadInput
from heathdrop.store import drills
from heathdrop.training.waters import traits_of


def test_what_was_answered_is_due_last(session: Session) -> None:
    first, due = next_question(session, "count")
    assert {d.name for d in due} == {"short", "middle", "long"}
    mark_and_keep(session, first.named.text, {"tapped_s": first.seconds}, uuid.UUID(int=1))
    after = due_for(session, "count")
    assert after[-1].name == first.named.topic
    assert (after[-1].answered, after[-1].lately) == (1, 1.0)
    again, _ = next_question(session, "count", first.named.topic)
    assert again.named.seed == first.named.seed + 1


def test_sent_twice_is_kept_once_and_a_wrong_answer_is_not_kept(session: Session) -> None:
    for _ in range(2):
        marking, done = mark_and_keep(session, "count.short.1", {"tapped_s": 3.7}, uuid.UUID(int=2))
    assert (done.asked_s, done.tapped_s, done.mark) == (3.5, 3.7, round(marking.mark, 4))
    with pytest.raises(BadInput):
        mark_and_keep(session, "count.short.2", {"tapped_s": 60.0}, uuid.UUID(int=3))
    assert len(drills.listed(session)) == 1


def test_a_hand_of_too_few_rounds_is_not_used(session: Session) -> None:
    with pytest.raises(BadInput, match="10 rounds of counts or of turns first"):
        use_hand(session, True)
    use_hand(session, False)
    assert drills.hand_used(session) is None
    with pytest.raises(BadInput, match="kind was"):
        due_for(session, "ear")


def test_the_call_leans_to_the_waters_that_are_missed_and_never_asks_one_twice(session: Session) -> None:
    """Every call in clear water missed, every other one right: the next of a topic is in clear water."""
    topic = "open"

    def kept(k: int, seed: int, mark: float) -> None:
        name = Named("call", topic, seed).text
        drills.keep(session, [Drilled(id=uuid.UUID(int=k), question=name, time=datetime.now(UTC), mark=mark)])

    def clear(seed: int) -> bool:
        scenario = question_of(Named("call", topic, seed)).scenario
        assert scenario is not None
        return "clear" in traits_of(scenario.conditions)

    for seed in range(12):
        kept(100 + seed, seed, 0.1 if clear(seed) else 0.95)
    assert missed(session)[0] == "clear"
    first = next_question(session, "call", topic)[0].named.seed
    assert any(clear(seed) for seed in range(12, 18))
    assert clear(first)
    asked = {first}
    for k in range(5):
        kept(200 + k, first if k == 0 else seed, 0.5)
        seed = next_question(session, "call", topic)[0].named.seed
        assert seed not in asked | set(range(12))
        asked.add(seed)


def test_a_question_that_is_no_more_is_passed_over(session: Session) -> None:
    gone = Drilled(id=uuid.UUID(int=9), question="call.lava.1", time=datetime.now(UTC), mark=0.1)
    drills.keep(session, [gone])
    assert missed(session) == []
    assert next_question(session, "call", "open")[0].named == Named("call", "open", 0)
