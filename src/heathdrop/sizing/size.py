"""Sizing: every candidate at its own best, rated and ranked."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog, Family
from heathdrop.conditions.facts import Facts, facts_of
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast
from heathdrop.physics.cover import CoverOdds, Stand, cover_odds
from heathdrop.physics.fall import fall_time_s, glide_factor, time_to_depth_s
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Lure, Rig, liveliness, lure_of
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.physics.touch import touch_of
from heathdrop.physics.water import Water, water_at
from heathdrop.sizing.activity import judge
from heathdrop.sizing.box import EMPTY, Tackle, box_rigs
from heathdrop.sizing.candidates import standard_rigs
from heathdrop.sizing.fit import Fits, action_of, fits_of, touch_fit
from heathdrop.sizing.known import UNTAUGHT, Knowledge
from heathdrop.sizing.schools import Leaning, chosen, leaning_of, pace_factor
from heathdrop.sizing.targets import Targets, targets_for
from heathdrop.sizing.tune import Limits, Tuned, scene_of, tune
from heathdrop.units import feet, metres

#: Depth (ft) and time (s) beyond everything: no stems there, never sinks.
NOWHERE_FT, NEVER_S = 1e6, 1e6


@dataclass(frozen=True)
class Rated:
    """A candidate with its best setting, fall, cover odds and fits; ``liking`` is the schools' (1 when they
    have no say)."""

    rig: Rig
    lure: Lure
    tuned: Tuned
    countdown_s: float
    fall_ft_s: float
    cover: CoverOdds
    fits: Fits
    liking: float = 1.0

    @property
    def name(self) -> RigName:
        """The rig's one name."""
        return name_of(self.rig)

    @property
    def key(self) -> str:
        """The rig's one name as text, for addresses."""
        return self.name.text()


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
    facts: Facts
    known: Knowledge = UNTAUGHT


@dataclass(frozen=True)
class Setting:
    """Everything rating a rig needs besides the rig: the water, the cast, what is wanted, what the schools
    hold."""

    catalog: Catalog
    scenario: Scenario
    targets: Targets
    water: Water
    line: Line
    cast: Cast
    stand: Stand
    leanings: dict[str, Leaning]
    mat_factor: float = 1.0
    known: Knowledge = UNTAUGHT

    @property
    def temperature_f(self) -> float:
        """Water temperature, °F."""
        return self.scenario.conditions.water_temp_f

    @property
    def grass_top_ft(self) -> float:
        """Depth (ft) from which a rig is among stems; far below everything where there are none."""
        c = self.scenario.conditions.cover
        if c.kind == "submerged-grass" and c.top_depth_ft is not None:
            return c.top_depth_ft
        return 0.0 if c.kind in ("pads", "reeds", "matted-grass") else NOWHERE_FT

    def lure(self, rig: Rig) -> Lure:
        """The rig in this water."""
        return lure_of(self.catalog, rig, self.water.density_kg_m3, self.temperature_f)

    def odds(
        self, rig: Rig, lure: Lure, tuned: Tuned, least_way_ft: float = 0.0, stand: Stand | None = None
    ) -> CoverOdds:
        """Odds in this water's cover for a rig at a setting, what was learned of its mat included.

        ``least_way_ft`` is the least way swum in it; ``stand`` another way into the same cover.
        """
        hand = self.catalog.judgement.hand
        sunk = max(0.0, feet(tuned.start_depth_m) - self.grass_top_ft)
        swum = hand.through_cover * feet(self.cast.distance_m) * tuned.in_cover
        way = hand.hopped_ft if rig.family.work == "drop" else max(swum, least_way_ft)
        return cover_odds(
            self.catalog, rig, lure.net_weight_n, stand or self.stand, sunk, way, self.mat_factor
        )

    def touch(self, net_weight_n: float, line: Line) -> float:
        """How clearly a lure of this weight is felt on the bottom on this line, 0 to 1."""
        c = self.scenario.conditions
        away = self.catalog.judgement.hand.felt_at * self.cast.distance_m
        depth = metres(c.bottom_depth_ft)
        return touch_of(self.catalog, net_weight_n, line, self.water, depth, away, c.wind_mph)


