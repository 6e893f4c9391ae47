"""What each change is made of, and where it cannot be made."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.change.hand import Hand
from heathdrop.advice.change.moves import STEPS, Case, liked, may_be
from heathdrop.catalog import Catalog
from heathdrop.sizing.setting import setting_of
from heathdrop.units import feet, metres
from tests.advice.cases import rated


def case_of(cat: Catalog, name: str, went: str = "ran-high", tip_ft: float = 2.0) -> Case:
    sizing, one = rated(name)
    setting = setting_of(cat, sizing.scenario)
    hand = Hand(one.rig, setting.line, one.countdown_s, one.tuned.pace_m_s, metres(tip_ft))
    return Case(setting, one, hand, went)


@pytest.mark.parametrize(
    ("name", "id_", "went", "what"),
    [
        ("right over grass", "rod-tip-up", "ran-low", ["Rod tip up, to 5 ft"]),
        ("right over grass", "rod-tip-down", "ran-high", ["Rod tip down, to 0 ft"]),
        ("right over grass", "heavier-head", "ran-high", ["One head up: 5/8 oz", "Two heads up: 3/4 oz"]),
        ("lightest", "lighter-head", "ran-low", []),
        ("right over grass", "no-trailer", "short", []),
        ("on braid", "no-trailer", "short", ["Take the trailer off"]),
        ("wood swum", "other-shape", "hung", ["Two arms behind it: small craw"]),
        ("wood swum", "other-shape", "blade-stops", ["Another shape: flat-tail"]),
        ("pads", "slimmer-trailer", "ran-high", []),
        ("right over grass", "slimmer-trailer", "short", ["Shorten the trailer to 2.5 in"]),
        ("heaviest", "thicker-line", "ran-low", []),
    ],
)
def test_steps_in_words(cat: Catalog, name: str, id_: str, went: str, what: list[str]) -> None:
    said = [step.what for step in STEPS[id_](case_of(cat, name, went))]
    assert said[: len(what) or None] == what


def test_paces_and_counts_step_away_from_what_was_fished(cat: Catalog) -> None:
    case = case_of(cat, "right over grass")
    for id_, sign in (("slower", -1), ("faster", 1)):
        paces = [s.hand.pace_m_s - case.hand.pace_m_s for s in STEPS[id_](case)]
        assert all(sign * p > 0 for p in paces)
        assert [abs(p) for p in paces] == sorted(abs(p) for p in paces)
        assert len({s.what for s in STEPS[id_](case)}) == len(paces)
    counts = [s.hand.count_s for s in STEPS["shorter-count"](case)]
    assert counts == pytest.approx([1.6, 1.1, 0.6, 0.1, 0.0][: len(counts)])
    assert [s.what for s in STEPS["shorter-count"](case)][-1] == "Reel at once"
    least = [feet(s.hand.pace_m_s) for s in STEPS["slower"](case)]
    assert min(least) >= 1.7  # a blade turns no slower


def test_another_family_is_its_own_best(cat: Catalog) -> None:
    hung = next(STEPS["other-family"](case_of(cat, "wood swum", "hung")))
    assert hung.hand.rig.family.id != "bladed-jig"
    quit_ = next(STEPS["other-family"](case_of(cat, "on braid", "nothing")))
    assert quit_.hand.rig.family.work == "bottom"
    assert quit_.what.endswith("drag it underneath")


@pytest.mark.parametrize(
    ("name", "id_", "went", "may"),
    [
        ("on braid", "line-with-give", "lost", True),
        ("right over grass", "line-with-give", "lost", False),
        ("on braid", "trailer-hook", "short", True),
        ("wood swum", "trailer-hook", "short", False),
        ("pads", "rethread", "rolled", False),
        ("winter rock", "rod-tip-down", "missed", False),
        ("right over grass", "rod-tip-down", "ran-high", True),
        ("mat too light", "lob-it", "stalled", True),
        ("mat with claws", "lob-it", "stalled", False),
        ("right over grass", "colour", "followed", True),
    ],
)
def test_where_a_change_can_be_made(cat: Catalog, name: str, id_: str, went: str, may: bool) -> None:
    assert may_be(case_of(cat, name, went), id_) is may


def test_a_pace_the_fish_like_is_worth_more(cat: Catalog) -> None:
    case = case_of(cat, "right over grass")
    burned = replace(case.hand, pace_m_s=metres(6.0))
    assert liked(case, burned) < liked(case, case.hand) <= 1.0
