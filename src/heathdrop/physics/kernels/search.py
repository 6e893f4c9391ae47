"""The compiled search: each rig's best pace and starting depth for a depth band.

For every rig a few casts are tried: the middle of the paces that the fish like with the count at the middle
of the depth band; when that is not enough, the pace that would bring its mean depth to the band (depth goes
about with the inverse square of pace), the secant of those two in logs, then another count and small moves
around the best so far. The winner is simulated once more at board fidelity and measured there.
"""

import math

import numpy as np

from heathdrop.physics.kernels import compiled, written_in
from heathdrop.physics.kernels.march import run_chain
from heathdrop.physics.kernels.records import (
    FAR,
    LONGEST_MORE_S,
    LONGEST_TAKE_UP_S,
    LONGEST_WAYS,
    NEAR_M,
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
#: Between two settings that are worth the same the pace nearer the middle of the liked ones is taken: its
#: edges count this much less.
EDGE_TIE = 0.03
#: The most that a pace is changed by in one step of the first trials, as a factor either way; paces that are
#: tried.
SLOWER_MOST, QUICKER_MOST, PACES_TRIED = 0.4, 2.5, 5
#: Below this a pace costs dear: another count may let it come at one that is liked.
DEAR = 0.8
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
#: A change of pace (log) that is worth a cast.
LEAST_PACE_MOVE = 0.03


@compiled
def comfort(pace: float, limits: Limits) -> float:
    """Worth of a pace (m/s) for fish of this mood: 1 where they like it, outside exp(−½ (ln(v/edge)/σ)²)."""
    if pace < limits.liked_slow_m_s:
        off = math.log(limits.liked_slow_m_s / pace) / limits.slower
    elif pace > limits.liked_fast_m_s:
        off = math.log(pace / limits.liked_fast_m_s) / limits.quicker
    else:
        return 1.0
    return math.exp(-0.5 * off * off)


@compiled
def eased(share: float, ease: float) -> float:
    """Worth of a share of the retrieve among the fish, 0 to 1: the first seconds count most."""
    return (1.0 - math.exp(-share / ease)) / (1.0 - math.exp(-1.0 / ease))


@compiled
def met(band: Band, depth: float, haze: float) -> float:
    """Worth of a depth (m): the chance that it is in the band, both blurred by ``haze`` (one sigma, m).

    1 is what the middle of the band gives a rig whose own depth is certain; skating counts in proportion.
    """
    inside = math.erf((band.low - depth) / (ROOT_2 * haze)) - math.erf((band.top - depth) / (ROOT_2 * haze))
    at_best = 2.0 * math.erf(0.5 * (band.low - band.top) / (ROOT_2 * band.haze))
    return min(1.0, inside / at_best) * min(1.0, SKATING + (1.0 - SKATING) * depth / band.skates)


@written_in
def _untried(pace: float, start: float, worth: float) -> Tuned:
    """A setting of which nothing is known but its pace, its start and how the pace is liked."""
    return Tuned(
        pace_m_s=pace,
        start_depth_m=start,
        soft_share=0.0,
        in_band=0.0,
        mean_m=0.0,
        shallowest_m=0.0,
        deepest_m=0.0,
        in_cover=0.0,
        comfort=worth,
        near_band=0.0,
        useful_s=0.0,
    )


@written_in
def _between(depth: float, top: float, low: float, spread: float) -> float:
    """The chance that a depth (m) which scatters by ``spread`` (one sigma, m) lies between two."""
    if spread <= 0.0:
        return 1.0 if top <= depth <= low else 0.0
    return 0.5 * (math.erf((low - depth) / (ROOT_2 * spread)) - math.erf((top - depth) / (ROOT_2 * spread)))


@compiled
def measure(
    out: Samples,
    k: int,
    scene: Scene,
    pace: float,
    start: float,
    worth: float,
    haze: float,
    spread: float,
) -> Tuned:
    """The useful part of ``k`` samples against the band, as the setting they were cast with; ``haze`` blurs
    what its depths are worth, ``spread`` is how far they scatter from cast to cast (one sigma, m)."""
    count = work = 0
    soft = inside = near = total = covered = deep = 0.0
    high = FAR
    top, low = scene.band.top, scene.band.low
    for i in range(k):
        x, z = out.x[i], out.z[i]
        if x < USEFUL_NEAR * scene.distance:
            continue
        # It is in the cover wherever it is swum, where it begins too.
        covered += 0.5 + 0.5 * math.erf((z - scene.band.cover) / (ROOT_2 * scene.band.uneven))
        work += 1
        if x > USEFUL_FAR * scene.distance:
            continue
        inside += _between(z, top, low, spread)
        if top - NEAR_M <= z <= low + NEAR_M:
            near += 1.0
        soft += met(scene.band, z, haze)
        total += z
        high = min(high, z)
        deep = max(deep, z)
        count += 1
    if count == 0:
        return _untried(pace, start, worth)
    return Tuned(
        pace_m_s=pace,
        start_depth_m=start,
        soft_share=soft / count,
        in_band=inside / count,
        mean_m=total / count,
        shallowest_m=high,
        deepest_m=deep,
        in_cover=covered / work,
        comfort=worth,
        near_band=near / count,
        useful_s=count * TRIAL_SAMPLE_S,
    )


@compiled
def trial_room(distance: float, slowest: float) -> tuple[Samples, Floats, Floats]:
    """Scratch for one cast: samples, shapes (none), and its legs: the slack taken up, then the pace."""
    samples = int((LONGEST_WAYS * distance / slowest + LONGEST_MORE_S) / TRIAL_SAMPLE_S) + 8
    out = Samples(
        t=np.zeros(samples),
        x=np.zeros(samples),
        z=np.zeros(samples),
        tension=np.zeros(samples),
        phase=np.zeros(samples),
        bottom=np.zeros(samples),
        tip_x=np.zeros(samples),
        tip_z=np.zeros(samples),
        line=np.zeros(samples),
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
    k = run_chain(
        lure=lure,
        line=scene.line,
        bottom=scene.bottom,
        legs=legs,
        grid=grid,
        start=begin,
        sample_s=TRIAL_SAMPLE_S,
        out=out,
        shapes=shapes,
    )
    return measure(
        out=out,
        k=k,
        scene=scene,
        pace=pace,
        start=start,
        worth=comfort(pace, limits),
        haze=limits.haze_m,
        spread=limits.spread_m,
    )


@written_in
def _worth(found: Tuned, scene: Scene) -> float:
    """What the search maximises: the time among the fish times the price of the pace."""
    return float(eased(found.soft_share, scene.band.eased) * found.comfort**scene.band.price)


@written_in
def _off_middle(pace: float, limits: Limits) -> float:
    """How far (log, in half widths) a pace is from the middle of those that the fish like."""
    half = 0.5 * math.log(limits.liked_fast_m_s / limits.liked_slow_m_s)
    return math.log(pace / math.sqrt(limits.liked_slow_m_s * limits.liked_fast_m_s)) / half


@written_in
def _better(trial: Tuned, best: Tuned, target: float, limits: Limits, scene: Scene) -> Tuned:
    """The one worth more (a near tie goes to the mean nearer the middle and to the pace liked best)."""
    new = _worth(trial, scene) * (1.0 - EDGE_TIE * min(1.0, _off_middle(trial.pace_m_s, limits) ** 2))
    old = _worth(best, scene) * (1.0 - EDGE_TIE * min(1.0, _off_middle(best.pace_m_s, limits) ** 2))
    new -= FALL_BACK_WEIGHT * abs(trial.mean_m - target)
    old -= FALL_BACK_WEIGHT * abs(best.mean_m - target)
    return trial if new > old else best


@written_in
def _paced(limits: Limits, pace: float) -> float:
    """A pace within what hand, reel and lure can do."""
    return min(limits.fastest_m_s, max(limits.slowest_m_s, pace))


@written_in
def counted(limits: Limits, start: float, more: float) -> float:
    """A starting depth (m) moved by so much, within what can be counted to."""
    return min(limits.deepest_start_m, max(LEAST_MOVE_M, start + more))


@written_in
def _next_pace(
    high_pace: float, high_mean: float, deep_pace: float, deep_mean: float, target: float
) -> float:
    """The pace (m/s) that should run at the target (m), from one that ran too high and one that ran too deep:
    between the two by the logs of their depths, but well inside; from one alone by the inverse square."""
    if high_pace < FAR and deep_pace > 0.0:
        share = math.log(deep_mean / target) / max(math.log(deep_mean / high_mean), 1e-9)
        share = min(0.8, max(0.2, share))
        return float(deep_pace * (high_pace / deep_pace) ** share)
    if high_pace < FAR:
        return high_pace * math.sqrt(high_mean / target)
    return deep_pace * math.sqrt(deep_mean / target)


@written_in
def _first_trials(
    lure: LureParams,
    scene: Scene,
    grid: Grid,
    limits: Limits,
    rounds: int,
    room: tuple[Samples, Floats, Floats],
) -> Tuned:
    """The middle of the liked paces, then paces that should bring its mean to the middle of the band,
    bracketed by one that ran too high and one that ran too deep; while most of it is out of the band, the
    best of them from another count."""
    # One place that casts, for each of the compiled callers carries a copy of it.
    target = 0.5 * (scene.band.top + scene.band.low)
    start = min(target, limits.deepest_start_m)
    pace = _paced(limits, math.sqrt(limits.liked_slow_m_s * limits.liked_fast_m_s))
    best = _untried(pace, start, 0.0)
    # The slowest pace that ran too high and the quickest that ran too deep, with their mean depths (m).
    high_pace, high_mean, deep_pace, deep_mean = FAR, 0.0, 0.0, 0.0
    last = False
    for k in range(PACES_TRIED + 1):
        trial = try_one(lure=lure, scene=scene, grid=grid, limits=limits, pace=pace, start=start, room=room)
        best = trial if k == 0 else _better(trial, best, target, limits, scene)
        if rounds < 0 or (k == 0 and _worth(best, scene) >= GOOD_ENOUGH):
            break
        mean = max(trial.mean_m, LEAST_MOVE_M)
        if mean < target and pace < high_pace:
            high_pace, high_mean = pace, mean
        elif mean >= target and pace > deep_pace:
            deep_pace, deep_mean = pace, mean
        if not last and k + 1 < PACES_TRIED and best.soft_share < MOSTLY_MET:
            wanted = _next_pace(high_pace, high_mean, deep_pace, deep_mean, target)
            wanted = _paced(limits, min(QUICKER_MOST * pace, max(SLOWER_MOST * pace, wanted)))
            if abs(math.log(wanted / pace)) > LEAST_PACE_MOVE:
                pace = wanted
                continue
        if k == PACES_TRIED:
            break
        pace, begun = best.pace_m_s, best.start_depth_m
        if best.soft_share > MOSTLY_MET:
            if best.comfort > DEAR or last:
                break
            # In the band at a pace that costs dear: half-way to what they like, the count with it.
            last = True
            edge = limits.liked_fast_m_s if pace > limits.liked_fast_m_s else limits.liked_slow_m_s
            pace = math.sqrt(pace * edge)
            start = counted(limits, begun, ((pace / best.pace_m_s) ** 2 - 1.0) * begun)
            continue
        start = counted(limits, begun, SHIFT * (target - best.mean_m))
        if last or abs(start - begun) <= LEAST_MOVE_M:
            break
        last = True
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
    middle = math.sqrt(limits.liked_slow_m_s * limits.liked_fast_m_s)
    step, shift = PACE_STEP, SHIFT
    for turn in range(2 * rounds):
        pace, start = best.pace_m_s, best.start_depth_m
        if turn % 2 == 0:
            if _worth(best, scene) >= GOOD_ENOUGH:
                break
            # Count further down when it runs high at its best, less when it runs deep.
            start = counted(limits, start, shift * (target - best.mean_m))
            if abs(start - best.start_depth_m) <= LEAST_MOVE_M:
                continue
        else:
            # Then a step of pace: toward the band while out of it, toward what the fish like once in it.
            off = target - best.mean_m
            within = abs(off) <= 0.5 * (scene.band.low - scene.band.top)
            slower = pace > middle if within else off > 0.0
            factor = 1.0 - step if slower else 1.0 + step
            pace = _paced(limits, pace * factor)
            if within:
                # The count goes with it, or the pace alone would take it out of the band.
                start = counted(limits, start, (factor * factor - 1.0) * start)
            step, shift = 0.5 * step, 0.5 * shift
        trial = try_one(lure=lure, scene=scene, grid=grid, limits=limits, pace=pace, start=start, room=room)
        best = _better(trial, best, target, limits, scene)
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
    results[i, 9] = found.near_band
    results[i, 10] = found.useful_s


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
    slowest, longest = FAR, 0.0
    for i in range(first, last):
        slowest, longest = min(slowest, limits[i, 0]), max(longest, limits[i, 8])
    room = trial_room(longest, slowest)
    for i in range(first, last):
        lure, mine = lure_at(lures, i), limits_at(limits, i)
        line = line_at(lines, i) if lines.shape[0] > 0 else scene.line
        own = Scene(line, scene.bottom, mine.distance_m, scene.tip, scene.band)
        room[2][:, 6] = TRIAL_ENDS * mine.distance_m
        if begun.shape[0] > 0:
            found = tuned_from(begun, i)
        else:
            found = _first_trials(lure=lure, scene=own, grid=coarse, limits=mine, rounds=rounds, room=room)
        found = _closer(best=found, lure=lure, scene=own, grid=coarse, limits=mine, rounds=rounds, room=room)
        if refine:
            found = try_one(
                lure=lure,
                scene=own,
                grid=fine,
                limits=mine,
                pace=found.pace_m_s,
                start=found.start_depth_m,
                room=room,
            )
        _put(results, i, found)
