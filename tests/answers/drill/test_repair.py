"""The smallest change that mends wins a repair."""

from __future__ import annotations

import pytest

from heathdrop.advice.change import mended
from heathdrop.answers.drill import Named, mark_of, question_of
from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput


@pytest.mark.slow
@pytest.mark.parametrize("topic", ["ran-high", "ran-low", "fouled", "hung", "not-felt"])
def test_the_smallest_change_that_mends_wins(cat: Catalog, topic: str) -> None:
    q = question_of(Named.parse(f"repair.{topic}.1"))
    assert q.sizing is not None
    assert q.rated is not None
    right = mended(cat, q.sizing, q.rated, topic, q.missed_ft).changes
    marks = {o.what: mark_of(q.named, {"option": k}).mark for k, o in enumerate(q.options)}
    assert marks[right[0].what] == 1.0
    assert sorted(marks.values())[-1] == 1.0
    assert sum(m == 1.0 for m in marks.values()) == 1
    assert all(marks[o.what] == (0.6 if o.mends else 0.0) for o in q.options if o.what != right[0].what)
    assert [o.what for o in question_of(Named.parse(f"repair.{topic}.1")).options] == [
        o.what for o in q.options
    ]
    with pytest.raises(BadInput, match="option"):
        mark_of(q.named, {"option": len(q.options)})


@pytest.mark.slow
@pytest.mark.parametrize("topic", ["ran-high", "ran-low"])
def test_only_what_is_swum_runs_high_or_low_by_one_to_two_and_a_half_feet(topic: str) -> None:
    asked = [question_of(Named.parse(f"repair.{topic}.{seed}")) for seed in range(1, 7)]
    assert {q.rated.rig.family.work for q in asked if q.rated} == {"swim"}
    missed = [q.missed_ft for q in asked if q.missed_ft is not None]
    assert len(missed) == 6
    assert 1.0 <= min(missed) < 2.0 < max(missed) <= 2.5
