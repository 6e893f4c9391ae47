"""The Cast view counts and compares what was simulated."""

from __future__ import annotations

import json
from dataclasses import replace

import pytest

from heathdrop.answers.water import call_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.sizing.program import WAYS, play, program_of, usual_way
from heathdrop.sizing.size import Sizing, size
from heathdrop.units import counted, feet, metres, turns_said
from heathdrop.web.sheet.shown.casting import BY_RULES, said_difference
from tests.web.shown import DAY, shown


@pytest.mark.slow
def test_the_cast_view_counts_what_the_fall_says(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="cast", vs1="line:nylon:20", vs2="swim-jig:1:pin-tail")
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
    assert [r.mark for r in k.rivals] == ["B", "C"]
    assert "higher" in k.rivals[0].said
    assert "deeper" in k.rivals[1].said
    frames = json.loads(k.data)
    assert frames["t"] == sorted(frames["t"])
    assert len(frames["rivals"][0]) == len(frames["lure"])
    # The line goes from the rod's tip to the lure, in feet.
    last = len(frames["t"]) // 2
    assert frames["line"][last][:2] == pytest.approx([0.0, -2.0], abs=0.5)
    assert frames["line"][last][-2:] == pytest.approx(frames["lure"][last], abs=0.6)
    for bad in ("line:steel:20", "line:nylon:", "swim-jig:9:toad"):
        with pytest.raises(BadInput):
            shown(cat, sizing, view="cast", vs1=bad)


def test_another_lure_is_compared_at_its_own_best(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="cast", vs1="lure:bladed-jig", vs2="lure:football-jig")
    k = sheet.casting
    assert k is not None
    theirs = size(cat, replace(sizing.scenario, families=("bladed-jig",))).rigs[0]
    swum, dragged = k.rivals
    assert f"{counted(theirs.countdown_s)}, " in swum.said
    assert f"fit {100 * theirs.fits.score:.0f} against {100 * sizing.rigs[0].fits.score:.0f}" in swum.said
    assert f"runs at {feet(theirs.tuned.mean_m):.1f} ft against" in swum.said
    assert "works on the bottom" in dragged.said
    assert "swim-jig" not in [key.removeprefix("lure:") for key, _ in k.lure_options]
    assert len(k.lure_options) == len(cat.families) - 1
    with pytest.raises(BadInput):
        shown(cat, sizing, view="cast", vs1="lure:toad")


@pytest.mark.slow
def test_a_lure_that_fits_better_and_is_not_called_is_explained(cat: Catalog) -> None:
    """The depth said of the chosen rig is the strip's, of the other its own sheet's; one sentence says why
    the better fit is not the call, and only where it is better."""
    warm = Scenario(replace(DAY, water_temp_f=66.0))
    called = call_of(warm, places=4).standings
    first = called[0]
    better = next(s for s in called[1:] if s.fit > first.fit + 0.02)
    worse = next(s for s in called[1:] if s.fit < first.fit)
    keys = {"vs1": f"lure:{better.family.id}", "vs2": f"lure:{worse.family.id}"}
    sheet = shown(cat, first.sizing, view="cast", **keys)
    assert sheet.casting is not None
    said = {r.mark: r.said for r in sheet.casting.rivals}
    assert BY_RULES in said["B"]
    assert f"fit {100 * better.fit:.0f} against {100 * first.fit:.0f}" in said["B"]
    theirs, own = (feet(s.best.tuned.mean_m) for s in (better, first))
    assert f"{theirs:.1f} ft against {own:.1f} ft" in said["B"]
    assert BY_RULES not in said["C"]


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
            assert said_difference("same", cast, cast, 5.0)
    same = play(made, best)
    assert said_difference("x", same, same, 5.0) == "x runs at the same depth, within 0.5 in."
