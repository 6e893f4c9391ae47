"""The compiled search: each rig's best pace and starting depth for a depth band.

For every rig the same few casts are tried: three paces across the allowed band
with the count at the band's middle, the pace whose mean depth meets the middle,
then small moves of count and pace around the best so far. The winner is
simulated once more at board fidelity and measured there.
"""

from __future__ import annotations

import math

import numpy as np

from heathdrop.compiled import compiled
from heathdrop.physics import chain

#: Softness of the band's edges: a lure this far outside (m) counts e^-1.
EDGE_M = 0.3048
FALL_BACK_WEIGHT = 1e-3
#: How much less a pace at the edge of the mood's band is worth than one at its middle: e^-0.5.
EDGE_COMFORT = 0.5

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
def try_one(lure, line, bottom, mesh, x0, tip_z, paces, pace, start, step_m, dt_max, band, out, shapes, legs, result):
    """Simulate one pace and starting depth and measure it into ``result``."""
    legs[0, :] = 0.0
    legs[0, chain.LEG_TIME] = 1.6 * x0 / pace + 30.0
    legs[0, chain.LEG_REEL] = pace
    legs[0, chain.LEG_DEPTH] = chain.FAR
    legs[0, chain.LEG_RISE] = -chain.FAR
    legs[0, chain.LEG_NEAR] = 0.19 * x0
    begin = np.array([x0, start, 0.0, -tip_z, 0.0])
    k = chain.run_chain(lure, line, bottom, legs, mesh, begin, step_m, dt_max, 0.25, out, shapes)
    measure(out, k, x0, band[0], band[1], band[2], result)
    result[R_PACE] = pace
    result[R_START] = start
    result[R_COMFORT] = comfort(pace, paces)


@compiled
def _take_better(trial, best, target):
    """Keep the trial when it is in the band longer (a near tie goes to the mean nearer its middle)."""
    worth = trial[R_SOFT] * trial[R_COMFORT] - FALL_BACK_WEIGHT * abs(trial[R_MEAN] - target)
    held = best[R_SOFT] * best[R_COMFORT] - FALL_BACK_WEIGHT * abs(best[R_MEAN] - target)
    if worth > held:
        best[:] = trial


@compiled
def search(lures, line, bottom, x0, tip_z, band, paces, deepest, mesh, steps, fine_mesh, fine_steps, first, last, results):
    """Search rigs ``first`` to ``last``; writes one row of ``results`` for each.

    ``band``: top, low edge and cover top (m). ``paces``: slowest and fastest (m/s).
    """
    room = int((1.6 * x0 / paces[0] + 30.0) / 0.25) + 8
    out = np.zeros((room, chain.SAMPLE_COLUMNS))
    shapes = np.zeros((0, 0, 2))
    legs = np.zeros((1, chain.LEG_COLUMNS))
    trial = np.zeros(RESULT_COLUMNS)
    means = np.zeros(3)
    middle = 0.5 * (band[0] + band[1])
    start = min(middle, deepest)
    for i in range(first, last):
        lure = lures[i]
        best = results[i]
        best[R_SOFT] = -1.0
        best[R_COMFORT] = 1.0
        tries = np.array([paces[0], math.sqrt(paces[0] * paces[1]), paces[1]])
        for j in range(3):
            try_one(
                lure,
                line,
                bottom,
                mesh,
                x0,
                tip_z,
                paces,
                tries[j],
                start,
                steps[0],
                steps[1],
                band,
                out,
                shapes,
                legs,
                trial,
            )
            means[j] = trial[R_MEAN]
            _take_better(trial, best, middle)
        pace = _meeting_pace(tries, means, middle)
        try_one(lure, line, bottom, mesh, x0, tip_z, paces, pace, start, steps[0], steps[1], band, out, shapes, legs, trial)
        _take_better(trial, best, middle)
        # Count further down when it runs high at its best, less when it runs deep.
        shift = middle - best[R_MEAN]
        for share in (1.0, 0.4):
            z0 = min(deepest, max(0.05, best[R_START] + share * shift))
            if abs(z0 - best[R_START]) > 0.05:
                try_one(
                    lure,
                    line,
                    bottom,
                    mesh,
                    x0,
                    tip_z,
                    paces,
                    best[R_PACE],
                    z0,
                    steps[0],
                    steps[1],
                    band,
                    out,
                    shapes,
                    legs,
                    trial,
                )
                _take_better(trial, best, middle)
        if best[R_SOFT] * best[R_COMFORT] < 0.98:
            for factor in (0.92, 1.08):
                near = min(paces[1], max(paces[0], best[R_PACE] * factor))
                try_one(
                    lure,
                    line,
                    bottom,
                    mesh,
                    x0,
                    tip_z,
                    paces,
                    near,
                    best[R_START],
                    steps[0],
                    steps[1],
                    band,
                    out,
                    shapes,
                    legs,
                    trial,
                )
                _take_better(trial, best, middle)
        try_one(
            lure,
            line,
            bottom,
            fine_mesh,
            x0,
            tip_z,
            paces,
            best[R_PACE],
            best[R_START],
            fine_steps[0],
            fine_steps[1],
            band,
            out,
            shapes,
            legs,
            best,
        )


@compiled
def _meeting_pace(paces, means, target):
    """The pace whose mean depth is ``target``, between the three tried (deeper is slower)."""
    for j in range(2):
        if (means[j] - target) * (means[j + 1] - target) <= 0.0 and means[j] != means[j + 1]:
            share = (means[j] - target) / (means[j] - means[j + 1])
            return paces[j] * (paces[j + 1] / paces[j]) ** share
    return paces[0] if means[0] < target else paces[2]


@compiled
def replay(lures, lines, bottom, x0, tip_z, band, paces, settings, mesh, steps, results):
    """Simulate each lure on its own line at its own setting (pace m/s, start m) and measure it."""
    slowest = 1e9
    for i in range(settings.shape[0]):
        slowest = min(slowest, settings[i, 0])
    out = np.zeros((int((1.6 * x0 / slowest + 30.0) / 0.25) + 8, chain.SAMPLE_COLUMNS))
    shapes = np.zeros((0, 0, 2))
    legs = np.zeros((1, chain.LEG_COLUMNS))
    for i in range(lures.shape[0]):
        pace, start = settings[i, 0], settings[i, 1]
        try_one(
            lures[i],
            lines[i],
            bottom,
            mesh,
            x0,
            tip_z,
            paces,
            pace,
            start,
            steps[0],
            steps[1],
            band,
            out,
            shapes,
            legs,
            results[i],
        )
