"""The day that a line names: the latest such day that is not to come, and nothing that looks like one."""

from __future__ import annotations

from datetime import date

import pytest

from heathdrop.catalog import Catalog
from heathdrop.store.files.readday import read_day

TODAY = date(2026, 12, 1)  # a Tuesday


@pytest.mark.parametrize(
    ("said", "on"),
    [
        ("2026-11-22", date(2026, 11, 22)),
        ("22 Nov", date(2026, 11, 22)),
        ("Dec 3rd", date(2025, 12, 3)),
        ("3 December 2024", date(2024, 12, 3)),
        ("11/22/25", date(2025, 11, 22)),
        ("22.11.2026", date(2026, 11, 22)),
        ("today", TODAY),
        ("Tuesday", date(2026, 11, 24)),
        ("last sun", date(2026, 11, 29)),
        ("Sat", date(2026, 11, 28)),
        ("in the sun", None),
        ("12 marsh", None),
        ("30 February", None),
    ],
)
def test_the_day_that_is_named(cat: Catalog, said: str, on: date | None) -> None:
    found = read_day(cat, f"{said}, 2 fish, 3/8 swim jig craw", TODAY)
    assert found.on == on
    assert bool(found.unsure) == (said == "30 February")
    assert found.rig is not None
    assert dict(found.counts) == {"fish": 2}


def test_lengths_are_of_fish_and_not_of_trailers(cat: Catalog) -> None:
    found = read_day(cat, '17", 16.5 in, 4 lb 8 oz, 3/8 swim jig with craw 4 in', TODAY)
    assert (found.lengths_in, found.weights_lb, found.counts["fish"]) == ((17.0, 16.5), (4.5,), 2)
    assert found.rig is not None
    assert found.rig.trailer_length_in == 4.0
