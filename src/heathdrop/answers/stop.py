"""A stop of a day and the rods to hand: what a rig on a rod is worth there."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from heathdrop import catalog as catalogue
from heathdrop.advice.call import points_of
from heathdrop.advice.linesay import offered
from heathdrop.answers.own import Own
from heathdrop.answers.water import call_of, first_belief, placed
from heathdrop.conditions.gear import Gear, Reel
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.gear import Rod as GearRod
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Rated, rate_each

Values = NDArray[np.float64]
#: Families asked at each stop.
FAMILIES = 4
#: A family that the rules put under this share of the best one is not rated, but taken to fit half.
HOPELESS, HALF_FIT = 0.45, 0.5
#: The parts of a stop whose fish are not known in depth.
THIRDS = 3
#: Ratings remembered, so that a changed stop asks only for itself.
RATED: Memory[Rated] = Memory(16384)
#: The reel where none is named.
DEFAULT_REEL = Reel()


@dataclass(frozen=True)
class Stop:
    """A stop of the day: its water (line and reel are the rods'), minutes, how much it matters."""

    name: str
    scenario: Scenario
    minutes: float = 60.0
    importance: float = 1.0
    position: tuple[float, float] | None = None


@dataclass(frozen=True)
class Rod:
    """A rod to hand: its name, line and reel, and what is written on it where that is known."""

    name: str
    line: LineSet
    reel: Reel = DEFAULT_REEL
    rated: GearRod | None = None

    def on(self, gear: Gear) -> Gear:
        """The gear at a stop with this rod in hand."""
        return replace(gear, line=self.line, reel=self.reel, rod=self.rated)


@dataclass(frozen=True)
class Part:
    """A part of a stop's fish: its share of them, the water with the fish at its depth, from where to where
    it reaches (ft)."""

    share: float
    scenario: Scenario
    top_ft: float
    low_ft: float


@lru_cache(maxsize=256)
def parts_of(water: Scenario) -> tuple[Part, ...]:
    """The parts of a water's fish, from the surface down: one where their depth is known or
    one lure passes them together; else its thirds by chance, for a rod that serves fish up in the water does
    not serve those at its foot. Raises BadInput."""
    water = placed(water)
    c = water.conditions
    if c.fish_span_ft is None:
        return (Part(1.0, water, c.fish_depth_ft, c.fish_depth_ft),)
    belief, reach = first_belief(water), catalogue.load().search.reach
    passed = np.concatenate([[0.0], np.cumsum(belief.by_depth)])
    at = np.interp(np.arange(2 * THIRDS + 1) / (2.0 * THIRDS), passed, belief.edges_ft)
    at = np.clip(at, *c.fish_span_ft)
    depths = [round(2.0 * float(ft)) / 2.0 for ft in at[1::2]]
    if min(b - a for a, b in zip(depths, depths[1:], strict=False)) < reach.above_ft + reach.below_ft:
        # One path is within reach of two of them.
        return (Part(1.0, water, *c.fish_span_ft),)
    parts = []
    for k, depth in enumerate(depths):
        at_depth = replace(c, fish_depth_ft=depth, fish_span_ft=None)
        there = replace(water, conditions=at_depth)
        parts.append(Part(1.0 / THIRDS, there, top_ft=float(at[2 * k]), low_ft=float(at[2 * k + 2])))
    return tuple(parts)


def shares_of(water: Scenario) -> Values:
    """The shares of a water's fish that its parts hold; they sum to 1."""
    return np.array([part.share for part in parts_of(water)])


def suited(rig: Rig, reel: Reel) -> Rod:
    """A rod with the line that suits a rig's family."""
    material, test_lb = offered(rig.family)
    return Rod("", LineSet(material=material, test_lb=float(test_lb)), reel)


def rated_in(water: Scenario, rig: Rig, rod: Rod, own: Own) -> Rated:
    """A rig on a rod's line rated in a water (remembered)."""
    return _rated_in(water, [rig], rod, own)[0]


def _rated_in(water: Scenario, rigs: Sequence[Rig], rod: Rod, own: Own) -> list[Rated]:
    """Rigs on one rod's line rated in a water, in their order, each as if it alone were asked
    (remembered)."""
    by_index: dict[int, Rated] = {}
    for family in dict.fromkeys(rig.family.id for rig in rigs):
        indices = [k for k, rig in enumerate(rigs) if rig.family.id == family]
        scenario = replace(water, gear=rod.on(water.gear), families=(family,))
        setting = setting_of(catalogue.load(), scenario, own.learned)

        def find(which: list[int], indices: list[int] = indices, setting: Setting = setting) -> list[Rated]:
            return rate_each(setting, [own.learned.applied(rigs[indices[n]]) for n in which])

        keys = [(scenario, name_of(rigs[k]), own.learned) for k in indices]
        by_index.update(zip(indices, RATED.all_of(keys, find), strict=True))
    return [by_index[k] for k in range(len(rigs))]


def worths_of(stop: Stop, rigs: Sequence[Rig], rod: Rod, own: Own) -> Values:
    """What rigs on a rod are worth to each part of a stop's fish (rigs, parts), 0 to 1: their fit there, less
    where the rules put their family behind the best one, next to nothing on a rod or a line that cannot bear
    them."""
    parts, unborne = parts_of(stop.scenario), catalogue.load().search.plan.unborne
    worths = np.zeros((len(rigs), len(parts)))
    for n, part in enumerate(parts):
        for k, rated in enumerate(_rated_in(part.scenario, rigs, rod, own)):
            strength = 1.0 if rated.strong_enough else unborne
            behind = math.exp(_behind(part.scenario, rated.rig.family.id, own))
            worths[k, n] = strength * rated.fits.score * behind
    return worths


def worth_at(stop: Stop, rig: Rig, rod: Rod, own: Own) -> float:
    """What a rig on a rod is worth to all of a stop's fish (0 to 1)."""
    return float(worths_of(stop, [rig], rod, own)[0] @ shares_of(stop.scenario))


def hopeless_at(stop: Stop, family: str, own: Own) -> Values | None:
    """What a family's rigs are taken to be worth to each part, unrated, where the rules put it so far behind
    that it hardly serves any of them; None where they are to be rated."""
    most = np.exp([_behind(part.scenario, family, own) for part in parts_of(stop.scenario)])
    return HALF_FIT * most if most.max() < HOPELESS else None


@lru_cache(maxsize=4096)
def _behind(water: Scenario, family: str, own: Own) -> float:
    """How far (log) the rules put a family behind the one that stands first in this water (remembered)."""
    setting = setting_of(catalogue.load(), replace(water, families=(family,)), own.learned)
    weighed, school = points_of(
        catalogue.load(), setting.facts, setting.scenario, setting.family, setting.leaning
    )
    called = call_of(replace(water, families=()), own, places=FAMILIES).standings
    # The one that the rules put first, whether or not its rig yields to another here.
    most = max(called, key=lambda s: s.fit * math.exp(s.points)).points
    return min(0.0, sum(p for _, p in weighed) + school - most)
