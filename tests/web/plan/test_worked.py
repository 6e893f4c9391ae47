"""A stop's lure in the words of its work: what runs is counted and turned, what lands is swept or hopped."""

from __future__ import annotations

import pytest

from heathdrop.api.planning import WithAnswer
from heathdrop.web.plan.worked import beside_said, hands_of, order_said, rig_said, runs_of
from tests.web.small_plan import answer


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


def test_a_rod_for_other_fish_is_said_with_its_fish() -> None:
    """Only rods that are the better ones for some of a stop's fish, those that add most first."""
    stop = answer().stops[0]
    assert beside_said(stop) == []
    low = served("football-jig", rod="C", change="retie", adds=0.2, for_ft=(17.9, 20.0))
    top = served("swim-jig", rod="B", change="none", adds=0.05, for_ft=(0.0, 4.0))
    also = [served("punch-rig", rod="D", adds=0.0), top, low]
    assert beside_said(stop.model_copy(update={"also": also})) == [
        f"Fish at 18 to 20 ft: rod C (retie), {rig_said(low.rig)}, {hands_of(low).said}.",
        f"Fish at 0 to 4 ft: rod B, {rig_said(top.rig)}, {hands_of(top).said}.",
    ]


def test_the_order_opens_as_the_stop_is_served() -> None:
    for stop in answer().stops:
        opening, own = stop.search[0], stop.with_
        assert (opening.rod, opening.name) == (own.rod, own.rig.name)
        assert opening.countdown_s == pytest.approx(own.countdown_s, abs=0.005)
        assert opening.pace_ft_s == pytest.approx(own.pace_ft_s, abs=0.001)
        assert (opening.way, opening.cadence) == (own.way, own.cadence)
