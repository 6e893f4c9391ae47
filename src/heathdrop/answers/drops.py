"""What an observation would be now: expected seconds of a drop, expected depth of a retrieve."""

from __future__ import annotations

from heathdrop import catalog as catalogue
from heathdrop.learning.checks import ran_at_m
from heathdrop.learning.learned import Learned
from heathdrop.learning.observations import DepthCheck, DropTest
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.rig import lure_of
from heathdrop.physics.water import water_at
from heathdrop.units import feet


def expected_drop_s(test: DropTest, learned: Learned) -> float:
    """Seconds now expected of a timed drop."""
    catalog, water = catalogue.load(), water_at(test.temperature_f)
    lure = lure_of(catalog, learned.applied(test.rig), water.density_kg_m3, test.temperature_f)
    line = learned.line(test.line, test.line_material)
    return time_to_depth_s(lure, test.depth_m, line, water, test.surface_line_m)


def expected_depth_ft(check: DepthCheck, learned: Learned) -> float:
    """Depth (ft) now expected of a depth check."""
    return feet(ran_at_m(catalogue.load(), check, learned.applied(check.rig).measured.lift))
