"""Sizing: every candidate at its own best, rated and ranked."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast
from heathdrop.physics.cover import CLEAR, CoverOdds, grass_odds
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Lure, Rig, lure_of
from heathdrop.physics.water import Water, water_at
from heathdrop.sizing.activity import judge
from heathdrop.sizing.candidates import standard_rigs
from heathdrop.sizing.fit import Fits, fits_of
from heathdrop.sizing.scenario import Conditions, Scenario, check
from heathdrop.sizing.targets import Targets, targets_for
from heathdrop.sizing.tune import Aim, Tuned, tune
from heathdrop.units import feet, metres

#: Handle turns a second that a hand keeps up all day (practice).
TURNS_PER_S = (0.25, 2.6)
#: A countdown stops this far above the bottom, so that the retrieve starts clean (ft).
OFF_BOTTOM_FT = 0.3


@dataclass(frozen=True)
class Rated:
    """A candidate with its best setting, fall, cover odds and fits."""

    rig: Rig
    lure: Lure
    tuned: Tuned
    countdown_s: float
    fall_ft_s: float
    cover: CoverOdds
    fits: Fits

    @property
    def key(self) -> str:
        """A short name for addresses: family, head, trailer."""
        return f"{self.rig.family.id}:{self.rig.head_oz:g}:{self.rig.trailer.id}"


@dataclass(frozen=True)
class Sizing:
    """The answer to a scenario: targets and rigs, best first."""

    scenario: Scenario
    targets: Targets
    paces_ft_s: tuple[float, float]
    water: Water
    line: Line
    cast: Cast
    rigs: tuple[Rated, ...]


def size(catalog: Catalog, scenario: Scenario) -> Sizing:
    """Rate every candidate of the scenario. Raises BadInput for what cannot be."""
    check(scenario)
    for family in scenario.families:
        catalog.pick("families", "families", family)
    c, gear = scenario.conditions, scenario.gear
    if c.cover.kind not in catalog.cover["kinds"]:
        raise BadInput("conditions.cover.kind", c.cover.kind, "one of " + ", ".join(catalog.cover["kinds"]))
    targets = targets_for(catalog, c, judge(catalog, c), scenario.depth_band_ft)
    water = water_at(c.water_temp_f)
    line = line_by_test(catalog, gear.line_material, gear.line_test_lb, "gear.line")
    cast = cast_of(scenario)
    paces = reachable_paces(targets, gear.inches_per_turn)
    rigs = standard_rigs(catalog, scenario.families)
    lures = [lure_of(catalog, rig, water.density_kg_m3) for rig in rigs]
    aim = Aim(
        band_m=(metres(targets.depth_ft[0]), metres(targets.depth_ft[1])),
        cover_top_m=metres(_grass_top(c)),
        paces_m_s=(metres(paces[0]), metres(paces[1])),
        deepest_start_m=metres(max(0.2, c.bottom_depth_ft - OFF_BOTTOM_FT)),
    )
    tuned = tune(lures, line, water, cast, aim)
    rated = [_rate(catalog, c, rig, lure, t, line, water, cast, targets) for rig, lure, t in zip(rigs, lures, tuned, strict=True)]
    rated.sort(key=lambda r: (-r.fits.score, r.key))
    return Sizing(scenario, targets, paces, water, line, cast, tuple(rated))


def cast_of(scenario: Scenario) -> Cast:
    """The scenario's cast over a level bottom."""
    bottom = metres(scenario.conditions.bottom_depth_ft)
    gear = scenario.gear
    return Cast(metres(gear.cast_ft), metres(gear.rod_tip_height_ft), ((0.0, bottom), (200.0, bottom)))


def reachable_paces(targets: Targets, inches_per_turn: float) -> tuple[float, float]:
    """The pace band (ft/s) that the fish's mood allows and the reel can turn."""
    slow, fast = (turns * inches_per_turn / 12.0 for turns in TURNS_PER_S)
    low = min(max(targets.pace_ft_s[0], slow), fast)
    return low, max(low + 0.05, min(targets.pace_ft_s[1], fast))


def _grass_top(c: Conditions) -> float:
    """Depth (ft) of the grass top, far below everything in open water."""
    if c.cover.kind == "submerged-grass" and c.cover.top_depth_ft is not None:
        return c.cover.top_depth_ft
    return 1e6


def _rate(
    catalog: Catalog,
    c: Conditions,
    rig: Rig,
    lure: Lure,
    tuned: Tuned,
    line: Line,
    water: Water,
    cast: Cast,
    targets: Targets,
) -> Rated:
    """One candidate's countdown, fall, cover odds and fits."""
    seconds = time_to_depth_s(lure, tuned.start_depth_m, line, water)
    fall = feet(tuned.start_depth_m / seconds) if 0.0 < seconds < 1e6 else 0.0
    odds = CLEAR
    top = _grass_top(c)
    if top < 1e6:
        way = 0.6 * feet(cast.distance_m) * tuned.in_cover
        sunk = max(0.0, feet(tuned.start_depth_m) - top)
        odds = grass_odds(catalog, rig, lure.net_weight_n, c.cover.density, sunk, way)
    return Rated(rig, lure, tuned, seconds, fall, odds, fits_of(rig, tuned, fall, odds, targets))
