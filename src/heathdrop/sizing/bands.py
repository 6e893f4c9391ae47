"""Bands: how far a told depth may be off, for the hand that reels, the boat that drifts, the rig as known.

A first-order reliability method (Hasofer and Lind, J. Eng. Mech. 100, 1974): each uncertain quantity is moved
by one sigma and the cast played again; the changes, independent, make a direction of steepest change. Along
it the depth goes as a power of pace, known from casts that were played slower and quicker, and the ends of
the band stand at that direction's tenth and ninetieth hundredth: low and high apart, as far as each is.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast, fly, line_params, lure_params
from heathdrop.physics.fall import depth_after_s
from heathdrop.physics.kernels.records import FAR, Scene
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, Rig, Spread, spread_of
from heathdrop.physics.water import Water
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.program import program_of
from heathdrop.sizing.scatter import Scatter, scatter_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.tune import REMEMBERED, SEARCH, Replay, replayed, scene_key, scene_of
from heathdrop.units import metres

#: Mean depths replayed before.
MEANS: Memory[float] = Memory(REMEMBERED)
#: Normal quantile of a two-sided 80 % band.
EIGHTY = 1.2816
#: Paces (log, either way) at which the power of pace is read off, and how far beyond them it is trusted.
PACE_APART, TRUSTED = 0.12, 3.0
#: A depth is never reckoned less than this (m) when its log is taken.
LEAST_M = 0.01


@dataclass(frozen=True)
class Bands:
    """80 % bands: fall rate as factors of the prediction, mean depth in m; ``parts`` says how far (m, one
    sigma) each of what is not known moves it."""

    fall_low: float
    fall_high: float
    mean_low_m: float
    mean_high_m: float
    parts: tuple[tuple[str, float], ...] = ()

    @property
    def widest(self) -> str:
        """What widens the depth's band most: ``pace``, ``areas``, ``count``, ``cast``, ``tip`` or ``drift``;
        nothing where nothing does."""
        name, off = max(self.parts, key=lambda part: part[1], default=("", 0.0))
        return name if off > 0.0 else ""

    def without(self, name: str, left: float) -> float:
        """The share of the band's width that stays when one part is cut to a share ``left`` of itself."""
        whole = math.hypot(*(off for _, off in self.parts))
        after = math.hypot(*(off * (left if part == name else 1.0) for part, off in self.parts))
        return after / whole if whole > 0.0 else 1.0


@dataclass(frozen=True)
class CastBands:
    """80 % bands of one cast: seconds of the first fall, mean depth worked (m, None without a fall and a
    work)."""

    fall_s: tuple[float, float]
    mean_m: tuple[float, float] | None
    parts: tuple[tuple[str, float], ...] = ()


def fall_factors(spread: Spread) -> tuple[float, float]:
    """Low and high factors of the fall rate of a rig of this spread: v goes as area to the power −1/2."""
    sigma, shift = 0.5 * spread.fall, -0.5 * spread.fall_more
    return math.exp(shift - EIGHTY * sigma), math.exp(shift + EIGHTY * sigma)


@dataclass(frozen=True)
class Moved:
    """Mean depths (m) of a cast as told and with one thing moved by one sigma each; ``slower`` and
    ``quicker`` are :data:`PACE_APART` from it in the log of their pace."""

    as_told: float
    quicker: float
    slower: float
    run: float
    lift: float
    start: float
    thick: float
    cast: float
    tip: float


