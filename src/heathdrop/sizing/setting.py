"""All that rating a rig needs besides the rig: the water, the cast, what is wanted, what schools hold."""

import math
from dataclasses import dataclass, field, replace
from functools import cached_property

from heathdrop.catalog import Catalog, Family
from heathdrop.conditions.cover import ROOFS
from heathdrop.conditions.facts import Facts, facts_of
from heathdrop.conditions.scenario import Scenario, fading
from heathdrop.physics.cast import Cast
from heathdrop.physics.cover import CoverOdds, Stand, cover_odds, top_ft
from heathdrop.physics.flight import (
    Launch,
    Thrown,
    air_drag_kg_m,
    flown_m,
)
from heathdrop.physics.kernels.records import Limits, Tuned
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Areas, Lure, Rig, Spread, areas_of, lure_of, spread_of
from heathdrop.physics.touch import touch_of
from heathdrop.physics.water import Water, water_at
from heathdrop.sizing.activity import judge
from heathdrop.sizing.bearing import Bearing
from heathdrop.sizing.cast import cast_of, launched, line_of
from heathdrop.sizing.dress import Dress, dresses_of
from heathdrop.sizing.fit import near_floor, seconds_worth
from heathdrop.sizing.knowledge import UNTAUGHT, Knowledge
from heathdrop.sizing.leans import leans_of, weight_shift
from heathdrop.sizing.liking import Liking, liking_of, pulls_of
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.remembered import ByRig, Remembered, RigInWater
from heathdrop.sizing.scatter import Scatter, scatter_of
from heathdrop.sizing.schools import Leaning, chosen, leaning_of, pace_factor
from heathdrop.sizing.tackle import Holding, TackleFit, holding_of
from heathdrop.sizing.targets import Targets, targets_for
from heathdrop.sizing.usual import Weights, weights_for
from heathdrop.units import feet, metres

#: No band of paces is narrower than this, ft/s.
NARROWEST_FT_S = 0.05
#: No cast is reckoned shorter, m.
LEAST_CAST_M = 4.0
#: Depth (ft) beyond everything: no stems there.
NOWHERE_FT = 1e6
#: Settings remembered.
SETTINGS_KEPT = 64


