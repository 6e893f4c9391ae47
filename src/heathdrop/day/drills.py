"""The trainer with the angler's answers: what is due, the next question, marking and keeping, the hand."""

from __future__ import annotations

import uuid
from datetime import UTC, datetime

from sqlalchemy.orm import Session

from heathdrop.answers.drill import KINDS, SEEDS, Marking, Named, Question, mark_of, question_of, topics
from heathdrop.conditions.drilled import Drilled
from heathdrop.errors import BadInput
from heathdrop.store import drills
from heathdrop.training.hand import LEAST_ROUNDS
from heathdrop.training.spacing import Due, due_of


def due_for(session: Session, kind: str = "") -> list[Due]:
    """Every topic (of a kind) by its whole name ``kind.topic``, most overdue first. Raises BadInput for a
    kind that there is not."""
    if kind and kind not in KINDS:
        raise BadInput("kind", kind[:40], "one of " + ", ".join(KINDS))
    names = [f"{k}.{t}" for k, some in topics().items() if not kind or k == kind for t in some]
    return due_of(names, drills.marked(drills.listed(session)))


def next_question(
    session: Session, kind: str = "", topic: str = "", seed: int | None = None
) -> tuple[Question, list[Due]]:
    """The question of a topic and a seed; the most overdue topic and a seed not asked yet where they are left
    out. Raises BadInput."""
    due = due_for(session, kind)
    mine = [d for d in due if not topic or d.name == topic]
    if not mine:
        raise BadInput("topic", topic[:40], "one of " + ", ".join(sorted({d.name for d in due})))
    first = mine[0]
    asked = first.answered if seed is None else seed
    for at in range(asked, asked + 20):
        named = Named(first.kind, first.name, at % SEEDS)
        try:
            return question_of(named), due
        except BadInput:
            if seed is not None:
                raise
    raise BadInput("topic", first.name, "another topic: nothing to ask here")


def mark_and_keep(
    session: Session, id_: str, answer: dict[str, float | str], uid: uuid.UUID, when: datetime | None = None
) -> tuple[Marking, Drilled]:
    """Mark the answer to the question ``id_`` and keep it under ``uid``. Raises BadInput; then nothing is
    kept."""
    named = Named.parse(id_)
    marking = mark_of(named, dict(answer))
    hand = named.kind in ("count", "pace")
    done = Drilled(
        id=uid,
        question=named.text,
        time=when or datetime.now(UTC),
        mark=round(marking.mark, 4),
        off=None if marking.off is None else round(marking.off, 3),
        asked_s=marking.truth if hand else None,
        tapped_s=float(answer["tapped_s"]) if hand else None,
    )
    drills.keep(session, [done])
    return marking, done


def use_hand(session: Session, use: bool) -> None:
    """Use one's own hand in the bands, or withdraw it. Raises BadInput without enough rounds."""
    hand = drills.hand(session)
    if use and (hand is None or not hand.enough):
        raise BadInput("hand", "too few rounds", f"{LEAST_ROUNDS} counted rounds first")
    drills.use(session, use)


__all__ = ["due_for", "mark_and_keep", "next_question", "use_hand"]
