"""Lenses of the board: each figure is the simulation's own, cell by cell, and its side of what is wanted."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest

from heathdrop.answers.lens import LENS, Sight, lenses_for, sights, wanted_through
from heathdrop.answers.own import STRANGER
from heathdrop.answers.water import at_setting, sizing_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Cover, Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.size import size
from heathdrop.units import feet
from tests.waters import BAIT, GRASS, WINTER_ROCK


def test_depth_is_flown_at_one_count_and_pace(cat: Catalog) -> None:
    """Heavier runs deeper along every row, and a cell says what the sheet says of that rig so thrown."""
    sizing = sizing_of(Scenario(GRASS, families=("swim-jig",)), STRANGER)
    chosen = sizing.rigs[0]
    seen = sights(sizing, chosen, "depth", sizing.rigs)
    pace = feet(chosen.tuned.pace_m_s)
    for rated in sizing.rigs[::7]:
        there = at_setting(sizing, rated, chosen.countdown_s, pace)
        assert seen[rated.key].value == pytest.approx(feet(there.tuned.mean_m), abs=0.051)
    for trailer in {r.rig.trailer.id for r in sizing.rigs}:
        row = sorted((r.rig.head_oz, seen[r.key].value) for r in sizing.rigs if r.rig.trailer.id == trailer)
        depths = [depth for _, depth in row]
        assert depths == sorted(depths)
    top, low = wanted_through(sizing, "depth")
    assert all(s.side == (-1 if s.value < top else 1 if s.value > low else 0) for s in seen.values())


@pytest.mark.parametrize("family", ["swim-jig", "football-jig", "flipping-jig"])
def test_the_other_lenses_show_each_rig_as_it_is_sized(cat: Catalog, family: str) -> None:
    sizing = size(cat, Scenario(WINTER_ROCK, families=(family,)))
    chosen = sizing.rigs[0]
    offered = [lens.id for lens in lenses_for(sizing, chosen)]
    swum = family == "swim-jig"
    assert offered == [
        "fit",
        "depth",
        *(["pace"] if swum else []),
        "fall",
        "through",
        *([] if swum else ["felt"]),
    ]
    for r in sizing.rigs[:3]:
        clean = 100.0 * r.cover.passes * (1.0 - r.cover.fouls) * (1.0 - r.cover.hangs)
        wanted = {"fit": 100.0 * r.fits.score, "fall": r.fall_ft_s, "through": clean, "felt": 100.0 * r.felt}
        wanted["pace"] = feet(r.tuned.pace_m_s)
        for lens, value in wanted.items():
            assert sights(sizing, chosen, lens, [r])[r.key].value == round(value, LENS[lens].digits)
    if not swum:  # the depth that the chosen rig's count brings
        assert sights(sizing, chosen, "depth", [chosen])[chosen.key].value == pytest.approx(
            sizing.scenario.conditions.bottom_depth_ft, abs=0.1
        )


def test_what_is_wanted_is_the_anglers_where_he_set_it(cat: Catalog) -> None:
    water = replace(BAIT, cover=Cover())
    own = Wanted(depth_ft=(3.0, 4.0), passes=0.5)
    sizing = size(cat, Scenario(water, families=("underspin",), wanted=own))
    assert "through" not in [lens.id for lens in lenses_for(sizing, sizing.rigs[0])]
    assert wanted_through(sizing, "depth") == (3.0, 4.0)
    assert wanted_through(sizing, "through") == (50.0, math.inf)
    assert wanted_through(sizing, "fit") == (-math.inf, math.inf)
    assert sights(sizing, sizing.rigs[0], "fit", sizing.rigs[:1])[sizing.rigs[0].key] == Sight(
        round(100 * sizing.rigs[0].fits.score), 0
    )
