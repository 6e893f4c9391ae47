"""The numbers of the search: a slip of the pen is refused, and what stands there can be searched with."""

from __future__ import annotations

from pathlib import Path

import pytest

from heathdrop.catalog import Catalog
from tests.catalog.slips import refused

FAULTS = [
    ("slices = 8", "slicess = 8", "search.toml, search.grid.slices: it is missing"),
    ("[minutes]", "[minute]", "search.toml, search.minutes: it is missing"),
    ("per_s = [0.003", 'per_s = ["often", 0.003', "search.toml, search.bite.per_s.0: "),
    ('weight = 0.6', 'weight = 0.6\nwhen = { temprature = [32, 50] }',
     "search.toml, start[0].when.temprature: no such fact"),
]  # fmt: skip


@pytest.mark.parametrize(("right", "wrong", "said"), FAULTS)
def test_a_slip_is_refused(tmp_path: Path, right: str, wrong: str, said: str) -> None:
    assert refused(tmp_path, "search", right, wrong).startswith(said)


def test_shares_and_chances(cat: Catalog) -> None:
    """A rate for each mood, livelier fish bite sooner; the paces stand within their edges."""
    numbers = cat.search
    assert list(numbers.bite.per_s) == sorted(numbers.bite.per_s)
    assert len(numbers.bite.per_s) == len(cat.targets) == 5
    assert 0.0 < numbers.grid.opens_from < 1.0 < numbers.grid.sized_first
    assert 0.2 <= numbers.grid.tail <= 1.0 / 3.0  # a strong hint and no wall
    assert numbers.hunt.sized_for == numbers.hunt.again == 2
    low, high = numbers.paces.edges_ft_s
    slow, middle, quick = numbers.paces.usual_ft_s
    assert slow < low < middle < high < quick


def test_a_change_costs_more_the_more_is_tied(cat: Catalog) -> None:
    minutes = cat.search.minutes
    assert minutes.rod_min * 60.0 == pytest.approx(10.0, abs=0.01)
    assert (minutes.trailer_min, minutes.retie_min) == (1.0, 3.0)
    assert 0.0 < cat.search.plan.trailer_put_off < cat.search.plan.retie_put_off
