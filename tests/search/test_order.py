"""The order of casts: exponential detection, the cost of changes, Bayes after answers, and brute force."""

from __future__ import annotations

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.search.belief import Belief
from heathdrop.search.coverage import Candidate
from heathdrop.search.order import (
    Answered,
    Opening,
    Place,
    change_between,
    minutes_of,
    missed,
    next_cast,
    nobody_after,
    order_of,
    told_by,
    tried,
)

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


def test_the_chance_of_a_miss_falls_with_the_seconds() -> None:
    assert missed(0.03, np.array([0.0, 10.0, 100.0])) == pytest.approx([1.0, math.exp(-0.3), math.exp(-3.0)])


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


def test_the_smallest_change_comes_first_where_chances_are_alike(cat: Catalog) -> None:
    """Rule of the trade, derived: the same water by another count before another trailer, before a knot."""
    even = believed(1, 1, 1, 1)
    first = [OTHER_TAIL, OTHER_ROD, DEEP, HIGH]
    found = next_cast(cat, even.times(missed(PER_S, HIGH.seconds)), PER_S, first, HIGH, ["swim-jig:0.5:craw"])
    assert found[0] is DEEP
    assert found[1] == "count"
    assert found[3] == pytest.approx(
        float((even.times(missed(PER_S, HIGH.seconds)).cells * (1 - missed(PER_S, DEEP.seconds))).sum())
    )


def test_so_far_never_falls_and_ends_below_one(cat: Catalog) -> None:
    order = order_of(cat, believed(1, 3, 2, 1), PER_S, [HIGH, DEEP], None, ["swim-jig:0.5:craw"], 8)
    so_far = [n.so_far for n in order]
    assert so_far == sorted(so_far)
    assert so_far[-1] < 1.0
    assert sum(n.adds for n in order) == pytest.approx(so_far[-1])
    assert order[0].cast is HIGH


def test_nothing_takes_from_what_was_covered(cat: Catalog) -> None:
    before = believed(1, 1, 1, 1)
    after = told_by(cat, before, PER_S, Answered(HIGH, "nothing"))
    assert after.by_depth[1] < before.by_depth[1]
    assert after.by_depth[3] > before.by_depth[3]
    expected = before.cells * np.exp(-PER_S * HIGH.seconds)
    assert after.cells == pytest.approx(expected / expected.sum())
    fouled = told_by(cat, before, PER_S, Answered(HIGH, "fouled"))
    assert after.by_depth[1] < fouled.by_depth[1] < before.by_depth[1]


def test_a_bite_puts_it_where_and_when_it_was(cat: Catalog) -> None:
    even = believed(1, 1, 1, 1)
    somewhere = told_by(cat, even, PER_S, Answered(HIGH, "fish"))
    assert int(np.argmax(somewhere.by_depth)) == 1
    at = told_by(cat, even, PER_S, Answered(HIGH, "bump", 12.0))
    assert int(np.argmax(at.by_depth)) == 1
    assert at.by_depth[1] > somewhere.by_depth[1]
    repeated = order_of(cat, at, PER_S, [DEEP, HIGH], HIGH, ["swim-jig:0.5:craw"], 3, bitten=True)
    assert repeated[0].cast is HIGH
    assert repeated[0].change == "none"


def test_how_much_was_tried(cat: Catalog) -> None:
    even = believed(1, 1, 1, 1)
    assert tried(even, PER_S, []) == 0.0
    once = tried(even, PER_S, [Answered(HIGH, "nothing")])
    assert once == pytest.approx(float((even.cells * (1 - np.exp(-PER_S * HIGH.seconds))).sum()))
    assert once < tried(even, PER_S, [Answered(HIGH, "nothing"), Answered(DEEP, "nothing")]) < 1.0


def minutes_found(
    cat: Catalog, belief: Belief, sequence: list[Candidate], hand: list[str], within: float
) -> float:
    """The area under chance against minutes up to ``within``: sooner is more."""
    left, spent, area, before = 1.0, 0.0, 0.0, None
    for one in sequence:
        took = one.minutes + minutes_of(cat, change_between(before, one, hand))
        adds = left * float((belief.cells * (1 - missed(PER_S, one.seconds))).sum())
        spent += took
        area += adds * max(0.0, within - spent)
        belief = belief.times(missed(PER_S, one.seconds))
        left, before = left - adds, one
    return area


@pytest.mark.parametrize("seed", range(12))
def test_the_greedy_order_is_within_two_percent_of_brute_force(cat: Catalog, seed: int) -> None:
    """All sequences of four casts out of five, on random beliefs and coverages of rods to hand."""
    rng = np.random.default_rng(seed)
    belief = believed(*rng.dirichlet(np.ones(4)))
    hand = ["a:0.5:craw", "b:0.5:craw"]
    casts = [
        cast(
            hand[k % 2][0],
            "craw",
            float(k + 1),
            2.2,
            {s: float(rng.uniform(0, 40)) for s in rng.choice(4, 2)},
            float(rng.uniform(0.7, 1.2)),
        )
        for k in range(5)
    ]
    greedy = [n.cast for n in order_of(cat, belief, PER_S, casts, None, hand, 4)]
    best = max(minutes_found(cat, belief, list(s), hand, 8.0) for s in itertools.product(casts, repeat=4))
    assert minutes_found(cat, belief, greedy, hand, 8.0) >= 0.98 * best


