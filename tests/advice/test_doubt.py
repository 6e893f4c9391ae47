"""Reasons, doubt and cautions beside each rig, to the letter."""

from __future__ import annotations

import pytest

from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.doubt import doubt_of
from heathdrop.advice.why import limit_sentence, reasons, runs
from heathdrop.catalog import Catalog
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to


@pytest.mark.slow
def test_reasons_doubt_and_cautions(cat: Catalog) -> None:
    found = {}
    for name in CASES:
        sizing, rig = rated(name)
        found[name] = {
            "runs": runs(sizing, rig),
            "limit": limit_sentence(sizing, rig),
            "why": reasons(sizing, rig),
            "doubt": doubt_of(cat, sizing, rig),
            "cautions": [c.id for c in cautions_for(cat, sizing.scenario, rig)],
        }
    assert all(said["why"] and said["cautions"] for said in found.values())
    holds_to("advice.why", {name: found[name] for name in SHOWN})
