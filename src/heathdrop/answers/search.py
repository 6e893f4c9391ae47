"""Where to cast next: the belief over this water, the casts that the rods to hand can make, their order."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.advice.call import points_of
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.water import call_of, first_belief, placed
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PRICES
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.conditions.scenario import ROOFS, Scenario
from heathdrop.errors import BadInput, require_between
from heathdrop.physics.cast import CastResult, fly
from heathdrop.physics.fall import depth_after_s, time_to_depth_s
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.search.belief import PACES, Belief, bite_per_s, pace_of
from heathdrop.search.coverage import Candidate, floor_seconds, passed_s, seconds_within
from heathdrop.search.order import (
    Answered,
    Next,
    Place,
    nobody_after,
    order_of,
    told_by,
    tried,
)
from heathdrop.sizing.activity import judge
from heathdrop.sizing.hour import cast_s
from heathdrop.sizing.program import program_of, usual_way
from heathdrop.sizing.setting import limits_for, setting_of
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.sizing.tune import COVERING
from heathdrop.sizing.ways import PLAYED, WAY
from heathdrop.units import feet, metres, ounces_as_written

#: Seconds between two samples of a cast that is looked at.
SAMPLE_S = 0.25
#: Counts below this are said to the half second.
HALF_SECONDS_BELOW = 4.0
#: The water that a cast is for: the slices that hold this share of what it adds.
FOR_SHARE = 0.6
#: Parts of a fit that say what fish make of a rig: depth and pace are the cast's, cover is in the odds.
SUITS = ("fall", "action", "profile", "weight", "touch", "tackle")
#: Casts given and answers told at most.
MOST_CASTS = 60


@dataclass(frozen=True)
class Told:
    """A cast that was made, as told: a rig, its count (s) and pace (ft/s), what it came to and when."""

    rig: Rig
    count_s: float
    pace_ft_s: float
    outcome: str
    at_s: float | None = None
    cadence: str = ""


@dataclass(frozen=True)
class Step:
    """A cast of the order: the seconds that it spends in each slice, its reason, its middle depth (ft), the
    way that it goes to the cover, the lane it lies in (``the same`` as the one before, or ``another``), the
    rod it is on (empty: none is named)."""

    next: Next
    seconds: tuple[float, ...]
    turns_per_s: float
    why: str
    runs_ft: float
    way: str = "open"
    direction: str = "the same"
    rod: str = ""


@dataclass(frozen=True)
class Search:
    """The answer: where the fish are thought to be, the order of casts, how much was tried, what was learned
    about the water on the way, the chance that nobody is here, the word to move on (None: stay)."""

    scenario: Scenario
    belief: Belief
    steps: tuple[Step, ...]
    tried: float
    learned: tuple[str, ...]
    nobody: float = 0.0
    move_on: str | None = None


def search_water(
    scenario: Scenario,
    own: Own = STRANGER,
    rods: Sequence[Rig] = (),
    told: Sequence[Told] = (),
    limit: int = 0,
    gears: Mapping[str, Gear] | None = None,
) -> Search:
    """The next casts in this water. ``rods`` are the rigs to hand (the best few of the call when there are
    none), ``told`` the casts made so far, in order; ``gears`` the line and reel that a rig (by its name) is
    on, where it is not the scenario's. Raises BadInput."""
    catalog = catalogue.load()
    limit = limit or catalog.search.grid.casts
    require_between("limit", limit, 1, MOST_CASTS)
    scenario, learned = _corrected(placed(scenario), own, told, gears)
    mood = judge(catalog, scenario.conditions).value
    per_s, first = bite_per_s(catalog, mood), first_belief(scenario)
    bench = Bench(scenario, own, first, gears)
    for one in told:
        bench.shift(one)
    hand = list(rods) or best_few(scenario, own, catalog.search.grid.rods)
    if told and not rods:
        hand = [told[-1].rig, *(r for r in hand if name_of(r) != name_of(told[-1].rig))]
    bench.learn(told, hand)
    casts = [cast for rig in hand for cast in bench.casts(rig)]
    answered = [
        Answered(bench.cast(t.rig, t.count_s, t.pace_ft_s, t.cadence), t.outcome, t.at_s) for t in told
    ]
    belief, place, thrown = first, place_of(catalog, scenario), Counter[Hashable]()
    for one_answer in answered:
        belief = told_by(catalog, belief, per_s, one_answer, place, thrown[one_answer.cast.setting])
        thrown[one_answer.cast.setting] += 1
    nobody = nobody_after(catalog, first, per_s, answered, place)
    before = answered[-1].cast if answered else None
    keys = [bench.key(r) for r in hand]
    if before is not None and bench.fouls(before.rig) and any(c.rig != before.rig for c in casts):
        # Two of its last three casts came back fouled: another rod first.
        casts = [c for c in casts if c.rig != before.rig]
        keys = [k for k in keys if k != before.rig]
    # The same again is a choice only while its rig is to hand.
    if before is not None and before.rig in keys:
        casts = [before, *casts]
    bitten = bool(answered) and OUTCOME[answered[-1].outcome].bitten
    order = order_of(catalog, belief, per_s, casts, before, keys, limit, bitten, place, thrown, nobody)
    covered = sum((a.cast.seconds for a in answered), np.zeros_like(first.cells))
    steps, last = [], before
    for k, one_next in enumerate(order):
        why = _why(one_next, last, covered, per_s, bitten and k == 0)
        passed = tuple(float(v) for v in bench.passed(one_next.cast))
        turns = bench.gear_of(one_next.cast.rig).turns_per_s(one_next.cast.pace_ft_s)
        runs = bench.runs_ft(one_next.cast)
        way = bench.rated(one_next.cast.rig).way
        lane = "another" if one_next.change == "direction" else "the same"
        steps.append(Step(one_next, passed, turns, why, runs, way, lane))
        covered, last = covered + one_next.cast.seconds, one_next.cast
    seen = tried(first, per_s, answered, place)
    opened = order_of(catalog, first, per_s, casts, None, keys, 1, place=place)[0]
    leave = _move_on(catalog, steps[0], opened) if answered and not bitten else None
    return Search(scenario, belief, tuple(steps), seen, tuple(learned), nobody, leave)


