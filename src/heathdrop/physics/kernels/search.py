"""The compiled search: each rig's best pace and starting depth for a depth band.

For every rig a few casts are tried: the middle of its pace band with the count
at the middle of the depth band; when that is not enough, the end of the pace
band that helps, the pace between whose mean depth meets the middle, then small
moves of count and pace around the best so far. The winner is simulated once
more at board fidelity and measured there.
"""

from __future__ import annotations

import math

import numpy as np

from heathdrop.physics.kernels import compiled, written_in
from heathdrop.physics.kernels.march import run_chain
from heathdrop.physics.kernels.records import (
    FAR,
    LONGEST_MORE_S,
    LONGEST_TAKE_UP_S,
    LONGEST_WAYS,
    SLACK_M_S,
    TIGHT,
    USEFUL_FAR,
    USEFUL_NEAR,
    Band,
    Floats,
    Grid,
    Limits,
    LureParams,
    Samples,
    Scene,
    Start,
    Tuned,
    limits_at,
    line_at,
    lure_at,
    tuned_from,
)

ROOT_2 = math.sqrt(2.0)
FALL_BACK_WEIGHT = 1e-3
#: How much less a pace at the edge of the mood's band is worth than one at its middle: e^-0.5.
EDGE_COMFORT = 0.5
#: Share of a miss that the count is moved by.
SHIFT = 0.7
#: Share of the band met from which another count is not looked for before the small moves.
MOSTLY_MET = 0.6
#: Worth at which the search stops looking.
GOOD_ENOUGH = 0.985
#: What a lure that skates on the surface is still worth.
SKATING = 0.1
#: Seconds between two samples of a trial; the cast ends just inside the useful part's near end.
TRIAL_SAMPLE_S, TRIAL_ENDS = 0.25, 0.95 * USEFUL_NEAR
#: The first step of pace in a round of small moves, as a factor (each round half as wide as the one before),
#: and the least move of the count worth a cast (m).
PACE_STEP, LEAST_MOVE_M = 0.16, 0.05


@compiled
def comfort(pace: float, limits: Limits) -> float:
    """Worth of a pace for fish of this mood: 1 at the band's (log) middle, e^-0.5 at its edges."""
    half = 0.5 * math.log(limits.fastest_m_s / limits.slowest_m_s)
    off = math.log(pace / math.sqrt(limits.slowest_m_s * limits.fastest_m_s)) / half
    return math.exp(-EDGE_COMFORT * off * off)


@compiled
def met(band: Band, depth: float, haze: float) -> float:
    """Worth of a depth (m): the chance that it is in the band, both blurred by ``haze`` (one sigma, m).

    1 is what the middle of the band gives a rig whose own depth is certain; skating counts in proportion.
    """
    inside = math.erf((band.low - depth) / (ROOT_2 * haze)) - math.erf((band.top - depth) / (ROOT_2 * haze))
    at_best = 2.0 * math.erf(0.5 * (band.low - band.top) / (ROOT_2 * band.haze))
    return min(1.0, inside / at_best) * min(1.0, SKATING + (1.0 - SKATING) * depth / band.skates)


@compiled
def measure(
    out: Samples, k: int, scene: Scene, pace: float, start: float, worth: float, haze: float
) -> Tuned:
    """The useful part of ``k`` samples against the band, as the setting they were cast with."""
    count = 0
    soft = inside = total = covered = deep = 0.0
    high = FAR
    top, low = scene.band.top, scene.band.low
    for i in range(k):
        x, z = out.x[i], out.z[i]
        if x > USEFUL_FAR * scene.distance or x < USEFUL_NEAR * scene.distance:
            continue
        if top <= z <= low:
            inside += 1.0
        soft += met(scene.band, z, haze)
        covered += 0.5 + 0.5 * math.erf((z - scene.band.cover) / (ROOT_2 * scene.band.uneven))
        total += z
        high = min(high, z)
        deep = max(deep, z)
        count += 1
    if count == 0:
        return Tuned(pace, start, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, worth)
    return Tuned(pace, start, soft / count, inside / count, total / count, high, deep, covered / count, worth)


