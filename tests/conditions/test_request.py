"""Bodies as people send them: sizes, casts, plans, trips, and the sentence for each that cannot be."""

import json
from dataclasses import replace
from typing import Any, Literal

import pytest
from pydantic import BaseModel, ConfigDict, Field, field_validator

from heathdrop.conditions.plan import PlanRequest
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.conditions.validation import MOST_BYTES, read_json
from heathdrop.conditions.wanted import JUDGED, Wanted
from heathdrop.errors import BadInput
from tests.said import said_of
from tests.waters import GRASS


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


ALL = Wanted((0.0, 9.0), (1.0, 1.0), 1.0, (0.5, 2.0))


def test_what_is_set_is_named_and_lies_in_the_water() -> None:
    assert JUDGED.yours == ()
    assert Wanted(fall_ft_s=(1.0, 2.0), passes=0.0).yours == ("fall_ft_s", "passes")
    check(Scenario(GRASS, wanted=ALL))


@pytest.mark.parametrize(
    ("field", "value"),
    [
        *(("depth_ft", band) for band in ((-0.1, 5.0), (4.0, 3.9), (4.0, 9.1))),
        *(("fall_ft_s", band) for band in ((2.0, 1.9), (1.0, 20.1))),
        *(("pace_ft_s", band) for band in ((2.0, 1.9), (1.0, 15.1))),
        *(("passes", share) for share in (-0.01, 1.01)),
    ],
)
def test_what_cannot_be_wanted_is_refused_by_its_name(field: str, value: object) -> None:
    with pytest.raises(BadInput) as refusal:
        check(Scenario(GRASS, wanted=replace(ALL, **{field: value})))
    assert refusal.value.field == f"targets.{field}"


STOP: dict[str, Any] = {
    "name": "Bay",
    "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6},
}


@pytest.mark.parametrize("date", ["tomorrow", "2027-13-01", "2027-02-30"])
def test_a_date_that_is_no_day(date: str) -> None:
    plan = PlanRequest.model_validate({"date": date, "stops": [STOP]})
    assert said_of(plan.day) == f"refused: date was “{date}”; it must be a day such as 2027-04-03."
