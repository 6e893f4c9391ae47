"""Belief over depth and pace, and what a cast looks at."""

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.facts import facts_of
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.cast import Cast, CastResult
from heathdrop.physics.kernels.records import samples_room
from heathdrop.search.belief import (
    Belief,
    slices_of,
    start_of,
)
from heathdrop.search.coverage import floor_seconds, reach_of, seconds_within
from heathdrop.sizing.activity import judge


def start(cat: Catalog, **given: object) -> Belief:
    said = {"water_temp_f": 60.0, "bottom_depth_ft": 12.0, "fish_depth_ft": 6.0, "fish_span_ft": (0.0, 12.0)}
    c = Conditions(**(said | given))  # type: ignore[arg-type]
    mood = judge(cat, c).value
    return start_of(cat, c, facts_of(Scenario(c), mood), mood)


def test_chances_sum_to_one_over_eight_slices_and_three_paces(cat: Catalog) -> None:
    found = start(cat)
    assert found.cells.shape == (8, 3)
    assert found.cells.sum() == pytest.approx(1.0, abs=1e-12)
    assert found.edges_ft.tolist() == [0, 1.5, 3, 4.5, 6, 7.5, 9, 10.5, 12]
    assert (found.cells > 0).all()
    assert slices_of(cat, 4.0)[1] == 0.5


def test_a_range_is_kept_to_and_a_known_depth_is_known(cat: Catalog) -> None:
    between = start(cat, fish_depth_ft=7.0, fish_span_ft=(4.5, 9.0))
    assert between.by_depth[3:6].sum() > 0.75
    known = start(cat, fish_depth_ft=6.75, fish_span_ft=None)
    assert int(np.argmax(known.by_depth)) == 4
    assert known.by_depth[3:6].sum() > 0.75
    assert known.by_depth.min() > 0.0


@pytest.mark.parametrize(
    ("given", "deeper"),
    [
        ({"water_temp_f": 40.0}, True),
        ({"forage": "crawfish"}, True),
        ({"season": "spawn"}, True),
        ({"light": "low"}, False),
        ({"cover": Cover(kind="docks")}, False),
        ({"cover": Cover(kind="submerged-grass", top_depth_ft=3.0)}, False),
        ({"cover": Cover(kind="rock")}, True),
    ],
)
def test_what_the_trade_says_moves_them(cat: Catalog, given: dict[str, object], deeper: bool) -> None:
    assert (start(cat, **given).mean_ft > start(cat).mean_ft) is deeper


def test_bayes(cat: Catalog) -> None:
    even = Belief(np.array([0.0, 1.0, 2.0]), np.full((2, 3), 1 / 6))
    told = even.times(np.array([[1.0, 1.0, 1.0], [0.5, 0.5, 0.5]]))
    assert told.by_depth == pytest.approx([2 / 3, 1 / 3])
    assert told.mean_ft == pytest.approx(0.5 * 2 / 3 + 1.5 / 3)
    assert even.times(np.zeros((2, 3))) is even


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


def test_a_lure_that_runs_deeper_than_it_should_covers_deeper_water(cat: Catalog) -> None:
    found = seconds_within(cat, level(3.5), 2.2, EDGES, shift_ft=1.0)
    assert found[6, 1] == pytest.approx(18.0)
    assert found[3, 1] == 0.0


def test_a_drop_adds_its_fall_past_them_at_any_pace(cat: Catalog) -> None:
    plain, dropped = (floor_seconds(cat, EDGES, 8.0, 2.0, 12.0, fall) for fall in (None, 2.5))
    past = (cat.search.reach.above_ft + cat.search.reach.below_ft) / 2.5
    assert dropped[:, 0] == pytest.approx(plain[:, 0] + past)
    assert dropped[:, 2] == pytest.approx(dropped[:, 0])


def test_under_a_roof_it_is_held_at_any_height(cat: Catalog) -> None:
    held = floor_seconds(cat, EDGES, 8.0, 2.0, 12.0, 4.0, held=0.9)
    assert held[0, 0] == pytest.approx(0.9 * 12.0 + 2.5 / 4.0)
