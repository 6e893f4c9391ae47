"""A water as it is said: rows, facts, cover, gear, and every contradiction where it was typed."""

import math
import re
from dataclasses import dataclass, replace
from typing import Annotated, Any

import pytest
from pydantic import TypeAdapter, ValidationError

from heathdrop.conditions.cover import Cover
from heathdrop.conditions.facts import Clause, degree, holds
from heathdrop.conditions.given import RIG_FIELDS, RigGiven
from heathdrop.conditions.quantity import Quantity, faults_in, same
from heathdrop.conditions.scenario import Conditions, Scenario, check
from heathdrop.errors import BadInput
from tests.waters import GRASS, MAT, WOOD

PLAIN = Conditions(water_temp_f=60, bottom_depth_ft=10, fish_depth_ft=5)


@pytest.mark.parametrize(
    ("fish", "cover", "stands"),
    [
        (9.5, "open", "on-bottom"),
        (9.4, "open", "suspended"),
        (2.0, "open", "cruising-high"),
        (2.1, "open", "suspended"),
        (9.9, "wood", "under-cover"),
        (9.9, "docks", "under-cover"),
        (1.0, "matted-grass", "under-cover"),
        (9.9, "rock", "on-bottom"),
    ],
)
def test_where_they_stand(fish: float, cover: str, stands: str) -> None:
    assert replace(PLAIN, fish_depth_ft=fish, cover=Cover(kind=cover)).stands == stands
    assert replace(PLAIN, fish_depth_ft=fish, posture="suspended").stands == "suspended"


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        (
            {"water_temp_f": 31.9},
            "conditions.water_temp_f was 31.9; it must be from 32 to 100 °F: below that it is ice.",
        ),
        ({"water_temp_f": 101}, "conditions.water_temp_f was 101; it must be from 32 to 100 °F."),
        (
            {"fish_depth_ft": 10.1},
            "conditions.fish_depth_ft was 10.1; it must be no deeper than the bottom at 10 ft.",
        ),
        ({"trend": "up"}, "conditions.trend was “up”; it must be one of rising, steady, falling."),
        ({"activity": 4.1}, "conditions.activity was 4.1; it must be from 0 to 4 (0 dormant to 4 chasing)."),
        ({"posture": "under-cover"}, "there is no cover in open water."),
        ({"posture": "on-bottom", "fish_depth_ft": 7.9}, "fish at 7.9 ft are off a bottom at 10 ft."),
        ({"posture": "cruising-high", "fish_depth_ft": 6.1}, "fish at 6.1 ft are not high."),
    ],
)
def test_what_cannot_be(changes: dict[str, Any], said: str) -> None:
    with pytest.raises(BadInput) as refusal:
        check(Scenario(replace(PLAIN, **changes)))
    assert str(refusal.value).endswith(said)


@pytest.mark.parametrize(
    ("base", "cover", "said"),
    [
        (
            GRASS,
            {"top_depth_ft": None},
            "top_depth_ft was not given; it must be given in feet for submerged-grass.",
        ),
        (GRASS, {"top_depth_ft": 9.1}, "top_depth_ft was 9.1; it must be no deeper than the bottom at 9 ft."),
        (MAT, {"top_depth_ft": 1.0}, "it must be 0 or left out: a mat lies on the surface."),
        (MAT, {"thickness_in": 36.1}, "thickness_in was 36.1; it must be from 0.5 to 36 in thick."),
        (WOOD, {"thickness_in": 3.0}, "left out: only matted grass has one."),
        (WOOD, {"texture": "milfoil"}, "left out: only matted grass has one."),
        (WOOD, {"detail": "riprap"}, "one of laydown, brush, standing-timber."),
        (GRASS, {"detail": "riprap"}, "left out for submerged-grass."),
    ],
)
def test_cover_that_contradicts_itself(base: Conditions, cover: dict[str, Any], said: str) -> None:
    with pytest.raises(BadInput) as refusal:
        check(Scenario(replace(base, cover=replace(base.cover, **cover))))
    assert str(refusal.value).endswith(said)


def test_a_field_that_is_none_is_refused() -> None:
    with pytest.raises(ValidationError):
        TypeAdapter(Cover).validate_python({"kind": "pads", "depth": 3})


def test_what_is_left_out_is_as_usual_and_nothing_else_is_taken() -> None:
    plain = RigGiven(family="swim-jig", head_oz=0.5, trailer="craw").model_dump()
    assert tuple(plain) == RIG_FIELDS
    assert {k for k, v in plain.items() if v is not None} == {"family", "head_oz", "trailer", "head_material"}
    for wrong in ({"head_oz": "heavy"}, {"weight": 1}, {"fused": "perhaps"}):
        with pytest.raises(ValidationError):
            RigGiven.model_validate({**plain, **wrong})


def test_words_are_said_without_hyphens() -> None:
    assert same("one-two", "x") == (("one-two", "one two"), ("x", "x"))


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


@dataclass(frozen=True, kw_only=True)
class Inner:
    word: Annotated[str | None, Quantity("Word", by=(("a", same("one-two")), ("b", same("three"))))] = None


@dataclass(frozen=True, kw_only=True)
class Outer:
    number: Annotated[float, Quantity("Number", "ft", 1, 5)]
    inner: Inner = Inner()
    unchecked: Annotated[float, Quantity("Free", "lb", 1, 2, checked=False)] = 9.0


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
