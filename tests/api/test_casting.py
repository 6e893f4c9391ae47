"""What is said of the next cast at a stop."""

from __future__ import annotations

from dataclasses import replace

import pytest
from sqlalchemy.orm import Session

from heathdrop.answers.own import STRANGER
from heathdrop.api.casting import next_casts
from heathdrop.catalog import load
from heathdrop.conditions.made import MadeCasts
from heathdrop.conditions.trip import TripBody
from heathdrop.day.deck import next_at
from heathdrop.day.made import keep_casts
from heathdrop.sizing.size import size
from heathdrop.store import trips
from heathdrop.units import count_said, feet, turns_said
from tests.day.under_way import ROD
from tests.day.under_way import cast as thrown


def test_the_next_cast_is_said_for_its_rod(session: Session) -> None:
    keep_casts(session, MadeCasts([thrown(1, outcome="nothing", head_oz=0.5), thrown(2, outcome="ran-high")]))
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


@pytest.mark.parametrize(
    ("cover", "work", "turns"), [("wood", "hang", "shake it"), ("docks", "swim-out", "")]
)
def test_what_is_held_is_counted_and_not_let_land(
    session: Session, cover: str, work: str, turns: str
) -> None:
    """Sheet and deck name one count and one depth for a jig that hangs or is swum out."""
    water = {"water_temp_f": 66, "bottom_depth_ft": 12, "fish_depth_ft": 7, "cover": {"kind": cover}}
    stop = {"name": "Orchard", "conditions": water, "cast_ft": 30}
    rod = {**ROD, "rig": "flipping-jig:0.5:craw"}
    trips.begin(
        session, "Held", TripBody.model_validate({"date": "2027-09-26", "stops": [stop], "rods": [rod]})
    )
    here, found = next_at(session, "Orchard", STRANGER, 1)
    cast = next_casts(session, "Orchard", STRANGER, 1).casts[0]
    assert (cast.rod, cast.work, cast.lands) == ("A", work, False)
    assert cast.said.turns == (turns or turns_said(cast.turns_per_s))
    assert cast.said.count == count_said(cast.countdown_s)
    alone = replace(here.scenario, families=("flipping-jig",), gear=here.rods[0].rod.on(here.scenario.gear))
    sized = size(load(), alone, [here.rods[0].rig]).rigs[0]
    assert cast.countdown_s == pytest.approx(sized.countdown_s, abs=0.01)
    assert cast.runs_ft == pytest.approx(feet(sized.tuned.mean_m), abs=0.06)
    assert not found.left
