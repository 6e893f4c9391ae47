"""Spaced repetition: what was missed comes back soonest, and the same answers give the same days."""

from __future__ import annotations

from collections import Counter
from datetime import UTC, datetime, timedelta

from fsrs import Rating

from heathdrop.training.spacing import Marked, due_of, rating_of

BEGUN = datetime(2026, 11, 1, 19, 0, tzinfo=UTC)


def test_marks_in_four_grades() -> None:
    assert [rating_of(m) for m in (0.0, 0.49, 0.5, 0.74, 0.75, 0.94, 0.95, 1.0)] == [
        *[Rating.Again] * 2,
        *[Rating.Hard] * 2,
        *[Rating.Good] * 2,
        *[Rating.Easy] * 2,
    ]


def test_what_was_never_asked_comes_first_then_what_was_missed() -> None:
    answers = [
        Marked("eye.nylon", BEGUN, 0.2),
        Marked("eye.braid", BEGUN, 1.0),
        Marked("eye.braid", BEGUN + timedelta(days=9), 0.9),
    ]
    found = due_of(["eye.braid", "eye.nylon", "call.wood"], answers)
    assert [d.topic for d in found] == ["call.wood", "eye.nylon", "eye.braid"]
    assert found[0].due is None
    assert found[0].lately is None
    assert (found[1].answered, found[1].lately) == (1, 0.2)
    assert found[2].lately == 0.95
    assert found[1].due is not None
    assert found[2].due is not None
    assert found[1].due - BEGUN < timedelta(hours=1)
    assert found[2].due - BEGUN > timedelta(days=15)
    assert due_of(["eye.braid", "eye.nylon", "call.wood"], answers[::-1]) == found


def test_two_weak_topics_take_at_most_half_of_a_day() -> None:
    """Five topics, one bad and one poor: of forty questions the two most asked are twenty-two at most; of
    three topics no share is kept."""
    marks = dict(zip("abcde", (0.95, 0.9, 0.8, 0.5, 0.2), strict=True))
    answers: list[Marked] = []
    for k in range(40):
        topic = due_of(marks, answers)[0].topic
        answers.append(Marked(topic, BEGUN + timedelta(minutes=k), marks[topic]))
    asked = Counter(a.topic for a in answers)
    assert sum(n for _, n in asked.most_common(2)) <= 22
    assert asked["e"] == max(asked.values())
    assert set(asked) == set(marks)
    few = [Marked("a", BEGUN, 0.1), Marked("b", BEGUN, 1.0), Marked("c", BEGUN, 1.0), Marked("a", BEGUN, 0.1)]
    assert due_of("abc", few)[0].topic == "a"