def place_of(catalog: Catalog, scenario: Scenario) -> Place:
    """The lanes that casts lie in at a stop, from how far the cast goes and how far a lure is seen."""
    numbers, c = catalog.search.place, scenario.conditions
    low, high = numbers.half_lane_ft
    half = min(high, max(low, numbers.half_lane * c.clarity_ft))
    lanes = round(numbers.arc_rad * numbers.middle * scenario.gear.cast_ft / (2.0 * half))
    return Place(min(numbers.most_lanes, max(1, lanes)), numbers.tires, numbers.holds)


def _move_on(catalog: Catalog, step: Step, opened: Next) -> str | None:
    """The word to leave: the best cast left earns too little beside the first one here (marginal value)."""
    rate, first = step.next.adds / step.next.minutes, opened.adds / opened.minutes
    first *= 1.0 - catalog.search.place.absent
    if rate >= catalog.search.place.move_on * first:
        return None
    share = f"{100 * rate / first:.0f} %"
    return f"Move on: the best cast left here earns {share} a minute of what the first one did."


def best_few(scenario: Scenario, own: Own, count: int) -> list[Rig]:
    """The best rig of each of the families that stand first."""
    if scenario.families:
        found = [
            size(catalogue.load(), replace(scenario, families=(f,)), known=own.learned, tackle=own.tackle)
            for f in scenario.families[:count]
        ]
        return [s.rigs[0].rig for s in found]
    return [s.best.rig for s in call_of(scenario, own, places=count).standings[:count]]


def _corrected(
    scenario: Scenario, own: Own, told: Sequence[Told], gears: Mapping[str, Gear] | None
) -> tuple[Scenario, list[str]]:
    """The water as the answers show it: the bottom found at a count, the top of the cover that was ticked."""
    said = []
    for k, one in enumerate(told):
        if one.outcome not in OUTCOME:
            raise BadInput(f"casts[{k}].outcome", one.outcome, "one of " + ", ".join(OUTCOME))
        require_between(f"casts[{k}].countdown_s", one.count_s, 0.0, 120.0, "s")
        require_between(f"casts[{k}].pace_ft_s", one.pace_ft_s, 0.1, 15.0, "ft/s")
        if one.at_s is None or not OUTCOME[one.outcome].shows:
            continue
        if OUTCOME[one.outcome].shows == "bottom" and scenario.conditions.bottom_ft is not None:
            continue  # it is known better, as it was driven
        require_between(f"casts[{k}].at_s", one.at_s, 0.0, 600.0, "s")
        gear = (gears or {}).get(name_of(one.rig).text(), scenario.gear)
        alone = replace(scenario, families=(one.rig.family.id,), gear=gear)
        setting = setting_of(catalogue.load(), alone, own.learned)
        lure, c = setting.lure(own.learned.applied(one.rig)), scenario.conditions
        if OUTCOME[one.outcome].shows == "bottom":
            deep = feet(depth_after_s(lure, min(one.at_s, one.count_s), setting.line, setting.water))
            bottom = round(2.0 * min(max(deep, 1.0), 60.0)) / 2.0
            if abs(bottom - c.bottom_depth_ft) >= 0.5:
                said.append(f"The bottom is at {bottom:g} ft: it was found at {one.at_s:g} s.")
                scenario = replace(scenario, conditions=_on_bottom(c, bottom))
        elif c.cover.top_depth_ft is not None:
            bench = Bench(scenario, own, first_belief(scenario), gears)
            top = round(2.0 * bench.cast(one.rig, one.count_s, one.pace_ft_s).depth_at(one.at_s)) / 2.0
            top = min(max(top, 0.0), c.bottom_depth_ft)
            said.append(f"The cover comes up to {top:g} ft: its top was ticked at {one.at_s:g} s.")
            scenario = replace(scenario, conditions=replace(c, cover=replace(c.cover, top_depth_ft=top)))
    return scenario, said


