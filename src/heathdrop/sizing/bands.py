"""Bands: how far a prediction may be off, from the catalogue's spreads and a counting hand.

Each uncertain quantity is moved by one sigma, the cast simulated again, and
the changes added in quadrature; the band shown holds eight of ten.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, fly, line_params, lure_params
from heathdrop.physics.fall import depth_after_s
from heathdrop.physics.kernels.records import FAR, Scene
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, Rig, Spread, spread_of
from heathdrop.physics.water import Water
from heathdrop.sizing.known import UNTAUGHT, Knowledge
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.tune import REMEMBERED, Replay, replayed, scene_key, scene_of

__all__ = ["Bands", "bands_for", "cast_bands", "means_at"]

#: Mean depths replayed before.
MEANS: Memory[float] = Memory(REMEMBERED)
#: Normal quantile of a two-sided 80 % band.
EIGHTY = 1.2816


@dataclass(frozen=True)
class Bands:
    """80 % bands: fall rate as factors of the prediction, mean depth and count in m and s."""

    fall_low: float
    fall_high: float
    mean_low_m: float
    mean_high_m: float


@dataclass(frozen=True)
class CastBands:
    """80 % bands of one cast: seconds of the first fall, mean depth worked (m, None without a fall and a
    work)."""

    fall_s: tuple[float, float]
    mean_m: tuple[float, float] | None


def cast_bands(
    catalog: Catalog,
    rig: Rig,
    lure: Lure,
    line: Line,
    water: Water,
    cast: Cast,
    program: Sequence[Phase],
    temperature_f: float,
    known: Knowledge = UNTAUGHT,
) -> CastBands:
    """Bands of one cast of a named rig, whatever its programme: each moved quantity is played in full. The
    count is as uneven as the hand is ``known`` to be."""
    s = spread_of(catalog, rig, temperature_f)
    plain = fly(lure, line, water, cast, program, sample_s=0.2)
    thick = line.thicker(catalog.spread("lines", "diameters_mm"))
    cases = [
        (replace(lure, run_drag_area_m2=lure.run_drag_area_m2 * (1.0 + s.run)), line, 1.0),
        (replace(lure, run_lift_area_m2=lure.run_lift_area_m2 * (1.0 + s.lift)), line, 1.0),
        (replace(lure, fall_drag_area_m2=lure.fall_drag_area_m2 * (1.0 + s.fall)), line, 1.0),
        (lure, thick, 1.0),
        (lure, line, 1.0 + count_error_of(catalog, known)),
    ]
    moved = [
        fly(one, on, water, cast, _counted(program, plain.fall_s * k), sample_s=0.2) for one, on, k in cases
    ]
    low, high = fall_factors(s)
    fall = (plain.fall_s / high, plain.fall_s / low)
    depths = plain.worked()
    others = [m.worked() for m in moved]
    if depths.size == 0 or any(o.size == 0 for o in others):
        return CastBands(fall, None)
    mean = float(depths.mean())
    off = EIGHTY * math.sqrt(sum((float(o.mean()) - mean) ** 2 for o in others))
    return CastBands(fall, (max(0.0, mean - off), mean + off))


def count_error_of(catalog: Catalog, known: Knowledge) -> float:
    """One sigma of a counted second, as a share: the angler's own where it is known."""
    own = known.count_error()
    return catalog.model.count_error if own is None else own


def _counted(program: Sequence[Phase], seconds: float) -> Sequence[Phase]:
    """The programme with its slack fall counted by a hand: these seconds, whatever depth that gives."""
    if not (program[0].do == "fall" and program[0].slack):
        return program
    return [replace(program[0], to_depth_m=None, for_s=seconds), *program[1:]]


def fall_factors(spread: Spread) -> tuple[float, float]:
    """Low and high factors of the fall rate of a rig of this spread: v goes as area to the power −1/2."""
    sigma = 0.5 * spread.fall
    return math.exp(-EIGHTY * sigma), math.exp(EIGHTY * sigma)


def bands_for(catalog: Catalog, sizing: Sizing, rated: Sequence[Rated]) -> list[Bands]:
    """Bands for rated rigs at their own settings, about the mean depth each was rated with.

    Only differences between casts count here, so the search's fidelity does.
    """
    if not rated:
        return []
    line, water, cast = sizing.line, sizing.water, sizing.cast
    temperature = sizing.scenario.conditions.water_temp_f
    rigs = [(r, spread_of(catalog, r.rig, temperature)) for r in rated]
    casts = [
        (lure_params(moved), line_params(on, water), r.tuned.pace_m_s, start, r.cast.distance_m)
        for r, spread in rigs
        for moved, on, start in _moved(
            catalog, r, s=spread, line=line, water=water, count_error=count_error_of(catalog, sizing.known)
        )
    ]
    means = np.array(_means(casts, scene_of(line, water, cast, (0.0, 1.0), FAR))).reshape(len(rigs), -1)
    found = []
    for (r, spread), row in zip(rigs, means, strict=True):
        off = EIGHTY * float(np.sqrt(np.sum((row[1:] - row[0]) ** 2)))
        low, high = fall_factors(spread)
        found.append(Bands(low, high, max(0.0, r.tuned.mean_m - off), r.tuned.mean_m + off))
    return found


def _means(casts: Sequence[Replay], scene: Scene) -> list[float]:
    """Mean useful depth (m) of each lure on its line, at its pace (m/s) from its start (m)."""
    there = scene_key(scene)

    def find(which: list[int]) -> list[float]:
        return [found.mean_m for found in replayed([casts[k] for k in which], scene)]

    return MEANS.all_of([(*cast, there) for cast in casts], find)


def means_at(sizing: Sizing, rated: Rated, counts_s: Sequence[float]) -> list[float]:
    """Mean depth (m) of the useful retrieve at the rig's own pace after each count (s), bottom in its way."""
    line, water, cast = sizing.line, sizing.water, rated.cast
    floor = cast.bottom_at(cast.distance_m)
    starts = [min(floor, depth_after_s(rated.lure, s, line, water)) for s in counts_s]
    lure, on, pace = lure_params(rated.lure), line_params(line, water), rated.tuned.pace_m_s
    scene, away = scene_of(line, water, cast, (0.0, 1.0), FAR), cast.distance_m
    return _means([(lure, on, pace, start, away) for start in starts], scene)


def _moved(
    catalog: Catalog, rated: Rated, s: Spread, line: Line, water: Water, count_error: float
) -> list[tuple[Lure, Line, float]]:
    """The prediction, then each uncertain quantity moved by one sigma."""
    lure, seconds, start = rated.lure, rated.countdown_s, rated.tuned.start_depth_m
    thick = catalog.spread("lines", "diameters_mm")
    heavier_fall = replace(lure, fall_drag_area_m2=lure.fall_drag_area_m2 * (1.0 + s.fall))
    late = depth_after_s(lure, seconds * (1.0 + count_error), line, water)
    return [
        (lure, line, start),
        (replace(lure, run_drag_area_m2=lure.run_drag_area_m2 * (1.0 + s.run)), line, start),
        (replace(lure, run_lift_area_m2=lure.run_lift_area_m2 * (1.0 + s.lift)), line, start),
        (heavier_fall, line, depth_after_s(heavier_fall, seconds, line, water)),
        (lure, line.thicker(thick), start),
        (lure, line, late),
    ]