def depth_band(
    moved: Moved, scatter: Scatter, s: Spread, pace_m_s: float
) -> tuple[float, float, dict[str, float]]:
    """How far (m) the ends of the 80 % band of a mean depth are from the told one, low (below nothing) and
    high, and what each part moves it by (m, one sigma).

    The hand's bias moves both ends, and so does what the parts' spreads ``s`` add to their sum. Every change
    is told as the change of pace that would do the same, and the depth along it as e to a parabola of the log
    of pace through the three that were played.
    """
    per_pace = (moved.slower - moved.quicker) / (2.0 * PACE_APART)
    moved_by = moved.as_told
    parts = {
        "pace": abs(per_pace) * scatter.pace,
        "areas": math.hypot(moved.run - moved_by, moved.lift - moved_by, moved.thick - moved_by),
        "count": abs(moved.start - moved_by),
        "cast": abs(moved.cast - moved_by),
        "tip": abs(moved.tip - moved_by),
        "drift": abs(per_pace) * scatter.drift_m_s / pace_m_s,
    }
    sigma, bias = math.hypot(*parts.values()), scatter.pace_bias
    more = [
        (area - moved_by) * extra / spread if spread > 0.0 else 0.0
        for area, extra, spread in ((moved.run, s.run_more, s.run), (moved.lift, s.lift_more, s.lift))
    ]
    shift = sum(more)
    if abs(per_pace) * PACE_APART < LEAST_M:
        # No pace moves it: what does is played as it stands.
        return shift - EIGHTY * sigma, shift + EIGHTY * sigma, parts
    logs = np.log(np.maximum((moved.quicker, moved_by, moved.slower), LEAST_M))
    slope, bend = (logs[2] - logs[0]) / (2.0 * PACE_APART), 0.5 * (logs[0] + logs[2]) - logs[1]
    bend /= PACE_APART**2

    def at(slower: float) -> float:
        """The depth (m) as much slower (log) as this; straight on where the parabola turns back."""
        x = math.copysign(min(abs(slower), TRUSTED * PACE_APART), slower)
        turns = bend != 0.0 and (-slope / (2.0 * bend)) * x > 0.0 and abs(slope / (2.0 * bend)) < abs(x)
        return float(math.exp(logs[1] + slope * x + (0.0 if turns else bend * x * x)))

    equal = sigma / abs(per_pace)
    ends = sorted(
        at(math.copysign(EIGHTY * equal, per_pace) * side - bias) - moved_by + shift for side in (-1.0, 1.0)
    )
    return ends[0], ends[1], parts


def cast_bands(
    catalog: Catalog,
    rig: Rig,
    lure: Lure,
    line: Line,
    water: Water,
    cast: Cast,
    program: Sequence[Phase],
    temperature_f: float,
    scatter: Scatter | None = None,
) -> CastBands:
    """Bands of one cast of a named rig, whatever its programme. ``scatter`` is the hand's and the boat's; the
    assumed hand and a boat held still where it is left out."""
    s, of = spread_of(catalog, rig, temperature_f), scatter_of(catalog) if scatter is None else scatter
    plain = fly(lure, line, water, cast, program, sample_s=0.2)
    low, high = fall_factors(s)
    fall, depths = (plain.fall_s / high, plain.fall_s / low), plain.worked()
    if depths.size == 0:
        return CastBands(fall, None)
    shallower, deeper, parts = _played(
        catalog, lure, s, of, line=line, water=water, cast=cast, program=program, fall_s=plain.fall_s
    )
    middle, floor = float(depths.mean()), max(z for _, z in cast.bottom)
    ends = max(0.0, middle + shallower), max(middle, min(floor, middle + deeper))
    return CastBands(fall, ends, tuple(parts.items()))


def _played(
    catalog: Catalog,
    lure: Lure,
    s: Spread,
    of: Scatter,
    *,
    line: Line,
    water: Water,
    cast: Cast,
    program: Sequence[Phase],
    fall_s: float,
) -> tuple[float, float, dict[str, float]]:
    """The depth band of a programme that is played in full for each moved quantity, at the search's fidelity:
    only what a move changes counts."""

    def mean(lure: Lure, on: Line, away: Cast, quicker: float = 0.0, longer: float = 1.0) -> float:
        phases = _hurried(_counted(program, fall_s * longer), math.exp(quicker))
        try:
            flown = fly(lure, on, water, away, phases, fidelity=SEARCH, sample_s=0.2).worked()
        except BadInput:
            # Home before its last phase: what is left out changes nothing.
            flown = np.empty(0)
        return float(flown.mean()) if flown.size else math.nan

    mean_told, off = mean(lure, line, cast), math.hypot(0.5 * s.fall, of.count)
    drag, lift = lure.run_drag_area_m2 * (1.0 + s.run), lure.run_lift_area_m2 * (1.0 + s.lift)
    wider = replace(cast, distance_m=cast.distance_m * math.exp(of.cast))
    moved = (
        mean_told,
        mean(lure, line, cast, quicker=PACE_APART),
        mean(lure, line, cast, quicker=-PACE_APART),
        mean(replace(lure, run_drag_area_m2=drag), line, cast),
        mean(replace(lure, run_lift_area_m2=lift), line, cast),
        mean(lure, line, cast, longer=1.0 + off) if program[0].slack else mean_told,
        mean(lure, line.thicker(catalog.spread("lines", "diameters_mm")), cast),
        mean(lure, line, wider) if of.cast else mean_told,
        mean(lure, line, replace(cast, rod_tip_m=cast.rod_tip_m + of.tip_m)) if of.tip_m else mean_told,
    )
    paces = [p.speed_m_s for p in program if p.speed_m_s]
    moved_known = Moved(*(mean_told if math.isnan(m) else m for m in moved))
    return depth_band(moved_known, of, s, paces[0] if paces else FAR)


