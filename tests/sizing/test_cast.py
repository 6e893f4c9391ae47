"""The line as set and as learned, the bottom under the cast."""

from __future__ import annotations

from dataclasses import dataclass, replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Leader, Line
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.line import Line as Chain
from heathdrop.sizing.cast import cast_of, line_of
from heathdrop.sizing.known import Untaught
from heathdrop.units import feet, metres
from tests.waters import GRASS


@pytest.mark.parametrize(
    ("shape", "depths_ft"),
    [("level", (9.0, 9.0, 9.0)), ("slope", (2.7, 5.85, 9.0)), ("steps", (3.15, 5.85, 9.0))],
)
def test_the_bottom_under_the_cast(cat: Catalog, shape: str, depths_ft: tuple[float, ...]) -> None:
    cast = cast_of(cat, Scenario(replace(GRASS, bottom_shape=shape), families=("swim-jig",)))
    assert feet(cast.distance_m) == pytest.approx(80.0)
    assert feet(cast.rod_tip_m) == pytest.approx(2.0)
    found = [feet(cast.bottom_at(metres(at))) for at in (0.0, 40.0, 80.0)]
    assert found == pytest.approx(depths_ft, abs=0.01)


def test_a_driven_bottom_is_level_before_and_after(cat: Catalog) -> None:
    water = replace(GRASS, bottom_ft=((10.0, 4.0), (60.0, 9.0)))
    cast = cast_of(cat, Scenario(water, families=("swim-jig",)))
    assert [feet(cast.bottom_at(metres(x))) for x in (0.0, 10.0, 35.0, 60.0, 500.0)] == pytest.approx(
        [4.0, 4.0, 6.5, 9.0, 9.0]
    )


@dataclass(frozen=True, eq=False)
class Slick(Untaught):
    """A line whose friction was learned to be half, a mat that needs twice."""

    def line(self, line: Chain, material: str) -> Chain:
        return replace(line, friction=0.5 * line.friction)

    def mat_factor(self, texture: str) -> float:
        return 2.0 if texture == "hydrilla" else 1.0


def test_line_and_leader_as_set_and_as_learned(cat: Catalog) -> None:
    tied = Line(material="braid", test_lb=30, leader=Leader(material="fluorocarbon", test_lb=15, length_ft=8))
    plain, taught = line_of(cat, tied), line_of(cat, tied, Slick())
    assert plain.leader is not None
    assert taught.leader is not None
    assert plain.leader_m == pytest.approx(metres(8.0))
    assert taught.friction == 0.5 * plain.friction
    assert taught.leader.friction == 0.5 * plain.leader.friction
    with pytest.raises(BadInput, match=r"gear\.line\.leader"):
        line_of(
            cat, Line(material="braid", test_lb=30, leader=Leader(material="nylon", test_lb=90, length_ft=3))
        )
