"""A mat's entry curve: quiet and lobbed, what was learned included."""

from __future__ import annotations

import pytest

from heathdrop.answers.mat import MOST_OZ, POINTS, mat_curve
from heathdrop.answers.own import STRANGER, Own
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.box import EMPTY
from heathdrop.sizing.known import UNTAUGHT, Untaught
from heathdrop.sizing.size import size
from tests.waters import GRASS, MAT


class Hard(Untaught):
    """A mat that needs half as much again."""

    def mat_factor(self, texture: str) -> float:
        return 1.5


def test_the_curve_rises_and_a_lob_goes_through_more(cat: Catalog) -> None:
    rig = rig_by_name(cat, "punch-rig", 1.0, "beaver")
    sizing = size(cat, Scenario(MAT, families=("punch-rig",)), [rig])
    curve = mat_curve(sizing, sizing.rigs[0])
    assert curve is not None
    assert (len(curve.heads_oz), curve.heads_oz[-1]) == (POINTS, MOST_OZ)
    assert list(curve.quiet) == sorted(curve.quiet)
    assert all(loud > quiet for loud, quiet in zip(curve.lobbed, curve.quiet, strict=True))
    at = min(range(POINTS), key=lambda k: abs(curve.heads_oz[k] - 1.0))
    assert curve.quiet[at] == pytest.approx(curve.passes, abs=0.02)
    # Hydrilla four inches thick: 0.35 + 4 × 0.13 oz, and a beaver counts in full.
    assert curve.halfway_oz == pytest.approx(0.87)
    taught = size(cat, Scenario(MAT, families=("punch-rig",)), [rig], Hard())
    harder = mat_curve(taught, taught.rigs[0])
    assert harder is not None
    assert harder.halfway_oz == pytest.approx(1.305)
    assert harder.quiet[at] < curve.quiet[at]


def test_no_mat_no_curve(cat: Catalog) -> None:
    sizing = size(cat, Scenario(GRASS, families=("swim-jig",)), [rig_by_name(cat, "swim-jig", 0.5, "craw")])
    assert mat_curve(sizing, sizing.rigs[0]) is None


def test_a_stranger_knows_nothing_and_owns_nothing(cat: Catalog) -> None:
    rig = rig_by_name(cat, "swim-jig", 0.5, "craw")
    assert Own() == STRANGER
    assert (STRANGER.learned, STRANGER.tackle, STRANGER.schools) == (UNTAUGHT, EMPTY, ())
    assert (UNTAUGHT.applied(rig), UNTAUGHT.mat_factor("milfoil")) == (rig, 1.0)
