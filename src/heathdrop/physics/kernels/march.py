"""Marching the line simulation through a programme's legs: when to step, what ends a leg, what is
recorded."""

import math

import numpy as np

from heathdrop.physics.kernels import compiled
from heathdrop.physics.kernels import state as row
from heathdrop.physics.kernels.chain import (
    EASING,
    FELT_M_S,
    NEARLY,
    SKIN_M,
    assemble,
    directions,
    lay,
    line_nodes,
    lure_node,
    move,
    tensions,
)
from heathdrop.physics.kernels.ground import (
    TOUCH_M,
    Ground,
    bottom_at,
    keep_line_out,
    ledges_of,
    round_lips,
    stand,
)
from heathdrop.physics.kernels.records import (
    FAR,
    Floats,
    Grid,
    LineParams,
    LureParams,
    Samples,
    Start,
    leg_at,
)

#: A leg in which less moves is stepped as if this much did, m/s.
STILL_M_S = 0.4
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
    ground: Ground,
    length: float,
) -> None:
    """Write one sample and, when asked for, the line's shape."""
    out.t[k] = t
    out.x[k] = s[row.X, n]
    out.z[k] = max(0.0, s[row.Z, n])
    out.tension[k] = s[row.TENSION, 0]
    out.phase[k] = phase
    out.bottom[k] = 1.0 if ground.touching else 0.0
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
    n = grid.mesh.shape[0] - 1
    mesh = np.zeros(n + 1)
    for i in range(n + 1):
        mesh[i] = grid.mesh[i]
    s = row.state_room(n + 1)
    length = lay(s=s, mesh=mesh, x0=start.x, z0=start.z, tip_x=0.0, tip_z=-start.tip)
    ledges = ledges_of(bottom)
    directions(s, n, ledges)
    t = start.t
    ground = Ground(start.z >= bottom_at(start.x, bottom) - 1e-3, False, 1.0, 0.0, lure.weight)
    rising = True
    shallowest = FAR
    for i in range(bottom.shape[0]):
        shallowest = min(shallowest, bottom[i, 1])
    # Not a literal, for which what it is handed to would be compiled once more.
    k = int(np.int64(0))
    due = t
    phase = 0.0
    for number in range(legs.shape[0]):
        leg = leg_at(legs, number)
        phase = leg.phase
        tip_speed = math.hypot(leg.tip_x, leg.tip_z)
        moving = max(max(abs(leg.reel), tip_speed), STILL_M_S)
        dt = min(grid.longest_s, grid.step_m / moving)
        end = t + leg.time
        while t < end - 1e-9:
            if t >= due - 1e-9:
                if k >= out.t.shape[0] - 1:
                    return k
                _record(out=out, shapes=shapes, k=k, t=t, s=s, n=n, phase=phase, ground=ground, length=length)
                k += 1
                due += sample_s
            # A light lure jerked along the surface snatches at its line: finer steps keep it from flying.
            h = min(0.5 * dt if s[row.Z, n] < SKIN_M else dt, end - t)
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
                _record(out=out, shapes=shapes, k=k, t=t, s=s, n=n, phase=phase, ground=ground, length=length)
                return k + 1
            length -= reel * h
            s[row.FREE_U, 0], s[row.FREE_W, 0] = leg.tip_x, leg.tip_z
            line_nodes(s=s, mesh=mesh, n=n, length=length, reel=reel, line=line, dt=h)
            held_x, held_z = lure_node(
                s=s, mesh=mesh, n=n, length=length, lure=lure, line=line, dt=h, ground=ground
            )
            assemble(
                s=s, mesh=mesh, n=n, length=length, dt=h, relax=grid.relax, most=grid.relax_most * moving
            )
            tensions(s, n)
            s[row.X, 0] += h * s[row.FREE_U, 0]
            s[row.Z, 0] += h * s[row.FREE_W, 0]
            move(s, n, h)
            if ledges.shape[0] > 0 and round_lips(s, n, ledges):
                ground = Ground(False, False, 1.0, 0.0, 0.0)
            keep_line_out(s, n, bottom, shallowest, ledges)
            if ground.touching or s[row.Z, n] >= shallowest - TOUCH_M:
                pull_x = -held_x - s[row.TENSION, n - 1] * s[row.DX, n - 1]
                pull_z = lure.weight - held_z - s[row.TENSION, n - 1] * s[row.DZ, n - 1]
                ground = stand(
                    s=s, n=n, bottom=bottom, ledges=ledges, before=ground, pull_x=pull_x, pull_z=pull_z
                )
            directions(s, n, ledges)
            if s[row.Z, n] >= leg.depth or s[row.Z, n] <= leg.rise:
                break
            out_x, out_z = s[row.X, n] - s[row.X, 0], s[row.Z, n] - s[row.Z, 0]
            straight = math.sqrt(out_x * out_x + out_z * out_z)
            felt = ground.touching and abs(s[row.U, n]) > FELT_M_S and straight >= NEARLY * length
            if leg.tight > 0.0 and (straight >= leg.tight * length or felt):
                break
            if s[row.X, n] <= leg.near:
                _record(out=out, shapes=shapes, k=k, t=t, s=s, n=n, phase=phase, ground=ground, length=length)
                return k + 1
            if leg.bottom > 0.5 and ground.touching:
                break
    _record(out=out, shapes=shapes, k=k, t=t, s=s, n=n, phase=phase, ground=ground, length=length)
    return k + 1
