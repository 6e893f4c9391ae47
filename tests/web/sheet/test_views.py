"""Board, comparison, Cast, Rig, chart and Search views: they place what was simulated."""

import json
from dataclasses import replace
from urllib.parse import parse_qsl, urlencode

import pytest

from heathdrop.advice.change import mended
from heathdrop.advice.why import limit_sentence, runs
from heathdrop.answers.own import STRANGER
from heathdrop.answers.rods_to_hand import CastTold
from heathdrop.answers.search import search_water
from heathdrop.answers.water import call_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import OUTCOMES, ROWS
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.size import Sizing, size
from heathdrop.units import count_said, counted, feet, metres, turns_said
from heathdrop.web.sheet.shown.board import Board, Cell
from heathdrop.web.sheet.shown.comparing import BY_RULES, FIGURES, more_options
from heathdrop.web.sheet.shown.rigging import (
    MISSES_FT,
    rigging_of,
)
from heathdrop.web.sheet.shown.searching import searching_of, text_of, told_in
from heathdrop.web.sheet.shown.sheet import Sheet
from tests.advice.cases import rated
from tests.waters import BAIT
from tests.web.shown import DAY, shown


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


@pytest.mark.slow
def test_the_cast_view_counts_what_the_fall_says(cat: Catalog, sizing: Sizing) -> None:
    sheet = shown(cat, sizing, view="cast", compare="line:nylon:20,swim-jig:1:pin-tail")
    k = sheet.casting
    best = sizing.rigs[0]
    assert k is not None
    for row in k.feet:
        seconds = time_to_depth_s(best.lure, metres(float(row.depth)), sizing.line, sizing.water)
        assert float(row.seconds) == pytest.approx(seconds, abs=0.051)
        assert float(row.pulled) >= float(row.seconds)
        assert row.inside == (4.0 <= float(row.depth) <= 6.0)
        low, high = (float(v) for v in row.band.split(" to "))
        assert low <= float(row.seconds) <= high
    assert float(k.turns_per_s) == pytest.approx(feet(best.tuned.pace_m_s) * 12 / 29, abs=1e-3)
    pace = feet(best.tuned.pace_m_s)
    said = f"{turns_said(pace * 12 / 29)} turns in 20 s, {pace:.1f} ft/s on a 29 in reel"
    assert k.turns_said == said
    frames = json.loads(k.data)
    assert frames["t"] == sorted(frames["t"])
    assert len(frames["rivals"][0]) == len(frames["lure"])
    # The line goes from the rod's tip to the lure, in feet.
    last = len(frames["t"]) // 2
    assert frames["line"][last][:2] == pytest.approx([0.0, -2.0], abs=0.5)
    assert frames["line"][last][-2:] == pytest.approx(frames["lure"][last], abs=0.6)


def test_figures_stand_side_by_side_as_the_strip_has_them(cat: Catalog, sizing: Sizing) -> None:
    other = sizing.rigs[5]
    sheet = shown(cat, sizing, view="size", compare=f"line:nylon:20,{other.key}")
    assert sheet.comparing is not None
    a, line, rig = sheet.comparing.sides
    strip = {f.label: f.value for f in sheet.figures}
    ours = dict(zip(FIGURES, a.figures, strict=True))
    assert (ours["Fit"], ours["Runs at"], ours["Falls"]) == (
        f"{sheet.score}", f"{strip['Runs at']} ft", f"{strip['Falls']} ft/s",
    )  # fmt: skip
    theirs = dict(zip(FIGURES, rig.figures, strict=True))
    assert theirs["Runs at"] == f"{feet(other.tuned.mean_m):.1f} ft"
    assert theirs["Fit"] == f"{100 * other.fits.score:.0f}"
    assert line.said.endswith(", same count and pace.")
    assert line.figures == ("–", line.figures[1], "–", a.figures[3], a.figures[4], "–", "–")
    assert 0.0 < float(a.figures[1].split()[0]) - float(line.figures[1].split()[0]) < 2.0
    assert rig.said.endswith(" ft.")
    assert line.without == f"/?compare={other.key.replace(':', '%3A').replace('=', '%3D')}"
    assert [mark for mark, _, _ in sheet.sections[0].rivals] == ["B", "C"]
    assert shown(cat, sizing, view="size").comparing is None


def test_another_lure_is_compared_at_its_own_best(cat: Catalog, sizing: Sizing) -> None:
    comparing = shown(cat, sizing, view="cast", compare="lure:bladed-jig,lure:football-jig").comparing
    assert comparing is not None
    theirs = size(cat, replace(sizing.scenario, families=("bladed-jig",))).rigs[0]
    swum, dragged = comparing.others
    assert f"{counted(theirs.countdown_s)}, " in swum.said
    assert f"fit {100 * theirs.fits.score:.0f} against {100 * sizing.rigs[0].fits.score:.0f}" in swum.said
    assert f"runs at {feet(theirs.tuned.mean_m):.1f} ft against" in swum.said
    assert "works on the bottom" in dragged.said
    (_, lures), (_, lines) = more_options(sizing, sizing.rigs[0])
    assert len(lures) == len(cat.families) - 1
    assert "lure:swim-jig" not in dict(lures)
    assert dict(lines)["line:nylon:20"] == "20 lb nylon"


