"""Cover's indices at exact values, over every kind, family and trailer."""

from __future__ import annotations

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.cover import CLEAR, Stand, counting_oz, cover_odds, halfway_oz, mat_odds
from heathdrop.physics.rig import rig_by_name
from tests.golden_file import holds_to

STANDS = (
    Stand("submerged-grass", "sparse"),
    Stand("submerged-grass", "thick"),
    Stand("pads"),
    Stand("reeds", "thick"),
    Stand("matted-grass", texture="hyacinth", thickness_in=3.0),
    Stand("wood", "thick", detail="brush"),
    Stand("rock", detail="riprap"),
    Stand("docks", "sparse"),
    Stand("open"),
)


def test_every_family_in_every_cover(cat: Catalog) -> None:
    found = {}
    for family in cat.families:
        for trailer in ("flat-tail", "craw", "beaver") if family in ("swim-jig", "punch-rig") else ("craw",):
            rig = rig_by_name(cat, family, 0.75, trailer)
            odds = [cover_odds(cat, rig, 0.12, stand, 2.0, 14.0) for stand in STANDS]
            found[f"{family} {trailer}"] = [(o.passes, o.fouls, o.hangs) for o in odds]
    holds_to("physics.cover", found)


def test_what_counts_and_goes_half_the_time(cat: Catalog) -> None:
    assert halfway_oz(cat, Stand("matted-grass", texture="milfoil", thickness_in=4.0)) == pytest.approx(0.87)
    assert halfway_oz(cat, Stand("matted-grass")) == pytest.approx(0.35 + 0.13 * 3.0)
    rig = rig_by_name(cat, "flipping-jig", 1.0, "craw")
    assert counting_oz(rig) == pytest.approx(0.75 * 0.85)
    assert mat_odds(cat, rig, Stand("matted-grass"), 0.0, counting_oz(rig)).passes == pytest.approx(0.5)
    assert cover_odds(cat, rig, 0.1, Stand("open"), 3.0, 3.0) == CLEAR


def test_two_appendages_right_a_blade_in_wood(cat: Catalog) -> None:
    one, two = (
        cover_odds(cat, rig_by_name(cat, "bladed-jig", 0.5, t), 0.1, Stand("wood"), 0.0, 0.0).hangs
        for t in ("flat-tail", "beaver")
    )
    assert 1.0 - two == pytest.approx((1.0 - one) ** 0.5)
