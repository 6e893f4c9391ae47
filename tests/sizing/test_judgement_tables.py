"""The judgement by exact values: targets, usual weights, likings, presentations and points of every water;
the closed-form fits of what is worked on the floor or dropped."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.call import points_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.sizing.presentation import presentation_of
from heathdrop.sizing.setting import Setting, limits_for, mood_paces, setting_of
from heathdrop.sizing.size import size
from tests.golden_file import holds_to
from tests.waters import ALL

#: The waters whose tables are kept in golden files.
KEPT = {name: ALL[name] for name in ("grass", "winter rock", "mat")}


def settings_of(cat: Catalog, c: Conditions, **schools: str) -> dict[str, Setting]:
    picks = tuple((k.replace("_", "-"), v) for k, v in sorted(schools.items()))
    return {f: setting_of(cat, Scenario(c, families=(f,), schools=picks)) for f in cat.families}


def test_targets_of_every_water(cat: Catalog) -> None:
    holds_to("sizing.targets", {n: setting_of(cat, Scenario(c)).targets for n, c in KEPT.items()})


def test_usual_weights_of_every_family_in_every_water(cat: Catalog) -> None:
    holds_to(
        "sizing.usual",
        {n: {f: s.weights for f, s in settings_of(cat, c).items()} for n, c in KEPT.items()},
    )


def test_trailers_liked_by_every_other_family_in_grass(cat: Catalog) -> None:
    holds_to(
        "sizing.liking",
        {f: s.liking for f, s in list(settings_of(cat, ALL["grass"]).items())[::2]},
        tolerance=1e-5,
    )


def test_paces_and_presentations(cat: Catalog) -> None:
    found = {}
    for name, c in KEPT.items():
        for family, s in settings_of(cat, c).items():
            way = presentation_of(cat, s.family, s.facts)
            found[f"{name} {family}"] = [way, *mood_paces(s), *limits_for(s)]
    holds_to("sizing.paces", found)


def test_points_of_every_family_in_every_water(cat: Catalog) -> None:
    found = {}
    for name, c in KEPT.items():
        for family, s in settings_of(cat, c).items():
            weighed, school = points_of(cat, s.facts, s.scenario, s.family)
            found[f"{name} {family}"] = {"school": school, **{rule.id: p for rule, p in weighed}}
    holds_to("advice.points", found, tolerance=1e-5)


@pytest.mark.parametrize("family", ["football-jig", "finesse-jig", "flipping-jig", "punch-rig"])
def test_closed_form_fits_of_what_is_not_swum(cat: Catalog, family: str) -> None:
    found = {}
    for name, c in KEPT.items():
        sizing = size(cat, Scenario(c, families=(family,)))
        found[name] = [[r.key, r.fits.score, r.fits.limiting, r.fits.parts] for r in sizing.rigs[:1]]
        found[name].append([sizing.rigs[-1].key, sizing.rigs[-1].fits.score])
    holds_to(f"sizing.fits.{family}", found, tolerance=1e-4)


@pytest.mark.slow
def test_a_lean_moves_the_usual_weight_and_nothing_else(cat: Catalog) -> None:
    for c in ALL.values():
        usual, lighter, heavier = (
            settings_of(cat, c, weight_lean=s) for s in ("usual", "lighter", "heavier")
        )
        for f, s in usual.items():
            assert lighter[f].weights.middle_oz == pytest.approx(0.8 * s.weights.middle_oz)
            assert heavier[f].weights.middle_oz == pytest.approx(1.18 * s.weights.middle_oz)
            assert replace(lighter[f].weights, middle_oz=0.0) == replace(s.weights, middle_oz=0.0)
            assert (lighter[f].targets, lighter[f].liking) == (s.targets, s.liking)