def size(
    catalog: Catalog,
    scenario: Scenario,
    rigs: Sequence[Rig] | None = None,
    refine: bool = True,
    known: Knowledge = UNTAUGHT,
    tackle: Tackle = EMPTY,
) -> Sizing:
    """Rate every candidate of the scenario, or the ``rigs`` given. Raises BadInput for what cannot be.

    ``known`` is what the angler's measurements taught, ``tackle`` the box that the scenario may ask for.
    """
    check(scenario)
    for family in scenario.families:
        catalog.pick(catalog.families, "families", family)
    setting, facts = setting_of(catalog, scenario, known)
    if rigs is None:
        rigs = candidates(setting, tackle)
    rated = rate(setting, [known.applied(rig) for rig in rigs], refine)
    factor = catalog.families[scenario.families[0]].pace_factor
    paces = reachable_paces(catalog, setting.targets, scenario.gear.reel.inches_per_turn, factor)
    return Sizing(
        scenario,
        setting.targets,
        paces,
        setting.water,
        setting.line,
        setting.cast,
        tuple(rated),
        facts,
        known,
    )


def candidates(setting: Setting, tackle: Tackle) -> list[Rig]:
    """The rigs a scenario asks for: the standard set, the box, or both. Raises BadInput when the box has
    none."""
    catalog, scenario = setting.catalog, setting.scenario
    standard = standard_rigs(catalog, scenario.families, setting.leanings) if scenario.box != "mine" else []
    if scenario.box == "standard":
        return standard
    own = box_rigs(
        catalog, tackle, scenario.families, setting.targets, setting.water, scenario.conditions.water_temp_f
    )
    if not own and scenario.box == "mine":
        names = ", ".join(catalog.families[f].name for f in scenario.families)
        raise BadInput(
            "box", "mine", f"standard or both until your box holds a head for a {names} and a trailer"
        )
    taken = {(r.family.id, r.head_oz, r.trailer.id, r.trailer_length_in) for r in own}
    return own + [
        r for r in standard if (r.family.id, r.head_oz, r.trailer.id, r.trailer_length_in) not in taken
    ]


def setting_of(catalog: Catalog, scenario: Scenario, known: Knowledge = UNTAUGHT) -> tuple[Setting, Facts]:
    """The setting of a checked scenario, and its facts. Raises BadInput for an unknown cover, line or
    school."""
    c, gear = scenario.conditions, scenario.gear
    activity = judge(catalog, c)
    facts = facts_of(scenario, activity.value)
    chosen(catalog, scenario.schools)
    leanings = {
        f.id: leaning_of(catalog, scenario.schools, {**facts, "family": f.id, "work": f.work})
        for f in catalog.families.values()
    }
    whole = leaning_of(catalog, scenario.schools, facts)
    stand = Stand(
        c.cover.kind, c.cover.stands, c.cover.texture, c.cover.thickness_in, c.cover.detail, whole.lobbed
    )
    return Setting(
        catalog=catalog,
        scenario=scenario,
        targets=targets_for(catalog, c, activity, scenario.depth_band_ft, whole),
        water=water_at(c.water_temp_f),
        line=known.line(
            line_by_test(catalog, gear.line.material, gear.line.test_lb, "gear.line"), gear.line.material
        ),
        cast=cast_of(catalog, scenario, all(catalog.families[f].work == "drop" for f in scenario.families)),
        stand=stand,
        leanings=leanings,
        mat_factor=known.mat_factor(stand.texture or catalog.cover.mats.usual_texture),
        known=known,
    ), facts


def rate(setting: Setting, rigs: Sequence[Rig], refine: bool = True) -> list[Rated]:
    """Every rig at its own best, rated, best first."""
    targets = setting.targets
    lures = [setting.lure(rig) for rig in rigs]
    by_family = {f: limits_for(setting, setting.catalog.families[f]) for f in {rig.family.id for rig in rigs}}
    limits = [by_family[rig.family.id] for rig in rigs]
    band = (metres(targets.depth_ft[0]), metres(targets.depth_ft[1]))
    scene = scene_of(setting.line, setting.water, setting.cast, band, metres(setting.grass_top_ft))
    moving = [k for k, rig in enumerate(rigs) if rig.family.work != "drop"]
    found = tune([lures[k] for k in moving], [limits[k] for k in moving], scene, refine)
    swum = dict(zip(moving, found, strict=True))
    tuned = [swum[k] if k in swum else dropped(setting, lures[k], limits[k]) for k in range(len(rigs))]
    seconds = _countdowns(setting, lures, tuned)
    rated = [_rate(setting, *row) for row in zip(rigs, lures, tuned, seconds, strict=True)]
    rated.sort(key=lambda r: (-r.fits.score, r.key))
    return rated


