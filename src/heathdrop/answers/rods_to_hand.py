"""The rods to hand at a stop: each rig sized there, the casts it can make, what they cover."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.advice.call import points_of
from heathdrop.answers.own import Own
from heathdrop.answers.thrown import suit_of
from heathdrop.conditions.cover import ROOFS
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast, CastResult, fly
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.physics.water import Water
from heathdrop.search.belief import Belief, pace_of
from heathdrop.search.coverage import Candidate, floor_seconds, passed_s, seconds_within
from heathdrop.sizing.hour import cast_s
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.program import program_of, usual_way
from heathdrop.sizing.setting import limits_for, setting_of
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.sizing.tune import COVERING
from heathdrop.sizing.ways import PLAYED
from heathdrop.units import feet, metres

#: Seconds between two samples of a cast that is looked at.
SAMPLE_S = 0.25
#: Casts remembered, some kilobytes each.
FLOWN: Memory[CastResult] = Memory(1000)
#: How near a count (s) and a pace (ft/s) are to those that a rig was sized for to be the same.
AS_SIZED_S, AS_SIZED_FT_S = 0.05, 0.02
#: Counts below this are said to the half second.
HALF_SECONDS_BELOW = 4.0


@dataclass(frozen=True)
class CastTold:
    """A cast that was made, as told: a rig, its count (s) and pace (ft/s), what it came to and when."""

    rig: Rig
    count_s: float
    pace_ft_s: float
    outcome: str
    at_s: float | None = None
    cadence: str = ""


class RodsToHand:
    """Casts of the rigs to hand, simulated once each; ``called`` are sizings of this water that stand
    already, whose first rigs need not be sized again."""

    def __init__(
        self,
        scenario: Scenario,
        own: Own,
        belief: Belief,
        gears: Mapping[str, Gear] | None = None,
        called: Sequence[Sizing] = (),
    ) -> None:
        self.scenario, self.own, self.belief = scenario, own, belief
        self.gears = gears or {}
        self.catalog = catalogue.load()
        self._sized = {s.rigs[0].key: (s, s.rigs[0]) for s in called if s.rigs[0].key not in self.gears}
        self._flown: dict[tuple[str, float, float, str], CastResult] = {}
        self._of: dict[int, CastResult] = {}
        self._off_ft: dict[str, float] = {}
        self._finer: dict[str, float] = {}
        self._points: dict[str, float] = {}
        self._best_points = 0.0
        self._fouled: dict[str, list[bool]] = {}

    def learn(self, casts: Sequence[CastTold], hand: Sequence[Rig]) -> None:
        """Take in how often each rig fouled or hung, and the points of the best family to hand."""
        for one in casts:
            self._fouled.setdefault(self.key(one.rig), []).append(OUTCOME[one.outcome].held)
        self._best_points = max((self.points(rig) for rig in hand), default=0.0)

    def points(self, rig: Rig) -> float:
        """The rules' points for a rig's family here."""
        family = rig.family
        if family.id not in self._points:
            sizing, _ = self.sized(rig)
            weighed, school = points_of(self.catalog, sizing.facts, sizing.scenario, family)
            self._points[family.id] = sum(p for _, p in weighed) + school
        return self._points[family.id]

    def suit(self, rig: Rig) -> float:
        """What these fish make of a rig, whatever its depth and cover, 0 to 1: its fits without those two,
        less where the rules put its family behind the best one to hand, next to nothing on a line or rod that
        cannot bear it."""
        _, rated = self.sized(rig)
        behind = min(0.0, self.points(rig) - self._best_points)
        strength = 1.0 if rated.strong_enough else self.catalog.search.plan.unborne
        tired = self.catalog.search.place.fouled_again if self.fouls(rated.key) else 1.0
        return suit_of(self.catalog, rated) * math.exp(behind) * tired * strength

    def fouls(self, key: str) -> bool:
        """Whether a rig fouled or hung on two of its last three casts."""
        return sum(self._fouled.get(key, [])[-3:]) >= 2

    def cut(self, rig: Rig) -> float:
        """What fouling and hanging leave of a rig's cast, the odds as this cover has taught them."""
        _, rated = self.sized(rig)
        place, seen = self.catalog.search.place, self._fouled.get(rated.key, [])
        odds = 1.0 - (1.0 - rated.cover.fouls) * (1.0 - rated.cover.hangs)
        odds = (place.foul_prior * odds + sum(seen)) / (place.foul_prior + len(seen))
        return 1.0 - place.fouled_costs * odds

    def _floor(self, rig: Rig) -> tuple[np.ndarray, float]:
        """Seconds among the fish, and minutes, of a cast that is worked on the floor or dropped."""
        sizing, rated = self.sized(rig)
        c, hand, fit = sizing.scenario.conditions, self.catalog.judgement.hand, self.catalog.judgement.fit
        dropped = rig.family.work == "drop"
        worked = (
            hand.worked_s if dropped else hand.worked_share * rated.cast.distance_m / rated.tuned.pace_m_s
        )
        held = fit.under_roof if dropped and c.cover.kind in ROOFS else 0.0
        seconds = floor_seconds(
            self.catalog,
            self.belief.edges_ft,
            floor_ft=feet(rated.tuned.start_depth_m),
            reach_ft=c.floor_reach_ft,
            worked_s=worked,
            fall_ft_s=rated.fall_ft_s if dropped else None,
            held=held,
        )
        return seconds, cast_s(self.catalog, sizing, rated) / 60.0

    def key(self, rig: Rig) -> str:
        """The rig's one name."""
        return self.sized(rig)[1].key

    def sized(self, rig: Rig) -> tuple[Sizing, Rated]:
        """The rig rated for this water at its own best."""
        name = name_of(rig).text()
        if name not in self._sized:
            alone = replace(self.scenario, families=(rig.family.id,), gear=self.gear_of(name))
            sizing = size(self.catalog, alone, [rig], self.own.learned)
            self._sized[name] = sizing, sizing.rigs[0]
        return self._sized[name]

    def rated(self, name: str) -> Rated:
        """A rig that was sized, by its name."""
        return self._sized[name][1]

    def gear_of(self, name: str) -> Gear:
        """The line and reel that a rig is on, by the rig's name."""
        return self.gears.get(name, self.scenario.gear)

    def runs_ft(self, cast: Candidate) -> float:
        """The mean depth of a cast's work as sheet and plan tell it, with what is known to run off."""
        return self._flown_ft(cast) + self._finely_ft(cast.rig) + self._off_ft.get(cast.rig, 0.0)

    def _flown_ft(self, cast: Candidate) -> float:
        return feet(float(self._of[id(cast)].worked().mean()))

    def _finely_ft(self, name: str) -> float:
        """What a rig's sized cast is told to run deeper than the search's own fidelity has it."""
        if name not in self._finer:
            rated = self.rated(name)
            way = rated.cadence.way if rated.cadence is not None else ""
            sized = self.cast(rated.rig, rated.countdown_s, feet(rated.tuned.pace_m_s), way)
            self._finer[name] = feet(rated.tuned.mean_m) - self._flown_ft(sized)
        return self._finer[name]

    def shift(self, cast: CastTold) -> None:
        """What ran high or low is taken to run so from now on."""
        off = OUTCOME[cast.outcome].ran_off * self.catalog.search.reach.ran_off_ft
        if off:
            key = self.key(cast.rig)
            self._off_ft[key] = self._off_ft.get(key, 0.0) + off

    def casts(self, rig: Rig) -> list[Candidate]:
        """Every cast of a rig that is worth telling apart: its counts down to each slice at each pace."""
        sizing, rated = self.sized(rig)
        cadence = rated.cadence.way if rated.cadence is not None else ""
        sized = self.cast(rig, rated.countdown_s, feet(rated.tuned.pace_m_s), cadence)
        if rig.family.work != "swim":
            return [sized]
        setting = setting_of(self.catalog, sizing.scenario, self.own.learned)
        limits = limits_for(setting)
        slow, fast = (
            t * sizing.scenario.gear.reel.inches_per_turn / 12.0
            for t in self.catalog.judgement.hand.turns_per_s
        )
        wanted = [
            min(max(p, slow, rig.family.least_pace_ft_s), fast) for p in self.catalog.search.paces.usual_ft_s
        ]
        paces = {pace_of(self.catalog, p): p for p in wanted}
        depths = [0.0, *(m for m in self.belief.edges_ft[1:] if metres(m) <= limits.deepest_start_m + 1e-9)]
        counts = dict.fromkeys(
            _count_said(time_to_depth_s(rated.lure, metres(d), sizing.line, sizing.water)) for d in depths
        )
        steady = [self.cast(rig, count, pace) for count in counts for pace in paces.values()]
        return [sized, *(cast for cast in steady if cast.setting != sized.setting)]

    def cast(self, rig: Rig, count_s: float, pace_ft_s: float, cadence: str = "") -> Candidate:
        """One cast at a count and a pace, reeled steadily or in a ``cadence``."""
        sizing, rated = self.sized(rig)
        if cadence and cadence not in PLAYED:
            raise BadInput("casts.cadence", cadence, "one of " + ", ".join(PLAYED))
        key = rated.key, round(count_s, 2), round(pace_ft_s, 3), cadence
        if key not in self._flown:
            way = cadence or usual_way(self.catalog, sizing, rated)
            swum = rig.family.work == "swim" and not cadence
            program = (
                (
                    Phase("fall", slack=True, for_s=count_s),
                    Phase("retrieve", speed_m_s=metres(pace_ft_s), take_up=True),
                )
                if swum
                else program_of(sizing, rated, way)
            )
            self._flown[key] = _flown(rated.lure, sizing.line, sizing.water, rated.cast, tuple(program))
        result = self._flown[key]
        off = self._off_ft.get(rated.key, 0.0)
        if rated.work in ("swim", "hang"):
            seconds = seconds_within(self.catalog, result, pace_ft_s, self.belief.edges_ft, off)
            minutes = (result.time_s[-1] + self.catalog.search.minutes.between_casts_s) / 60.0
        else:
            seconds, minutes = self._floor(rig)
        candidate = Candidate(
            rig=rated.key,
            family=rig.family.id,
            head=(rig.family.id, rig.head_oz),
            trailer=(rig.trailer.id, rig.trailer_length_in),
            count_s=round(count_s, 2),
            pace_ft_s=round(pace_ft_s, 3),
            seconds=seconds,
            minutes=float(minutes),
            path_s=result.time_s,
            path_ft=feet(1.0) * result.depth_m + off,
            suit=self.suit(rig),
            gets_in=rated.cover.passes,
            cut=self.cut(rig),
            cadence=cadence,
            sized=self._is_sized(rated, count_s, pace_ft_s, cadence),
        )
        self._of[id(candidate)] = result
        return candidate

    @staticmethod
    def _is_sized(rated: Rated, count_s: float, pace_ft_s: float, cadence: str) -> bool:
        """Whether a cast is the one that its rig was sized for, as near as it is told and comes back."""
        usual = rated.cadence.way if rated.cadence is not None else ""
        near = abs(count_s - rated.countdown_s) < AS_SIZED_S
        return near and abs(pace_ft_s - feet(rated.tuned.pace_m_s)) < AS_SIZED_FT_S and cadence == usual

    def passed(self, cast: Candidate) -> np.ndarray:
        """Seconds of a cast inside each slice."""
        return passed_s(self._of[id(cast)], self.belief.edges_ft)


def _flown(lure: Lure, line: Line, water: Water, cast: Cast, program: tuple[Phase, ...]) -> CastResult:
    """A cast as search looks at it, remembered: clarity, light, the fish's depth and what was answered do not
    change how a lure runs."""

    def fresh(_: list[int]) -> list[CastResult]:
        return [fly(lure, line, water, cast, program, fidelity=COVERING, sample_s=SAMPLE_S)]

    return FLOWN.all_of([(lure, line, water, cast, program)], fresh)[0]


def _count_said(seconds: float) -> float:
    """A count as a voice counts it: halves while they matter, then whole seconds."""
    return round(2.0 * seconds) / 2.0 if seconds < HALF_SECONDS_BELOW else float(round(seconds))
