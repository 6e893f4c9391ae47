"""The trainer: what is due, one question at a time, its marking, the hand taken into use or withdrawn."""

import uuid
from datetime import UTC, datetime
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from fastapi.responses import RedirectResponse, Response

from heathdrop.answers.drill import KINDS, SEEDS, Named, Question, question_of
from heathdrop.api.drilling import hand_answer
from heathdrop.day.drills import SEASONED, due_for, mark_and_keep, missed, next_question, use_hand
from heathdrop.errors import BadInput
from heathdrop.measures import meant
from heathdrop.reading import number_of
from heathdrop.store import drills
from heathdrop.web.shell.deps import Db, OwnForm, writing
from heathdrop.web.shell.rendering import page, problem
from heathdrop.web.train.shown import (
    NUMBERS,
    ROUND,
    SAID,
    answer_picture,
    begin_with,
    board_rows,
    choices,
    hand_said,
    handle_said,
    kind_rows,
    picture_of,
    refused,
    round_of,
    water_rows,
)

router = APIRouter(include_in_schema=False)
writes = writing()


@router.get("/train")
def train(request: Request, database: Db, after: Annotated[str, Query(max_length=20)] = "") -> Response:
    """What is due, how the marks went, the hand; first what a round showed, ``after`` one of a kind."""
    with database.session() as session:
        done, due, now = drills.listed(session), due_for(session), datetime.now(UTC)
        hand, handle = hand_answer(session), hand_answer(session, "pace")
        kinds = kind_rows(due, done, now)
        context = {
            "kinds": kinds,
            "next": begin_with(kinds),
            "over": round_of(after, due, done, now) if after in KINDS else None,
            "enough": any(one is not None and one.enough for one in (hand, handle)),
            "hand_said": hand_said(hand),
            "handle_said": handle_said(handle),
            "agreed": drills.in_use(session),
            "answered": len(done),
            "page": "train",
        }
    return page(request, "train/page.html", context)


@router.get("/train/{kind}")
def question(
    request: Request,
    database: Db,
    kind: str,
    n: int = 1,
    topic: Annotated[str, Query(max_length=40)] = "",
    seed: Annotated[int | None, Query(ge=0, lt=SEEDS)] = None,
) -> Response:
    """The next question of a kind; after a round of them the front page, which says what it showed."""
    if kind not in KINDS:
        return problem(request, "There is no such page.", 404)
    if n > ROUND:
        return RedirectResponse(f"/train?after={kind}", 303)
    with database.session() as session:
        asked, _ = next_question(session, kind, topic, seed)
        leans = missed(session) if kind == SEASONED else []
    return page(request, "train/question.html", {**_asked(asked, n), "missed": leans})


def _asked(asked: Question, n: int) -> dict[str, Any]:
    """What every page of a question shows."""
    kind = asked.named.kind
    return {
        "kind": kind,
        "name": SAID[kind][0],
        "says": SAID[kind][1],
        "question": asked,
        "id": asked.named.text,
        "uid": uuid.uuid4(),
        "n": max(1, n),
        "round": ROUND,
        "water": water_rows(asked.scenario.conditions)
        if asked.scenario is not None and kind != "eye"
        else [],
        "choices": choices() if kind == "call" else {},
        "picture": picture_of(asked),
        "page": "train",
    }


@writes.post("/train/answer")
def answer(request: Request, database: Db, form: OwnForm) -> Response:
    """Mark an answer, keep it, show what was right. A wrong field shows the question again, with why."""
    named = Named.parse(form.get("id"))
    asked = question_of(named)
    n = int(form.get("n")) if form.get("n").isascii() and form.get("n").isdigit() else 1
    context = _asked(asked, n)
    given = {k: v for k, v in form.texts.items() if k not in ("token", "id", "uid", "n", "units", "late_ms")}
    try:
        read = {k: _read(k, v, form.get("units")) for k, v in given.items()}
        with database.session() as session:
            marking, drilled = mark_and_keep(session, named.text, read, _uid(form.get("uid")))
    except BadInput as refusal:
        return page(
            request, "train/question.html", {**context, "given": given, "wrong": refused(refusal)}, 422
        )
    guess = read.get("depth_ft")
    context |= {
        "marking": marking,
        "mark": round(100.0 * drilled.mark),
        "board": board_rows(marking),
        "picture": answer_picture(asked, marking, None if guess is None else float(guess)),
        "chosen": read.get("option"),
        "late_ms": _late(form.get("late_ms")),
    }
    return page(request, "train/answer.html", context)


def _read(field: str, text: str, units: str) -> float | str:
    """A field's number as typed (a depth in the ``units`` of its page), or its word. Raises BadInput."""
    if field not in NUMBERS:
        return text[:40]
    try:
        return meant(text, "ft", units) if field == "depth_ft" else number_of(text)
    except ValueError as error:
        raise BadInput(field, text[:20], "a number") from error


def _late(text: str) -> int:
    """How late (ms) the page came to a tap, as it measured it; 0 where it did not."""
    return min(2000, int(text)) if text.isascii() and text.isdigit() else 0


def _uid(text: str) -> uuid.UUID:
    """The form's own id, so that an answer sent twice is kept once; a new one where it has none."""
    try:
        return uuid.UUID(text)
    except ValueError:
        return uuid.uuid4()


@writes.post("/train/hand")
def hand(request: Request, database: Db, form: OwnForm) -> Response:
    """Take one's own hand into use, or withdraw it."""
    with database.session() as session:
        use_hand(session, form.get("use") == "yes")
    return RedirectResponse("/train", 303)
