"""The eye is held to the simulation."""

from __future__ import annotations

import pytest

from heathdrop.answers.drill import Named, mark_of, question_of
from heathdrop.errors import BadInput
from heathdrop.sizing.program import play
from heathdrop.units import feet


@pytest.mark.parametrize("topic", ["fluorocarbon", "nylon", "braid"])
def test_the_eye_is_held_to_the_simulation(topic: str) -> None:
    q = question_of(Named.parse(f"eye.{topic}.4"))
    assert q.sizing is not None
    assert q.rated is not None
    assert topic in q.ask
    cast = play(q.sizing, q.rated)
    truth = feet(cast.depth_at(0.5 * cast.cast.distance_m))
    right = mark_of(q.named, {"depth_ft": truth})
    assert right.mark == pytest.approx(1.0)
    assert right.truth == pytest.approx(truth)
    assert right.said.endswith("as you said.")
    deep = mark_of(q.named, {"depth_ft": truth + 0.5 + 0.15 * truth})
    assert deep.mark == pytest.approx(0.5)
    assert "too deep" in deep.said
    assert deep.off == pytest.approx(0.5 + 0.15 * truth)
    assert deep.why
    assert all(line.startswith(("The line", "The pace", "The trailer")) for line in deep.why)
    with pytest.raises(BadInput, match="depth_ft"):
        mark_of(q.named, {"depth_ft": 400.0})


def test_the_line_is_explained_by_playing_it_again() -> None:
    found = mark_of(Named.parse("eye.nylon.3"), {"depth_ft": 4.0})
    assert (
        found.why[0] == "The line: on 15 lb fluorocarbon the same cast runs 4 in deeper than on 15 lb nylon."
    )
