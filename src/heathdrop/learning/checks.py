"""Depth checks to lift, and mats to their half-way weight: one unknown each, on a grid."""

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.learning.observations import DepthCheck, MatCheck, lift_key
from heathdrop.physics.cast import Cast, fly
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import lure_of, spread_of
from heathdrop.physics.rig_name import name_of
from heathdrop.physics.water import water_at
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.tune import BOARD

#: Where the log of a factor is looked for, in prior sigmas of the lift and in logs of the mat's weight.
GRID = np.linspace(-1.5, 1.5, 41)
MAT_GRID = np.linspace(-1.6, 1.6, 161)


@dataclass(frozen=True)
class OneFactor:
    """A learned factor: its median, one sigma of its log, and how many observations taught it."""

    factor: float
    spread: float
    count: int


def _summary(grid: NDArray[np.float64], logs: NDArray[np.float64], count: int) -> OneFactor:
    """Mean and spread of a log density on a grid."""
    weight = np.exp(logs - logs.max())
    weight /= weight.sum()
    mean = float((weight * grid).sum())
    return OneFactor(math.exp(mean), math.sqrt(float((weight * (grid - mean) ** 2).sum())), count)


def ran_at_m(catalog: Catalog, check: DepthCheck, lift: float) -> float:
    """Mean depth (m) of the useful retrieve with this factor on the lift."""
    rig = replace(check.rig, measured=replace(check.rig.measured, lift=lift))
    water = water_at(check.temperature_f)
    cast = Cast(check.cast_m, check.rod_tip_m, ((0.0, 60.0), (300.0, 60.0)))
    home = Phase("retrieve", speed_m_s=check.pace_m_s, take_up=True)
    program = [Phase("fall", slack=True, for_s=check.count_s), home]
    lure = lure_of(catalog, rig, water.density_kg_m3, check.temperature_f)
    depths = fly(lure, check.line, water, cast, program, fidelity=BOARD).useful()
    return float(depths.mean()) if depths.size else 0.0


#: Depths that were simulated for a check, so that the next check asks only for itself.
RAN: Memory[NDArray[np.float64]] = Memory(256)


def _ran(catalog: Catalog, check: DepthCheck, logs: tuple[float, ...]) -> NDArray[np.float64]:
    """Depth (m) at each factor (log) of the lift, remembered."""

    def find(_: list[int]) -> list[NDArray[np.float64]]:
        return [np.array([ran_at_m(catalog, check, math.exp(g)) for g in logs])]

    flown = (check.pace_m_s, check.count_s, check.cast_m, check.rod_tip_m, check.temperature_f)
    return RAN.all_of([(name_of(check.rig), check.rig.measured, check.line, flown, logs)], find)[0]


def learn_lift(catalog: Catalog, checks: Sequence[DepthCheck]) -> dict[str, OneFactor]:
    """Lift factors by :func:`lift_key`, each from its own depth checks in the order of time: what ran off ran
    off the depth that was then said, by what had been learned till then, give or take as much again."""
    numbers = catalog.judgement.learning
    by_key: dict[str, list[DepthCheck]] = defaultdict(list)
    for check in checks:
        by_key[lift_key(check.rig)].append(check)
    factors = {}
    for key, some in by_key.items():
        prior = spread_of(catalog, some[0].rig, some[0].temperature_f).lift or 0.3
        scale = prior * GRID * 2.0
        logs = -0.5 * (scale / prior) ** 2
        for check in some:
            ran = _ran(catalog, check, tuple(scale.tolist()))
            depth, sigma = check.depth_m, max(numbers.depth_least_m, numbers.depth_share * check.depth_m)
            if check.off_m:
                then = math.log(_summary(scale, logs, 0).factor)
                depth, sigma = float(np.interp(then, scale, ran)) + check.off_m, abs(check.off_m)
            logs = logs - 0.5 * ((ran - depth) / sigma) ** 2
        factors[key] = _summary(scale, logs, len(some))
    return factors


def learn_mats(catalog: Catalog, checks: Sequence[MatCheck]) -> dict[str, OneFactor]:
    """Factors on the half-way weight by texture, from entries that went through or stalled."""
    steep = catalog.cover.mats.steepness
    by_texture: dict[str, list[MatCheck]] = defaultdict(list)
    for check in checks:
        by_texture[check.texture].append(check)
    factors = {}
    for texture, some in by_texture.items():
        logs = -0.5 * (MAT_GRID / catalog.judgement.learning.mat_sigma) ** 2
        for check in some:
            odds = steep * (math.log(check.weight_oz / check.halfway_oz) - MAT_GRID)
            logs = logs - np.logaddexp(0.0, -odds if check.through else odds)
        factors[texture] = _summary(MAT_GRID, logs, len(some))
    return factors
