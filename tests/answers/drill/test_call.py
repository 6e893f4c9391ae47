"""A call is marked by the sheet's own scores."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.drill import Named, mark_of, question_of
from heathdrop.answers.water import call_of, rate_rigs, size_water
from heathdrop.catalog import load
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName


@pytest.mark.parametrize("topic", ["wood", "matted-grass"])
def test_a_call_is_marked_by_the_sheets_own_scores(topic: str) -> None:
    q = question_of(Named.parse(f"call.{topic}.1"))
    assert q.scenario is not None
    board = call_of(q.scenario, places=4).standings
    best = board[0].best
    answer = {
        "way": best.way,
        "family": best.rig.family.id,
        "head_oz": best.rig.head_oz,
        "trailer": best.rig.trailer.id,
    }
    right = mark_of(q.named, dict(answer))
    assert right.mark == 1.0
    assert [row.score for row in right.board] == [s.best.fits.score for s in (*board, board[0])]
    sheet = size_water(replace(q.scenario, families=(best.rig.family.id,)), limit=1).rows[0].rated
    assert right.board[-1].score == sheet.fits.score
    other = mark_of(q.named, {**answer, "way": "open"})
    assert other.mark == pytest.approx(0.85)
    assert other.why[-1] == f"It goes {best.way} here, not open."
    worse = mark_of(q.named, {**answer, "family": "football-jig", "head_oz": 0.5, "trailer": "chunk"})
    assert worse.mark < 0.9
    # A head that no board has is rated like the others.
    odd = mark_of(q.named, {**answer, "family": "football-jig", "head_oz": 0.41, "trailer": "chunk"})
    sizing = call_of(replace(q.scenario, families=("football-jig",)), places=None).standings[0].sizing
    asked = RigName("football-jig", 0.41, "chunk").rig(load())
    assert odd.board[-1].score == rate_rigs(sizing, [asked])[0].fits.score
    for field, wrong in (("family", "plug"), ("trailer", "worm"), ("way", "round"), ("head_oz", 9.0)):
        with pytest.raises(BadInput, match=field):
            mark_of(q.named, {**answer, field: wrong})
