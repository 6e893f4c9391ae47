"""What gives where not all that was set can be had."""

from __future__ import annotations

import re
from dataclasses import replace

from heathdrop.advice.gives import gives_said
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.hits import hits_of
from heathdrop.sizing.size import size
from tests.waters import GRASS


def test_each_target_is_let_go_in_turn(cat: Catalog) -> None:
    """No swim jig falls under half a foot a second: said with the rig that keeps the depth."""
    wanted = Wanted(depth_ft=(4.0, 6.0), fall_ft_s=(0.4, 0.5), passes=0.2, pace_ft_s=(1.0, 3.0))
    sizing = size(cat, Scenario(GRASS, families=("swim-jig",), wanted=wanted))
    said = gives_said([sizing])
    assert said is not None
    assert said.startswith(
        "No rig here falls 0.4 to 0.5 ft/s, works at 4 to 6 ft, gets through 20 times of 100 and comes at "
        "1 to 3 ft/s. Let the fall go: "
    )
    assert re.search(r"Let the fall go: [\d/]+ oz swim jig with [a-z -]+ falls \d\.\d ft/s\.$", said)
    rest = replace(wanted, fall_ft_s=None)
    assert any(all(hits_of(rest, r).values()) for r in sizing.rigs)


def test_nothing_gives_where_all_is_had_or_none_is_set(cat: Catalog) -> None:
    for wanted in (Wanted(), Wanted(depth_ft=(4.0, 6.0))):
        assert gives_said([size(cat, Scenario(GRASS, families=("swim-jig",), wanted=wanted))]) is None