def _countdowns(setting: Setting, lures: Sequence[Lure], tuned: Sequence[Tuned]) -> list[float]:
    """Seconds of slack fall to each rig's start, all at once."""
    weights, areas = (
        np.array([getattr(lure, k) for lure in lures]) for k in ("net_weight_n", "fall_drag_area_m2")
    )
    starts = np.array([t.start_depth_m for t in tuned])
    straight = fall_time_s(weights, areas, starts, setting.line, setting.water)
    return [float(v) for v in straight / glide_factor([lure.glide_ratio for lure in lures])]


def dropped(setting: Setting, lure: Lure, limits: Limits) -> Tuned:
    """A lure that is sent straight down and worked where it lands: its time in the band, in closed form.

    Fish on the bottom or under cover are met where it works; hanging fish only as it passes.
    """
    c = setting.scenario.conditions
    top, low = (metres(d) for d in setting.targets.depth_ft)
    bottom = setting.cast.bottom_at(setting.cast.distance_m)
    worked = setting.catalog.judgement.hand.worked_s
    down = time_to_depth_s(lure, bottom, setting.line, setting.water)
    passing = time_to_depth_s(lure, min(low, bottom), setting.line, setting.water) - time_to_depth_s(
        lure, top, setting.line, setting.water
    )
    share = (
        1.0
        if c.stands in ("on-bottom", "under-cover")
        else min(1.0, passing / (down + worked))
        if down < NEVER_S
        else 0.0
    )
    pace = math.sqrt(limits.slowest_m_s * limits.fastest_m_s)
    return Tuned(
        pace,
        bottom,
        share,
        share,
        bottom,
        bottom,
        bottom,
        1.0 if setting.grass_top_ft < NOWHERE_FT else 0.0,
        1.0,
    )


def cast_of(catalog: Catalog, scenario: Scenario, pitched: bool = False) -> Cast:
    """The scenario's cast over its bottom: the stated depth at the far end, shallower toward the angler.

    A ``pitched`` lure goes no further than a pitch.
    """
    gear, pitch = scenario.gear, catalog.judgement.hand.pitch_ft
    away, deep = (
        metres(min(gear.cast_ft, pitch) if pitched else gear.cast_ft),
        metres(scenario.conditions.bottom_depth_ft),
    )
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


def reachable_paces(
    catalog: Catalog, targets: Targets, inches_per_turn: float, factor: float = 1.0
) -> tuple[float, float]:
    """The pace band (ft/s) that the fish's mood allows and the reel can turn."""
    slow, fast = (turns * inches_per_turn / 12.0 for turns in catalog.judgement.hand.turns_per_s)
    low = min(max(factor * targets.pace_ft_s[0], slow), fast)
    return low, max(low + 0.05, min(factor * targets.pace_ft_s[1], fast))


def limits_for(setting: Setting, family: Family) -> Limits:
    """A family's paces for this mood, and how deep its retrieve may start."""
    inches_per_turn = setting.scenario.gear.reel.inches_per_turn
    factor = family.pace_factor * pace_factor(setting.catalog, setting.scenario.schools, family.id)
    slow, fast = reachable_paces(setting.catalog, setting.targets, inches_per_turn, factor)
    clear = 0.0 if family.work != "swim" else setting.catalog.judgement.hand.off_bottom_ft
    return Limits(
        metres(slow), metres(fast), metres(max(0.2, setting.scenario.conditions.bottom_depth_ft - clear))
    )


def _rate(setting: Setting, rig: Rig, lure: Lure, tuned: Tuned, seconds: float) -> Rated:
    """One candidate's fall, cover odds and fits."""
    c, catalog = setting.scenario.conditions, setting.catalog
    fall = feet(tuned.start_depth_m / seconds) if 0.0 < seconds < NEVER_S else 0.0
    odds = setting.odds(rig, lure, tuned)
    touch = touch_fit(setting.touch(lure.net_weight_n, setting.line)) if rig.family.work != "swim" else None
    action = action_of(catalog, rig) * liveliness(catalog, rig, c.water_temp_f)
    suits = rig.family.suits.get(rig.trailer.id, 1.0)
    leaning = setting.leanings[rig.family.id]
    liking = leaning.liking(catalog.judgement.schools, rig.family.id, rig.head_oz, rig.trailer.id)
    fits = fits_of(catalog, rig, tuned, fall, odds, setting.targets, action, touch, liking * suits)
    return Rated(rig, lure, tuned, seconds, fall, odds, fits, liking)
