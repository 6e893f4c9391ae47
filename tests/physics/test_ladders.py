"""The trade's ladders: what practice says of depth, within the misfit that docs/model.md states."""

from __future__ import annotations

import pytest

from bench.ladders import RUNGS, Rung, compared, misfit, runs_at
from heathdrop.catalog import Catalog


def test_the_ladders_fall_out_of_the_model(cat: Catalog) -> None:
    """Sum of squared misfits under 5 ft²; only three spinnerbaits run deeper than practice says."""
    rows, total = compared(lambda rung: runs_at(cat, rung))
    assert total < 5.0
    outside = [(rung.family, rung.head_oz) for rung, _, off in rows if off > 0.0]
    assert outside == [("spinnerbait", 0.75), ("spinnerbait", 0.375), ("spinnerbait", 0.25)]


def test_taking_up_the_slack_brings_deep_starts_nearer_to_practice(cat: Catalog) -> None:
    deep = [rung for rung in RUNGS if rung.count_ft == 14.0]
    for rung in deep:
        assert runs_at(cat, rung) < runs_at(cat, rung, take_up=False) - 0.5
    _, without = compared(lambda rung: runs_at(cat, rung, take_up=False))
    _, with_it = compared(lambda rung: runs_at(cat, rung))
    assert with_it < 0.4 * without


def test_misfit() -> None:
    rung = Rung("swim-jig", 0.5, "craw", 2.0, 4.0, 3.0, 5.0)
    assert (misfit(rung, 4.0), misfit(rung, 5.5), misfit(rung, 2.0)) == pytest.approx((0.0, 0.5, 1.0))
