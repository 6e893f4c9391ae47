"""A run as it is drawn: every sounding in its place, those out of line marked."""

from __future__ import annotations

import pytest

from heathdrop.feeds.driven import Sounding
from heathdrop.measures import METRIC, said_in
from heathdrop.web.deck.shown.bottom import DRAWN, FOOT, HEIGHT, LEFT, TOP, WIDTH, drawing_of


def run(count: int, odd: int | None = None) -> list[Sounding]:
    """A straight run north, a foot a second, over a bottom that falls from 9 ft to 14 ft half-way."""
    return [
        Sounding(
            float(k),
            99.0 if k == odd else 9.0 if k < count / 2 else 14.0,
            50.0 + k * 0.3048 / 111_320.0,
            -4.0,
        )
        for k in range(count)
    ]


def test_too_little_is_not_drawn() -> None:
    assert drawing_of([]) is None
    assert drawing_of(run(2)) is None


def test_a_run_fills_the_picture_and_says_what_it_is() -> None:
    drawing = drawing_of(run(200, odd=60))
    assert drawing is not None
    assert len(drawing.dots) + len(drawing.off) == 200
    assert len(drawing.off) == 1
    xs = [x for x, _ in drawing.dots]
    assert xs == sorted(xs)
    assert xs[0] == LEFT
    assert xs[-1] == WIDTH - 8.0
    assert all(TOP <= y <= HEIGHT - FOOT for _, y in (*drawing.dots, *drawing.off))
    assert drawing.said.startswith(
        "200 soundings over 199 ft, 1 of them out of line: from 9.0 ft to 14.0 ft deep."
    )
    assert drawing.floor.startswith(drawing.line)
    assert drawing.depths[0][1] == "0"


def test_a_long_run_is_thinned() -> None:
    drawing = drawing_of(run(3 * DRAWN))
    assert drawing is not None
    assert len(drawing.dots) <= DRAWN + 1


def test_a_run_is_marked_in_the_units_chosen() -> None:
    """Round metres on metric days: fewer and other marks than feet, at the same places of the picture."""
    feet = drawing_of(run(200))
    with said_in(METRIC):
        metres = drawing_of(run(200))
    assert feet is not None
    assert metres is not None
    assert feet.ways[-1][1].split()[0] in ("150", "175", "180")
    ratio = float(feet.ways[-1][1].split()[0]) / float(metres.ways[-1][1].split()[0])
    reach = (feet.ways[-1][0] - LEFT) / (metres.ways[-1][0] - LEFT)
    assert ratio == pytest.approx(reach / 0.3048, rel=0.02)
