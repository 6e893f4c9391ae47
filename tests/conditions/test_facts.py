"""Facts of a water, and their vocabulary."""

from __future__ import annotations

import math

import pytest

from heathdrop.conditions.facts import (
    FACTS,
    OF_RIG,
    OF_WATER,
    PRESENTATIONS,
    Clause,
    degree,
    facts_of,
    holds,
)
from heathdrop.conditions.scenario import Scenario
from tests.golden_file import holds_to
from tests.waters import ALL


def test_facts_of_every_water() -> None:
    found = {name: facts_of(Scenario(c), 2.5) for name, c in ALL.items()}
    assert all(set(f) == set(OF_WATER) for f in found.values())
    holds_to("conditions.facts", found)


def test_the_vocabulary() -> None:
    said = {
        name: f.words or [f.low, f.high, f.edge, *(["of the rig"] if f.rig else [])]
        for name, f in FACTS.items()
    }
    holds_to("conditions.vocabulary", said)


def test_a_clause_fades_over_its_edge_and_turns_round() -> None:
    soft = Clause("temp_f", low=50.0, high=60.0, edge=3.0)
    assert [soft.degree(v) for v in (46, 47, 48.5, 50, 51.5, 53, 55, 57, 60, 61.5, 63, 64)] == pytest.approx(
        [0, 0, 0.25, 0.5, 0.75, 1, 1, 1, 0.5, 0.25, 0, 0]
    )
    hard = Clause("temp_f", low=50.0, high=60.0)
    assert [hard.degree(v) for v in (49.99, 50, 60, 60.01)] == [0, 1, 1, 0]
    open_ended = Clause("temp_f", low=-math.inf, high=60.0, edge=3.0)
    assert [open_ended.degree(v) for v in (0, 60, 63)] == [1, 0.5, 0]
    assert Clause("temp_f", turned=True, low=50.0, high=60.0, edge=3.0).degree(48.5) == pytest.approx(0.75)
    assert Clause("trend", words=("rising",)).degree("rising") == 1.0
    assert Clause("trend", turned=True, words=("rising",)).degree("rising") == 0.0
    assert (
        Clause("density", words=("thick",)).degree(None),
        Clause("density", True, ("thick",)).degree(None),
    ) == (0, 1)
    shares = {"suspended": 0.6, "on-bottom": 0.4}
    assert Clause("posture", words=("on-bottom", "under-cover")).degree(shares) == pytest.approx(0.4)
    assert Clause("posture", turned=True, words=("on-bottom",)).degree(shares) == pytest.approx(0.6)


def test_a_rule_is_as_true_as_its_least_true_clause_and_said_from_a_half_on() -> None:
    warm, clear = (
        Clause("temp_f", low=50.0, high=60.0, edge=3.0),
        Clause("clarity_ft", low=4.0, high=99.0, edge=1.0),
    )
    when = (warm, clear)
    assert degree(when, {"temp_f": 50.0, "clarity_ft": 4.5}) == pytest.approx(0.5)
    assert holds(when, {"temp_f": 50.0, "clarity_ft": 4.5})
    assert not holds(when, {"temp_f": 49.9, "clarity_ft": 4.5})
    assert degree((), {}) == 1.0
    assert degree(when, {"temp_f": 55.0}) == 0.0
    assert degree(when, {"temp_f": 55.0}, missing=True) == 1.0
    assert not holds(when, {"temp_f": 55.0})


def test_words_of_the_rigs_facts() -> None:
    assert FACTS["way"].words == PRESENTATIONS
    assert FACTS["work"].words == ("swim", "bottom", "drop")
    assert FACTS["head_oz"].number
    assert all(FACTS[name].rig for name in OF_RIG)
    assert not FACTS["temp_f"].rig
    assert FACTS["temp_f"].edge == 3.0
