"""The compiled search: each rig's best pace and starting depth for a depth band.

For every rig a few casts are tried: the middle of its pace band with the count
at the middle of the depth band; when that is not enough, the end of the pace
band that helps, the pace between whose mean depth meets the middle, then small
moves of count and pace around the best so far. The winner is simulated once
more at board fidelity and measured there.

Arguments that travel together are tuples: ``scene`` is (line row, bottom rows,
cast m, rod tip m, band) with the band's top, low edge and cover top in m;
``grid`` is (mesh, step m, longest step s).
"""

from __future__ import annotations

import math

import numpy as np

from heathdrop.compiled import compiled
from heathdrop.physics import chain
from heathdrop.physics.march import run_chain

#: Softness of the band's edges: a lure this far outside (m) counts e^-1.
EDGE_M = 0.3048
FALL_BACK_WEIGHT = 1e-3
#: How much less a pace at the edge of the mood's band is worth than one at its middle: e^-0.5.
EDGE_COMFORT = 0.5
#: Share of a miss that the count is moved by.
SHIFT = 0.7
#: Worth at which the search stops looking.
GOOD_ENOUGH = 0.985

# Columns of the result.
(R_PACE, R_START, R_SOFT, R_SHARE, R_MEAN, R_LOW, R_HIGH, R_IN_COVER, R_COMFORT) = range(9)
RESULT_COLUMNS = 9


@compiled
def measure(out, k, x0, top, low, cover_top, result):
    """Measure the useful part of a retrieve against the band; all depths in metres."""
    count = 0
    soft = 0.0
    inside = 0.0
    total = 0.0
    covered = 0.0
    high, deep = 1e9, 0.0
    for i in range(k):
        x, z = out[i, chain.S_X], out[i, chain.S_Z]
        if x > 0.8 * x0 or x < 0.2 * x0:
            continue
        off = max(top - z, z - low)
        if off <= 0.0:
            inside += 1.0
            soft += 1.0
        else:
            soft += math.exp(-(off / EDGE_M) * (off / EDGE_M))
        if z > cover_top:
            covered += 1.0
        total += z
        high = min(high, z)
        deep = max(deep, z)
        count += 1
    if count == 0:
        result[R_SOFT : R_IN_COVER + 1] = 0.0
        return
    result[R_SOFT] = soft / count
    result[R_SHARE] = inside / count
    result[R_MEAN] = total / count
    result[R_LOW] = high
    result[R_HIGH] = deep
    result[R_IN_COVER] = covered / count


@compiled
def comfort(pace, paces):
    """Worth of a pace for fish of this mood: 1 at the band's (log) middle, e^-0.5 at its edges."""
    half = 0.5 * math.log(paces[1] / paces[0])
    off = math.log(pace / math.sqrt(paces[0] * paces[1])) / half
    return math.exp(-EDGE_COMFORT * off * off)


@compiled
def _room(x0, slowest):
    """Scratch for one cast: samples, shapes (none) and one leg."""
    samples = int((1.6 * x0 / slowest + 30.0) / 0.25) + 8
    return np.zeros((samples, chain.SAMPLE_COLUMNS)), np.zeros((0, 0, 2)), np.zeros((1, chain.LEG_COLUMNS))


@compiled
def try_one(lure, scene, grid, paces, pace, start, room, result):
    """Simulate one pace and starting depth and measure it into ``result``."""
    line, bottom, x0, tip_z, band = scene
    mesh, step_m, dt_max = grid
    out, shapes, legs = room
    legs[0, :] = 0.0
    legs[0, chain.LEG_TIME] = 1.6 * x0 / pace + 30.0
    legs[0, chain.LEG_REEL] = pace
    legs[0, chain.LEG_DEPTH] = chain.FAR
    legs[0, chain.LEG_RISE] = -chain.FAR
    legs[0, chain.LEG_NEAR] = 0.19 * x0
    begin = np.array([x0, start, 0.0, -tip_z, 0.0])
    k = run_chain(lure, line, bottom, legs, mesh, begin, step_m, dt_max, 0.25, out, shapes)
    measure(out, k, x0, band[0], band[1], band[2], result)
    result[R_PACE] = pace
    result[R_START] = start
    result[R_COMFORT] = comfort(pace, paces)