@dataclass(frozen=True)
class Setting:
    """Everything that rating a family's rig needs besides the rig: the water, the cast, what is wanted, what
    the schools hold, which weights are usual, which trailers liked and how rigs with them are dressed."""

    catalog: Catalog
    scenario: Scenario
    family: Family
    targets: Targets
    water: Water
    line: Line
    cast: Cast
    stand: Stand
    leaning: Leaning
    weights: Weights
    liking: Liking
    dresses: dict[str, Dress]
    facts: Facts
    leans: dict[str, float]
    holding: Holding
    mat_factor: float = 1.0
    knowledge: Knowledge = UNTAUGHT
    thrown: Thrown | None = None
    launch: Launch | None = None
    #: Rigs as worked out in water of this temperature, shared by all its settings.
    worked: ByRig[RigInWater] = field(default_factory=ByRig, compare=False, repr=False)
    #: The setting's own: another line, water or wish is another setting.
    remembers: Remembered = field(default_factory=Remembered, init=False, compare=False, repr=False)

    @property
    def temperature_f(self) -> float:
        """Water temperature, °F."""
        return self.scenario.conditions.water_temp_f

    @property
    def cover_top_ft(self) -> float:
        """Depth (ft) from which a rig is in the cover; far below everything where there is none."""
        c = self.scenario.conditions
        top = top_ft(self.catalog, self.stand, c.bottom_depth_ft, c.cover.top_depth_ft)
        return NOWHERE_FT if top is None else top

    @property
    def open_share(self) -> float:
        """How far the holes that are fished let a dropped lure by the cover, 0 to 1."""
        hole = self.scenario.conditions.cover.hole_ft
        if hole is None:
            return 0.0
        narrow, wide = self.catalog.cover.stems.hole_ft
        return 1.0 - fading(hole, narrow, wide)

    @property
    def passing_loss(self) -> float | None:
        """Share of the fish that a lure swum beside the cover loses; None where there is no way past it."""
        c = self.scenario.conditions
        if c.cover.edge:
            return 0.0
        if not c.cover.row.beside:
            return None
        inside = c.under_cover if c.cover.row.does == "wood" else 1.0
        return self.catalog.judgement.fit.passing_loss * inside

    @property
    def scatter(self) -> Scatter:
        """How far hand and boat scatter a cast here."""
        return scatter_of(self.catalog, self.scenario, self.knowledge)

    def lure(self, rig: Rig) -> Lure:
        """The rig in this water, worked out once for each rig asked."""
        return self._worked_out(rig).lure

    def areas(self, rig: Rig) -> Areas:
        """The rig's areas part by part in this water, worked out with it."""
        return self._worked_out(rig).areas

    def spread(self, rig: Rig) -> Spread:
        """How well those areas are known, worked out with them."""
        return self._worked_out(rig).spread

    @cached_property
    def bearing(self) -> Bearing:
        """What bulk, skirt and line make of a head here."""
        swum, c = self.family.work == "swim", self.scenario.conditions
        works_ft = sum(self.targets.depth_ft) / 2.0 if swum else c.works_ft
        return Bearing(self.catalog, self.family, self.line, metres(works_ft), self.lure)

    def as_it_fishes_oz(self, rig: Rig) -> float:
        """The weight (oz) of a rig's head that is held against the usual ones: as it fishes, or its ounces
        where those are meant."""
        if self.weights.ounces:
            return rig.head_oz
        lure = self.lure(rig)
        return self.bearing.head_oz(rig.head_oz, lure.net_weight_n, self.bearing.holds_up_m2(lure))

    def cast_for(self, rig: Rig) -> Cast:
        """The cast as far as this rig flies; a pitch is a pitch."""
        if self.thrown is None or self.launch is None:
            return self.cast
        return self.remembers.casts.of(rig, self._flown)

    def _flown(self, rig: Rig) -> Cast:
        assert self.launch is not None
        assert self.thrown is not None
        lure = self.lure(rig)
        away = flown_m(
            self.launch, self.thrown, lure.mass_kg, air_drag_kg_m(self.catalog, lure.run_drag_area_m2)
        )
        return replace(self.cast, distance_m=max(LEAST_CAST_M, away))

    def _worked_out(self, rig: Rig) -> RigInWater:
        return self.worked.of(rig, self._work_out)

    def _work_out(self, rig: Rig) -> RigInWater:
        areas = areas_of(self.catalog, rig, self.temperature_f)
        return RigInWater(
            areas=areas,
            lure=lure_of(self.catalog, rig, self.water.density_kg_m3, self.temperature_f, areas),
            spread=spread_of(self.catalog, rig, self.temperature_f, areas),
        )

    def odds(
        self,
        rig: Rig,
        lure: Lure,
        tuned: Tuned,
        least_way_ft: float = 0.0,
        stand: Stand | None = None,
        beside: bool = False,
        work: str = "",
    ) -> CoverOdds:
        """Odds in this water's cover for a rig at a setting, what was learned of its mat included. Only where
        its path is in the cover does it foul or hang; ``beside`` it passes along it.

        ``work`` is what the hands do with it (its family's, unless said), ``least_way_ft`` the least way swum
        in it; ``stand`` another way into the same cover.
        """
        hand, work = self.catalog.judgement.hand, work or rig.family.work
        met = self.catalog.cover.wood.beside if beside else 1.0
        sunk = max(0.0, feet(tuned.start_depth_m) - self.cover_top_ft)
        swum = hand.through_cover * feet(self.cast_for(rig).distance_m) * tuned.in_cover * met
        let_in = work in ("drop", "hang")
        way = hand.hopped_ft if let_in else max(swum, least_way_ft)
        odds = cover_odds(
            self.catalog,
            rig,
            net_weight_n=lure.net_weight_n,
            stand=stand or self.stand,
            fall_in_ft=sunk * (1.0 - self.open_share) if let_in else sunk,
            swim_in_ft=way,
            mat_factor=self.mat_factor,
            touching=tuned.in_cover * met if work == "swim" else 1.0,
        )
        if let_in and self.open_share:
            odds = replace(odds, passes=1.0 - (1.0 - odds.passes) * (1.0 - self.open_share))
        return odds

    @property
    def near_floor(self) -> float:
        """How far the fish are met by work on the floor, 0 to 1; on a bluff's ledges above its foot the more
        part of them, for a ledge is not everywhere."""
        c, fit = self.scenario.conditions, self.catalog.judgement.fit
        near = near_floor(c.bottom_depth_ft - c.fish_depth_ft, c.floor_reach_ft)
        return near if c.works_ft == c.bottom_depth_ft else max(near, fit.on_ledges)

    def met_on_floor(self, fall_ft_s: float) -> float:
        """Worth of the time among the fish for a lure worked on the floor, or sent down to it at this rate
        (ft/s) past fish that stand above it and lifted back under a roof, 0 to 1."""
        c, fit = self.scenario.conditions, self.catalog.judgement.fit
        near = self.near_floor
        if self.family.work == "drop":
            top, low = self.targets.depth_ft
            near += (1.0 - near) * seconds_worth(self.catalog, (low - top) / max(fall_ft_s, 0.1))
            if c.cover.kind in ROOFS:
                near = max(near, fit.under_roof)
        return fit.met_outside + (1.0 - fit.met_outside) * near

    def tackle(self, rig: Rig, lure: Lure) -> TackleFit:
        """How line and rod suit a rig here."""
        return self.holding.fit(rig.head_oz, lure.mass_kg)

    def felt(self, net_weight_n: float, line: Line) -> float:
        """Chance that a lure of this weight is felt to land or tick on this line, 0 to 1."""
        touch = self.remembers.touch.get(line)
        if touch is None:
            c, hand = self.scenario.conditions, self.catalog.judgement.hand
            touch = self.remembers.touch[line] = touch_of(
                self.catalog,
                line,
                water=self.water,
                depth_m=metres(c.bottom_depth_ft),
                distance_m=hand.felt_at * self.cast.distance_m,
                wind_mph=c.wind_mph,
            )
        return touch.felt(net_weight_n)


