"""The answer strip of every kind of rig, to the letter."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.answers.cast import worked_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.bands import bands_for
from heathdrop.sizing.program import play, usual_way
from heathdrop.sizing.size import size
from heathdrop.web.sheet.shown.strip import Figure, aloud, figures_of, rig_said, title_of, wanted_of
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to
from tests.waters import GRASS


def plain(figures: tuple[Figure, ...]) -> list[str]:
    """Figures in a line each: what is wanted of them is looked at by itself."""
    return [f"{f.label}: {f.value} {f.unit} ({f.band})" for f in figures]


@pytest.mark.slow
def test_what_the_strip_says(cat: Catalog) -> None:
    found = {}
    for name in CASES:
        sizing, best = rated(name)
        way = usual_way(cat, sizing, best)
        bands = bands_for(cat, sizing, [best])[0]
        worked = worked_of(sizing, best, bands, play(sizing, best, way), way, None, None)
        ways = {w: worked_of(sizing, best, bands, play(sizing, best, w), w) for w in ("yo-yo", "drag")}
        found[name] = {
            "aloud": aloud(sizing, best),
            "rig": rig_said(best),
            "title": title_of(sizing, best),
            "usual": plain(figures_of(sizing, best, bands, worked, True)),
            **{w: plain(figures_of(sizing, best, bands, other, False)) for w, other in ways.items()},
        }
    assert all(said["aloud"].endswith(".") and len(said["usual"]) >= 3 for said in found.values())
    holds_to("web.strip", {name: found[name] for name in SHOWN})


def test_what_is_wanted_stands_beside_what_is_done(cat: Catalog) -> None:
    """Judged until it is set; hit, near and missed in a word."""

    def said(wanted: Wanted, mean_ft: float, fall_ft_s: float) -> dict[str, str]:
        sizing = size(cat, Scenario(GRASS, families=("swim-jig",), wanted=wanted))
        rated = replace(sizing.rigs[0], fall_ft_s=fall_ft_s)
        plain = (
            Figure("Runs at", "", "ft", ""),
            Figure("Falls", "", "ft/s", ""),
            Figure("In the fish", "", "%", ""),
        )
        found = wanted_of(sizing, rated, plain, mean_ft)
        return {f.label: f"{f.hit} {'your ' if f.own else ''}{f.wanted}".strip() for f in found}

    assert said(Wanted(), 5.0, 2.4) == {
        "Runs at": "hits 4 to 6",
        "Falls": "hits 2 to 3",
        "In the fish": "",
    }
    assert said(Wanted(), 6.4, 3.2) == {
        "Runs at": "near 4 to 6",
        "Falls": "near 2 to 3",
        "In the fish": "",
    }
    own = said(Wanted(depth_ft=(2.0, 3.5), fall_ft_s=(1.0, 1.25), passes=0.5), 6.4, 2.7)
    assert own == {
        "Runs at": "misses your 2 to 3.5",
        "Falls": "misses your 1 to 1.25",
        "Gets through": "hits your 50",
    }
