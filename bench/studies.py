"""Seeded studies behind docs/model.md: casts against the reference, refinement, bands against sampling."""

import math
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from bench.reference import STEP_S, depth_at, reference_cast, reference_legs
from heathdrop import catalog as catalogue
from heathdrop.catalog import Catalog
from heathdrop.physics.cast import DISPLAY, Cast, Fidelity, fly
from heathdrop.physics.fall import depth_after_s, fall_speed_m_s, time_to_depth_s
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.program import Phase, Scene, legs_of
from heathdrop.physics.rig import Lure, Rig, lure_of, rig_by_name, spread_of
from heathdrop.physics.water import Water, water_at
from heathdrop.sizing.bands import EIGHTY, cast_bands, fall_factors
from heathdrop.sizing.scatter import Scatter
from heathdrop.sizing.tune import BOARD, SEARCH
from heathdrop.sizing.ways import programme

#: Shares of the cast at which depths are compared: the useful retrieve.
SHARES = (0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2)
DEEP = ((0.0, 60.0), (300.0, 60.0))


@dataclass(frozen=True)
class Draw:
    """One random cast: rig, line, water, cast (m), tip (m), start (m), pace (m/s)."""

    rig: Rig
    lure: Lure
    line: Line
    water: Water
    temperature_f: float
    cast_m: float
    tip_m: float
    start_m: float
    pace_m_s: float

    @property
    def cast(self) -> Cast:
        return Cast(self.cast_m, self.tip_m, DEEP)

    @property
    def program(self) -> list[Phase]:
        return [
            Phase("fall", slack=True, to_depth_m=self.start_m),
            Phase("retrieve", speed_m_s=self.pace_m_s),
        ]


def draws(catalog: Catalog, count: int, seed: int) -> list[Draw]:
    """Random casts across the catalogue's families, heads, trailers and lines; the same for a seed."""
    rng = np.random.default_rng(seed)
    found = []
    for _ in range(count):
        family = str(rng.choice(list(catalog.families)))
        trailer = str(rng.choice(list(catalog.trailers)))
        temp = float(rng.uniform(40, 85))
        water = water_at(temp)
        rig = rig_by_name(
            catalog,
            family,
            float(rng.choice(catalog.families[family].weights_oz)),
            trailer,
            head_material=str(rng.choice(["lead", "tungsten", "bismuth-tin"])),
            plastic=str(rng.choice(list(catalog.plastic))),
            softness=str(rng.choice(list(catalog.softness))),
            orientation=str(rng.choice(list(catalog.orientation))),
        )
        spec = catalog.lines[str(rng.choice(list(catalog.lines)))]
        line = line_by_test(catalog, spec.id, float(rng.choice([lb for lb, _ in spec.diameters_mm])))
        lure = lure_of(catalog, rig, water.density_kg_m3, temp)
        cast_m, tip = float(rng.uniform(12, 40)), float(rng.uniform(0.0, 2.0))
        start, pace = float(rng.uniform(0.3, 6.0)), float(np.exp(rng.uniform(math.log(0.25), math.log(1.5))))
        found.append(Draw(rig, replace(lure, glide_ratio=0.0), line, water, temp, cast_m, tip, start, pace))
    return found


def one_against_reference(draw: Draw) -> list[list[float]]:
    """Depths (m) at SHARES: the reference's, then each fidelity's."""
    distances = [share * draw.cast_m for share in SHARES]
    rows = reference_cast(
        draw.lure,
        draw.line,
        draw.water,
        draw.cast_m,
        draw.tip_m,
        draw.start_m,
        draw.pace_m_s,
        near_m=0.19 * draw.cast_m,
    )
    found = [[depth_at(rows, d) for d in distances]]
    for fidelity in (DISPLAY, BOARD, SEARCH):
        cast = fly(draw.lure, draw.line, draw.water, draw.cast, draw.program, fidelity=fidelity)
        found.append([cast.depth_at(d) for d in distances])
    return found


def against_reference(catalog: Catalog, count: int, seed: int, workers: int = 2) -> NDArray[np.float64]:
    """Depths (m), shape (casts, 4, len(SHARES)): reference, display, board, search."""
    casts = draws(catalog, count, seed)
    if workers == 1:
        return np.array([one_against_reference(d) for d in casts])
    with ProcessPoolExecutor(workers) as pool:
        return np.array(list(pool.map(one_against_reference, casts, chunksize=5)))


