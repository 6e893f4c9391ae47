"""The band a lure should keep to: fish, bottom and grass, without a cliff."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.sizing.targets import depth_band
from tests.waters import GRASS as DAY


def test_depth_band_follows_fish_bottom_and_grass(cat: Catalog) -> None:
    open_water = replace(DAY, cover=Cover())
    assert depth_band(cat, DAY)[0] == (4, 6)
    # A foot below the tops: down into the holes by a part of it.
    assert depth_band(cat, replace(DAY, fish_depth_ft=8))[0] == (pytest.approx(6.3), pytest.approx(7.8))
    assert depth_band(cat, replace(open_water, fish_depth_ft=9))[0] == (8, 9)
    assert depth_band(cat, replace(DAY, fish_depth_ft=1))[0] == (0.3, 1)
    assert depth_band(cat, replace(DAY, fish_depth_ft=0))[0] == (0.3, 0.6)
    between = depth_band(cat, replace(open_water, fish_depth_ft=8.0))
    # Two thirds on the floor ask for its band with the square of that.
    assert between[0] == pytest.approx((4 / 9 * 8 + 5 / 9 * 6, 4 / 9 * 9 + 5 / 9 * 8))
    assert between[1].startswith("fish feed upward")
    lower = depth_band(cat, replace(open_water, fish_depth_ft=8.5))
    assert lower[1] == "fish are on the bottom: the last foot above it"
    # Half in the grass, a sixth on the floor.
    half_way = depth_band(cat, replace(DAY, fish_depth_ft=6.5))[0]
    hanging = (35 / 36 * 4.5 + 1 / 36 * 8, 35 / 36 * 6.5 + 1 / 36 * 9)
    assert half_way == pytest.approx((0.5 * 6 + 0.5 * hanging[0], 0.5 * 7.5 + 0.5 * hanging[1]))


def test_where_they_are_said_to_be_outranks_the_word_for_the_cover(cat: Catalog) -> None:
    deep = replace(
        DAY, bottom_depth_ft=14, fish_depth_ft=12.5, cover=Cover(kind="submerged-grass", top_depth_ft=4)
    )
    assert depth_band(cat, deep)[1] == "fish are in the grass: tick its top"
    edge = replace(deep, cover=replace(deep.cover, edge=True))
    for c in (edge, replace(edge, posture="suspended"), replace(edge, posture="on-bottom")):
        assert depth_band(cat, c)[0] == (11.5, 13.5)
    assert depth_band(cat, edge)[1] == "fish stand along the edge, at their own depth"
    assert depth_band(cat, replace(deep, posture="suspended"))[0] == (10.5, 12.5)
    floor = replace(deep, fish_depth_ft=13.5)
    assert depth_band(cat, replace(floor, posture="on-bottom"))[0] == (13, 14)
    few = replace(floor, cover=replace(floor.cover, density="sparse"))
    bare = depth_band(cat, replace(floor, cover=Cover()))[0]
    assert depth_band(cat, few)[0] == pytest.approx(bare, abs=1.0)


def test_no_half_foot_moves_the_band_by_more_than_a_foot(cat: Catalog) -> None:
    for cover, most in ((Cover(), 0.8), (Cover(kind="submerged-grass", top_depth_ft=6), 1.3)):
        bands = [
            depth_band(cat, replace(DAY, cover=cover, bottom_depth_ft=12, fish_depth_ft=0.5 * k))[0]
            for k in range(25)
        ]
        for (a, b), (c, d) in zip(bands, bands[1:], strict=False):
            assert abs(c - a) <= most
            assert abs(d - b) <= most
