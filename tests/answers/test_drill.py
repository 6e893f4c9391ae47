"""The trainer's questions: named, and marked by the sheet's own scores and the simulation."""

import math
from dataclasses import replace

import pytest

from heathdrop.advice.change import mended
from heathdrop.answers.drill import Named, mark_of, question_of
from heathdrop.answers.water import call_of, rate_rigs, size_water
from heathdrop.catalog import Catalog, load
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.program import play
from heathdrop.units import feet


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
