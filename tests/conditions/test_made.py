"""A cast as the deck sends it, and what is refused of it."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from heathdrop.conditions.made import MOST_CONDITIONS, OUTCOMES, MadeCast, MadeCasts
from heathdrop.errors import BadInput
from tests.store.test_casts import made


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"time": "2027-09-25T06:00:00"}, "time was “2027-09-25T06:00:00”; it must be with its offset"),
        ({"outcome": "ate"}, "outcome was “ate”; it must be one of nothing, bump, fish"),
        ({"conditions": {"bottom_depth_ft": 10**400}}, "conditions was “too deep, or not finite”"),
        ({"conditions": {"bottom_depth_ft": 2e9}}, "conditions was “too deep, or not finite”"),
        ({"conditions": {"a": "x" * MOST_CONDITIONS}}, "conditions was “too long”; it must be at most 1500"),
    ],
)
def test_what_is_refused(more: dict[str, object], said: str) -> None:
    with pytest.raises((BadInput, ValidationError)) as refusal:
        MadeCast.model_validate({**made(1), **more})
    assert said in str(refusal.value)


@pytest.mark.parametrize(
    "more",
    [
        {"head_oz": 0.03},
        {"head_oz": 4.1},
        {"countdown_s": 121},
        {"pace_ft_s": 15.1},
        {"at_s": 601},
        {"lat": 91},
        {"fish": {"length_in": 61}},
        {"note": "x" * 201},
        {"boat": 1},
    ],
)
def test_bounds(more: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        MadeCast.model_validate({**made(1), **more})


def test_one_or_a_list() -> None:
    assert len(MadeCasts.model_validate(made(1)).root) == 1
    assert len(MadeCasts.model_validate([made(1), made(2)]).root) == 2
    with pytest.raises(ValidationError):
        MadeCasts.model_validate([])
    assert len(OUTCOMES) == len(set(OUTCOMES)) == 17
