"""Marching the line simulation through a programme's legs: when to step, what ends a leg, what is recorded."""

from __future__ import annotations

import math

import numpy as np

from heathdrop.compiled import compiled
from heathdrop.physics.chain import (
    CB,
    DZ,
    EASING,
    FELT_M_S,
    LEG_BOTTOM,
    LEG_CLEAR,
    LEG_DEPTH,
    LEG_NEAR,
    LEG_PHASE,
    LEG_REEL,
    LEG_RISE,
    LEG_TIGHT,
    LEG_TIME,
    LEG_TIP_X,
    LEG_TIP_Z,
    NEARLY,
    S_BOTTOM,
    S_LINE,
    S_PHASE,
    S_T,
    S_TENSION,
    S_TIP_X,
    S_TIP_Z,
    S_X,
    S_Z,
    STATE_ROWS,
    US,
    WALL_REACH_M,
    WEIGHT,
    WS,
    T,
    U,
    W,
    X,
    Z,
    assemble,
    bottom_at,
    directions,
    lay,
    line_nodes,
    lure_node,
    move,
    tensions,
)


@compiled
def _record(out, shapes, k, t, s, n, phase, grounded, length):
    """Write one sample and, when asked for, the line's shape."""
    out[k, S_T] = t
    out[k, S_X] = s[X, n]
    out[k, S_Z] = max(0.0, s[Z, n])
    out[k, S_TENSION] = s[T, 0]
    out[k, S_PHASE] = phase
    out[k, S_BOTTOM] = 1.0 if grounded else 0.0
    out[k, S_TIP_X] = s[X, 0]
    out[k, S_TIP_Z] = s[Z, 0]
    out[k, S_LINE] = length
    if shapes.shape[0] > k:
        for i in range(n + 1):
            shapes[k, i, 0] = s[X, i]
            shapes[k, i, 1] = s[Z, i]


@compiled
def run_chain(lure, line, bottom, legs, even_mesh, start, step_m, dt_max, sample_s, out, shapes):
    """Run a programme's legs from a laid line. Returns the number of samples.

    ``start``: x0, z0, tip x, tip z (negative above water), start time.
    ``legs``: one row per leg, ``FAR`` where a leg has no such end.
    ``out``: room for samples (SAMPLE_COLUMNS wide); a full room ends the cast.
    ``shapes``: (samples, nodes, 2), or empty when shapes are not wanted.
    """
    mesh = even_mesh.copy()
    n = mesh.shape[0] - 1
    s = np.zeros((STATE_ROWS, n + 1))
    work = np.ones((3, n + 1))
    s[CB, :] = 0.5
    length = lay(s, mesh, start[0], start[1], start[2], start[3])
    directions(s, n)
    t = start[4]
    grounded = start[1] >= bottom_at(start[0], bottom) - 1e-3
    walled, rising = False, True
    shallowest = bottom[:, 1].min()
    press = lure[WEIGHT]
    k = 0
    due = t
    for leg in range(legs.shape[0]):
        steady = legs[leg, LEG_REEL]
        clear = legs[leg, LEG_CLEAR]
        tip_speed = math.hypot(legs[leg, LEG_TIP_X], legs[leg, LEG_TIP_Z])
        dt = min(dt_max, step_m / max(max(abs(steady), tip_speed), 0.4))
        end = t + legs[leg, LEG_TIME]
        while t < end - 1e-9:
            if t >= due - 1e-9:
                if k >= out.shape[0] - 1:
                    return k
                _record(out, shapes, k, t, s, n, legs[leg, LEG_PHASE], grounded, length)
                k += 1
                due += sample_s
            h = min(dt, end - t)
            t += h
            reel = steady
            if clear > 0.0:
                # Slow-rolling hand: full pace from a touch until the lure is this far off, then easing till it touches.
                height = bottom_at(s[X, n], bottom) - s[Z, n]
                if height > clear:
                    rising = False
                elif height < 0.01:
                    rising = True
                reel = steady if rising else EASING * steady
            if length - reel * h < 0.4 - s[Z, 0]:
                _record(out, shapes, k, t, s, n, legs[leg, LEG_PHASE], grounded, length)
                return k + 1
            length -= reel * h
            s[US, 0], s[WS, 0] = legs[leg, LEG_TIP_X], legs[leg, LEG_TIP_Z]
            line_nodes(s, mesh, n, length, reel, line, h)
            here = bottom_at(s[X, n], bottom)
            slope = (bottom_at(s[X, n] + 0.05, bottom) - bottom_at(s[X, n] - 0.05, bottom)) / 0.1
            if abs(slope) > 1.5:
                slope = 0.0
            if walled:
                walled = bottom_at(s[X, n] - WALL_REACH_M, bottom) < s[Z, n]
            up = lure_node(s, mesh, n, length, lure, line, h, grounded, walled, slope, press)
            assemble(s, mesh, n, length, h)
            tensions(s, work, n)
            s[X, 0] += h * s[US, 0]
            s[Z, 0] += h * s[WS, 0]
            walled = move(s, n, h, bottom, shallowest) or walled
            directions(s, n)
            press = lure[WEIGHT] - up - s[T, n - 1] * s[DZ, n - 1]
            here = bottom_at(s[X, n], bottom)
            if walled:
                grounded = False
            elif grounded:
                grounded = press > 0.0 and s[Z, n] >= here - 0.02
                if grounded:
                    s[Z, n] = here
            elif s[Z, n] >= here - 1e-9:
                grounded = True
                s[W, n] = 0.0
            press = max(press, 0.0)
            if s[Z, n] >= legs[leg, LEG_DEPTH] or s[Z, n] <= legs[leg, LEG_RISE]:
                break
            straight = math.hypot(s[X, n] - s[X, 0], s[Z, n] - s[Z, 0])
            tight = legs[leg, LEG_TIGHT]
            felt = grounded and abs(s[U, n]) > FELT_M_S and straight >= NEARLY * length
            if tight > 0.0 and (straight >= tight * length or felt):
                break
            if s[X, n] <= legs[leg, LEG_NEAR]:
                _record(out, shapes, k, t, s, n, legs[leg, LEG_PHASE], grounded, length)
                return k + 1
            if legs[leg, LEG_BOTTOM] > 0.5 and grounded:
                break
    _record(out, shapes, k, t, s, n, legs[legs.shape[0] - 1, LEG_PHASE], grounded, length)
    return k + 1
