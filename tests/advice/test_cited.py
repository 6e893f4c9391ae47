"""Rules and schools cited beside a rig, to the letter."""

from __future__ import annotations

from heathdrop.advice.cited import advice_for
from heathdrop.catalog import Catalog
from tests.advice.cases import CASES, SHOWN, rated
from tests.golden_file import holds_to


def test_what_is_cited(cat: Catalog) -> None:
    found = {name: advice_for(cat, *rated(name)) for name in CASES}
    assert all(len(cited) >= 3 and all(c.sentence.endswith(".") for c in cited) for cited in found.values())
    said = {name: {f"{c.kind}: {c.name}": c.sentence for c in found[name]} for name in SHOWN}
    holds_to("advice.cited", said)
    assert len(advice_for(cat, *rated("wood"), most=2)) < len(advice_for(cat, *rated("wood")))
