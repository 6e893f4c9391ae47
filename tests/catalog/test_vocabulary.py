"""Clauses of rules: which facts and words there are, where a range has no end, what is refused."""

from __future__ import annotations

import math
from typing import Any

import pytest

from heathdrop.catalog.vocabulary import PARTS, SLOTS, BadCatalog, clauses, known
from heathdrop.conditions.facts import FACTS

IDS = {"families": ("swim-jig", "toad"), "trailers": ("craw",)}


def test_a_range_at_the_facts_own_end_has_none() -> None:
    fact = FACTS["temp_f"]
    (clause,) = clauses("rules", "r.when", {"temp_f": [fact.low, 55]}, IDS)
    assert (clause.fact, clause.low, clause.high, clause.edge) == ("temp_f", -math.inf, 55.0, fact.edge)
    (clause,) = clauses("rules", "r.when", {"not_temp_f": [50, fact.high]}, IDS)
    assert (clause.fact, clause.low, clause.high) == ("temp_f", 50.0, math.inf)
    assert clause.turned
    (clause,) = clauses("rules", "r.when", {"temp_f": [50, 55]}, IDS)
    assert (clause.low, clause.high, clause.turned) == (50.0, 55.0, False)


def test_words_are_those_of_the_fact_and_of_the_catalogue() -> None:
    (clause,) = clauses("rules", "r.when", {"family": ["toad"]}, IDS)
    assert clause.words == ("toad",)
    (clause,) = clauses("rules", "r.when", {"season": ["winter", "fall"]}, IDS)
    assert clause.words == ("winter", "fall")


@pytest.mark.parametrize(
    ("when", "said"),
    [
        ({"tide": ["high"]}, "x.toml, r.when.tide: no such fact; there are "),
        ({"season": "winter"}, "x.toml, r.when.season: it must be a list"),
        ({"season": []}, "x.toml, r.when.season: it must be a list"),
        ({"season": ["wintry"]}, "x.toml, r.when.season: no such word as 'wintry'; there are winter"),
        ({"temp_f": [60, 50]}, "x.toml, r.when.temp_f: it must be two numbers, the lower first"),
        ({"temp_f": [50]}, "x.toml, r.when.temp_f: it must be two numbers, the lower first"),
        ({"temp_f": ["cold", "warm"]}, "x.toml, r.when.temp_f: it must be two numbers, the lower first"),
        (
            {"not_family": ["craw"]},
            "x.toml, r.when.not_family: no such word as 'craw'; there are swim-jig, toad",
        ),
    ],
)
def test_a_clause_that_cannot_be(when: dict[str, Any], said: str) -> None:
    with pytest.raises(BadCatalog) as fault:
        clauses("x", "r.when", when, IDS)
    assert str(fault.value).startswith(said)


def test_known_names_the_first_that_is_not() -> None:
    known("x", "key", ["a", "b"], ["b", "a"])
    with pytest.raises(BadCatalog, match=r"^x\.toml, key\.c: there is no such name; there are a, b$"):
        known("x", "key", ["a", "c", "d"], ["a", "b"])


def test_parts_and_slots() -> None:
    assert PARTS == ("depth", "pace", "tackle", "fall", "cover", "action", "profile", "weight", "touch")
    assert next(iter(SLOTS)) == "trailer"
    assert {
        "cut",
        "skirt",
        "colour",
        "trailer_colour",
        "blade",
        "line",
        "rod",
        "reel",
        "rod_tip",
        "working",
    } <= set(SLOTS)
