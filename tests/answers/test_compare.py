"""A rig held against others: each cast is its own, at one hand or as it is sized."""

from __future__ import annotations

import pytest

from heathdrop.answers.compare import compared_with
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.sizing.program import play
from heathdrop.sizing.size import size
from heathdrop.units import feet
from tests.waters import GRASS


def test_rigs_lines_and_lures(cat: Catalog) -> None:
    sizing = size(cat, Scenario(GRASS, families=("swim-jig",)))
    chosen, other = sizing.rigs[0], next(r for r in sizing.rigs if r.rig.head_oz == 1.0)
    hand = "steady", None, None
    own = play(sizing, chosen)
    line, rig = compared_with(sizing, chosen, ["line:nylon:20", other.key], hand)
    assert [(c.mark, c.kind, c.together) for c in (line, rig)] == [("B", "line", True), ("C", "rig", True)]
    assert feet(line.result.useful().mean()) < feet(own.useful().mean()) < feet(rig.result.useful().mean())
    (sized,) = compared_with(sizing, chosen, ["", other.key])
    assert (sized.mark, sized.together, sized.rated) == ("B", False, other)
    assert feet(sized.result.useful().mean()) == pytest.approx(feet(other.tuned.mean_m), abs=0.1)
    (lure,) = compared_with(sizing, chosen, ["lure:football-jig"])
    assert (lure.kind, lure.rated.rig.family.id) == ("lure", "football-jig")
    assert len(compared_with(sizing, chosen, [other.key] * 3)) == 2
    for bad in ("line:steel:20", "line:nylon:", "swim-jig:9:toad", "lure:toad"):
        with pytest.raises(BadInput):
            compared_with(sizing, chosen, [bad])
