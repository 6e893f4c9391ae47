"""What casts are held against: what changes, lanes, how much was tried, who is home."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.search.belief import Belief
from heathdrop.search.coverage import Candidate
from heathdrop.search.order import Answered, Place, change_between, minutes_of, nobody_after, tried

PER_S = 0.03
EDGES = np.linspace(0.0, 8.0, 5)


def cast(
    rig: str, trailer: str, count: float, pace: float, slices: dict[int, float], minutes: float = 1.0
) -> Candidate:
    seconds = np.zeros((4, 3))
    for k, s in slices.items():
        seconds[k] = [0.25 * s, s, 0.25 * s]
    head = (rig, 0.5)
    path = np.array([0.0, 1.0, 30.0])
    return Candidate(
        f"{rig}:0.5:{trailer}",
        rig,
        head,
        (trailer, 4.0),
        count,
        pace,
        seconds,
        minutes,
        path,
        np.array([0.0, 3.0, 3.0]),
    )


def believed(*by_depth: float) -> Belief:
    shares = np.array(by_depth)[:, None] * np.array([0.2, 0.6, 0.2])
    return Belief(EDGES, shares / shares.sum())


HIGH = cast("swim-jig", "craw", 2.0, 2.2, {0: 10.0, 1: 30.0})
DEEP = cast("swim-jig", "craw", 5.0, 2.2, {2: 30.0, 3: 10.0})
OTHER_TAIL = cast("swim-jig", "chunk", 2.0, 2.2, {0: 30.0})
OTHER_ROD = cast("football-jig", "craw", 4.0, 1.2, {3: 40.0})


def test_what_changes_and_what_it_costs(cat: Catalog) -> None:
    hand = ["swim-jig:0.5:craw", "football-jig:0.5:craw"]
    faster = cast("swim-jig", "craw", 2.0, 3.4, {})
    assert change_between(None, HIGH, hand) == "none"
    assert change_between(None, OTHER_TAIL, hand) == "retie"
    assert change_between(HIGH, HIGH, hand) == "none"
    assert change_between(HIGH, DEEP, hand) == "count"
    assert change_between(HIGH, faster, hand) == "pace"
    assert change_between(HIGH, OTHER_TAIL, hand) == "trailer"
    assert change_between(HIGH, OTHER_ROD, hand) == "rod"
    assert change_between(HIGH, OTHER_ROD, hand[:1]) == "retie"
    costs = {c: minutes_of(cat, c) for c in ("none", "count", "pace", "trailer", "rod", "retie")}
    assert costs == {"none": 0.0, "count": 0.05, "pace": 0.05, "trailer": 1.0, "rod": 0.1667, "retie": 3.0}


def test_how_much_was_tried(cat: Catalog) -> None:
    even = believed(1, 1, 1, 1)
    assert tried(even, PER_S, []) == 0.0
    once = tried(even, PER_S, [Answered(HIGH, "nothing")])
    assert once == pytest.approx(float((even.cells * (1 - np.exp(-PER_S * HIGH.seconds))).sum()))
    assert once < tried(even, PER_S, [Answered(HIGH, "nothing"), Answered(DEEP, "nothing")]) < 1.0


def test_what_takes_a_cast_is_seconds_suit_cover_and_freshness() -> None:
    plain = HIGH.taken(PER_S)
    assert plain == pytest.approx(1 - np.exp(-PER_S * HIGH.seconds))
    unliked = replace(HIGH, suit=0.5, gets_in=0.8, cut=0.9)
    assert unliked.taken(PER_S, 0.75) == pytest.approx(
        0.8 * (1 - np.exp(-PER_S * 0.5 * 0.9 * 0.75 * HIGH.seconds))
    )


def test_a_cast_speaks_for_its_lane_and_tires_when_all_are_thrown() -> None:
    place = Place(4, 0.75)
    assert [place.fresh(n) for n in (0, 3, 4, 7, 8)] == pytest.approx([1.0, 1.0, 0.75, 0.75, 0.5625])
    assert place.passes(HIGH, PER_S) == pytest.approx(1 - 0.25 * HIGH.taken(PER_S))
    assert Place(4, 0.75, 0.35).share == 0.35
    assert Place(2, 0.75, 0.35).share == 0.5
    assert Place().passes(HIGH, PER_S) == pytest.approx(np.exp(-PER_S * HIGH.seconds))


def test_casts_that_nothing_takes_speak_for_nobody_and_a_bite_against(cat: Catalog) -> None:
    even = believed(1, 1, 1, 1)
    absent = cat.search.place.absent
    here = Place(absent=absent)
    assert nobody_after(even, PER_S, []) == 0.0  # where nobody says that stops may be empty
    assert nobody_after(even, PER_S, [], here) == pytest.approx(absent)
    none = [Answered(HIGH, "nothing"), Answered(DEEP, "nothing")]
    seen = tried(even, PER_S, none)
    wanted = absent / (absent + (1 - absent) * (1 - seen))
    assert nobody_after(even, PER_S, none, here) == pytest.approx(wanted)
    assert nobody_after(even, PER_S, none, here) > absent
    assert nobody_after(even, PER_S, [*none, Answered(HIGH, "bump")], here) == 0.0
