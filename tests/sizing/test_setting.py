"""What rating a rig needs besides the rig: cast and bottom, paces, the line as set and as learned."""

from __future__ import annotations

from dataclasses import dataclass, replace

import pytest

from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear, Leader, Line, Reel
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.line import Line as Chain
from heathdrop.physics.rig import rig_by_name
from heathdrop.sizing.known import Untaught
from heathdrop.sizing.setting import (
    NOWHERE_FT,
    cast_of,
    limits_for,
    line_of,
    mood_paces,
    reachable_paces,
    setting_of,
)
from heathdrop.units import feet, metres
from tests.advice.cases import CASES, rated
from tests.golden_file import holds_to
from tests.waters import BAIT, GRASS, MAT, PADS, WOOD


def of(cat: Catalog, water, family: str, **more: object):  # type: ignore[no-untyped-def]
    return setting_of(cat, Scenario(water, families=(family,), **more))  # type: ignore[arg-type]


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


def test_a_pitch_goes_no_further_than_a_pitch(cat: Catalog) -> None:
    assert feet(of(cat, WOOD, "flipping-jig").cast.distance_m) == pytest.approx(cat.judgement.hand.pitch_ft)
    assert feet(of(cat, WOOD, "spinnerbait").cast.distance_m) == pytest.approx(80.0)
    short = of(cat, WOOD, "flipping-jig", gear=Gear(cast_ft=12.0))
    assert feet(short.cast.distance_m) == pytest.approx(12.0)


def test_where_the_stems_begin(cat: Catalog) -> None:
    assert of(cat, GRASS, "swim-jig").grass_top_ft == 7.0
    assert of(cat, PADS, "swim-jig").grass_top_ft == 0.0
    assert of(cat, WOOD, "swim-jig").grass_top_ft == NOWHERE_FT


def test_paces_are_those_of_mood_reel_and_blade(cat: Catalog) -> None:
    setting = of(cat, GRASS, "swim-jig")
    slow, fast = cat.judgement.hand.turns_per_s
    low, high = reachable_paces(cat, setting.targets, 29.0)
    assert (low, high) == pytest.approx(setting.targets.pace_ft_s)
    assert reachable_paces(cat, setting.targets, 1.0)[0] == pytest.approx(fast / 12.0)
    assert reachable_paces(cat, setting.targets, 99.0)[0] == pytest.approx(
        max(setting.targets.pace_ft_s[0], slow * 99.0 / 12.0)
    )
    limits = limits_for(setting)
    assert (feet(limits.slowest_m_s), feet(limits.fastest_m_s)) == pytest.approx(mood_paces(setting))
    assert feet(limits.deepest_start_m) == pytest.approx(9.0 - cat.judgement.hand.off_bottom_ft)
    bladed = limits_for(of(cat, replace(GRASS, activity=0.0), "bladed-jig"))
    assert feet(bladed.slowest_m_s) == pytest.approx(cat.families["bladed-jig"].least_pace_ft_s)
    slow_reel = of(cat, GRASS, "swim-jig", gear=Gear(reel=Reel(inches_per_turn=12.0)))
    assert mood_paces(slow_reel)[1] <= fast + 0.06


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


def test_what_was_learned_of_the_mat_is_in_the_odds(cat: Catalog) -> None:
    scenario = Scenario(MAT, families=("punch-rig",))
    plain, taught = setting_of(cat, scenario), setting_of(cat, scenario, Slick())
    assert (plain.mat_factor, taught.mat_factor) == (1.0, 2.0)


def test_a_rig_is_worked_out_once(cat: Catalog) -> None:
    setting = of(cat, BAIT, "underspin")
    rig = rig_by_name(cat, "underspin", 0.5, "paddle-tail")
    assert setting.lure(rig) is setting.lure(rig)
    assert setting.areas(rig) is setting.areas(rig)
    assert 0.0 < setting.touch(setting.lure(rig).net_weight_n, setting.line) < 1.0


def test_limits_odds_and_touch(cat: Catalog) -> None:
    found = {}
    for name in CASES:
        sizing, best = rated(name)
        setting = setting_of(cat, replace(sizing.scenario, families=(best.rig.family.id,)))
        loud = replace(setting.stand, lobbed=True)
        found[name] = {
            "limits": limits_for(setting)._asdict(),
            "odds": setting.odds(best.rig, best.lure, best.tuned),
            "further": setting.odds(best.rig, best.lure, best.tuned, 30.0),
            "lobbed": setting.odds(best.rig, best.lure, best.tuned, stand=loud),
            "touch": setting.touch(best.lure.net_weight_n, setting.line),
            "mood": mood_paces(setting),
            "bottom": setting.cast.bottom,
        }
    holds_to("sizing.setting", found, tolerance=1e-4)
