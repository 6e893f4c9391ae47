"""Where fish hang in cover a rig is held there: hung, swum out past them, let fall into the holes."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.cast import LIMB_M
from heathdrop.sizing.program import play, program_of
from heathdrop.sizing.size import size
from heathdrop.units import feet
from tests.waters import DOCKS, GRASS


@pytest.mark.parametrize("family", ["flipping-jig", "weighted-plastic"])
@pytest.mark.parametrize(("kind", "way", "work"), [("wood", "hang", "hang"), ("docks", "swim-out", "swim")])
@pytest.mark.parametrize(("bottom", "fish"), [(9.0, 5.0), (14.0, 6.0), (18.0, 12.0)])
def test_held_among_the_fish(
    cat: Catalog, family: str, kind: str, way: str, work: str, bottom: float, fish: float
) -> None:
    """Played as it is told, the rig is within a foot of the band's middle for .6 of its work."""
    water = replace(DOCKS, bottom_depth_ft=bottom, fish_depth_ft=fish, cover=Cover(kind=kind))
    sizing = size(cat, Scenario(water, families=(family,)))
    best = sizing.rigs[0]
    assert best.cadence is not None
    assert (best.cadence.way, best.work) == (way, work)
    cast = play(sizing, best, way)
    middle = 0.5 * sum(sizing.targets.depth_ft)
    assert np.mean(np.abs(feet(1.0) * cast.worked() - middle) <= 1.0) >= 0.6
    assert best.tuned.mean_m == pytest.approx(float(cast.worked().mean()), abs=0.15)


def test_fish_on_the_floor_or_over_the_wood_are_pitched_to(cat: Catalog) -> None:
    for cover, fish in ((Cover(kind="wood"), 9.0), (Cover(kind="wood", top_depth_ft=7.0), 3.0)):
        water = replace(DOCKS, bottom_depth_ft=9.0, fish_depth_ft=fish, cover=cover, posture="auto")
        assert size(cat, Scenario(water, families=("flipping-jig",))).rigs[0].work == "drop"


def test_the_line_goes_over_a_limb_beside_it(cat: Catalog) -> None:
    sizing = size(cat, Scenario(replace(DOCKS, cover=Cover(kind="wood")), families=("flipping-jig",)))
    best = sizing.rigs[0]
    cast = play(sizing, best, "hang")
    away = best.cast.distance_m
    assert cast.cast.distance_m == away
    assert np.all(np.abs(cast.distance_m - away) <= 3.0 * LIMB_M)
    assert cast.shapes[-1, 0].tolist() == pytest.approx([0.0, -best.cast.rod_tip_m])
    assert cast.shapes[-1, 1, 0] == pytest.approx(away - LIMB_M, abs=0.1)
    assert [p.do for p in program_of(sizing, best, "hang")] == ["fall", "shake"]
    # Hopped on the floor it is thrown as ever, the line over nothing.
    assert not play(sizing, best, "hop").cast.over_limb


def test_holes_let_a_swum_jig_be_killed_into_them(cat: Catalog) -> None:
    """Fish at 4 ft in grass that tops out at 2: through solid stems it is reeled and fouls; where there are
    holes it is swum over the tops and falls in to them, fouling no more than it does up there."""
    grass = Cover(kind="submerged-grass", top_depth_ft=2.0)
    water = replace(GRASS, bottom_depth_ft=6.0, fish_depth_ft=4.0, clarity_ft=1.0, cover=grass)
    solid, holed = (
        size(cat, Scenario(replace(water, cover=cover), families=("swim-jig",)))
        for cover in (grass, replace(grass, hole_ft=3.0))
    )
    assert solid.rigs[0].work == "swim"
    assert solid.rigs[0].cadence is None
    best = holed.rigs[0]
    assert best.cadence is not None
    assert best.cadence.way == "hole-drop"
    assert best.cover.fouls <= 0.75 * solid.rigs[0].cover.fouls
    assert holed.targets.depth_ft[0] > solid.targets.depth_ft[0] + 0.5
    assert feet(best.tuned.deepest_m) >= holed.targets.depth_ft[1]
