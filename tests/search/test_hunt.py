"""The hunt: what a blank, a bite and minutes do, which cast comes of it, which rods are chosen."""

import itertools
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.search.belief import Belief
from heathdrop.search.choose import adds, bound, choose, worth
from heathdrop.search.coverage import Candidate
from heathdrop.search.hunt import Hunt
from heathdrop.search.order import Opening, Place

SWIM, FOOT = "swim-jig:0.5:craw", "football-jig:0.5:craw"


LANES = Place(lanes=3, tires=0.5)


STILL = {"lane_min": 1e12, "depth_min": 1e12, "back_min": 1e12}


def with_numbers(cat: Catalog, **more: Any) -> Catalog:
    return replace(cat, search=replace(cat.search, hunt=replace(cat.search.hunt, **more)))


def hunt(cat: Catalog, *casts: Candidate, by: tuple[float, ...] = (1, 1, 1, 1), **more: Any) -> Hunt:
    more = {"to_hand": [SWIM, FOOT], "place": LANES} | more
    return Hunt(cat, believed(*by), PER_S, casts or (HIGH, DEEP), **more)


def looked(cat: Catalog, cast: Candidate) -> np.ndarray:
    h = cat.search.hunt
    return (1.0 - np.exp(-h.shows * PER_S * cast.suit**h.suit_known * cast.seconds)).ravel()


def test_a_blank_thins_its_lane_and_half_as_much_the_others(cat: Catalog) -> None:
    still = with_numbers(cat, **STILL, shared_depth=0.5)
    for outcome, whole in (("nothing", 1.0), ("fouled", cat.search.reach.fouled_share)):
        one = hunt(still)
        one.tell(HIGH, outcome, lane=1)
        for lane, share in ((0, 0.5), (1, 1.0), (2, 0.5)):
            wanted = one.prior[:, lane] * (1.0 - share * whole * looked(still, HIGH))
            assert one.field[:, lane] == pytest.approx(wanted)


def test_a_bite_raises_the_field_about_it_and_is_thrown_again_twice(cat: Catalog) -> None:
    still = with_numbers(cat, **STILL, mates=0.8, beside=0.25, elsewhere=0.1, again=2)
    one = hunt(still)
    one.tell(HIGH, "fish", 12.0, lane=0)
    more = (one.field - one.prior).sum(axis=0)
    assert more == pytest.approx([0.8, 0.2, 0.08])
    rise = (one.field - one.prior)[:, 0].reshape(4, 3).sum(axis=1)
    assert int(np.argmax(rise)) == 1  # it was at 3 ft when it was taken
    for _ in range(2):
        again = one.next()
        assert (again.cast, again.lane, again.change) == (HIGH, 0, "none")
        one.tell(HIGH, "nothing", lane=0)
    assert one.again == 0
    assert one.next(without=SWIM.replace("swim", "no")).cast in (HIGH, DEEP)


def test_minutes_bring_the_field_back(cat: Catalog) -> None:
    """It spreads to the lanes and depths beside it, keeps its fish, and ends where it began."""
    drift = with_numbers(cat, lane_min=4.0, depth_min=4.0, back_min=1e12)
    one = hunt(drift)
    one.field = np.zeros_like(one.field)
    one.field[4, 1] = 1.0  # the second slice, its middle pace
    one._pass(1.0)
    cube = one.field.reshape(4, 3, 3)
    assert one.field.sum() == pytest.approx(1.0)
    assert cube[1, 1].tolist() == pytest.approx([0.75 * 0.125, 0.75 * 0.75, 0.75 * 0.125])
    assert cube[0, 1, 1] == cube[2, 1, 1] == pytest.approx(0.125 * 0.75)
    back = hunt(with_numbers(cat, **STILL | {"back_min": 2.0}))
    back.field = 3.0 * back.prior
    back._pass(0.5)
    assert back.field == pytest.approx(2.5 * back.prior)


def test_the_smallest_change_comes_first_where_chances_are_alike(cat: Catalog) -> None:
    """Another direction while there is one; the same water by another count before another trailer, before a
    knot."""
    one = hunt(cat, OTHER_TAIL, OTHER_ROD, DEEP, HIGH, to_hand=[SWIM], place=Place())
    one.tell(HIGH, "nothing")
    assert (one.next().cast, one.next().change) == (DEEP, "count")
    fan = hunt(cat, HIGH, DEEP, by=(2, 3, 2, 1))
    fan.tell(HIGH, "nothing", lane=0)
    found = fan.next()
    assert found.lane != 0
    assert found.change in ("direction", "count")
    assert fan.lane_for(HIGH) != 0


