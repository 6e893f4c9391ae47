"""The trainer with the angler's answers: what is due, the next question, marking and keeping, the hand."""

import uuid
from datetime import UTC, datetime

from sqlalchemy.orm import Session

from heathdrop.answers.drill import KINDS, SEEDS, Marking, Named, Question, mark_of, question_of, topics
from heathdrop.conditions.drilled import Drilled
from heathdrop.conditions.outcome import OLD_NAMES
from heathdrop.errors import BadInput
from heathdrop.store import drills
from heathdrop.training.hand import LEAST_ROUNDS
from heathdrop.training.spacing import Due, due_of
from heathdrop.training.waters import missing_of, traits_of


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
    due, topic = due_for(session, kind), OLD_NAMES.get(topic, topic)
    of_topic = [d for d in due if not topic or d.name == topic]
    if not of_topic:
        raise BadInput("topic", topic[:40], "one of " + ", ".join(sorted({d.name for d in due})))
    first = of_topic[0]
    asked = first.answered if seed is None else seed
    leaning = seed is None and first.kind == SEASONED
    for at in _seasoned(session, first) if leaning else range(asked, asked + 20):
        named = Named(first.kind, first.name, at % SEEDS)
        try:
            return question_of(named), due
        except BadInput:
            if seed is not None:
                raise
    raise BadInput("topic", first.name, "another topic: nothing to ask here")


#: The kind whose waters lean to what is missed; how many are looked at, and the latest rounds that tell.
SEASONED, LOOKED_AT, TELLING = "call", 6, 60
#: Missed so much more (of 1) than waters are otherwise, it is said; so many are said.
MISSED, SAID = 0.08, 3


def _rounds(session: Session) -> list[tuple[Named, float]]:
    """The latest rounds of the kind that leans, each with its mark; a question that is no more is passed
    over."""
    rounds = []
    for done in drills.listed(session):
        try:
            named = Named.parse(done.question)
        except BadInput:
            continue
        if named.kind == SEASONED:
            rounds.append((named, done.mark))
    return rounds[-TELLING:]


def missed(session: Session) -> list[str]:
    """What waters have that are missed more than others, the most so first."""
    traits = missing_of([(_traits(named), mark) for named, mark in _rounds(session)])
    return sorted((t for t, more in traits.items() if more >= MISSED), key=lambda t: -traits[t])[:SAID]


def _seasoned(session: Session, first: Due) -> list[int]:
    """Seeds of a topic not asked yet, those first whose water has more of what was missed in any topic."""
    rounds = _rounds(session)
    taken = {named.seed for named, _ in rounds if named.topic == first.name}
    missing = missing_of([(_traits(named), mark) for named, mark in rounds])
    free = [at for at in range(first.answered + 20) if at not in taken]

    def leans(at: int) -> float:
        return -sum(missing.get(t, 0.0) for t in _traits(Named(first.kind, first.name, at)))

    return [*sorted(free[:LOOKED_AT], key=leans), *free[LOOKED_AT:]]


def _traits(named: Named) -> frozenset[str]:
    """What the water of a question is; nothing for one that cannot be asked."""
    try:
        scenario = question_of(named).scenario
    except BadInput:
        return frozenset()
    return frozenset() if scenario is None else traits_of(scenario.conditions)


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
    """Use one's own hand in the bands, counting and turning, or withdraw it. Raises BadInput without enough
    rounds of either."""
    hands = [drills.hand(session, kind) for kind in ("count", "pace")]
    if use and not any(hand is not None and hand.enough for hand in hands):
        raise BadInput("hand", "too few rounds", f"{LEAST_ROUNDS} rounds of counts or of turns first")
    drills.use(session, use)
