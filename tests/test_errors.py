"""One sentence for bad input: the field, what was given, what is allowed."""

from __future__ import annotations

import math
from typing import Any

import pytest

from heathdrop.errors import BadInput, named, plain_text, require_between


@pytest.mark.parametrize(
    ("given", "shown"),
    [
        (None, "not given"),
        ("", "empty"),
        ("  ", "empty"),
        ("toad", "“toad”"),
        (3.0, "3"),
        (0.123456789, "0.123457"),
        (math.inf, "inf"),
        (True, "True"),
        ("x" * 60, "“" + "x" * 60 + "”"),
        ("x" * 61, "“" + "x" * 57 + "...”"),
        ("\ud800", "“?”"),
    ],
)
def test_what_was_given_is_quoted_short(given: Any, shown: str) -> None:
    refusal = BadInput("depth", given, "from 1 to 9 ft")
    assert str(refusal) == f"depth was {shown}; it must be from 1 to 9 ft."
    assert (refusal.field, refusal.allowed) == ("depth", "from 1 to 9 ft")


@pytest.mark.parametrize("text", ["a\u202eb", "a\ufeff", "a\x07", "\ud800", "\u200e", "\u2066"])
def test_what_cannot_be_shown_is_no_text(text: str) -> None:
    with pytest.raises(ValueError, match="made of characters that can be shown"):
        plain_text(text)
    with pytest.raises(BadInput, match="name was “unreadable”; it must be made of characters"):
        named("x" + text, 80)


def test_text_as_people_type_it() -> None:
    assert plain_text("Mühle, 3/8\n\tø") == "Mühle, 3/8\n\tø"
    assert named("  Mill   bay ", 80) == "Mill bay"
    assert named("x" * 5, 5) == "x" * 5
    with pytest.raises(BadInput, match="trip was “xxxxxx”; it must be 1 to 5 characters"):
        named("x" * 6, 5, "trip")
    with pytest.raises(BadInput, match="name was empty; it must be 1 to 5 characters"):
        named("   ", 5)


@pytest.mark.parametrize("value", [1.0, 5.0, 9.0])
def test_ends_are_within(value: float) -> None:
    assert require_between("depth", value, 1.0, 9.0, "ft") == value


@pytest.mark.parametrize("value", [0.999, 9.001, math.nan, math.inf, -math.inf])
def test_beyond_them_is_refused(value: float) -> None:
    with pytest.raises(BadInput, match=r"depth was .*; it must be from 1 to 9 ft\."):
        require_between("depth", value, 1.0, 9.0, "ft")
    with pytest.raises(BadInput, match=r"it must be from 1 to 9\."):
        require_between("depth", value, 1.0, 9.0)