@compiled
def trial_room(distance: float, slowest: float) -> tuple[Samples, Floats, Floats]:
    """Scratch for one cast: samples, shapes (none), and its legs: the slack taken up, then the pace."""
    samples = int((LONGEST_WAYS * distance / slowest + LONGEST_MORE_S) / TRIAL_SAMPLE_S) + 8
    out = Samples(
        np.zeros(samples),
        np.zeros(samples),
        np.zeros(samples),
        np.zeros(samples),
        np.zeros(samples),
        np.zeros(samples),
        np.zeros(samples),
        np.zeros(samples),
        np.zeros(samples),
    )
    legs = np.zeros((2, 11))
    for k in range(2):
        legs[k, 4] = FAR
        legs[k, 5] = -FAR
        legs[k, 6] = TRIAL_ENDS * distance
    legs[0, 0] = LONGEST_TAKE_UP_S
    legs[0, 1] = SLACK_M_S
    legs[0, 10] = TIGHT
    return out, np.zeros((0, 0, 2)), legs


@written_in
def try_one(
    lure: LureParams,
    scene: Scene,
    grid: Grid,
    limits: Limits,
    pace: float,
    start: float,
    room: tuple[Samples, Floats, Floats],
) -> Tuned:
    """Simulate one pace and starting depth and measure it."""
    out, shapes, legs = room
    legs[1, 0] = LONGEST_WAYS * scene.distance / pace + LONGEST_MORE_S
    legs[1, 1] = pace
    begin = Start(scene.distance, start, scene.tip, 0.0)
    k = run_chain(lure, scene.line, scene.bottom, legs, grid, begin, TRIAL_SAMPLE_S, out, shapes)
    return measure(out, k, scene, pace, start, comfort(pace, limits), limits.haze_m)


@written_in
def _worth(found: Tuned) -> float:
    """What the search maximises: the softened share in the band times the pace's comfort."""
    return found.soft_share * found.comfort


@written_in
def _better(trial: Tuned, best: Tuned, target: float) -> Tuned:
    """The one worth more (a near tie goes to the mean nearer the middle)."""
    new = _worth(trial) - FALL_BACK_WEIGHT * abs(trial.mean_m - target)
    old = _worth(best) - FALL_BACK_WEIGHT * abs(best.mean_m - target)
    return trial if new > old else best


@written_in
def counted(limits: Limits, start: float, more: float) -> float:
    """A starting depth (m) moved by so much, within what can be counted to."""
    return min(limits.deepest_start_m, max(LEAST_MOVE_M, start + more))