def _counted(program: Sequence[Phase], seconds: float) -> Sequence[Phase]:
    """The programme with its slack fall counted by a hand: these seconds, whatever depth that gives; a fall
    to the bottom is waited for."""
    first = program[0]
    if not (first.do == "fall" and first.slack) or (first.to_depth_m is None and first.for_s is None):
        return program
    return [replace(first, to_depth_m=None, for_s=seconds), *program[1:]]


def _hurried(program: Sequence[Phase], factor: float) -> Sequence[Phase]:
    """The programme with every pace of the handle so much quicker."""
    if factor == 1.0:
        return program
    return [p if p.speed_m_s is None else replace(p, speed_m_s=p.speed_m_s * factor) for p in program]


def bands_for(catalog: Catalog, sizing: Sizing, rated: Sequence[Rated]) -> list[Bands]:
    """Bands for rated rigs at their own settings and in their own way, about the mean depth that each was
    rated with. Only differences between casts count here, so the search's fidelity does."""
    of = scatter_of(catalog, sizing.scenario, sizing.knowledge)
    temperature, floor = sizing.scenario.conditions.water_temp_f, sizing.scenario.conditions.bottom_depth_ft
    spreads = [spread_of(catalog, r.rig, temperature) for r in rated]
    steady = [k for k, r in enumerate(rated) if r.cadence is None]
    ends = dict(
        zip(steady, _steady(catalog, sizing, [(rated[k], spreads[k]) for k in steady], of), strict=True)
    )
    bands = []
    for k, (r, s) in enumerate(zip(rated, spreads, strict=True)):
        if r.cadence is not None:
            ends[k] = _played(
                catalog,
                r.lure,
                s,
                of,
                line=sizing.line,
                water=sizing.water,
                cast=r.cast,
                program=program_of(sizing, r, r.cadence.way),
                fall_s=r.countdown_s,
            )
        (shallower, deeper, parts), mean = ends[k], r.tuned.mean_m
        high = max(mean, min(metres(floor), mean + deeper))
        bands.append(Bands(*fall_factors(s), max(0.0, mean + shallower), high, tuple(parts.items())))
    return bands


def _steady(
    catalog: Catalog, sizing: Sizing, rated: Sequence[tuple[Rated, Spread]], of: Scatter
) -> list[tuple[float, float, dict[str, float]]]:
    """The depth bands of rigs that are reeled steadily, all casts at once."""
    if not rated:
        return []
    line, water, cast = sizing.line, sizing.water, sizing.cast
    plain, thick = line_params(line, water), line.thicker(catalog.spread("lines", "diameters_mm"))
    thicker, casts, higher = line_params(thick, water), [], []
    for r, s in rated:
        lure, start, pace, away = r.lure, r.tuned.start_depth_m, r.tuned.pace_m_s, r.cast.distance_m
        off = math.hypot(0.5 * s.fall, of.count)
        begun = depth_after_s(lure, r.countdown_s * (1.0 + off), line, water)
        own = lure_params(lure)
        drag, lift = own._replace(run=own.run * (1.0 + s.run)), own._replace(lift=own.lift * (1.0 + s.lift))
        casts += [
            (own, plain, pace, start, away),
            (own, plain, pace * math.exp(PACE_APART), start, away),
            (own, plain, pace * math.exp(-PACE_APART), start, away),
            (drag, plain, pace, start, away),
            (lift, plain, pace, start, away),
            (own, plain, pace, begun, away),
            (own, thicker, pace, start, away),
            (own, plain, pace, start, away * math.exp(of.cast)),
        ]
        higher.append(casts[-8])
    means = np.array(_means(casts, scene_of(line, water, cast, (0.0, 1.0), FAR))).reshape(len(rated), -1)
    up = replace(cast, rod_tip_m=cast.rod_tip_m + of.tip_m)
    tips = _means(higher, scene_of(line, water, up, (0.0, 1.0), FAR))
    return [
        depth_band(Moved(*(float(m) for m in (*row, tip))), of, s, r.tuned.pace_m_s)
        for (r, s), row, tip in zip(rated, means, tips, strict=True)
    ]


def _means(casts: Sequence[Replay], scene: Scene) -> list[float]:
    """Mean useful depth (m) of each lure on its line, at its pace (m/s) from its start (m)."""
    there = scene_key(scene)

    def find(which: list[int]) -> list[float]:
        return [one.mean_m for one in replayed([casts[k] for k in which], scene)]

    return MEANS.all_of([(*cast, there) for cast in casts], find)
