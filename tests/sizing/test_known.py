"""Nothing learned leaves everything as the catalogue has it."""

from __future__ import annotations

from heathdrop.catalog import Catalog
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.known import UNTAUGHT, Untaught


def test_a_stranger_knows_what_the_catalogue_knows(cat: Catalog) -> None:
    rig = rig_by_name(cat, "swim-jig", 0.5, "craw")
    line = line_by_test(cat, "nylon", 12)
    assert UNTAUGHT.applied(rig) is rig
    assert UNTAUGHT.line(line, "nylon") is line
    assert UNTAUGHT.mat_factor("hydrilla") == 1.0
    assert isinstance(UNTAUGHT, Untaught)
