"""What a cast looks at: reach above and below, paces beside, only what is fished."""

from __future__ import annotations

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, CastResult
from heathdrop.physics.kernels.records import samples_room
from heathdrop.search.coverage import floor_seconds, passed_s, reach_of, seconds_within

FT = 0.3048
EDGES = np.linspace(0.0, 8.0, 9)


def level(depth_ft: float, seconds: int = 20) -> CastResult:
    """A lure that runs level from 20 m to the rod, after a fall of two seconds."""
    t = np.arange(0.0, seconds + 2.01, 0.5)
    rows = samples_room(t.size)._replace(
        t=t,
        x=np.interp(t, [0.0, 2.0, seconds + 2.0], [20.0, 20.0, 0.0]),
        z=np.interp(t, [0.0, 2.0], [0.0, depth_ft * FT]),
    )
    return CastResult(Cast(20.0, 0.6, ((0.0, 5.0), (99.0, 5.0))), rows, 2.0, depth_ft * FT)


def test_fish_come_up_to_a_lure_more_than_down(cat: Catalog) -> None:
    off = np.array([-1.0, -0.75, -0.5, 0.0, 2.0, 2.25, 2.5, 3.0])
    assert reach_of(cat, off).tolist() == [0.0, 0.5, 1.0, 1.0, 1.0, 0.5, 0.0, 0.0]


def test_seconds_are_those_of_the_work(cat: Catalog) -> None:
    """Eighteen of twenty seconds are fished: the last tenth of the cast is not."""
    found = seconds_within(cat, level(3.5), 2.2, EDGES)
    assert found.shape == (8, 3)
    assert found[3, 1] == pytest.approx(18.0)
    assert found[5, 1] == pytest.approx(18.0)  # fish at 5.5 ft, two feet below the lure
    assert found[6, 1] == 0.0
    assert found[1, 1] == 0.0
    assert found[3].tolist() == pytest.approx([4.5, 18.0, 4.5])
    assert seconds_within(cat, level(3.5), 1.0, EDGES)[3] == pytest.approx([18.0, 4.5, 1.125])


def test_a_lure_that_runs_deeper_than_it_should_covers_deeper_water(cat: Catalog) -> None:
    found = seconds_within(cat, level(3.5), 2.2, EDGES, shift_ft=1.0)
    assert found[6, 1] == pytest.approx(18.0)
    assert found[3, 1] == 0.0


def test_what_is_shown_is_where_the_lure_itself_is() -> None:
    shown = passed_s(level(3.5), EDGES)
    assert shown.shape == (8,)
    assert shown[3] == pytest.approx(18.0)
    assert shown.sum() == pytest.approx(18.0)


def test_a_floor_is_fished_for_fish_near_it(cat: Catalog) -> None:
    found = floor_seconds(cat, EDGES, 8.0, 2.0, 20.0)
    # The lowest slice's middle stands half a foot off the floor: all of it; the next a foot and a half.
    # A worked lure is not reeled: fish of every pace count alike.
    assert found[7] == pytest.approx([20.0, 20.0, 20.0])
    assert found[6, 0] == pytest.approx(20.0 * np.exp(-(0.5**1.75)))
    assert found[0, 0] < 0.02


def test_a_drop_adds_its_fall_past_them_at_any_pace(cat: Catalog) -> None:
    plain, dropped = (floor_seconds(cat, EDGES, 8.0, 2.0, 12.0, fall) for fall in (None, 2.5))
    past = (cat.search.reach.above_ft + cat.search.reach.below_ft) / 2.5
    assert dropped[:, 0] == pytest.approx(plain[:, 0] + past)
    assert dropped[:, 2] == pytest.approx(dropped[:, 0])


def test_under_a_roof_it_is_held_at_any_height(cat: Catalog) -> None:
    held = floor_seconds(cat, EDGES, 8.0, 2.0, 12.0, 4.0, held=0.9)
    assert held[0, 0] == pytest.approx(0.9 * 12.0 + 2.5 / 4.0)