def _on_bottom(c, bottom_ft: float):  # type: ignore[no-untyped-def]
    """Conditions over another bottom; what was deeper comes up with it."""
    span = c.fish_span_ft
    top = c.cover.top_depth_ft
    return replace(
        c,
        bottom_depth_ft=bottom_ft,
        fish_depth_ft=min(c.fish_depth_ft, bottom_ft),
        fish_span_ft=None if span is None else (min(span[0], bottom_ft), min(span[1], bottom_ft)),
        cover=replace(c.cover, top_depth_ft=None if top is None else min(top, bottom_ft)),
    )


class Bench:
    """Casts of the rigs to hand, simulated once each."""

    def __init__(
        self, scenario: Scenario, own: Own, belief: Belief, gears: Mapping[str, Gear] | None = None
    ) -> None:
        self.scenario, self.own, self.belief = scenario, own, belief
        self.gears = gears or {}
        self.catalog = catalogue.load()
        self._sized: dict[str, tuple[Sizing, Rated]] = {}
        self._flown: dict[tuple[str, float, float, str], CastResult] = {}
        self._of: dict[int, CastResult] = {}
        self._off_ft: dict[str, float] = {}
        self._points: dict[str, float] = {}
        self._best_points = 0.0
        self._fouled: dict[str, list[bool]] = {}

    def learn(self, told: Sequence[Told], hand: Sequence[Rig]) -> None:
        """Take in how often each rig fouled or hung, and the points of the best family to hand."""
        for one in told:
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
        weights, parts = self.catalog.judgement.fit.weights, rated.fits.parts
        asked = [k for k in parts if k in SUITS]
        mean = sum(weights[k] * math.log(parts[k]) for k in asked) / sum(
            weights[k] for k in asked if k not in PRICES
        )
        behind = min(0.0, self.points(rig) - self._best_points)
        borne = 1.0 if rated.borne else self.catalog.search.plan.unborne
        tired = self.catalog.search.place.fouled_again if self.fouls(rated.key) else 1.0
        return math.exp(mean + behind) * tired * borne

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
            feet(rated.tuned.start_depth_m),
            c.floor_reach_ft,
            worked,
            rated.fall_ft_s if dropped else None,
            held,
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
            found = size(self.catalog, alone, [rig], self.own.learned)
            self._sized[name] = found, found.rigs[0]
        return self._sized[name]

    def rated(self, name: str) -> Rated:
        """A rig that was sized, by its name."""
        return self._sized[name][1]

    def gear_of(self, name: str) -> Gear:
        """The line and reel that a rig is on, by the rig's name."""
        return self.gears.get(name, self.scenario.gear)

    def runs_ft(self, cast: Candidate) -> float:
        """The middle depth of a cast's work, with what is known to run off."""
        return feet(float(self._of[id(cast)].worked().mean())) + self._off_ft.get(cast.rig, 0.0)

    def shift(self, told: Told) -> None:
        """What ran high or low is taken to run so from now on."""
        off = OUTCOME[told.outcome].ran_off * self.catalog.search.reach.ran_off_ft
        if off:
            key = self.key(told.rig)
            self._off_ft[key] = self._off_ft.get(key, 0.0) + off

    def casts(self, rig: Rig) -> list[Candidate]:
        """Every cast of a rig that is worth telling apart: its counts down to each slice at each pace."""
        sizing, rated = self.sized(rig)
        if rig.family.work != "swim":
            return [self.cast(rig, rated.countdown_s, feet(rated.tuned.pace_m_s))]
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
        if rated.cadence is None:
            return steady
        pace = feet(rated.tuned.pace_m_s)
        return [*steady, self.cast(rig, rated.countdown_s, pace, rated.cadence.way)]

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
            self._flown[key] = fly(
                rated.lure,
                sizing.line,
                sizing.water,
                rated.cast,
                program,
                fidelity=COVERING,
                sample_s=SAMPLE_S,
            )
        result = self._flown[key]
        off = self._off_ft.get(rated.key, 0.0)
        if rig.family.work == "swim":
            seconds = seconds_within(self.catalog, result, pace_ft_s, self.belief.edges_ft, off)
            minutes = (result.time_s[-1] + self.catalog.search.minutes.between_casts_s) / 60.0
        else:
            seconds, minutes = self._floor(rig)
        found = Candidate(
            rated.key,
            rig.family.id,
            (rig.family.id, rig.head_oz),
            (rig.trailer.id, rig.trailer_length_in),
            round(count_s, 2),
            round(pace_ft_s, 3),
            seconds,
            float(minutes),
            result.time_s,
            feet(1.0) * result.depth_m + off,
            self.suit(rig),
            rated.cover.passes,
            self.cut(rig),
            cadence,
        )
        self._of[id(found)] = result
        return found

    def passed(self, cast: Candidate) -> np.ndarray:
        """Seconds of a cast inside each slice."""
        return passed_s(self._of[id(cast)], self.belief.edges_ft)