def test_what_takes_a_cast_is_seconds_suit_cover_and_freshness() -> None:
    plain = HIGH.taken(PER_S)
    assert plain == pytest.approx(1 - np.exp(-PER_S * HIGH.seconds))
    unliked = replace(HIGH, suit=0.5, gets_in=0.8, cut=0.9)
    assert unliked.taken(PER_S, 0.75) == pytest.approx(
        0.8 * (1 - np.exp(-PER_S * 0.5 * 0.9 * 0.75 * HIGH.seconds))
    )


def test_a_rig_that_does_not_get_in_is_left_for_one_that_does(cat: Catalog) -> None:
    """Seconds alone would throw the blade over the mat; and Bayes takes next to nothing for it."""
    blade = replace(HIGH, gets_in=0.01, suit=0.1)
    even = believed(1, 1, 1, 1)
    found = next_cast(
        cat, even, PER_S, [blade, OTHER_ROD], None, ["swim-jig:0.5:craw", "football-jig:0.5:craw"]
    )
    assert found[0] is OTHER_ROD
    after = told_by(cat, even, PER_S, Answered(blade, "nothing"))
    assert after.by_depth == pytest.approx(even.by_depth, abs=2e-3)


def test_a_cast_speaks_for_its_lane_and_tires_when_all_are_thrown() -> None:
    place = Place(4, 0.75)
    assert [place.fresh(n) for n in (0, 3, 4, 7, 8)] == pytest.approx([1.0, 1.0, 0.75, 0.75, 0.5625])
    assert place.passes(HIGH, PER_S) == pytest.approx(1 - 0.25 * HIGH.taken(PER_S))
    assert Place(4, 0.75, 0.35).share == 0.35
    assert Place(2, 0.75, 0.35).share == 0.5
    assert Place().passes(HIGH, PER_S) == pytest.approx(np.exp(-PER_S * HIGH.seconds))


def test_another_direction_before_another_count_then_the_count(cat: Catalog) -> None:
    hand = ["swim-jig:0.5:craw"]
    place = Place(6, 0.75, 0.35)
    order = order_of(cat, believed(2, 3, 2, 1), PER_S, [HIGH, DEEP], None, hand, 8, place=place)
    changes = [n.change for n in order]
    assert changes[0] == "none"
    assert "direction" in changes
    assert "count" in changes
    assert set(changes[1:]) == {"direction", "count"}
    again = order_of(cat, believed(2, 3, 2, 1), PER_S, [HIGH, DEEP], HIGH, hand, 2, True, place)
    assert again[0].change == "none"


def test_so_far_leaves_room_for_nobody_home(cat: Catalog) -> None:
    belief = believed(1, 3, 2, 1)
    sure = order_of(cat, belief, PER_S, [HIGH, DEEP], None, [], 6)
    half = order_of(cat, belief, PER_S, [HIGH, DEEP], None, [], 6, nobody=0.5)
    assert [n.so_far for n in half] == pytest.approx([0.5 * n.so_far for n in sure])


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


def test_the_plans_cast_opens_and_stays_until_another_earns_clearly_more(cat: Catalog) -> None:
    belief, hand = believed(1, 3, 2, 1), ["swim-jig:0.5:craw"]
    best = next_cast(cat, belief, PER_S, [HIGH, DEEP], None, hand)[0]
    other = DEEP if best is HIGH else HIGH
    rates = {c.count_s: next_cast(cat, belief, PER_S, [c], None, hand) for c in (HIGH, DEEP)}
    share = (rates[other.count_s][3] / rates[other.count_s][2]) / (
        rates[best.count_s][3] / rates[best.count_s][2]
    )
    sized = replace(other, sized=True)
    enough = share * cat.search.grid.sized_first >= cat.search.grid.opens_from
    assert next_cast(cat, belief, PER_S, [best, sized], None, hand)[0] is (sized if enough else best)
    clearly = share * cat.search.grid.sized_first > 1.0
    assert next_cast(cat, belief, PER_S, [best, sized], best, hand)[0] is (sized if clearly else best)
    far = replace(other, sized=True, seconds=0.01 * other.seconds)
    assert next_cast(cat, belief, PER_S, [best, far], None, hand)[0] is best
    named = replace(other, rig="bladed-jig:0.5:craw", sized=True)
    both = [best, named]
    opened = next_cast(cat, belief, PER_S, both, None, [*hand, named.rig], opens=Opening(named.rig))[0]
    assert opened is (named if enough else best)
    always = Opening(named.rig, 0.0)
    assert next_cast(cat, belief, PER_S, both, None, [*hand, named.rig], opens=always)[0] is named


def test_what_a_tired_cast_adds_by_hand(cat: Catalog) -> None:
    """Two lanes, half as fresh once both were thrown: what passes, and what the next cast is said to add."""
    place, belief = Place(lanes=2, tires=0.5), believed(0.1, 0.4, 0.4, 0.1)
    for before, fresh in ((0, 1.0), (1, 1.0), (2, 0.5), (5, 0.25)):
        taken = 1.0 - np.exp(-PER_S * fresh * HIGH.seconds)
        assert place.passes(HIGH, PER_S, before) == pytest.approx(1.0 - 0.5 * taken)
        thrown = {HIGH.setting: before} if before else {}
        _, _, _, adds = next_cast(cat, belief, PER_S, [HIGH], HIGH, [HIGH.rig], place, thrown)
        assert adds == pytest.approx(float((belief.cells * 0.5 * taken).sum()))
