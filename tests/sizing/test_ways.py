"""Ways of working as programmes, phase by phase."""

from __future__ import annotations

import pytest

from heathdrop.sizing.ways import PLAYED, WAYS, programme


@pytest.mark.parametrize(
    ("way", "phases"),
    [
        ("steady", ["fall", "retrieve"]),
        ("slow-roll", ["fall", "slow-roll"]),
        ("stop-and-go", ["fall", *["retrieve", "kill"] * 3, "retrieve"]),
        ("burn-and-drop", ["fall", "burn-and-drop"]),
        ("twitch", ["fall", "twitch"]),
        ("yo-yo", ["fall", "yo-yo"]),
        ("hop", ["fall", "hop"]),
        ("drag", ["fall", "drag"]),
        ("lift-and-drop", ["fall", "lift-and-drop"]),
        ("stroke", ["fall", "stroke"]),
        ("step-down", ["fall", "step-down"]),
        ("shake", ["fall", "shake", "drag", "shake"]),
        ("swing", ["fall", "retrieve", "swing"]),
    ],
)
def test_phases(way: str, phases: list[str]) -> None:
    assert [p.do for p in programme(way, 0.6, 3.0, 24.0)] == phases


def test_counted_or_let_land() -> None:
    counted = {w.id for w in WAYS if programme(w.id, 0.6, 3.0, 24.0)[0].for_s == 3.0}
    assert counted == {
        "steady",
        "stop-and-go",
        "burn-and-drop",
        "twitch",
        "swing",
        "hang",
        "swim-out",
        "hole-drop",
    }
    assert {w.id for w in WAYS} == set(PLAYED)


def test_lift_and_hold_are_the_ways_own_unless_given() -> None:
    usual, asked = programme("yo-yo", 0.6, 3.0, 24.0)[1], programme("yo-yo", 0.6, 3.0, 24.0, 0.6, 2.0)[1]
    assert (usual.lift_m, usual.wait_s, usual.times) == (0.9, 3.0, 26)
    assert (asked.lift_m, asked.wait_s, asked.times) == (0.6, 2.0, 30)
    stops = programme("stop-and-go", 0.5, 3.0, 20.0)
    assert stops[1].for_s == pytest.approx(20.0 / 5.0 / 0.5)
    assert [p.take_up for p in stops if p.do == "retrieve"] == [True, False, False, True]
    assert programme("slow-roll", 0.9, 3.0, 24.0)[1].speed_m_s == 0.6
