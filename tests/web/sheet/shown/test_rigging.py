"""The Rig view: what is cut and where, what went wrong, by how much, and a mat's curve."""

from __future__ import annotations

from urllib.parse import parse_qsl, urlencode

import pytest

from heathdrop.advice.change import askable, mended
from heathdrop.answers.mat import MOST_OZ
from heathdrop.catalog import Catalog
from heathdrop.conditions.outcome import WENT
from heathdrop.errors import BadInput
from heathdrop.web.sheet.shown.rigging import (
    CURVE_FLOOR,
    CURVE_HEIGHT,
    CURVE_LEFT,
    CURVE_WIDTH,
    MISSES_FT,
    mat_drawing,
    rigging_of,
)
from tests.advice.cases import rated


def link(**changed: object) -> str:
    return "/?" + urlencode(changed)


def test_every_complaint_can_be_asked(cat: Catalog) -> None:
    view = rigging_of(cat, *rated("right over grass"), "fouled", None, link)
    assert [f.name for f in view.faults] == [WENT[id_] for id_ in askable(*rated("right over grass"))]
    assert [f.name for f in view.faults if f.chosen] == ["It fouled"]
    assert view.misses == ()
    assert not rigging_of(cat, *rated("right over grass"), "", None, link).changes
    with pytest.raises(BadInput, match="went was “bored”"):
        rigging_of(cat, *rated("right over grass"), "bored", None, link)


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


def test_a_mats_curve_rises_with_weight_and_noise(cat: Catalog) -> None:
    sizing, best = rated("mat too light")
    drawing = mat_drawing(sizing, best)
    assert drawing is not None
    quiet, loud = ([float(p.split(",")[1]) for p in line.split()] for line in (drawing.quiet, drawing.lobbed))
    assert quiet == sorted(quiet, reverse=True)
    across = [float(p.split(",")[0]) for p in drawing.quiet.split()]
    assert across == sorted(across)
    assert across[0] >= CURVE_LEFT
    assert all(b <= a for a, b in zip(quiet, loud, strict=True))
    assert drawing.y == pytest.approx(CURVE_FLOOR - CURVE_HEIGHT * best.cover.passes)
    assert drawing.x == pytest.approx(CURVE_LEFT + CURVE_WIDTH * best.rig.head_oz / MOST_OZ)
    assert [x for x, _ in drawing.ticks] == pytest.approx(
        [CURVE_LEFT + CURVE_WIDTH * oz / MOST_OZ for oz in (0.5, 1.0, 1.5, 2.0)]
    )
    assert [label for _, label in drawing.ticks] == ["1/2", "1", "1 1/2", "2"]
    assert f"goes through {100 * best.cover.passes:.0f} times of 100" in drawing.said
    assert mat_drawing(*rated("right over grass")) is None
