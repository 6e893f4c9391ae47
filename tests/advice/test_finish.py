"""How each rig is rigged and fished, to the letter."""

from __future__ import annotations

from heathdrop.advice.finish import finish_of
from heathdrop.catalog import Catalog
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to


def test_finish(cat: Catalog) -> None:
    holds_to("advice.finish", {name: finish_of(cat, *rated(name)) for name in CASES})
