"""A stranger owns nothing, has learned nothing and holds to no school."""

from __future__ import annotations

from heathdrop.answers.own import STRANGER, Own
from heathdrop.sizing.box import EMPTY
from heathdrop.sizing.known import UNTAUGHT


def test_a_stranger() -> None:
    assert Own(UNTAUGHT, EMPTY, ()) == STRANGER
    assert hash(STRANGER) == hash(Own())
