"""Marching the line simulation through a programme's legs: when to step, what ends a leg, what is
recorded."""

from __future__ import annotations

import math

from heathdrop.physics.kernels import compiled
from heathdrop.physics.kernels import state as row
from heathdrop.physics.kernels.chain import (
    EASING,
    FELT_M_S,
    NEARLY,
    WALL_REACH_M,
    Ground,
    assemble,
    bottom_at,
    directions,
    lay,
    line_nodes,
    lure_node,
    move,
    tensions,
)
from heathdrop.physics.kernels.records import (
    Floats,
    Grid,
    LineParams,
    LureParams,
    Samples,
    Start,
    leg_at,
)

#: A bottom steeper than this is a ledge, not a slope to slide along.
LEDGE_SLOPE = 1.5
#: The bottom's slope is read over this far to either side of the lure, m.
SLOPE_REACH_M = 0.05
#: A cast is over when this much line, beyond the tip's height, is left out, m.
HOME_M = 0.4


@compiled
def _record(
    out: Samples,
    shapes: Floats,
    k: int,
    t: float,
    s: Floats,
    n: int,
    phase: float,
    grounded: bool,
    length: float,
) -> None:
    """Write one sample and, when asked for, the line's shape."""
    out.t[k] = t
    out.x[k] = s[row.X, n]
    out.z[k] = max(0.0, s[row.Z, n])
    out.tension[k] = s[row.TENSION, 0]
    out.phase[k] = phase
    out.bottom[k] = 1.0 if grounded else 0.0
    out.tip_x[k] = s[row.X, 0]
    out.tip_z[k] = s[row.Z, 0]
    out.line[k] = length
    if shapes.shape[0] > k:
        for i in range(n + 1):
            shapes[k, i, 0] = s[row.X, i]
            shapes[k, i, 1] = s[row.Z, i]


@compiled
def run_chain(
    lure: LureParams,
    line: LineParams,
    bottom: Floats,
    legs: Floats,
    grid: Grid,
    start: Start,
    sample_s: float,
    out: Samples,
    shapes: Floats,
) -> int:
    """Run a programme's legs from a laid line. Returns the number of samples.

    ``bottom`` has rows of distance and depth (m), ``legs`` rows of :class:`Leg`. A full ``out`` ends the
    cast. ``shapes`` is (samples, nodes, 2), or empty when shapes are not wanted.
    """
    mesh = grid.mesh.copy()
    n = mesh.shape[0] - 1
    s = row.state_room(n + 1)
    length = lay(s, mesh, start.x, start.z, 0.0, -start.tip)
    directions(s, n)
    t = start.t
    grounded = start.z >= bottom_at(start.x, bottom) - 1e-3
    walled, rising = False, True
    shallowest = bottom[:, 1].min()
    press = lure.weight
    k = 0
    due = t
    phase = 0.0
    for number in range(legs.shape[0]):
        leg = leg_at(legs, number)
        phase = leg.phase
        tip_speed = math.hypot(leg.tip_x, leg.tip_z)
        dt = min(grid.longest_s, grid.step_m / max(max(abs(leg.reel), tip_speed), 0.4))
        end = t + leg.time
        while t < end - 1e-9:
            if t >= due - 1e-9:
                if k >= out.t.shape[0] - 1:
                    return k
                _record(out, shapes, k, t, s, n, phase, grounded, length)
                k += 1
                due += sample_s
            h = min(dt, end - t)
            t += h
            reel = leg.reel
            if leg.clear > 0.0:
                # Slow-rolling hand: full pace from a touch until the lure is this far off, then easing till
                # it touches.
                height = bottom_at(s[row.X, n], bottom) - s[row.Z, n]
                if height > leg.clear:
                    rising = False
                elif height < 0.01:
                    rising = True
                reel = leg.reel if rising else EASING * leg.reel
            if length - reel * h < HOME_M - s[row.Z, 0]:
                _record(out, shapes, k, t, s, n, phase, grounded, length)
                return k + 1
            length -= reel * h
            s[row.FREE_U, 0], s[row.FREE_W, 0] = leg.tip_x, leg.tip_z
            line_nodes(s, mesh, n, length, reel, line, h)
            ahead, behind = (
                bottom_at(s[row.X, n] + SLOPE_REACH_M, bottom),
                bottom_at(s[row.X, n] - SLOPE_REACH_M, bottom),
            )
            slope = (ahead - behind) / (2.0 * SLOPE_REACH_M)
            if abs(slope) > LEDGE_SLOPE:
                slope = 0.0
            if walled:
                walled = bottom_at(s[row.X, n] - WALL_REACH_M, bottom) < s[row.Z, n]
            up = lure_node(s, mesh, n, length, lure, line, h, Ground(grounded, walled, slope, press))
            assemble(s, mesh, n, length, h)
            tensions(s, n)
            s[row.X, 0] += h * s[row.FREE_U, 0]
            s[row.Z, 0] += h * s[row.FREE_W, 0]
            walled = move(s, n, h, bottom, shallowest) or walled
            directions(s, n)
            press = lure.weight - up - s[row.TENSION, n - 1] * s[row.DZ, n - 1]
            here = bottom_at(s[row.X, n], bottom)
            if walled:
                grounded = False
            elif grounded:
                grounded = press > 0.0 and s[row.Z, n] >= here - 0.02
                if grounded:
                    s[row.Z, n] = here
            elif s[row.Z, n] >= here - 1e-9:
                grounded = True
                s[row.W, n] = 0.0
            press = max(press, 0.0)
            if s[row.Z, n] >= leg.depth or s[row.Z, n] <= leg.rise:
                break
            straight = math.hypot(s[row.X, n] - s[row.X, 0], s[row.Z, n] - s[row.Z, 0])
            felt = grounded and abs(s[row.U, n]) > FELT_M_S and straight >= NEARLY * length
            if leg.tight > 0.0 and (straight >= leg.tight * length or felt):
                break
            if s[row.X, n] <= leg.near:
                _record(out, shapes, k, t, s, n, phase, grounded, length)
                return k + 1
            if leg.bottom > 0.5 and grounded:
                break
    _record(out, shapes, k, t, s, n, phase, grounded, length)
    return k + 1
