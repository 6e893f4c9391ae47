"""The board: every pair with its score and what holds it back."""

from __future__ import annotations

import re
from dataclasses import replace

import pytest
from fastapi.testclient import TestClient

from heathdrop.advice.why import limit_sentence, runs
from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.sizing.size import Sizing
from heathdrop.web.sheet.shown.board import MARKS, _cell
from tests.web.shown import shown


def test_the_board_names_what_holds_a_pair_back(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="size")
    by_key = {r.key: r for r in sizing.rigs}
    cells = [c for _, row in sheet.rows for c in row if c is not None]
    assert len(cells) == 80
    assert sum(c.best for c in cells) == 1
    for cell in cells:
        rated = by_key[cell.key]
        assert cell.score == round(100 * rated.fits.score)
        assert limit_sentence(sizing, rated) in cell.title
        if cell.mark in ("high", "deep"):
            assert runs(sizing, rated) in (cell.mark, "")
        elif cell.mark != "none":
            assert cell.mark == rated.fits.limiting
    assert [c.key for c in cells if c.chosen] == [sheet.key]
    picked = cells[0].key
    other = shown(cat, sizing, view="size", pick=picked)
    assert [c.key for _, row in other.rows for c in row if c is not None and c.chosen] == [picked]
    assert not other.is_best
    assert other.key == picked
    assert other.to_best == "/"
    with pytest.raises(BadInput, match="pick trailer was “toad”"):
        shown(cat, sizing, pick="swim-jig:0.5:toad")


def test_a_pair_is_shaded_from_its_score_on(sizing: Sizing) -> None:
    first = sizing.rigs[0]
    shades = {}
    for score in (29, 30, 49, 50, 69, 70, 81, 82, 91, 92):
        here = replace(first, fits=replace(first.fits, score=score / 100))
        cell = _cell(sizing, here, 2, 0.375, first, first)
        assert cell is not None
        shades[score] = cell.shade
    assert list(shades.values()) == [0, 1, 1, 2, 2, 3, 3, 4, 4, 5]
    assert cell.id.endswith("-3750")
    assert (cell.chosen, cell.best, cell.score) == (True, False, 92)
    assert _cell(sizing, None, 2, 0.375, first, first) is None


def test_every_mark_has_its_picture(client: TestClient) -> None:
    page = client.get("/").text
    assert all(f'<symbol id="m-{mark}"' in page for mark in MARKS)
    assert "of 4)" in page
    assert not re.search(r"\d\.\d\d+ of 4", page)


def test_rows_are_named_by_shape_and_a_joined_one_so(cat: Catalog, sizing: Sizing) -> None:
    labels = [label for label, _ in shown(cat, sizing, view="size").rows]
    assert len(set(labels)) == len(labels)
    assert "small craw" in labels
    assert not any(", joined" in label for label in labels)
    joined = shown(cat, sizing, view="size", pick="bladed-jig:0.5:craw:fused=yes")
    assert sum(label == "craw, joined" for label, _ in joined.rows) == 1
