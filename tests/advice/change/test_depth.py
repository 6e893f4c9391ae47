"""Too high, too low: every step offered moves the right way and lands where it says."""

from __future__ import annotations

import re

import pytest

from heathdrop.advice.change.depth import WORTH_SHOWING_FT, _mends, depth_changes
from heathdrop.catalog import Catalog
from tests.advice.change.test_hand import held


@pytest.mark.parametrize(
    ("name", "down"),
    [
        ("high over grass", 1.0),
        ("deep in grass", -1.0),
        ("right over grass", 1.0),
        ("right over grass", -1.0),
        ("on braid", 1.0),
        ("on braid", -1.0),
        ("heaviest", 1.0),
    ],
)
def test_steps_go_the_way_that_was_asked(cat: Catalog, name: str, down: float) -> None:
    found = depth_changes(*held(cat, name), down, 1.0)
    assert found
    for change in found:
        moved, side, after, before = re.findall(
            r"runs ([\d.]+) ft (deeper|higher): ([\d.]+) ft instead of ([\d.]+) ft", change.effect
        )[0]
        assert side == ("deeper" if down > 0 else "higher")
        assert float(moved) == pytest.approx(abs(float(after) - float(before)), abs=0.11)
        assert float(moved) >= WORTH_SHOWING_FT - 0.05
        assert change.by == "model"


def test_where_there_is_nothing_deeper_or_higher_nothing_is_offered(cat: Catalog) -> None:
    assert depth_changes(*held(cat, "deep in grass"), 1.0, 1.0) == []
    assert depth_changes(*held(cat, "high over grass"), -1.0, 1.0) == []


@pytest.mark.parametrize(
    ("moved_ft", "missed_ft", "mends"),
    [
        (0.7, 1.0, False),
        (0.9, 1.0, True),
        (2.0, 1.0, True),
        (2.1, 1.0, False),
        (1.3, 0.3, True),
        (1.4, 0.3, False),
    ],
)
def test_enough_and_not_far_too_much(cat: Catalog, moved_ft: float, missed_ft: float, mends: bool) -> None:
    assert _mends(held(cat, "on braid")[0], moved_ft, missed_ft) is mends


def test_hand_before_tackle_and_one_of_each_kind(cat: Catalog) -> None:
    kinds = [c.what.split(":")[0].split(",")[0] for c in depth_changes(*held(cat, "on braid"), 1.0, 1.0)]
    assert kinds[0].startswith("Slow to ")
    assert kinds[1:] == [
        "Count a second longer",
        "Rod tip down",
        "Two steps slimmer",
        "One head up",
        "Thinner line",
    ]
    kinds = [c.what.split(":")[0].split(",")[0] for c in depth_changes(*held(cat, "on braid"), -1.0, 1.0)]
    assert kinds[0].startswith("Speed up to ")
    assert kinds[1:] == [
        "Count a second less",
        "Rod tip up",
        "Two steps bulkier",
        "One head down",
        "Thicker line",
    ]


def test_a_larger_miss_takes_a_larger_step(cat: Catalog) -> None:
    setting, best, hand = held(cat, "on braid")
    little, much = (depth_changes(setting, best, hand, -1.0, miss)[0] for miss in (0.5, 3.0))
    paces = [float(dict(c.tries)["pace_ft_s"]) for c in (little, much)]
    assert paces[0] < paces[1]
    assert dict(little.tries)["count_s"] == f"{hand.count_s:.1f}"


def test_a_blade_is_not_slowed_below_its_least_pace(cat: Catalog) -> None:
    setting, best, hand = held(cat, "wood swum")
    found = depth_changes(setting, best, hand, 1.0, 5.0)
    assert found
    for change in found:
        pace = float(dict(change.tries).get("pace_ft_s", "99"))
        assert pace >= setting.family.least_pace_ft_s - 0.01
    assert found[0].what == "Slow to 7 turns in 10 s"  # 1.73 ft/s, and no slower
    assert dict(found[0].tries)["pace_ft_s"] == "1.73"
