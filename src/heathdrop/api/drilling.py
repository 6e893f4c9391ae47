"""The trainer as JSON: the question that is due, its marking, the hand that the rounds tell."""

import uuid
from dataclasses import asdict
from datetime import datetime
from typing import Annotated, Any

from pydantic import BaseModel, Field
from sqlalchemy.orm import Session

from heathdrop.answers.drill import Question
from heathdrop.conditions.drilled import LONGEST_NAME
from heathdrop.conditions.request import Body
from heathdrop.day.drills import mark_and_keep, next_question
from heathdrop.physics.rig_name import name_of
from heathdrop.store import drills


class DrillRequest(Body):
    """An answer: the question's ``id``, and what its kind asks for. ``uid`` is the client's own: sent twice
    it is kept once."""

    id: Annotated[str, Field(max_length=LONGEST_NAME)]
    answer: Annotated[dict[str, float | Annotated[str, Field(max_length=80)]], Field(max_length=8)]
    uid: uuid.UUID | None = None
    time: datetime | None = None


class QuestionAnswer(BaseModel):
    """A question without its answer. ``answer`` names the fields that it takes."""

    id: str
    kind: str
    topic: str
    seed: int
    ask: str
    seconds: float | None
    turns: int | None
    conditions: dict[str, Any] | None
    rig: str | None
    options: list[str]
    answer: list[str]


class DueAnswer(BaseModel):
    """A topic, most overdue first: when it is due (null: never asked), answers so far, the mean of the last
    five marks."""

    kind: str
    topic: str
    due: datetime | None
    answered: int
    lately: float | None


class HandAnswer(BaseModel):
    """The hand, counting or turning: bias as a share (0.05: a twentieth slow) with its 80 % band,
    scatter, rounds; whether it is in use, and whether it has grown stale."""

    bias: float
    low: float
    high: float
    scatter: float
    rounds: int
    enough: bool
    in_use: bool
    stale: bool
    by_length: dict[str, list[float]]


class DrillAnswer(BaseModel):
    """What is asked next, what is due, the hand as it counts and as it turns the handle."""

    question: QuestionAnswer
    due: list[DueAnswer]
    hand: HandAnswer | None
    handle: HandAnswer | None


class MarkAnswer(BaseModel):
    """A marking: 0 to 1, in words, why; by how much it was off and the truth (s or ft); the board of a call
    (the chosen rig last), the options of a repair with what each does."""

    id: str
    kept: str
    mark: float
    said: str
    why: list[str]
    off: float | None
    truth: float | None
    board: list[dict[str, Any]]
    options: list[dict[str, Any]]


#: What each kind's answer holds.
FIELDS = {
    "count": ["tapped_s"],
    "pace": ["tapped_s"],
    "eye": ["depth_ft"],
    "call": ["way", "family", "head_oz", "trailer"],
    "repair": ["option"],
}


def _question_answer(question: Question) -> QuestionAnswer:
    """A question as its JSON answer."""
    named, scenario = question.named, question.scenario
    return QuestionAnswer(
        id=named.text,
        kind=named.kind,
        topic=named.topic,
        seed=named.seed,
        ask=question.ask,
        seconds=question.seconds or None,
        turns=question.turns or None,
        conditions=None if scenario is None else asdict(scenario.conditions),
        rig=None if question.rated is None else name_of(question.rated.rig).text(),
        options=[o.what for o in question.options],
        answer=FIELDS[named.kind],
    )


def drill_answer(session: Session, kind: str = "", topic: str = "", seed: int | None = None) -> DrillAnswer:
    """What is asked next. Raises BadInput."""
    question, due = next_question(session, kind, topic, seed)
    return DrillAnswer(
        question=_question_answer(question),
        due=[
            DueAnswer(kind=d.kind, topic=d.name, due=d.due, answered=d.answered, lately=d.lately) for d in due
        ],
        hand=hand_answer(session),
        handle=hand_answer(session, "pace"),
    )


def hand_answer(session: Session, kind: str = "count") -> HandAnswer | None:
    """The hand of a kind as its JSON answer; null without a round."""
    hand = drills.hand(session, kind)
    if hand is None:
        return None
    band = hand.whole if kind == "count" else hand.turns
    return HandAnswer(
        bias=round(band.bias, 4),
        low=round(band.low, 4),
        high=round(band.high, 4),
        scatter=round(hand.scatter, 4),
        rounds=hand.whole.rounds,
        enough=hand.enough,
        in_use=drills.hand_used(session, kind) is not None,
        stale=drills.stale(session, kind=kind),
        by_length={name: [round(b.bias, 4), round(b.low, 4), round(b.high, 4)] for name, b in hand.by_length},
    )


def marked_answer(session: Session, given: DrillRequest) -> MarkAnswer:
    """Mark an answer and keep it. Raises BadInput; then nothing is kept."""
    uid = given.uid or uuid.uuid4()
    marking, done = mark_and_keep(session, given.id, dict(given.answer), uid, given.time)
    return MarkAnswer(
        id=done.question,
        kept=str(uid),
        mark=done.mark,
        said=marking.said,
        why=list(marking.why),
        off=done.off,
        truth=None if marking.truth is None else round(marking.truth, 3),
        board=[asdict(row) for row in marking.board],
        options=[asdict(o) for o in marking.options],
    )
