"""A row makes its check, its schema and its refusal."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Annotated

from heathdrop.conditions.quantity import Quantity, faults_in, places, same, value_at


@dataclass(frozen=True, kw_only=True)
class Inner:
    word: Annotated[str | None, Quantity("Word", by=(("a", same("one-two")), ("b", same("three"))))] = None


@dataclass(frozen=True, kw_only=True)
class Outer:
    number: Annotated[float, Quantity("Number", "ft", 1, 5)]
    inner: Inner = Inner()
    unchecked: Annotated[float, Quantity("Free", "lb", 1, 2, checked=False)] = 9.0


def test_places_walk_into_records_in_order() -> None:
    assert [(p.path, p.name, p.required, p.default) for p in places(Outer, "at")] == [
        ("at.number", "number", True, None),
        ("at.inner.word", "word", False, None),
        ("at.unchecked", "unchecked", False, 9.0),
    ]


def test_each_row_checks_its_own_value_at_both_ends() -> None:
    for good in (1.0, 5.0):
        assert not [*faults_in(Outer(number=good, inner=Inner(word="three")), "at")]
    for bad in (0.999, 5.001, float("nan"), float("inf")):
        (fault,) = faults_in(Outer(number=bad), "at")
        assert re.fullmatch(r"at\.number was .*; it must be from 1 to 5 ft\.", str(fault))
    both = [str(f) for f in faults_in(Outer(number=0.0, inner=Inner(word="four")), "")]
    assert both == [
        "number was 0; it must be from 1 to 5 ft.",
        "inner.word was “four”; it must be one of one-two, three.",
    ]


def test_words_are_said_without_hyphens() -> None:
    assert same("one-two", "x") == (("one-two", "one two"), ("x", "x"))


def test_value_at_walks_mappings_only() -> None:
    assert value_at({"a": {"b": 3}}, "a.b") == 3
    assert value_at({"a": 3}, "a.b") is None
    assert value_at({}, "a") is None