@dataclass(frozen=True)
class _Wanted:
    """What a family's setting at a water has whatever it is fished with: one for all lines and rods. The
    catalogue sees to it that no rule or school behind it asks about the gear."""

    catalog: Catalog
    activity: float
    leaning: Leaning
    held: bool
    stand: Stand
    targets: Targets
    pulls: dict[str, float]
    dresses: dict[str, Dress]


#: Temperatures for which rigs are kept worked out; a rig hangs on nothing else of the water.
TEMPERATURES_KEPT = 12
LURES: Memory[tuple[Catalog, ByRig[RigInWater]]] = Memory(TEMPERATURES_KEPT)


SETTINGS: Memory[Setting] = Memory(SETTINGS_KEPT)
WANTED: Memory[_Wanted] = Memory(SETTINGS_KEPT)


def setting_of(catalog: Catalog, scenario: Scenario, knowledge: Knowledge = UNTAUGHT) -> Setting:
    """The setting of a checked scenario for the first of its families (remembered: call, sizing, doubts and
    changes all ask for it).

    Raises BadInput for an unknown cover, line, family or school.
    """
    # A setting that is kept keeps its catalogue, so no other one has its identity meanwhile.
    key = id(catalog), scenario, knowledge
    return SETTINGS.all_of([key], lambda _: [_setting_of(catalog, scenario, knowledge)])[0]


def _wanted_of(catalog: Catalog, scenario: Scenario, knowledge: Knowledge, family: Family) -> _Wanted:
    c = scenario.conditions
    key = id(catalog), c, scenario.schools, scenario.wanted, family.id, knowledge

    def find(_: list[int]) -> list[_Wanted]:
        own, wanted = knowledge.own_fish(), scenario.wanted
        activity = judge(catalog, c, own)
        facts = {**facts_of(scenario, activity.value), "family": family.id, "work": family.work}
        leaning = leaning_of(catalog, scenario.schools, facts)
        usual = leaning_of(catalog, (), facts) if scenario.schools else leaning
        targets = targets_for(catalog, c, activity, wanted, leaning)
        (slow, fast), (low, high) = targets.pace_ft_s, targets.fall_ft_s
        return [
            _Wanted(
                catalog,
                activity=activity.value,
                leaning=leaning,
                held=leaning.band(family.id) != usual.band(family.id),
                stand=Stand(
                    kind=c.cover.kind,
                    density=c.cover.stands,
                    texture=c.cover.texture,
                    thickness_in=c.cover.thickness_in,
                    detail=c.cover.detail,
                    lobbed=leaning.lobbed,
                ),
                targets=replace(
                    targets,
                    pace_ft_s=wanted.pace_ft_s or (slow * own.pace, fast * own.pace),
                    fall_ft_s=wanted.fall_ft_s or (low * own.fall, high * own.fall),
                ),
                pulls=pulls_of(catalog, facts),
                dresses=dresses_of(catalog, facts, family, leaning),
            )
        ]

    return WANTED.all_of([key], find)[0]


