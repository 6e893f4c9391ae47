"""The trainer's questions: made from a seed, put without their answer, marked by the product's own
numbers."""

import random
from collections.abc import Callable
from functools import lru_cache

from heathdrop.answers.drill.call import ask_call, mark_call
from heathdrop.answers.drill.eye import ask_eye, mark_eye
from heathdrop.answers.drill.hand import ask_count, ask_turns, mark_hand
from heathdrop.answers.drill.question import KINDS, SEEDS, Marking, Named, Question, topics
from heathdrop.answers.drill.repair import ask_repair, mark_repair

__all__ = ["KINDS", "SEEDS", "Marking", "Named", "Question", "mark_of", "question_of", "topics"]

MAKERS: dict[str, Callable[[Named, random.Random], Question]] = {
    "count": ask_count,
    "pace": ask_turns,
    "eye": ask_eye,
    "call": ask_call,
    "repair": ask_repair,
}
MARKERS: dict[str, Callable[[Question, dict[str, object]], Marking]] = {
    "count": mark_hand,
    "pace": mark_hand,
    "eye": mark_eye,
    "call": mark_call,
    "repair": mark_repair,
}


@lru_cache(maxsize=32)
def question_of(named: Named) -> Question:
    """The question of a name. Raises BadInput where none can be made of it."""
    return MAKERS[named.kind](named, random.Random(named.text))


def mark_of(named: Named, answer: dict[str, object]) -> Marking:
    """The marking of an answer: ``tapped_s`` for the hand, ``depth_ft`` for the eye, ``way``, ``family``,
    ``head_oz`` and ``trailer`` for a call, ``option`` (from 0) for a repair. Raises BadInput."""
    return MARKERS[named.kind](question_of(named), answer)