def errors_of(depths: NDArray[np.float64], which: int = 1) -> dict[str, float]:
    """How far fidelity ``which`` is from the reference: per cast, worst and mean over the useful retrieve.

    ``beyond`` counts casts whose worst error is over both 0.15 m and 7 % of the depth there.
    """
    truth, ours = depths[:, 0], depths[:, which]
    off = np.abs(ours - truth)
    share = off.mean(axis=1) / np.maximum(truth.mean(axis=1), 0.3)
    allowed = np.maximum(0.15, 0.07 * truth)
    return {
        "median_share": float(np.median(share)),
        "median_m": float(np.median(off.mean(axis=1))),
        "p95_m": float(np.quantile(off.max(axis=1), 0.95)),
        "worst_m": float(off.max()),
        "worst_over_allowed": float((off / allowed).max()),
        "beyond": float((off > allowed).any(axis=1).sum()),
    }


#: Worked casts that are held against the reference: those in mid-water, and those from the floor.
MID_WATER = ("stop-and-go", "burn-and-drop", "twitch", "swing")
FROM_THE_FLOOR = ("yo-yo", "stroke", "lift-and-drop", "slow-roll")


#: A lure that goes so far (m) between two samples of the reference was not moved by the hand.
BURST_M = 0.4
#: Depths that this share of the work's time is spent above: compared where the strokes drift out of step.
QUANTILES = (0.1, 0.25, 0.5, 0.75, 0.9)


def worked_against_reference(task: tuple[Draw, str]) -> tuple[float, float, float]:
    """One worked cast: median and worst depth error (m) between 80 % and 20 % of the cast (all of the work
    for a lure that stays far out), and the mean depth there.

    In mid-water depths are compared at equal times. From the floor (level, without friction: the reference
    has none) strokes begin when the lure is felt to be down, and drift out of step by tenths of a second;
    there the depths are compared that are exceeded for the same share of the time.
    """
    draw, way = task
    floor_m = 1.5 + draw.start_m if way in FROM_THE_FLOOR else 60.0
    away = Cast(draw.cast_m, draw.tip_m, ((0.0, floor_m), (300.0, floor_m)))
    start = floor_m if way in FROM_THE_FLOOR else draw.start_m
    lure = replace(draw.lure, bottom_grip=0.0)
    count = time_to_depth_s(lure, start, draw.line, draw.water)
    program = programme(way, draw.pace_m_s, count, draw.cast_m)
    ours = fly(lure, draw.line, draw.water, away, program)
    still = float(fall_speed_m_s(lure.net_weight_n, lure.fall_drag_area_m2, 0.0, draw.line, draw.water))
    legs = legs_of(program, 1, Scene(draw.cast_m, floor_m, still, draw.tip_m))
    rows = np.array([[g.time, g.reel, g.tip_x, g.tip_z, g.bottom, g.tight, g.clear] for g in legs])
    from_m = draw.cast_m, draw.tip_m, start
    near, step = 0.19 * draw.cast_m, STEP_S
    while True:
        truth = reference_legs(
            lure, draw.line, draw.water, from_m, rows, near_m=near, floor=away.bottom, step_s=step
        )
        # A snatch that throws the lure faster than any rod can has burst the explicit forces.
        if np.abs(np.diff(truth[:, 1:3], axis=0)).max() < BURST_M or step < STEP_S / 10.0:
            break
        step *= 0.5
    inside = _useful(truth[:, 1], draw.cast_m)
    if way in FROM_THE_FLOOR:
        kept = ours.time_s >= ours.fall_s
        there = ours.depth_m[kept][_useful(ours.distance_m[kept], draw.cast_m)]
        off = np.abs(np.quantile(there, QUANTILES) - np.quantile(truth[inside, 2], QUANTILES))
    else:
        depths = np.interp(truth[:, 0] + ours.fall_s, ours.time_s, ours.depth_m)
        off = np.abs(depths - truth[:, 2])[inside]
    return float(np.median(off)), float(off.max()), float(truth[inside, 2].mean())


def _useful(x_m: NDArray[np.float64], cast_m: float) -> NDArray[np.bool_]:
    """Where the lure is 80 % to 20 % of the cast away; everywhere when it hardly comes that near."""
    inside = (x_m <= 0.8 * cast_m) & (x_m >= 0.2 * cast_m)
    return inside if inside.sum() > 20 else np.ones(x_m.size, dtype=bool)


def worked_study(catalog: Catalog, count: int = 20, seed: int = 31) -> dict[str, NDArray[np.float64]]:
    """By way of working: ``count`` random casts, rows of median error, worst error and mean depth (m)."""
    casts = draws(catalog, count, seed)
    found = {}
    with ProcessPoolExecutor(2) as pool:
        for way in MID_WATER + FROM_THE_FLOOR:
            found[way] = np.array(list(pool.map(worked_against_reference, [(d, way) for d in casts])))
    return found


