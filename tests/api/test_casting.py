"""What is said of the next cast at a stop."""

from __future__ import annotations

from sqlalchemy.orm import Session

from heathdrop.answers.own import STRANGER
from heathdrop.api.casting import next_casts
from heathdrop.conditions.made import MadeCasts
from heathdrop.day.made import keep_casts
from heathdrop.units import count_said, turns_said
from tests.day.under_way import cast


def test_the_next_cast_is_said_for_its_rod(session: Session) -> None:
    keep_casts(session, MadeCasts([cast(1, outcome="nothing", head_oz=0.5), cast(2, outcome="ran-high")]))
    answer = next_casts(session, "Bay", STRANGER, 2)
    assert (answer.stop, answer.made, answer.thrown) == ("Bay", 2, "swim-jig:0.375:craw")
    assert answer.mend is not None
    assert answer.mend.symptom == "It ran too high"
    assert answer.mend.change
    assert answer.mend.effect
    first = next(c for c in answer.casts if c.rod)
    assert (first.rod, first.work, first.lands) == ("A", "swim", False)
    assert first.said.rig == "3/8 oz swim jig, craw 4 in"
    assert first.said.line == "30 lb braid with 8 ft of 12 lb fluorocarbon leader"
    assert first.said.turns == turns_said(first.turns_per_s)
    assert first.said.count == count_said(first.countdown_s)
    alone = next_casts(session, "Bay", STRANGER, 1, rig="football-jig:0.5:chunk")
    assert (alone.casts[0].rod, alone.casts[0].work, alone.casts[0].lands) == ("", "bottom", True)
