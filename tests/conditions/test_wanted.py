"""Targets of one's own: which are set, and those that cannot be."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.conditions.scenario import Scenario, check
from heathdrop.conditions.wanted import JUDGED, Wanted
from heathdrop.errors import BadInput
from tests.waters import GRASS

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
