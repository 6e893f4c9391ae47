"""Validation errors as one sentence: the field as it was typed, what was given, what is allowed."""

from __future__ import annotations

import json
from typing import Any, Literal

import pytest
from pydantic import BaseModel, ConfigDict, Field, ValidationError, field_validator

from heathdrop.conditions.validation import MOST_BYTES, bad_input, field_path, read_json
from heathdrop.errors import BadInput


class Inner(BaseModel):
    model_config = ConfigDict(extra="forbid")
    mood: Literal["slow", "quick"] = "slow"
    sure: bool = True


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    depth: float = Field(default=1.0, ge=0, le=9)
    over: float = Field(default=1.0, gt=0, lt=9)
    count: int = 1
    name: str = Field(default="x", min_length=1, max_length=4)
    rows: list[int] = Field(default=[1], min_length=1, max_length=2)
    inner: Inner = Inner()
    needed: int = 1

    @field_validator("name")
    @classmethod
    def _plain(cls, value: str) -> str:
        if value == "bad":
            raise ValueError("another one")
        if value == "own":
            raise BadInput("name", value, "someone else's")
        return value


@pytest.mark.parametrize(
    ("body", "sentence"),
    [
        ({"depth": -1}, "depth was -1; it must be at least 0."),
        ({"depth": 9.5}, "depth was 9.5; it must be at most 9."),
        ({"over": 0}, "over was 0; it must be more than 0."),
        ({"over": 9}, "over was 9; it must be less than 9."),
        ({"depth": "deep"}, "depth was “deep”; it must be a number."),
        ({"count": 1.5}, "count was 1.5; it must be a whole number."),
        ({"count": None}, "count was not given; it must be a whole number."),
        ({"name": 3}, "name was 3; it must be a text."),
        ({"name": ""}, "name was empty; it must be at least 1 long."),
        ({"name": "xxxxx"}, "name was “xxxxx”; it must be at most 4 long."),
        ({"name": "bad"}, "name was “bad”; it must be another one."),
        ({"name": "own"}, "name was “own”; it must be someone else's."),
        ({"rows": []}, "rows was “0 long”; it must be at least 1 long."),
        ({"rows": [1, 2, 3]}, "rows was “3 long”; it must be at most 2 long."),
        ({"rows": 3}, "rows was 3; it must be a list."),
        ({"rows": [1, "x"]}, "rows[1] was “x”; it must be a whole number."),
        ({"inner": 3}, "inner was 3; it must be an object."),
        ({"inner": {"mood": "odd"}}, "inner.mood was “odd”; it must be one of slow, quick."),
        ({"inner": {"sure": "perhaps"}}, "inner.sure was “perhaps”; it must be true or false."),
        ({"inner": {"tide": 1}}, "inner.tide was 1; it must be left out: there is no such field."),
        ({"depth": {"a": 1}}, "depth was “an object”; it must be a number."),
        ({"depth": [1]}, "depth was “a list”; it must be a number."),
        ([1], "the request was “a list”; it must be an object."),
    ],
)
def test_one_sentence(body: Any, sentence: str) -> None:
    with pytest.raises(BadInput) as refusal:
        read_json(Body, json.dumps(body).encode())
    assert str(refusal.value) == sentence


@pytest.mark.parametrize("raw", [b"", b"{", b"\xff\xfe", b"[" * 100_000])
def test_what_is_no_json(raw: bytes) -> None:
    with pytest.raises(BadInput, match=r"^the request was “not JSON”; it must be a JSON object\.$"):
        read_json(Body, raw)


def test_a_body_that_is_too_long() -> None:
    assert read_json(Body, b"{" + b" " * (MOST_BYTES - 2) + b"}") == Body()
    with pytest.raises(BadInput, match=f"{MOST_BYTES + 1} bytes long"):
        read_json(Body, b"{" + b" " * (MOST_BYTES - 1) + b"}")


def test_paths_leave_out_the_branches_of_unions() -> None:
    assert field_path(("body", "program", 1, "speed_ft_s")) == "program[1].speed_ft_s"
    assert field_path(("lure", "named", "head_oz")) == "lure.head_oz"
    assert field_path(()) == "the request"
    assert field_path(("rods", "each-rod", 0, "line")) == "rods[0].line"


def test_a_missing_field_was_not_given() -> None:
    class Needs(BaseModel):
        needed: int

    with pytest.raises(ValidationError) as error:
        Needs.model_validate({})
    assert str(bad_input(error.value.errors())) == "needed was not given; it must be given."
