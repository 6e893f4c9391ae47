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
from heathdrop.physics.cast import Cast, line_row, lure_row
from heathdrop.physics.fall import depth_after_s
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure, Rig, spread_of
from heathdrop.physics.water import Water
from heathdrop.sizing import search_loop as loop
from heathdrop.sizing.tune import BOARD, Tuned

#: Normal quantile of a two-sided 80 % band.
EIGHTY = 1.2816


@dataclass(frozen=True)
class Bands:
    """80 % bands: fall rate as factors of the prediction, mean depth and count in m and s."""

    fall_low: float
    fall_high: float
    mean_low_m: float
    mean_high_m: float


def fall_factors(catalog: Catalog, rig: Rig) -> tuple[float, float]:
    """Low and high factors of the fall rate: v goes as area to the power −1/2."""
    sigma = 0.5 * spread_of(catalog, rig).fall
    return math.exp(-EIGHTY * sigma), math.exp(EIGHTY * sigma)


def bands_of(catalog: Catalog, rigs: Sequence[tuple[Rig, Lure, Tuned, float]], line: Line, water: Water, cast: Cast) -> list[Bands]:
    """Bands for (rig, lure, setting, countdown s) at their settings."""
    if not rigs:
        return []
    lures, lines, settings = [], [], []
    for rig, lure, tuned, seconds in rigs:
        for moved, on, start in _moved(catalog, rig, lure, tuned, seconds, line, water):
            lures.append(lure_row(moved))
            lines.append(line_row(on, water))
            settings.append((tuned.pace_m_s, start))
    results = np.zeros((len(lures), loop.RESULT_COLUMNS))
    loop.replay(
        np.array(lures),
        np.array(lines),
        cast.bottom_rows(),
        cast.distance_m,
        cast.rod_tip_m,
        np.array([0.0, 1.0, 1e6]),
        np.array([0.1, 1.0]),
        np.array(settings),
        BOARD.mesh(),
        np.array([BOARD.step_m, BOARD.longest_step_s]),
        results,
    )
    means = results[:, loop.R_MEAN].reshape(len(rigs), -1)
    found = []
    for (rig, _, _, _), row in zip(rigs, means, strict=True):
        off = EIGHTY * float(np.sqrt(np.sum((row[1:] - row[0]) ** 2)))
        low, high = fall_factors(catalog, rig)
        found.append(Bands(low, high, max(0.0, float(row[0]) - off), float(row[0]) + off))
    return found


def _moved(
    catalog: Catalog, rig: Rig, lure: Lure, tuned: Tuned, seconds: float, line: Line, water: Water
) -> list[tuple[Lure, Line, float]]:
    """The prediction, then each uncertain quantity moved by one sigma."""
    s = spread_of(catalog, rig)
    start = tuned.start_depth_m
    thick = catalog.provenance["lines"]["diameters_mm"].spread
    heavier_fall = replace(lure, fall_drag_area_m2=lure.fall_drag_area_m2 * (1.0 + s.fall))
    late = depth_after_s(lure, seconds * (1.0 + catalog.model.count_error), line, water)
    return [
        (lure, line, start),
        (replace(lure, run_drag_area_m2=lure.run_drag_area_m2 * (1.0 + s.run)), line, start),
        (replace(lure, run_lift_area_m2=lure.run_lift_area_m2 * (1.0 + s.lift)), line, start),
        (heavier_fall, line, depth_after_s(heavier_fall, seconds, line, water)),
        (lure, replace(line, diameter_m=line.diameter_m * (1.0 + thick)), start),
        (lure, line, late),
    ]