@compiled
def _worth(row):
    """What the search maximises: the softened share in the band times the pace's comfort."""
    return row[R_SOFT] * row[R_COMFORT]


@compiled
def _take_better(trial, best, target):
    """Keep the trial when it is worth more (a near tie goes to the mean nearer the middle)."""
    new = _worth(trial) - FALL_BACK_WEIGHT * abs(trial[R_MEAN] - target)
    old = _worth(best) - FALL_BACK_WEIGHT * abs(best[R_MEAN] - target)
    if new > old:
        best[:] = trial


@compiled
def _find(lure, scene, grid, paces, deepest, refine, room, trial, best):
    """One rig's search at search fidelity; the setting ends up in ``best``."""
    band = scene[4]
    target = 0.5 * (band[0] + band[1])
    start = min(target, deepest)
    middle = math.sqrt(paces[0] * paces[1])
    try_one(lure, scene, grid, paces, middle, start, room, best)
    if _worth(best) >= GOOD_ENOUGH:
        return
    at_middle = best[R_MEAN]
    other = paces[1] if at_middle > target else paces[0]
    try_one(lure, scene, grid, paces, other, start, room, trial)
    at_other = trial[R_MEAN]
    _take_better(trial, best, target)
    if (at_middle - target) * (at_other - target) < 0.0:
        share = (at_middle - target) / (at_middle - at_other)
        try_one(lure, scene, grid, paces, middle * (other / middle) ** share, start, room, trial)
        _take_better(trial, best, target)
    if _worth(best) < GOOD_ENOUGH:
        # Count further down when it runs high at its best, less when it runs deep.
        z0 = min(deepest, max(0.05, best[R_START] + SHIFT * (target - best[R_MEAN])))
        if abs(z0 - best[R_START]) > 0.05:
            try_one(lure, scene, grid, paces, best[R_PACE], z0, room, trial)
            _take_better(trial, best, target)
    if refine and _worth(best) < GOOD_ENOUGH:
        # Then a small step of pace: toward the band while out of it, toward the mood's middle once in it.
        off = target - best[R_MEAN]
        within = abs(off) <= 0.5 * (band[1] - band[0])
        slower = best[R_PACE] > middle if within else off > 0.0
        near = min(paces[1], max(paces[0], best[R_PACE] * (0.92 if slower else 1.08)))
        try_one(lure, scene, grid, paces, near, best[R_START], room, trial)
        _take_better(trial, best, target)


@compiled
def search(lures, limits, scene, coarse, fine, refine, results, first, last):
    """Search rigs ``first`` to ``last``; writes one row of ``results`` for each.

    ``refine`` measures the winner once more at the ``fine`` grid.
    ``limits`` has a row for each rig: slowest and fastest pace (m/s), deepest start (m).
    """
    slowest = 1e9
    for i in range(first, last):
        slowest = min(slowest, limits[i, 0])
    room = _room(scene[2], slowest)
    trial = np.zeros(RESULT_COLUMNS)
    for i in range(first, last):
        paces = limits[i, 0:2]
        _find(lures[i], scene, coarse, paces, limits[i, 2], refine, room, trial, results[i])
        if refine:
            pace, start = results[i, R_PACE], results[i, R_START]
            try_one(lures[i], scene, fine, paces, pace, start, room, results[i])


@compiled
def replay(lures, lines, scene, settings, grid, results, first, last):
    """Simulate each lure on its own line at its own setting (pace m/s, start m) and measure it."""
    slowest = 1e9
    for i in range(settings.shape[0]):
        slowest = min(slowest, settings[i, 0])
    room = _room(scene[2], slowest)
    any_pace = np.array([0.1, 1.0])
    for i in range(first, last):
        mine = (lines[i], scene[1], scene[2], scene[3], scene[4])
        try_one(lures[i], mine, grid, any_pace, settings[i, 0], settings[i, 1], room, results[i])
