"""How each rig is rigged and fished, to the letter."""

from __future__ import annotations

from heathdrop.advice.finish import finish_of
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import SLOTS
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to


def test_finish(cat: Catalog) -> None:
    found = {name: finish_of(cat, *rated(name)) for name in CASES}
    for settled in found.values():
        assert [s.slot for s in settled] == [k for k in SLOTS if k in {s.slot for s in settled}]
        assert all(s.text and s.source and s.because for s in settled)
    said = {name: {s.label: [s.text, s.source, s.because] for s in found[name]} for name in SHOWN}
    holds_to("advice.finish", said)
