"""The cards to carry: they place what the plan says, whole, without a network, and nothing breaks out."""

from __future__ import annotations

import json
import re
import uuid
from typing import Any

import pytest

from heathdrop.answers.plan import rig_said as words_of
from heathdrop.answers.thrown import rig_of
from heathdrop.api.planning import plan_answer, rig_written
from heathdrop.conditions import outcome
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.plan import PlanRequest
from heathdrop.web.plan.deckcard import deck_card, line_said, printed_card
from heathdrop.web.plan.worked import hands_of, order_said, rig_said
from tests.web.small_plan import answer


def data() -> dict[str, Any]:
    found = re.search(r'<script type="application/json"[^>]*>(.*?)</script>', deck_card(answer()), re.S)
    assert found
    told: dict[str, Any] = json.loads(found[1])
    return told


def test_every_figure_of_the_card_is_the_plans() -> None:
    plan, told = answer(), data()
    assert told["date"] == "2027-04-03"
    assert told["outcomes"] == [[row.id, row.button, row.bitten, row.rare] for row in outcome.ROWS]
    assert [r.split(":")[0] for r in told["rods"]] == ["A", "B"]
    assert [s["name"] for s in told["stops"]] == ["Mill <bay>", "Causeway"]
    for stop, planned in zip(told["stops"], plan.stops, strict=True):
        first = stop["casts"][0]
        assert first["countdown_s"] == planned.with_.countdown_s
        assert first["pace_ft_s"] == planned.with_.pace_ft_s
        hands = hands_of(planned.with_)
        assert (first["count_said"], first["turns_said"]) == (hands.count, hands.hand)
        assert first["labels"] == [hands.count_label, hands.hand_label, hands.runs_label]
        assert stop["water"] == planned.water
        assert first["runs_said"] == f"{planned.with_.runs_ft:.1f} ft"
        # The order opens with the plan's own cast, which stands there once.
        assert [c["countdown_s"] for c in stop["casts"]] == [c.countdown_s for c in planned.search]
        assert [c["rod"] for c in stop["casts"]] == [c.rod for c in planned.search]
        assert len(stop["ifs"]) == len(planned.if_)
        assert stop["cautions"] == planned.cautions
    swum, worked = (s["casts"][0] for s in told["stops"])
    assert (swum["lands"], worked["lands"]) == (False, True)
    assert (swum["work"], worked["work"]) == ("swim", "bottom")


def test_a_cast_of_the_card_is_on_record_as_the_decks_is() -> None:
    """Its own rod's line, all that the rig wears, its own words: for every cast of the order."""
    plan, told = answer(), data()
    lines = {r.name: r.line for r in plan.rods}
    for stop in told["stops"]:
        for cast in stop["casts"]:
            assert cast["line"] == lines[cast["rod"]]
            hand = ("countdown_s", "pace_ft_s", "turns_per_s", "rod_tip_height_ft", "work", "line")
            made = {"id": str(uuid.UUID(int=1)), "time": "2027-04-03T06:12:00+01:00", "outcome": "bump"}
            kept = MadeCast.model_validate({**made, **{k: cast[k] for k in hand}, **cast["rig"]})
            rig = rig_of(kept)
            assert cast["said"].split(" (")[0] == words_of(rig)
            assert rig_written(rig).model_dump() == cast["rig"]
    mat = {"water_temp_f": 80, "bottom_depth_ft": 6, "fish_depth_ft": 5,
        "cover": {"kind": "matted-grass", "thickness_in": 4}}  # fmt: skip
    rods = [{"name": "A", "line": {"material": "braid", "test_lb": 65}}]
    stops = [{"name": "Mat", "minutes": 60, "conditions": mat}]
    heavy = PlanRequest.model_validate({"date": "2027-04-03", "rods": rods, "stops": stops})
    card = deck_card(plan_answer(heavy))
    assert "tungsten punch rig" in card
    assert '"head_material":"tungsten"' in card


def test_the_key_is_of_the_plan_alone() -> None:
    assert data()["key"] == data()["key"]
    other = answer().model_copy(update={"date": "2027-04-04"})
    assert data()["key"] not in deck_card(other)


def test_cards_need_no_network_and_nothing_breaks_out() -> None:
    card, paper = deck_card(answer()), printed_card(answer())
    for text in (card, paper):
        assert "http" not in text
        assert "<bay>" not in text
        assert "src=" not in text
    assert "Mill &lt;bay&gt;" in paper
    assert "Mill \\u003cbay>" in card
    assert len(card.encode()) < 120_000
    for stop in answer().stops:
        assert f"{stop.with_.countdown_s:.1f}" in paper
        assert order_said(stop.search) in paper
        assert stop.water in paper
    cautions = {c for s in answer().stops for c in s.cautions}
    assert all(paper.count(c) == 1 for c in cautions if "'" not in c and '"' not in c)


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ({"material": "nylon", "test_lb": 12.0}, "12 lb nylon"),
        (
            {
                "material": "braid",
                "test_lb": 30,
                "leader": {"material": "fluorocarbon", "test_lb": 12, "length_ft": 6.5},
            },
            "30 lb braid, 6.5 ft of 12 lb fluorocarbon",
        ),
    ],
)
def test_a_line_in_words(line: dict[str, Any], said: str) -> None:
    assert line_said(line) == said


def test_a_rig_in_words() -> None:
    rig = answer().rods[0].rig
    for name, said in (
        ("swim-jig:0.375:craw", "3/8 oz swim jig, craw 4 in"),
        ("swim-jig:0.375:none", "3/8 oz swim jig"),
        ("punch-rig:1.125:beaver:material=tungsten", "1 1/8 oz tungsten punch rig, beaver-style 4 in"),
    ):
        assert rig_said(rig.model_copy(update={"name": name})) == said
