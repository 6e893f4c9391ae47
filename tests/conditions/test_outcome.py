"""Outcomes: one row each, and the whole of what hangs on it."""

from __future__ import annotations

from heathdrop.advice.change import COMPLAINTS
from heathdrop.conditions.outcome import OUTCOME, OUTCOMES, ROWS


def test_the_rows_are_the_buttons_in_order() -> None:
    assert OUTCOMES == (
        "nothing", "bump", "fish", "short", "fouled", "hung", "ticked-top", "found-bottom", "ran-high",
        "ran-low", "not-felt",
    )  # fmt: skip
    assert len({r.button for r in ROWS}) == len({r.within for r in ROWS}) == len(ROWS)


def test_what_hangs_on_each() -> None:
    assert {r.id for r in ROWS if r.bitten} == {"bump", "fish", "short"}
    assert {r.id for r in ROWS if r.held} == {"fouled", "hung"}
    assert {r.id for r in ROWS if r.cut_short} == {"fouled", "hung", "ticked-top"}
    assert {r.id: r.ran_off for r in ROWS if r.ran_off} == {"ran-high": -1, "ran-low": 1}
    assert {r.id: r.shows for r in ROWS if r.shows} == {"ticked-top": "top", "found-bottom": "bottom"}
    assert {r.complaint for r in ROWS if r.complaint} <= set(COMPLAINTS)
    assert OUTCOME["short"].complaint == "short-strikes"
