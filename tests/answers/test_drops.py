"""What drops and retrieves would be now: seconds and depths by what was learned."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.drops import expected_depth_ft, expected_drop_s, falls_to
from heathdrop.catalog import Catalog
from heathdrop.learning.learned import NOTHING, learn
from tests.learning.seen import depths, drops


def test_seconds_to_each_depth(cat: Catalog) -> None:
    seen = drops(cat)
    learned, test = learn(cat, seen), seen[0]
    found = falls_to(test, learned, (4.0, 12.0))
    for row in found:
        there = replace(test, depth_m=0.3048 * row.depth_ft)
        assert row.seconds == expected_drop_s(there, learned)
        assert row.assumed == expected_drop_s(there, NOTHING)
        assert row.low < row.seconds < row.high
        assert row.seconds**2 == pytest.approx(row.low * row.high)
        assert row.seconds > row.assumed  # this craw falls slower than assumed
    wide = [falls_to(test, NOTHING, (4.0,))[0], found[0]]
    assert wide[1].high / wide[1].low < wide[0].high / wide[0].low
    dragged = falls_to(replace(test, surface_line_m=2.0), learned, (4.0,))
    assert dragged == found[:1]


def test_depths_follow_the_lift_that_was_learned(cat: Catalog) -> None:
    seen = depths(cat)
    assert expected_depth_ft(seen[1], learn(cat, seen)) != expected_depth_ft(seen[1], NOTHING)
