"""The Cast view counts and compares what was simulated."""

from __future__ import annotations

import json
from dataclasses import replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.sizing.program import WAYS, play, program_of, usual_way
from heathdrop.sizing.size import Sizing, size
from heathdrop.units import feet, metres, turns_said
from tests.web.shown import DAY, shown


@pytest.mark.slow
def test_the_cast_view_counts_what_the_fall_says(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="cast", compare="line:nylon:20,swim-jig:1:pin-tail")
    k = sheet.casting
    best = sizing.rigs[0]
    assert k is not None
    for row in k.feet:
        seconds = time_to_depth_s(best.lure, metres(float(row.depth)), sizing.line, sizing.water)
        assert float(row.seconds) == pytest.approx(seconds, abs=0.051)
        assert float(row.pulled) >= float(row.seconds)
        assert row.inside == (4.0 <= float(row.depth) <= 6.0)
        low, high = (float(v) for v in row.band.split(" to "))
        assert low <= float(row.seconds) <= high
    assert float(k.turns_per_s) == pytest.approx(feet(best.tuned.pace_m_s) * 12 / 29, abs=1e-3)
    pace = feet(best.tuned.pace_m_s)
    said = f"{turns_said(pace * 12 / 29)} turns in 20 s, {pace:.1f} ft/s on a 29 in reel"
    assert k.turns_said == said
    frames = json.loads(k.data)
    assert frames["t"] == sorted(frames["t"])
    assert len(frames["rivals"][0]) == len(frames["lure"])
    # The line goes from the rod's tip to the lure, in feet.
    last = len(frames["t"]) // 2
    assert frames["line"][last][:2] == pytest.approx([0.0, -2.0], abs=0.5)
    assert frames["line"][last][-2:] == pytest.approx(frames["lure"][last], abs=0.6)


@pytest.mark.slow
def test_every_way_of_working_plays_for_every_kind_of_family(cat: Catalog) -> None:
    for family in ("swim-jig", "football-jig", "flipping-jig"):
        made = size(cat, Scenario(replace(DAY, cover=Cover()), families=(family,)))
        best = made.rigs[0]
        way = {"swim": "steady", "bottom": "drag", "drop": "hop"}[best.rig.family.work]
        assert usual_way(cat, made, best) == way
        for one in WAYS:
            assert program_of(made, best, one.id)
            cast = play(made, best, one.id)
            assert cast.shapes.shape[0] == cast.time_s.size