def _setting_of(catalog: Catalog, scenario: Scenario, knowledge: Knowledge) -> Setting:
    c, gear = scenario.conditions, scenario.gear
    family = catalog.pick(catalog.families, "families", scenario.families[0])
    chosen(catalog, scenario.schools)
    wanted = _wanted_of(catalog, scenario, knowledge, family)
    stand, leaning, targets = wanted.stand, wanted.leaning, wanted.targets
    works_at = targets.depth_ft[1] if family.work == "swim" else c.works_ft
    leans = leans_of(c, wanted.activity, gear.line, works_at)
    line = line_of(catalog, gear.line, knowledge)
    thrown, launch = launched(catalog, scenario, line, family.work == "drop")
    mat_factor = knowledge.mat_factor(stand.texture or catalog.cover.mats.usual_texture)
    worked = LURES.all_of([(id(catalog), c.water_temp_f)], lambda _: [(catalog, ByRig())])[0][1]
    return Setting(
        catalog=catalog,
        scenario=scenario,
        family=family,
        targets=targets,
        water=water_at(c.water_temp_f),
        line=line,
        cast=cast_of(catalog, scenario, pitched=family.work == "drop", floored=family.work != "swim"),
        stand=stand,
        leaning=leaning,
        weights=weights_for(
            catalog,
            family,
            targets=targets,
            c=c,
            stand=stand,
            leaning=leaning,
            mat_factor=mat_factor,
            shift=weight_shift(catalog, family, leans) + math.log(knowledge.own_fish().head),
            held=wanted.held,
        ),
        liking=liking_of(catalog, wanted.pulls, family, leaning, leans),
        leans=leans,
        holding=holding_of(catalog, family, c, gear),
        dresses=wanted.dresses,
        facts={**facts_of(scenario, wanted.activity), "family": family.id, "work": family.work},
        mat_factor=mat_factor,
        knowledge=knowledge,
        thrown=thrown,
        launch=launch,
        worked=worked,
    )


def reachable_paces(
    catalog: Catalog, targets: Targets, inches_per_turn: float, factor: float = 1.0
) -> tuple[float, float]:
    """The pace band (ft/s) that the fish's mood allows and the reel can turn."""
    slow, fast = (turns * inches_per_turn / 12.0 for turns in catalog.judgement.hand.turns_per_s)
    low = min(max(factor * targets.pace_ft_s[0], slow), fast)
    return low, max(low + NARROWEST_FT_S, min(factor * targets.pace_ft_s[1], fast))


def limits_for(setting: Setting) -> Limits:
    """The paces that hand, reel and the family's blade can do, those that the mood likes and what leaving
    them costs, and how deep the retrieve may start."""
    family, numbers = setting.family, setting.catalog.judgement
    liked_slow, liked_fast = mood_paces(setting)
    slowest, fastest = (
        t * setting.scenario.gear.reel.inches_per_turn / 12.0 for t in numbers.hand.turns_per_s
    )
    slowest = min(max(slowest, family.least_pace_ft_s), fastest - NARROWEST_FT_S)
    clear = 0.0 if family.work != "swim" else numbers.hand.off_bottom_ft
    deepest = max(0.2, setting.scenario.conditions.bottom_depth_ft - clear)
    wary, willing = numbers.fit.quicker_sigma
    quicker = wary + (willing - wary) * setting.targets.activity.value / 4.0
    return Limits(
        slowest_m_s=metres(slowest),
        fastest_m_s=metres(fastest),
        deepest_start_m=metres(deepest),
        haze_m=0.0,
        liked_slow_m_s=metres(liked_slow),
        liked_fast_m_s=metres(liked_fast),
        slower=numbers.fit.slower_sigma,
        quicker=quicker,
        distance_m=setting.cast.distance_m,
    )


def mood_paces(setting: Setting) -> tuple[float, float]:
    """The paces (ft/s) that the fish's mood asks of the family, its blade not asked."""
    inches_per_turn = setting.scenario.gear.reel.inches_per_turn
    factor = setting.family.pace_factor * pace_factor(
        setting.catalog, setting.scenario.schools, setting.family.id
    )
    if setting.scenario.wanted.pace_ft_s is not None:
        factor = 1.0
    return reachable_paces(setting.catalog, setting.targets, inches_per_turn, factor)
