"""The answer strip of every kind of rig, to the letter."""

from __future__ import annotations

import pytest

from heathdrop.answers.cast import worked_of
from heathdrop.catalog import Catalog
from heathdrop.sizing.bands import bands_for
from heathdrop.sizing.program import play, usual_way
from heathdrop.web.sheet.shown.strip import aloud, figures_of, rig_said, title_of
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to


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
            "usual": figures_of(sizing, best, bands, worked, True),
            **{w: figures_of(sizing, best, bands, other, False) for w, other in ways.items()},
        }
    assert all(said["aloud"].endswith(".") and len(said["usual"]) >= 3 for said in found.values())
    holds_to("web.strip", {name: found[name] for name in SHOWN})