def refinement(draw: Draw) -> dict[str, list[tuple[float, float]]]:
    """Mean useful depth error (m): by segments at the finest step, and by step (mm) on 24 segments."""

    def depths(segments: int, step_m: float) -> NDArray[np.float64]:
        fidelity = Fidelity(segments, 0.3, step_m, 2.0 * step_m, 0.3, 0.5)
        cast = fly(draw.lure, draw.line, draw.water, draw.cast, draw.program, fidelity=fidelity)
        return np.array([cast.depth_at(share * draw.cast_m) for share in SHARES])

    finest, exact = depths(160, 0.002), depths(24, 0.002)
    return {
        "segments": [
            (n, float(np.abs(depths(n, 0.002) - finest).mean())) for n in (6, 8, 12, 16, 24, 48, 96)
        ],
        "step_mm": [(mm, float(np.abs(depths(24, mm / 1e3) - exact).mean())) for mm in (80, 40, 25, 12, 6)],
    }


def sampled_bands(catalog: Catalog, draw: Draw, samples: int, seed: int) -> dict[str, float]:
    """Our 80 % bands against brute-force sampling of the same spreads.

    ``fall`` and ``mean`` are the share of samples inside; ``fall_ratio`` and ``mean_ratio`` our
    width over the sampled one.
    """
    rng = np.random.default_rng(seed)
    s = spread_of(catalog, draw.rig, draw.temperature_f)
    thick = catalog.provenance["lines"]["diameters_mm"].spread
    count = catalog.model.count_error
    low, high = fall_factors(spread_of(catalog, draw.rig, draw.temperature_f))
    bands = cast_bands(
        catalog,
        draw.rig,
        draw.lure,
        draw.line,
        draw.water,
        draw.cast,
        draw.program,
        draw.temperature_f,
        Scatter(count=count),
    )
    plain = fly(draw.lure, draw.line, draw.water, draw.cast, draw.program, fidelity=BOARD)
    falls, means = [], []
    for _ in range(samples):
        z = rng.standard_normal(5)
        lure = replace(
            draw.lure,
            fall_drag_area_m2=draw.lure.fall_drag_area_m2 * math.exp(s.fall * z[0]),
            run_drag_area_m2=draw.lure.run_drag_area_m2 * math.exp(s.run * z[1]),
            run_lift_area_m2=draw.lure.run_lift_area_m2 * math.exp(s.lift * z[2]),
        )
        line = replace(draw.line, diameter_m=draw.line.diameter_m * math.exp(thick * z[3]))
        falls.append(math.sqrt(draw.lure.fall_drag_area_m2 / lure.fall_drag_area_m2))
        start = depth_after_s(lure, plain.fall_s * math.exp(count * z[4]), line, draw.water)
        program = [
            Phase("fall", slack=True, to_depth_m=max(start, 0.01)),
            Phase("retrieve", speed_m_s=draw.pace_m_s),
        ]
        depths = fly(lure, line, draw.water, draw.cast, program, fidelity=BOARD).useful()
        means.append(float(depths.mean()) if depths.size else math.nan)
    fall, mean = np.array(falls), np.array(means)
    band = bands.mean_m or (math.nan, math.nan)
    wide = float(np.diff(np.quantile(mean, [0.1, 0.9]))[0])
    return {
        "fall": float(((fall >= low) & (fall <= high)).mean()),
        "mean": float(((mean >= band[0]) & (mean <= band[1])).mean()),
        "fall_ratio": (high - low) / float(np.diff(np.quantile(fall, [0.1, 0.9]))[0]),
        "mean_ratio": (band[1] - band[0]) / wide if wide > 0 else math.nan,
        "mean_width_m": wide,
        "quantile": EIGHTY,
    }


def band_coverage(
    catalog: Catalog, rigs: int = 20, samples: int = 300, seed: int = 7
) -> list[dict[str, Any]]:
    """Bands of several random casts against sampling."""
    return [sampled_bands(catalog, d, samples, seed + k) for k, d in enumerate(draws(catalog, rigs, seed))]


def main_study(count: int = 200, seed: int = 20) -> dict[str, dict[str, float]]:
    """Errors of the three fidelities over ``count`` seeded casts."""
    depths = against_reference(catalogue.load(), count, seed)
    return {name: errors_of(depths, k + 1) for k, name in enumerate(("display", "board", "search"))}
