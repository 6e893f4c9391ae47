"""What is said of the line, to the letter."""

from __future__ import annotations

from heathdrop.advice.linesay import line_said
from heathdrop.catalog import Catalog
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to


def test_lines(cat: Catalog) -> None:
    holds_to("advice.linesay", {name: line_said(cat, *rated(name)) for name in [*CASES][::2]})
