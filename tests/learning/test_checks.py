"""Depth checks and mats: their factors to the digit."""

from __future__ import annotations

from heathdrop.catalog import Catalog
from heathdrop.learning.checks import learn_lift, learn_mats, ran_at_m
from tests.golden_file import holds_to
from tests.learning.seen import depths, mats


def test_lift_and_mats_to_the_digit(cat: Catalog) -> None:
    seen = depths(cat)
    holds_to(
        "learning.checks",
        {
            "ran_m": [[ran_at_m(cat, c, lift) for lift in (0.7, 1.0, 1.4)] for c in seen],
            "lift": learn_lift(cat, seen),
            "mats": learn_mats(cat, mats()),
        },
        tolerance=1e-5,
    )


def test_more_lift_runs_shallower(cat: Catalog) -> None:
    for check in depths(cat):
        low, high = ran_at_m(cat, check, 1.4), ran_at_m(cat, check, 0.7)
        assert low < high
