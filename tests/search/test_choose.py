"""Choosing rods: the objective, its bound, groups, what each adds, and brute force."""

from __future__ import annotations

import itertools

import numpy as np
import pytest

from heathdrop.search.choose import adds, bound, choose, worth

VALUES = np.array([[0.9, 0.1, 0.0], [0.2, 0.8, 0.1], [0.5, 0.5, 0.5], [0.0, 0.0, 0.9]])
FREE = [-1, -2, -3, -4]


def test_worth_is_the_best_of_the_chosen_at_each_place() -> None:
    assert worth(VALUES, []) == 0.0
    assert worth(VALUES, [0]) == pytest.approx(1.0)
    assert worth(VALUES, [0, 1]) == pytest.approx(0.9 + 0.8 + 0.1)
    assert bound(VALUES) == pytest.approx(0.9 + 0.8 + 0.9)
    assert bound(np.zeros((0, 3))) == 0.0


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
