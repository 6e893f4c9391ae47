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
from heathdrop.web.sheet.shown.board import MARKS, SIDES, Board, Cell, _cell
from heathdrop.web.sheet.shown.sheet import Sheet
from tests.web.shown import shown


def board_in(sheet: Sheet) -> Board:
    assert sheet.board is not None
    return sheet.board


def cells_of(sheet: Sheet) -> list[Cell]:
    return [c for _, row in board_in(sheet).rows for c in row if c is not None]


def test_the_board_names_what_holds_a_pair_back(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="size")
    by_key = {r.key: r for r in sizing.rigs}
    cells = cells_of(sheet)
    assert len(cells) == 80
    assert sum(c.best for c in cells) == 1
    for cell in cells:
        rated = by_key[cell.key]
        assert cell.figure == f"{100 * rated.fits.score:.0f}"
        assert limit_sentence(sizing, rated) in cell.title
        if cell.mark in ("high", "deep"):
            assert runs(sizing, rated) in (cell.mark, "")
        elif cell.mark != "none":
            assert cell.mark == rated.fits.limiting
    assert [c.key for c in cells if c.chosen] == [sheet.key]
    picked = cells[0].key
    other = shown(cat, sizing, view="size", pick=picked)
    assert [c.key for c in cells_of(other) if c.chosen] == [picked]
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
        cell = _cell(sizing, here, 2, first, first)
        shades[score] = cell.shade
    assert list(shades.values()) == [0, 1, 1, 2, 2, 3, 3, 4, 4, 5]
    assert cell.id.endswith(f"-{first.rig.head_oz * 10000:.0f}")
    assert (cell.chosen, cell.best, cell.figure) == (True, False, "92")


def test_every_mark_has_its_picture(client: TestClient) -> None:
    page = client.get("/").text
    assert all(f'<symbol id="m-{mark}"' in page for mark in (*MARKS, *SIDES.values()))
    assert "of 4)" in page
    assert not re.search(r"\d\.\d\d+ of 4", page)


def test_rows_are_named_by_shape_and_a_joined_one_so(cat: Catalog, sizing: Sizing) -> None:
    labels = [label for label, _ in board_in(shown(cat, sizing, view="size")).rows]
    assert len(set(labels)) == len(labels)
    assert "small craw" in labels
    assert not any(", joined" in label for label in labels)
    joined = shown(cat, sizing, view="size", pick="bladed-jig:0.5:craw:fused=yes")
    assert sum(label == "craw, joined" for label, _ in board_in(joined).rows) == 1


def test_through_a_lens_the_contour_runs_where_the_side_changes(cat: Catalog, sizing: Sizing) -> None:
    beside = sizing.rigs[3].key
    sheet = shown(cat, sizing, view="size", lens="depth", compare=beside)
    board = board_in(sheet)
    assert (board.lens.id, board.wanted) == ("depth", "4.0 to 6.0 ft wanted")
    sides = {"high": -1, "within": 0, "deep": 1}
    assert dict(board.marks).keys() == sides.keys()
    for row, (_, cells) in enumerate(board.rows):
        below = board.rows[row + 1][1] if row + 1 < len(board.rows) else ()
        for k, cell in enumerate(cells):
            assert cell is not None
            assert (4.0 <= float(cell.figure) <= 6.0) == (sides[cell.mark] == 0)
            right, under = cells[k + 1] if k + 1 < len(cells) else None, below[k] if below else None
            around = (("r", right), ("b", under))
            assert cell.edges == "".join(e for e, other in around if other and other.mark != cell.mark)
    assert [(c.key, c.letter) for c in cells_of(sheet) if c.letter] == [(beside, "B")]
    assert board_in(shown(cat, sizing, view="size", lens="felt")).lens.id == "fit"
    with pytest.raises(BadInput, match="lens was “tide”"):
        shown(cat, sizing, view="size", lens="tide")