def _count_said(seconds: float) -> float:
    """A count as a voice counts it: halves while they matter, then whole seconds."""
    return round(2.0 * seconds) / 2.0 if seconds < HALF_SECONDS_BELOW else float(round(seconds))


def water_of(step: Next, per_s: float) -> tuple[float, float, float]:
    """The water that a cast is for: its top and low edge (ft) and the chance that lies there."""
    adds = (step.belief.cells * step.cast.taken(per_s)).sum(axis=1)
    best = int(np.argmax(adds))
    low = high = best
    while adds[low : high + 1].sum() < FOR_SHARE * adds.sum():
        up = adds[low - 1] if low > 0 else -1.0
        down = adds[high + 1] if high + 1 < len(adds) else -1.0
        if up >= down:
            low -= 1
        else:
            high += 1
    edges = step.belief.edges_ft
    return float(edges[low]), float(edges[high + 1]), float(step.belief.by_depth[low : high + 1].sum())


def _why(step: Next, before: Candidate | None, covered: np.ndarray, per_s: float, bitten: bool) -> str:
    """The reason in one sentence: what changes, which water it is for, how much of the chance lies there."""
    cast = step.cast
    top, low, chance = water_of(step, per_s)
    edges = step.belief.edges_ft
    inside = (edges[:-1] >= top - 1e-9) & (edges[1:] <= low + 1e-9)
    own = pace_index(cast, step)
    seen = float(covered[inside, own].mean()) if inside.any() else 0.0
    water = f"the {top:.0f} to {low:.0f} ft water"
    state = "is untried" if seen < 1.0 else f"was tried for {seen:.0f} s"
    if bitten and step.change == "none":
        return f"The same again: it was bitten there, and {chance * 100:.0f} % of the chance is in {water}."
    head = f"{ounces_as_written(cast.head[1])} oz {cast.family.replace('-', ' ')}"
    quicker = "Faster" if before and cast.pace_ft_s > before.pace_ft_s else "Slower"
    said = {
        "none": f"Count {cast.count_s:g}" if before is None else f"The same again, count {cast.count_s:g}",
        "direction": f"Another direction, count {cast.count_s:g}",
        "count": f"Count {cast.count_s:g} instead of {before.count_s if before else 0.0:g}",
        "pace": f"{quicker}, {cast.pace_ft_s:.1f} ft/s, count {cast.count_s:g}",
        "way": f"{WAY[cast.cadence or 'steady'].name.capitalize()}, count {cast.count_s:.0f}",
        "trailer": f"Change the trailer to {cast.trailer[0].replace('-', ' ')}, count {cast.count_s:g}",
        "rod": f"Pick up the {head}, count {cast.count_s:g}",
        "retie": f"Tie on the {head}, count {cast.count_s:g}",
    }[step.change]
    slow = PACES[own]
    return f"{said}: {water} {state} at a {slow} pace, and {chance * 100:.0f} % of the chance left is there."


def pace_index(cast: Candidate, step: Next) -> int:
    """The pace that the cast counts fully for."""
    return int(np.argmax(cast.seconds.sum(axis=0)))
