"""The hand is marked by how far off its taps are."""

from __future__ import annotations

import math

import pytest

from heathdrop.answers.drill import Named, mark_of, question_of
from heathdrop.errors import BadInput


def test_the_hand_is_marked_by_its_share() -> None:
    q = question_of(Named.parse("count.middle.1"))
    assert q.seconds == 8.5
    assert q.ask == "Tap at the splash, count 8.5 s without a clock, tap again."
    found = mark_of(q.named, {"tapped_s": 1.07 * 8.5})
    assert found.mark == pytest.approx(math.exp(-((math.log(1.07) / 0.15) ** 2)))
    assert found.said == "9.1 s for 8.5: 7 % slow."
    assert found.off == pytest.approx(0.07 * 8.5)
    assert mark_of(q.named, {"tapped_s": 8.5}).mark == 1.0
    turning = question_of(Named.parse("pace.quick.1"))
    assert (turning.seconds, turning.turns) == (10.0, 11)
    for wrong in ({}, {"tapped_s": "fast"}, {"tapped_s": True}, {"tapped_s": 99.0}):
        with pytest.raises(BadInput, match="tapped_s"):
            mark_of(q.named, wrong)
