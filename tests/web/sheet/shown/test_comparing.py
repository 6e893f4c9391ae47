"""The comparison in figures and in words."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.water import call_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.program import play
from heathdrop.sizing.size import Sizing, size
from heathdrop.units import counted, feet
from heathdrop.web.sheet.shown.comparing import BY_RULES, FIGURES, more_options, said_difference
from tests.web.shown import DAY, shown


def test_figures_stand_side_by_side_as_the_strip_has_them(cat: Catalog, sizing: Sizing) -> None:
    other = sizing.rigs[5]
    sheet = shown(cat, sizing, view="size", compare=f"line:nylon:20,{other.key}")
    assert sheet.comparing is not None
    a, line, rig = sheet.comparing.sides
    strip = {f.label: f.value for f in sheet.figures}
    ours = dict(zip(FIGURES, a.figures, strict=True))
    assert (ours["Fit"], ours["Runs at"], ours["Falls"]) == (
        f"{sheet.score}", f"{strip['Runs at']} ft", f"{strip['Falls']} ft/s",
    )  # fmt: skip
    theirs = dict(zip(FIGURES, rig.figures, strict=True))
    assert theirs["Runs at"] == f"{feet(other.tuned.mean_m):.1f} ft"
    assert theirs["Fit"] == f"{100 * other.fits.score:.0f}"
    assert line.said.endswith(", same count and pace.")
    assert line.figures == ("–", line.figures[1], "–", a.figures[3], a.figures[4], "–", "–")
    assert 0.0 < float(a.figures[1].split()[0]) - float(line.figures[1].split()[0]) < 2.0
    assert rig.said.endswith(" ft.")
    assert line.without == f"/?compare={other.key.replace(':', '%3A').replace('=', '%3D')}"
    assert [mark for mark, _, _ in sheet.sections[0].rivals] == ["B", "C"]
    assert shown(cat, sizing, view="size").comparing is None


def test_another_lure_is_compared_at_its_own_best(cat: Catalog, sizing: Sizing) -> None:
    comparing = shown(cat, sizing, view="cast", compare="lure:bladed-jig,lure:football-jig").comparing
    assert comparing is not None
    theirs = size(cat, replace(sizing.scenario, families=("bladed-jig",))).rigs[0]
    swum, dragged = comparing.others
    assert f"{counted(theirs.countdown_s)}, " in swum.said
    assert f"fit {100 * theirs.fits.score:.0f} against {100 * sizing.rigs[0].fits.score:.0f}" in swum.said
    assert f"runs at {feet(theirs.tuned.mean_m):.1f} ft against" in swum.said
    assert "works on the bottom" in dragged.said
    (_, lures), (_, lines) = more_options(sizing, sizing.rigs[0])
    assert len(lures) == len(cat.families) - 1
    assert "lure:swim-jig" not in dict(lures)
    assert dict(lines)["line:nylon:20"] == "20 lb nylon"


@pytest.mark.slow
def test_a_lure_that_fits_better_and_is_not_called_is_explained(cat: Catalog) -> None:
    """The depth said of the chosen rig is the strip's, of the other its own sheet's; one sentence says why
    the better fit is not the call, and only where it is better."""
    warm = Scenario(replace(DAY, water_temp_f=66.0))
    called = call_of(warm, places=4).standings
    first = called[0]
    better = next(s for s in called[1:] if s.fit > first.fit + 0.02)
    worse = next(s for s in called[1:] if s.fit < first.fit)
    keys = f"lure:{better.family.id},lure:{worse.family.id}"
    comparing = shown(cat, first.sizing, view="cast", compare=keys).comparing
    assert comparing is not None
    said = {r.mark: r.said for r in comparing.others}
    assert BY_RULES in said["B"]
    assert f"fit {100 * better.fit:.0f} against {100 * first.fit:.0f}" in said["B"]
    theirs, own = (feet(s.best.tuned.mean_m) for s in (better, first))
    assert f"{theirs:.1f} ft against {own:.1f} ft" in said["B"]
    assert BY_RULES not in said["C"]


def test_the_same_cast_runs_at_the_same_depth(cat: Catalog, sizing: Sizing) -> None:
    same = play(sizing, sizing.rigs[0])
    assert said_difference("x", same, same, 5.0) == "x runs at the same depth, within 0.5 in."
