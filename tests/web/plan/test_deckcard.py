"""The plan's answer as columns, rows and cards, in the words of each lure's work."""

import json
import re
import uuid
from typing import Any

import pytest

from heathdrop.answers.plan import rig_said as words_of
from heathdrop.answers.thrown import rig_of
from heathdrop.api.planning import WithAnswer, plan_answer, rig_written
from heathdrop.conditions import outcome
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.plan import PlanRequest
from heathdrop.web.plan.deckcard import deck_card, line_said, printed_card
from heathdrop.web.plan.shown import HARDLY, SHADES, planned_of
from heathdrop.web.plan.worked import beside_said, hands_of, order_said, rig_said, runs_of
from tests.web.small_plan import BODY, answer


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
        # What holds all day is said once.
        assert sorted([*stop["cautions"], *told["care"]]) == sorted({*planned.cautions, *told["care"]})
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


def address(body: dict[str, Any], k: int, *more: object) -> str:
    return f"/{body['stops'][k]['name']}/{len(more)}"


def test_crossings_are_the_plans_own_figures() -> None:
    plan = answer()
    shown = planned_of(plan, BODY, address)
    assert [r.name for r in shown.rods] == ["A", "B"]
    for column, rod in zip(shown.rods, plan.rods, strict=True):
        assert column.rig == rig_said(rod.rig)
        assert column.line == line_said(rod.line)
        assert column.adds == f"{100 * rod.adds / plan.total:.0f} %"
    for row, stop in zip(shown.stops, plan.stops, strict=True):
        assert sum(c.chosen for c in row.cells) == 1
        each = {w.rod: w for w in (stop.with_, *stop.also)}
        for cell, rod in zip(row.cells, plan.rods, strict=True):
            served = each[rod.name]
            assert cell.score == round(100 * served.fit)
            assert cell.shade == sum(served.fit >= edge for edge in SHADES)
            assert cell.count == f"{served.countdown_s:.1f} s"
            assert cell.line == f"{rod.line['material']}:{rod.line['test_lb']:g}"
            assert cell.said.startswith(f"Rod {rod.name} at {stop.name}: {cell.score} of 100, ")
        changed = {"none": "", "trailer": " (change the trailer)", "retie": " (retie)"}[stop.with_.change]
        rig = rig_said(stop.with_.rig)
        assert row.fished == f"Rod {stop.with_.rod}{changed}: {rig}, {hands_of(stop.with_).said}."
        assert bool(row.doubt) is not stop.served
        assert row.beside == tuple(beside_said(stop))
        assert len(row.order) == len([*runs_of(stop.search)])
        assert all(": " in said for said in row.ifs)
    assert (shown.spare != "") is (min(100 * r.adds / plan.total for r in plan.rods) < HARDLY)
    spared = plan.model_copy(update={"rods": [plan.rods[0], plan.rods[1].model_copy(update={"adds": 0.01})]})
    said = planned_of(spared, BODY, address).spare
    assert said == "One rod would do: without B the day is 1 % less."
    assert shown.total == f"{100 * plan.total:.0f}"
    assert float(shown.total) <= float(shown.bound)


def served(family: str, **more: object) -> WithAnswer:
    one = answer().stops[0].with_
    rig = one.rig.model_copy(update={"family": family})
    figures = {"countdown_s": 6.4, "pace_ft_s": 0.5, "turns_per_s": 0.94, "runs_ft": 18.0, "cadence": ""}
    return one.model_copy(update={"rig": rig, **figures, **more})


@pytest.mark.parametrize(
    ("one", "labels", "said"),
    [
        (
            served("swim-jig"),
            ("Count, s", "Turns in 20 s", "Runs at"),
            "count 6.4, 19 turns in 20 s, runs at 18.0 ft",
        ),
        (
            served("underspin", cadence="yo-yo"),
            ("Count, s", "Turns in 20 s", "Runs at"),
            "count 6.4, 19 turns in 20 s, yo-yo, runs at 18.0 ft",
        ),
        (
            served("flipping-jig", cadence="hang"),
            ("Count, s", "Then", "Works at"),
            "count 6.4, stop it over a limb and shake it, works at 18.0 ft",
        ),
        (
            served("flipping-jig", cadence="swim-out"),
            ("Count, s", "Turns in 20 s", "Runs at"),
            "count 6.4, 19 turns in 20 s, stop it and swim it out, runs at 18.0 ft",
        ),
        (
            served("football-jig"),
            ("Lands in, s", "Sweep at", "Works at"),
            "lands in 6.4 s, sweep a foot in about 2 s, works at 18.0 ft",
        ),
        (
            served("punch-rig"),
            ("Lands in, s", "Then", "Works at"),
            "lands in 6.4 s, hop it where it lands, works at 18.0 ft",
        ),
    ],
)
def test_each_work_has_its_words(one: WithAnswer, labels: tuple[str, ...], said: str) -> None:
    hands = hands_of(one)
    assert (hands.count_label, hands.hand_label, hands.runs_label) == labels
    assert hands.said == said


def test_an_order_is_said_by_its_settings() -> None:
    first = answer().stops[0].search[0].model_copy(update={"countdown_s": 2.48})
    deeper = first.model_copy(update={"countdown_s": 4.0})
    order = [first, first, first, deeper]
    assert [n for _, n in runs_of(order)] == [3, 1]
    assert order_said(order) == "count 2.5 in 3 directions, then count 4"
    assert order_said([]) == ""
    other = deeper.model_copy(update={"name": "finesse-jig:0.375:chunk", "rod": "C"})
    assert order_said([first, other, first]) == (
        f"count 2.5, then rod C, count 4, then rod {first.rod}, count 2.5"
    )
