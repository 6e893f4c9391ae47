"""The hand: seconds counted and turns kept without a clock."""

import math
import random

from heathdrop.answers.drill.question import TURNS, Marking, Named, Question, number_in
from heathdrop.training.hand import CLASSES, LONGEST_S, SHORTEST_S, tapped

#: Seconds in which turns of the handle are kept.
TURNING_S = 10.0


def ask_count(named: Named, rng: random.Random) -> Question:
    """Seconds to count, of a topic's length."""
    ends = [SHORTEST_S, *(most for _, most in CLASSES)]
    k = [name for name, _ in CLASSES].index(named.topic)
    seconds = round(2.0 * rng.uniform(ends[k] + (0.5 if k else 0.0), ends[k + 1])) / 2.0
    return Question(named, f"Tap at the splash, count {seconds:g} s without a clock, tap again.", seconds)


def ask_turns(named: Named, rng: random.Random) -> Question:
    """Turns to keep, of a topic's quickness."""
    turns = rng.randint(*TURNS[named.topic])
    ask = f"Keep {turns} turns in {TURNING_S:g} s: tap as you begin, and again after the last turn."
    return Question(named, ask, TURNING_S, turns)


def mark_hand(q: Question, answer: dict[str, object]) -> Marking:
    """Marked by how far off the taps are, as a share. Raises BadInput."""
    one = tapped(q.seconds, number_in(answer, "tapped_s", 0.2, 3.0 * LONGEST_S, "s"))
    off = one.tapped_s - one.asked_s
    share = abs(one.off)
    late = "slow" if off > 0.0 else "fast"
    said = f"{one.tapped_s:.1f} s for {one.asked_s:g}: {100.0 * abs(math.expm1(one.off)):.0f} % {late}."
    return Marking(math.exp(-((share / 0.15) ** 2)), said, (), off, one.asked_s)
