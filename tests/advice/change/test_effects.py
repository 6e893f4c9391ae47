"""What a change does: into the band and no further, in turns that differ, felt or through more often."""

from __future__ import annotations

from dataclasses import replace

import pytest

from heathdrop.advice.change import MEASURED, mended
from heathdrop.advice.change.hand import Hand, path_of
from heathdrop.answers.change import after_cast
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear, Line
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.setting import setting_of
from heathdrop.units import metres
from tests.advice.cases import rated
from tests.waters import GRASS


def test_nothing_offered_goes_into_the_cover_below(cat: Catalog) -> None:
    """Over grass whose tops are at 7 ft a longer count ends short of them."""
    over = replace(GRASS, fish_depth_ft=4, bottom_depth_ft=10)
    found = after_cast(Scenario(over), RigName.parse("swim-jig:0.375:craw").rig(cat), "ran-high", 1.0)
    longer = [c for c in found.changes if c.id == "longer-count"]
    setting = setting_of(cat, Scenario(over, families=("swim-jig",)))
    for change in longer:
        hand = Hand(
            RigName.parse(change.rig).rig(cat),
            setting.line,
            change.fished.countdown_s or 0.0,
            metres(change.fished.pace_ft_s or 0.0),
            setting.cast.rod_tip_m,
        )
        assert path_of(setting, hand).deepest_ft <= 7.05
    assert found.changes


def test_a_change_of_pace_is_told_in_turns_that_differ(cat: Catalog) -> None:
    for went in MEASURED:
        for change in mended(cat, *rated("right over grass"), went).changes:
            if change.id in ("slower", "faster"):
                assert change.what.endswith("turns in 20 s")
                told = float(change.what.split()[-5])
                assert told == pytest.approx((change.fished.pace_ft_s or 0.0) * 12 / 29 * 20, abs=0.26)
                assert dict(change.tries)["pace_ft_s"]


def test_a_thing_felt_already_is_not_mended(cat: Catalog) -> None:
    """Felt 97 times of 100 there is nothing to gain; a sixteenth in deep water is felt on braid."""
    near = Conditions(water_temp_f=60, bottom_depth_ft=5, fish_depth_ft=5, wind_mph=0)
    sure = after_cast(Scenario(near), RigName.parse("football-jig:0.75:craw").rig(cat), "not-felt").changes
    assert [c.by for c in sure if c.id != "other-family"] == ["rule"] * len(
        [c for c in sure if c.id != "other-family"]
    )
    deep = Conditions(water_temp_f=60, bottom_depth_ft=20, fish_depth_ft=20, wind_mph=6)
    nylon = Gear(line=Line(material="nylon", test_lb=20))
    found = after_cast(
        Scenario(deep, nylon), RigName.parse("finesse-jig:0.1875:pin-tail").rig(cat), "not-felt"
    )
    braid = next(c for c in found.changes if c.id == "thinner-line")
    assert "braid" in braid.what
    assert {"line": "braid", "test_lb": "20"}.items() <= dict(braid.tries).items()


def test_a_change_that_mends_ends_in_the_band(cat: Catalog) -> None:
    sizing, one = rated("right over grass")
    top, low = sizing.targets.depth_ft
    setting = setting_of(cat, sizing.scenario)
    for went in MEASURED:
        for change in mended(cat, sizing, one, went).changes:
            if change.id == "other-family" or change.runs_ft is None:
                continue
            assert change.mends == (top - 0.25 <= change.runs_ft <= low + 0.25)
    assert setting.targets.depth_ft == (top, low)
