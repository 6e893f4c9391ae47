"""Outcomes: one row each, and the whole of what hangs on it."""

from __future__ import annotations

from heathdrop.conditions.outcome import OLD_NAMES, OUTCOME, OUTCOMES, ROWS, WENT


def test_the_rows_are_the_buttons_in_order() -> None:
    assert OUTCOMES == (
        "nothing", "bump", "fish", "short", "fouled", "hung", "ticked-top", "found-bottom", "ran-high",
        "ran-low", "not-felt", "stalled", "followed", "missed", "lost", "rolled", "blade-stops",
    )  # fmt: skip
    assert len({r.button for r in ROWS}) == len({r.within for r in ROWS}) == len(ROWS)


def test_what_hangs_on_each() -> None:
    assert {r.id for r in ROWS if r.bitten} == {"bump", "fish", "short", "missed", "lost"}
    assert {r.id for r in ROWS if r.held} == {"fouled", "hung", "stalled"}
    assert {r.id for r in ROWS if r.cut_short} == {"fouled", "hung", "ticked-top", "stalled"}
    assert {r.id: r.ran_off for r in ROWS if r.ran_off} == {"ran-high": -1, "ran-low": 1}
    assert {r.id: r.shows for r in ROWS if r.shows} == {"ticked-top": "top", "found-bottom": "bottom"}
    assert set(OUTCOMES) - {"found-bottom"} == set(WENT)
    assert OUTCOME["short"].wrong == WENT["short"] == "Short strikes"
    assert set(OLD_NAMES.values()) <= set(WENT)
    assert [r.id for r in ROWS if r.rare] == list(OUTCOMES)[11:]
