"""The use case: a rig of any family in a water, the angler's own in it."""

from __future__ import annotations

import pytest

from heathdrop.answers.change import after_cast, first_change
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName
from tests.waters import GRASS


def test_the_rig_is_sized_in_its_own_family_whatever_the_scenario_names(cat: Catalog) -> None:
    rig = RigName.parse("bladed-jig:0.5:craw").rig(cat)
    one, other = (
        after_cast(Scenario(GRASS, families=f), rig, "ran-high", 1.0)
        for f in (("swim-jig",), ("bladed-jig",))
    )
    assert one == other
    assert one.changes[0] == first_change(Scenario(GRASS), rig, "ran-high") or one.ran_ft is not None
    assert all(c.family == "bladed-jig" for c in one.changes if c.id != "other-family")


def test_nothing_to_mend_is_said_of_what_is_none(cat: Catalog) -> None:
    rig = RigName.parse("bladed-jig:0.5:craw").rig(cat)
    first = first_change(Scenario(GRASS), rig, "fish")
    assert first is not None
    assert (first.id, first.by) == ("stay", "rule")
    with pytest.raises(BadInput, match="went was “flew”"):
        first_change(Scenario(GRASS), rig, "flew")