def test_the_plans_cast_opens_unless_it_is_clearly_worse(cat: Catalog) -> None:
    sized, far = replace(DEEP, sized=True), replace(DEEP, sized=True, seconds=0.001 * DEEP.seconds)
    named = replace(OTHER_ROD, sized=True)
    share = cat.search.grid.opens_from
    assert 0.0 < share < 1.0
    assert hunt(cat, HIGH, sized, opens=Opening(SWIM)).next().cast is sized
    assert hunt(cat, HIGH, far, opens=Opening(SWIM)).next().cast is HIGH
    assert hunt(cat, HIGH, far, opens=Opening(SWIM, 0.0)).next().cast is far
    assert hunt(cat, HIGH, named, opens=Opening(FOOT)).next().cast is named
    assert hunt(cat, HIGH, named).next(only=FOOT).cast is named
    assert hunt(cat, HIGH, named).next(without=FOOT).cast is HIGH


def test_so_far_never_falls_and_leaves_room_for_nobody(cat: Catalog) -> None:
    one = hunt(cat, by=(1, 3, 2, 1), place=Place(lanes=4, tires=0.75, holds=0.35))
    before = one.field.copy()
    sure, half = one.ahead(8), one.ahead(8, nobody=0.5)
    so_far = [n.so_far for n in sure]
    assert so_far == sorted(so_far)
    assert 0.0 < so_far[0] <= so_far[-1] < 1.0
    assert sum(n.adds for n in sure) == pytest.approx(so_far[-1])
    assert [n.so_far for n in half] == pytest.approx([0.5 * v for v in so_far])
    first = sure[0]
    assert first.adds == pytest.approx(
        0.35 * float((believed(1, 3, 2, 1).cells * first.cast.taken(PER_S)).sum())
    )
    assert (one.field == before).all()  # looking ahead changes nothing
    assert not one.made
    assert one.belief.by_depth.sum() == pytest.approx(1.0)


VALUES = np.array([[0.9, 0.1, 0.0], [0.2, 0.8, 0.1], [0.5, 0.5, 0.5], [0.0, 0.0, 0.9]])


FREE = [-1, -2, -3, -4]


def test_what_each_adds_is_what_is_lost_without_it() -> None:
    assert adds(VALUES, [0, 1, 3]) == pytest.approx([0.7, 0.7, 0.8])
    assert adds(VALUES, [2]) == pytest.approx([1.5])


def test_as_many_as_asked_and_none_that_adds_nothing() -> None:
    assert choose(VALUES, FREE, 1) == [2]
    assert sorted(choose(VALUES, FREE, 3)) == [0, 1, 3]
    assert sorted(choose(VALUES, FREE, 4)) == [0, 1, 3]
    assert choose(np.zeros((2, 2)), [-1, -2], 2) == [0]


def test_a_rod_holds_one_rig() -> None:
    groups = [0, 0, 1, 1]
    found = choose(VALUES, groups, 2)
    assert sorted(groups[k] for k in found) == [0, 1]
    best = max(worth(VALUES, pair) for pair in itertools.product((0, 1), (2, 3)))
    assert worth(VALUES, found) == pytest.approx(best)


@pytest.mark.parametrize("seed", range(60))
def test_within_one_percent_of_brute_force(seed: int) -> None:
    """Nine rigs, five stops, three rods: every choice is tried."""
    rng = np.random.default_rng(seed)
    values = rng.beta(0.6, 0.9, (9, 5)) * rng.uniform(0.5, 2.0, 5)
    groups = [-1 - k for k in range(9)] if seed % 2 else [int(g) for g in rng.integers(0, 4, 9)]
    allowed = [
        c
        for n in range(1, 4)
        for c in itertools.combinations(range(9), n)
        if len({groups[k] for k in c}) == len(c)
    ]
    best = max(worth(values, c) for c in allowed)
    found = choose(values, groups, 3)
    assert len({groups[k] for k in found}) == len(found) <= 3
    assert worth(values, found) >= 0.99 * best
    assert worth(values, found) <= bound(values) + 1e-12


def test_a_row_that_adds_next_to_nothing_stays_ashore() -> None:
    values = np.array([[1.0, 0.5], [0.2, 0.5 + 5e-10], [0.2, 0.6]])
    assert choose(values[:2], range(2), 2) == [0]
    assert choose(values, range(3), 2) == [0, 2]


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