@written_in
def _first_trials(
    lure: LureParams,
    scene: Scene,
    grid: Grid,
    limits: Limits,
    rounds: int,
    room: tuple[Samples, Floats, Floats],
) -> Tuned:
    """The middle of the pace band, its helpful end, and the pace between whose mean meets the middle; while
    most of it is out of the band, the best of them from another count."""
    # One place that casts, for each of the compiled callers carries a copy of it.
    target = 0.5 * (scene.band.top + scene.band.low)
    start = min(target, limits.deepest_start_m)
    middle = math.sqrt(limits.slowest_m_s * limits.fastest_m_s)
    pace, other, at_middle = middle, middle, 0.0
    best = Tuned(middle, start, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    for k in range(4):
        trial = try_one(lure, scene, grid, limits, pace, start, room)
        if k == 0:
            best, at_middle = trial, trial.mean_m
            if rounds < 0 or _worth(best) >= GOOD_ENOUGH:
                break
            pace = other = limits.fastest_m_s if at_middle > target else limits.slowest_m_s
            continue
        best = _better(trial, best, target)
        if k == 1 and (at_middle - target) * (trial.mean_m - target) < 0.0:
            share = (at_middle - target) / (at_middle - trial.mean_m)
            pace = middle * (other / middle) ** share
            continue
        pace, begun = best.pace_m_s, best.start_depth_m
        start = counted(limits, begun, SHIFT * (target - best.mean_m))
        if k == 3 or best.soft_share > MOSTLY_MET or abs(start - begun) <= LEAST_MOVE_M:
            break
    return best


@written_in
def _closer(
    best: Tuned,
    lure: LureParams,
    scene: Scene,
    grid: Grid,
    limits: Limits,
    rounds: int,
    room: tuple[Samples, Floats, Floats],
) -> Tuned:
    """Small moves of count and pace around the best so far, each round's half as wide as the one before."""
    target = 0.5 * (scene.band.top + scene.band.low)
    middle = math.sqrt(limits.slowest_m_s * limits.fastest_m_s)
    step, shift = PACE_STEP, SHIFT
    for turn in range(2 * rounds):
        pace, start = best.pace_m_s, best.start_depth_m
        if turn % 2 == 0:
            if _worth(best) >= GOOD_ENOUGH:
                break
            # Count further down when it runs high at its best, less when it runs deep.
            start = counted(limits, start, shift * (target - best.mean_m))
            if abs(start - best.start_depth_m) <= LEAST_MOVE_M:
                continue
        else:
            # Then a step of pace: toward the band while out of it, toward the mood's middle once in it.
            off = target - best.mean_m
            within = abs(off) <= 0.5 * (scene.band.low - scene.band.top)
            slower = pace > middle if within else off > 0.0
            pace *= 1.0 - step if slower else 1.0 + step
            pace = min(limits.fastest_m_s, max(limits.slowest_m_s, pace))
            step, shift = 0.5 * step, 0.5 * shift
        best = _better(try_one(lure, scene, grid, limits, pace, start, room), best, target)
    return best


@written_in
def _put(results: Floats, i: int, found: Tuned) -> None:
    """Write a setting into row ``i`` of the results, its fields in order."""
    results[i, 0] = found.pace_m_s
    results[i, 1] = found.start_depth_m
    results[i, 2] = found.soft_share
    results[i, 3] = found.in_band
    results[i, 4] = found.mean_m
    results[i, 5] = found.shallowest_m
    results[i, 6] = found.deepest_m
    results[i, 7] = found.in_cover
    results[i, 8] = found.comfort


@compiled
def search(
    lures: Floats,
    lines: Floats,
    limits: Floats,
    scene: Scene,
    coarse: Grid,
    fine: Grid,
    rounds: int,
    refine: bool,
    begun: Floats,
    results: Floats,
    first: int,
    last: int,
) -> None:
    """Search rigs ``first`` to ``last``; writes one row of ``results`` (a :class:`Tuned`) for each.

    ``lures`` and ``limits`` have a row for each rig, ``lines`` too, or none where all are on the scene's.
    ``rounds`` of small moves follow the first trials, four at most; below 0 there is one trial only.
    ``begun`` holds what the first trials found already (a :class:`Tuned` each at this fidelity; no rows:
    nothing yet).
    ``refine`` measures the winner once more at the ``fine`` grid.
    """
    slowest = FAR
    for i in range(first, last):
        slowest = min(slowest, limits[i, 0])
    room = trial_room(scene.distance, slowest)
    for i in range(first, last):
        lure, mine = lure_at(lures, i), limits_at(limits, i)
        line = line_at(lines, i) if lines.shape[0] > 0 else scene.line
        own = Scene(line, scene.bottom, scene.distance, scene.tip, scene.band)
        if begun.shape[0] > 0:
            found = tuned_from(begun, i)
        else:
            found = _first_trials(lure, own, coarse, mine, rounds, room)
        found = _closer(found, lure, own, coarse, mine, rounds, room)
        if refine:
            found = try_one(lure, own, fine, mine, found.pace_m_s, found.start_depth_m, room)
        _put(results, i, found)
