"""Sizing: every candidate at its own best, rated and ranked."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.catalog import Catalog, Family
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast
from heathdrop.physics.cover import CLEAR, CoverOdds, grass_odds
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Lure, Rig, liveliness, lure_of
from heathdrop.physics.touch import touch_of
from heathdrop.physics.water import Water, water_at
from heathdrop.sizing.activity import judge
from heathdrop.sizing.candidates import standard_rigs
from heathdrop.sizing.fit import Fits, action_of, fits_of, touch_fit
from heathdrop.sizing.scenario import Conditions, Scenario, check
from heathdrop.sizing.targets import Targets, targets_for
from heathdrop.sizing.tune import Limits, Tuned, scene_of, tune
from heathdrop.units import feet, metres

#: Handle turns a second that a hand keeps up all day (practice).
TURNS_PER_S = (0.15, 2.6)
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
    factor = catalog.families[scenario.families[0]].pace_factor
    paces = reachable_paces(targets, gear.inches_per_turn, factor)
    rigs = standard_rigs(catalog, scenario.families)
    lures = [lure_of(catalog, rig, water.density_kg_m3, c.water_temp_f) for rig in rigs]
    band = (metres(targets.depth_ft[0]), metres(targets.depth_ft[1]))
    scene = scene_of(line, water, cast, band, metres(_grass_top(c)))
    tuned = tune(lures, [limits_for(rig.family, targets, c, gear.inches_per_turn) for rig in rigs], scene)
    rated = [_rate(catalog, c, rig, lure, t, line, water, cast, targets) for rig, lure, t in zip(rigs, lures, tuned, strict=True)]
    rated.sort(key=lambda r: (-r.fits.score, r.key))
    return Sizing(scenario, targets, paces, water, line, cast, tuple(rated))


def cast_of(scenario: Scenario) -> Cast:
    """The scenario's cast over its bottom: the stated depth at the far end, shallower toward the angler."""
    gear = scenario.gear
    away, deep = metres(gear.cast_ft), metres(scenario.conditions.bottom_depth_ft)
    shapes = {
        "level": ((0.0, deep), (200.0, deep)),
        "slope": ((0.0, 0.3 * deep), (away, deep), (200.0, deep)),
        "steps": (
            (0.0, 0.35 * deep),
            (0.3 * away, 0.35 * deep),
            (0.3 * away + 0.2, 0.65 * deep),
            (0.65 * away, 0.65 * deep),
            (0.65 * away + 0.2, deep),
            (200.0, deep),
        ),
    }
    return Cast(away, metres(gear.rod_tip_height_ft), shapes[scenario.conditions.bottom_shape])


def reachable_paces(targets: Targets, inches_per_turn: float, factor: float = 1.0) -> tuple[float, float]:
    """The pace band (ft/s) that the fish's mood allows and the reel can turn."""
    slow, fast = (turns * inches_per_turn / 12.0 for turns in TURNS_PER_S)
    low = min(max(factor * targets.pace_ft_s[0], slow), fast)
    return low, max(low + 0.05, min(factor * targets.pace_ft_s[1], fast))


def limits_for(family: Family, targets: Targets, c: Conditions, inches_per_turn: float) -> Limits:
    """A family's paces for this mood, and how deep its retrieve may start."""
    slow, fast = reachable_paces(targets, inches_per_turn, family.pace_factor)
    clear = 0.0 if family.work != "swim" else OFF_BOTTOM_FT
    return Limits(metres(slow), metres(fast), metres(max(0.2, c.bottom_depth_ft - clear)))


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
    touch = None
    if rig.family.work != "swim":
        depth, away = metres(c.bottom_depth_ft), 0.5 * cast.distance_m
        touch = touch_fit(touch_of(lure.net_weight_n, line, water, depth, away, c.wind_mph))
    action = action_of(rig) * liveliness(catalog, rig, c.water_temp_f)
    return Rated(rig, lure, tuned, seconds, fall, odds, fits_of(rig, tuned, fall, odds, targets, action, touch))
