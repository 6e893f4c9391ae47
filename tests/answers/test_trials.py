"""Schools on trial and own fish, on logs whose truth is known."""

from __future__ import annotations

import random

from heathdrop.answers.lessons import minutes_of
from heathdrop.answers.trials import shifts_of, trials_of
from tests.answers.logged import HEADS, cast, fished


def test_fish_that_like_lighter_heads_speak_for_that_school() -> None:
    rng, right, wrong = random.Random(3), 0, 0
    for _ in range(20):
        made = fished(rng, 150, 0.22, HEADS)
        words = {(t.topic, t.school): t.words for t in trials_of(made, minutes_of(made))}
        right += "for it" in words["weight-lean", "lighter"]
        wrong += words["weight-lean", "heavier"] == "strongly for it"
    assert right >= 16
    assert wrong <= 1


def test_who_always_does_the_same_is_told_too_little() -> None:
    made = fished(random.Random(4), 400, 0.3, (0.375,))
    assert all(t.words == "too few" for t in trials_of(made, minutes_of(made)))
    assert trials_of([cast(0)], [1.0]) == [] or all(t.words == "too few" for t in trials_of([cast(0)], [1.0]))


def test_ones_own_fish_shift_only_where_they_do() -> None:
    rng, held, claims = random.Random(5), 0, 0
    middle = 0.375
    for _ in range(40):
        made = fished(rng, 200, middle * 0.7, HEADS)
        heads = next(s for s in shifts_of(made, minutes_of(made)) if s.what == "head weight")
        held += heads.high < 1.05
        none = fished(rng, 200, 0.42, HEADS)
        same = next(s for s in shifts_of(none, minutes_of(none)) if s.what == "head weight")
        claims += same.low > 1.15 or same.high < 0.85
    assert held >= 30
    assert claims <= 2
