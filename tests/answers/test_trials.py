"""Schools on trial, on logs whose truth is known."""

from __future__ import annotations

import random

import numpy as np
import pytest

from heathdrop.answers.lessons import minutes_of
from heathdrop.answers.trials import Held, _liked, _words, trials_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from tests.answers.logged import HEADS, cast, fished
from tests.waters import GRASS


@pytest.mark.slow
def test_fish_that_like_lighter_heads_speak_for_that_school() -> None:
    rng, right, wrong = random.Random(3), 0, 0
    for _ in range(20):
        made = fished(rng, 150, 0.22, HEADS)
        told = {(t.topic, t.school): t for t in trials_of(made, minutes_of(made))}
        right += told["weight-lean", "lighter"].ratio > 0.0
        wrong += told["weight-lean", "heavier"].words == "strongly for it"
    assert right >= 16
    assert wrong <= 1


def test_who_always_does_the_same_is_told_too_little() -> None:
    made = fished(random.Random(4), 400, 0.3, (0.375,))
    assert all(t.words == "too few" for t in trials_of(made, minutes_of(made)))
    assert trials_of([cast(0)], [1.0]) == [] or all(t.words == "too few" for t in trials_of([cast(0)], [1.0]))


def test_days_and_stops_that_differ_speak_for_no_school() -> None:
    """A light head thrown on good days alone, a heavy one on bad ones: confounded, so nothing is said."""
    good = [cast(k, "fish" if k % 3 == 0 else "nothing", head_oz=0.25) for k in range(60)]
    bad = [cast(3000 + k, head_oz=0.5, stop="Point") for k in range(60)]
    found = trials_of([*good, *bad], minutes_of([*good, *bad]))
    assert all(t.words == "too few" for t in found)


def test_a_bayes_factor_in_words() -> None:
    """Three to one leans, twenty to one is strong, and under five bites nothing is."""
    assert [_words(r, 9) for r in (1.0, 1.2, -1.2, 3.1, -3.1)] == [
        "too few",
        "leans for it",
        "leans against it",
        "strongly for it",
        "strongly against it",
    ]
    assert _words(9.0, 4) == "too few"


def test_how_a_school_likes_what_was_thrown(cat: Catalog) -> None:
    """By its weight and its trailer: one that never ties a paddle-tail behind a blade likes it less."""
    made = [cast(0, family="bladed-jig", head_oz=0.375, trailer=tail) for tail in ("paddle-tail", "craw")]
    water = Scenario(GRASS, families=("bladed-jig",))
    none = np.zeros(2)
    held = Held((water, water), tuple(made), minutes=none, bites=none, groups=np.zeros(2, dtype=np.intp))
    fine, never = (_liked(held, "bladed-paddle", school) for school in ("fine", "never"))
    tail = cat.topics["bladed-paddle"].schools["never"].effect.trailers["bladed-jig"]["paddle-tail"]
    assert never[0] - fine[0] == pytest.approx(np.log(max(0.05, tail)), abs=1e-6)
    assert never[1] == pytest.approx(fine[1])