@pytest.mark.slow
def test_a_lure_that_fits_better_and_is_not_called_is_explained(cat: Catalog) -> None:
    """The depth said of the chosen rig is the strip's, of the other its own sheet's; one sentence says why
    the better fit is not the call, and only where it is better."""
    warm = Scenario(replace(DAY, water_temp_f=66.0))
    called = call_of(warm, places=4).standings
    first = called[0]
    better = next(s for s in called[1:] if s.fit > first.fit + 0.02)
    worse = next(s for s in called[1:] if s.fit < first.fit)
    keys = f"lure:{better.family.id},lure:{worse.family.id}"
    comparing = shown(cat, first.sizing, view="cast", compare=keys).comparing
    assert comparing is not None
    said = {r.mark: r.said for r in comparing.others}
    assert BY_RULES in said["B"]
    assert f"fit {100 * better.fit:.0f} against {100 * first.fit:.0f}" in said["B"]
    theirs, own = (feet(s.best.tuned.mean_m) for s in (better, first))
    assert f"{theirs:.1f} ft against {own:.1f} ft" in said["B"]
    assert BY_RULES not in said["C"]


def link(**changed: object) -> str:
    return "/?" + urlencode(changed)


def test_a_change_is_tried_where_it_was_promised(cat: Catalog) -> None:
    sizing, best = rated("right over grass")
    view = rigging_of(cat, sizing, best, "ran-high", 1.0, link)
    changes = mended(cat, sizing, best, "ran-high", 1.0).changes
    assert [a.change for a in view.changes] == list(changes)
    for advised in view.changes:
        asked = dict(parse_qsl(advised.address.removeprefix("/?"), keep_blank_values=True))
        assert asked == {
            **dict(advised.change.tries),
            "turns": "",
            "wrong": "",
            "missed_ft": "",
            "view": "size",
        }
    assert view.fished.turns
    assert "So fished it ran at about" in view.fished.said
    worded = rigging_of(cat, sizing, best, "short-strikes", None, link)
    assert [a.address for a in worded.changes if not a.change.tries] == [""] * sum(
        not a.change.tries for a in worded.changes
    )


def test_a_miss_is_chosen_where_it_can_be_measured(cat: Catalog) -> None:
    view = rigging_of(cat, *rated("right over grass"), "ran-low", 2.0, link)
    assert [m.name for m in view.misses] == ["not sure", "0.5 ft", "1 ft", "2 ft", "4 ft"]
    assert [m.chosen for m in view.misses] == [ft == 2.0 for ft in MISSES_FT]
    unsure = rigging_of(cat, *rated("right over grass"), "ran-low", None, link)
    assert [m.chosen for m in unsure.misses] == [True, False, False, False, False]
    assert rigging_of(cat, *rated("winter rock"), "ran-low", None, link).misses == ()


def casts(cat: Catalog) -> list[CastTold]:
    rig = rig_by_name(cat, "underspin", 0.5, "paddle-tail")
    return [CastTold(rig, 6.0, 2.2, "nothing", None), CastTold(rig, 9.5, 2.0, "bump", 14.5)]


def test_casts_go_into_the_address_and_back(cat: Catalog) -> None:
    text = text_of(casts(cat))
    assert text == "underspin:0.5:paddle-tail~6~2.2~nothing;underspin:0.5:paddle-tail~9.5~2~bump~14.5"
    assert told_in(cat, text) == tuple(casts(cat))
    assert told_in(cat, "") == ()
    assert told_in(cat, ";;") == ()


@pytest.mark.parametrize(
    "text",
    [
        "underspin:0.5:paddle-tail~6~2.2",
        "underspin:0.5:paddle-tail~6~2.2~eaten",
        "underspin:0.5:paddle-tail~six~2.2~nothing",
        "underspin:0.5:toad~6~2.2~nothing",
        "underspin:0.5:paddle-tail~6~2.2~bump~late",
        "underspin:0.5:paddle-tail~6~2.2~bump~1~2",
    ],
)
def test_what_is_no_cast_is_refused(cat: Catalog, text: str) -> None:
    with pytest.raises(
        BadInput, match=r"tried was .*; it must be a cast: rig, count, pace and what it came to"
    ):
        told_in(cat, text)


def test_the_view_says_what_the_search_found(cat: Catalog) -> None:
    water = Scenario(replace(BAIT, fish_span_ft=(2.0, 28.0)), families=("underspin",))
    told = casts(cat)
    found = search_water(water, STRANGER, [told[0].rig], told, 4)
    view = searching_of(cat, found, told, link)
    assert view.unknown
    said = searching_of(
        cat, replace(found, learned=("The bottom is at 9 ft.",), fish=("Your own",)), told, link
    )
    assert said.learned == ("The bottom is at 9 ft.", "Your own")
    assert [row.number for row in view.order] == [1, 2, 3, 4][: len(view.order)]
    assert view.first == view.order[0]
    assert view.first.count == count_said(found.steps[0].next.cast.count_s)
    assert [a.said for a in view.answers] == [row.button for row in ROWS]
    for answer, outcome in zip(view.answers, OUTCOMES, strict=True):
        after = dict(parse_qsl(answer.address.removeprefix("/?")))["tried"]
        assert told_in(cat, after)[:2] == tuple(told)
        assert told_in(cat, after)[2].outcome == outcome
    back = [dict(parse_qsl(m.address.removeprefix("/?"), keep_blank_values=True))["tried"] for m in view.made]
    assert back == ["", text_of(told[:1])]
    assert view.made[1].said == "1/2 oz underspin, paddle-tail 3.5 in, count 9.5: a bump"
    for shading in view.shadings:
        assert max(s.dark for s in shading.slices) == 1.0
        assert sum(float(s.said.split()[0]) for s in shading.slices) == pytest.approx(
            100, abs=len(shading.slices)
        )
        assert shading.top < shading.low
    assert (
        searching_of(cat, search_water(water, STRANGER, [told[0].rig], (), 2), (), link).first.change
        == "start here"
    )
