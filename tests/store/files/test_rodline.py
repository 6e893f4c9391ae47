"""Rods of a plan as lines of text, there and back."""

from __future__ import annotations

import pytest

from heathdrop.conditions.gear import Leader, Line, Rod
from heathdrop.conditions.plan import RodBody
from heathdrop.errors import BadInput
from heathdrop.store.files.rodline import rod_line, rods_in

SPIN = RodBody(
    name="spin",
    line=Line(material="braid", test_lb=15, leader=Leader(material="fluorocarbon", test_lb=8, length_ft=6)),
    inches_per_turn=31.0,
    rod=Rod(kind="spinning", power="medium", low_oz=0.125, high_oz=0.5),
)


@pytest.mark.parametrize(
    ("said", "rod"),
    [
        ("50 lb braid", RodBody(name="A", line=Line(material="braid", test_lb=50))),
        (
            "heavy: 20 lb fluoro, heavy casting 1/2 to 1 1/2 oz",
            RodBody(
                name="heavy",
                line=Line(test_lb=20),
                rod=Rod(kind="casting", power="heavy", low_oz=0.5, high_oz=1.5),
            ),
        ),
        ("spin: 15 lb braid, 6 ft of 8 lb leader, 31 in a turn, medium spinning 1/8-1/2 oz", SPIN),
    ],
)
def test_a_line_is_a_rod(said: str, rod: RodBody) -> None:
    assert rods_in(said) == [rod]
    assert rods_in(rod_line(rod)) == [rod]


def test_one_to_a_line_named_in_turn() -> None:
    assert [r.name for r in rods_in("15 lb fluoro\n\nB2: 30 lb braid\n12 lb mono")] == ["A", "B2", "C"]


@pytest.mark.parametrize("said", ["", "a rod", "15 lb", "fluorocarbon", "\n".join(["50 lb braid"] * 13)])
def test_what_names_no_line_is_refused(said: str) -> None:
    with pytest.raises(BadInput, match="rods was"):
        rods_in(said)
