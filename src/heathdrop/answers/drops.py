"""What an observation would be now: expected seconds of a drop, expected depth of a retrieve."""

import math
from dataclasses import dataclass, replace

from heathdrop import catalog as catalogue
from heathdrop.learning.checks import ran_at_m
from heathdrop.learning.learned import NINETY, NOTHING, Learned
from heathdrop.learning.observations import DepthCheck, DropTest
from heathdrop.learning.worth import Worth, another_worth
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.rig import lure_of, spread_of
from heathdrop.physics.water import water_at
from heathdrop.sizing.knowledge import Knowledge
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, metres


def expected_drop_s(test: DropTest, learned: Knowledge) -> float:
    """Seconds now expected of a timed drop."""
    catalog, water = catalogue.load(), water_at(test.temperature_f)
    lure = lure_of(catalog, learned.applied(test.rig), water.density_kg_m3, test.temperature_f)
    line = learned.line(test.line, test.line_material)
    return time_to_depth_s(lure, test.depth_m, line, water, test.surface_line_m)


#: What one more timed drop of a rig that was never timed would be worth, remembered.
TIMED: Memory[Worth] = Memory(256)


def another_drop_worth(sizing: Sizing, rated: Rated, depth_m: float) -> Worth:
    """What a first timed drop of a rig, on its line in its water, would make of its fall."""
    line, temp_f = sizing.scenario.gear.line, sizing.scenario.conditions.water_temp_f
    like = DropTest(
        rig=rated.rig,
        line=sizing.line,
        line_material=line.material,
        depth_m=depth_m,
        times_s=(),
        temperature_f=temp_f,
    )
    key = rated.key, rated.rig.measured, sizing.line, line.material, depth_m, temp_f
    return TIMED.all_of([key], lambda _: [another_worth(catalogue.load(), (), like, (1.0,))])[0]


@dataclass(frozen=True)
class FallTo:
    """Seconds of a rig's fall to a depth (ft): as expected now, the 90 % band, and as assumed untested."""

    depth_ft: float
    seconds: float
    low: float
    high: float
    assumed: float


def falls_to(test: DropTest, learned: Learned, depths_ft: tuple[float, ...]) -> list[FallTo]:
    """How long the rig of a test takes to each depth, on its line, thrown on slack."""
    own = learned.applied(test.rig)
    wide = math.exp(NINETY * 0.5 * spread_of(catalogue.load(), own, test.temperature_f).fall)
    falls = []
    for depth in depths_ft:
        there = replace(test, depth_m=metres(depth), surface_line_m=0.0)
        now, before = expected_drop_s(there, learned), expected_drop_s(there, NOTHING)
        falls.append(FallTo(depth, now, now / wide, now * wide, before))
    return falls


def expected_depth_ft(check: DepthCheck, learned: Learned) -> float:
    """Depth (ft) now expected of a depth check."""
    return feet(ran_at_m(catalogue.load(), check, learned.applied(check.rig).measured.lift))
