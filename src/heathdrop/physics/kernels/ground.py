"""The bottom under line and lure: its profile, its ledges, and how the lure stands to it.

The profile is rows of (distance, depth), m. A stretch of it steeper than :data:`LEDGE_SLOPE` is a ledge: a
lip, where the line runs over as over a pulley, and a face, along which a lure slides.
"""

import math
from typing import Any, NamedTuple

import numpy as np

from heathdrop.physics.kernels import compiled
from heathdrop.physics.kernels import state as row
from heathdrop.physics.kernels.records import Floats

#: A bottom steeper than this is a ledge, not a slope to slide along.
LEDGE_SLOPE = 1.5
#: The slope of ground that is no ledge is read over this far to either side of the lure, m.
SLOPE_REACH_M = 0.05
#: Deeper in the rock than this, something has come through it and is left free, m.
THROUGH_M = 0.5
#: What stands in for the lip while a node goes round it, m.
AT_LIP_M = 1e-4
#: A lure on the bottom loses touch with it this far above, m.
TOUCH_M = 0.02


class Ground(NamedTuple):
    """How the lure stands to the bottom: touching it, on a ledge's face, the direction it may slide (unit
    vector) and the pressure on it (N)."""

    touching: bool
    faced: bool
    along_x: float
    along_z: float
    press: float


@compiled
def bottom_at(x: float, bottom: Floats) -> Any:
    """Bottom depth (m) at distance x from a profile of (distance, depth) rows."""
    k = bottom.shape[0]
    if x <= bottom[0, 0]:
        return bottom[0, 1]
    for i in range(1, k):
        if x <= bottom[i, 0]:
            f = (x - bottom[i - 1, 0]) / (bottom[i, 0] - bottom[i - 1, 0])
            return bottom[i - 1, 1] + f * (bottom[i, 1] - bottom[i - 1, 1])
    return bottom[k - 1, 1]


@compiled
def ledges_of(bottom: Floats) -> Floats:
    """The profile's ledges: rows of lip distance, lip depth, foot distance, foot depth (m)."""
    ledges = np.zeros((bottom.shape[0], 4))
    m = 0
    for i in range(1, bottom.shape[0]):
        run, fall = bottom[i, 0] - bottom[i - 1, 0], bottom[i, 1] - bottom[i - 1, 1]
        if abs(fall) <= LEDGE_SLOPE * run:
            continue
        lip, foot = (i - 1, i) if fall > 0.0 else (i, i - 1)
        ledges[m, 0], ledges[m, 1] = bottom[lip, 0], bottom[lip, 1]
        ledges[m, 2], ledges[m, 3] = bottom[foot, 0], bottom[foot, 1]
        m += 1
    return ledges[:m]


@compiled
def slope_at(x: float, bottom: Floats) -> Any:
    """The bottom's slope (depth per distance) at x; 0 where a ledge is too near to tell."""
    ahead, behind = bottom_at(x + SLOPE_REACH_M, bottom), bottom_at(x - SLOPE_REACH_M, bottom)
    slope = (ahead - behind) / (2.0 * SLOPE_REACH_M)
    return slope if abs(slope) <= LEDGE_SLOPE else 0.0


@compiled
def face_met(x: float, z: float, floor: float, ledges: Floats) -> int:
    """Which ledge's face a point in the rock has come through from the water side; -1 for none.

    ``floor`` is the bottom's depth at x. What lies nearer the floor above it than the face came down on it.
    """
    for m in range(ledges.shape[0]):
        if not ledges[m, 1] < z <= ledges[m, 3] + TOUCH_M:
            continue
        within = face_at(z, ledges, m) - x
        if ledges[m, 2] < ledges[m, 0]:
            within = -within
        if 0.0 <= within < min(THROUGH_M, z - floor):
            return m
    return -1


@compiled
def face_at(z: float, ledges: Floats, m: int) -> Any:
    """Distance (m) of the face of ledge ``m`` at depth z."""
    share = (z - ledges[m, 1]) / (ledges[m, 3] - ledges[m, 1])
    return ledges[m, 0] + min(1.0, max(0.0, share)) * (ledges[m, 2] - ledges[m, 0])


@compiled
def face_up(ledges: Floats, m: int) -> tuple[float, float]:
    """Unit vector up the face of ledge ``m``."""
    dx, dz = ledges[m, 0] - ledges[m, 2], ledges[m, 1] - ledges[m, 3]
    length = math.sqrt(dx * dx + dz * dz)
    return dx / length, dz / length


@compiled
def over_lips(s: Floats, n: int, ledges: Floats) -> None:
    """Segments that a lip stands in the way of run over it: their length by way of the lip, a direction at
    each end."""
    for m in range(ledges.shape[0]):
        lip_x, lip_z = ledges[m, 0], ledges[m, 1]
        for j in range(n):
            ax, az = s[row.X, j], s[row.Z, j]
            bx, bz = s[row.X, j + 1], s[row.Z, j + 1]
            if (ax - lip_x) * (bx - lip_x) >= 0.0:
                continue
            if az + (bz - az) * (lip_x - ax) / (bx - ax) <= lip_z:
                continue
            nx, nz, fx, fz = lip_x - ax, lip_z - az, bx - lip_x, bz - lip_z
            near, far = math.sqrt(nx * nx + nz * nz), math.sqrt(fx * fx + fz * fz)
            if near < AT_LIP_M or far < AT_LIP_M:
                continue
            s[row.LENGTH, j] = near + far
            s[row.NX, j], s[row.NZ, j] = nx / near, nz / near
            s[row.DX, j], s[row.DZ, j] = fx / far, fz / far
            s[row.LIP, j] = m + 1.0


@compiled
def _turned(s: Floats, i: int, lip_x: float, lip_z: float, way_x: float, way_z: float) -> None:
    """Put node ``i``, just past a lip, as far past it on the line's way beyond; it keeps its speed."""
    speed = math.sqrt(s[row.U, i] * s[row.U, i] + s[row.W, i] * s[row.W, i])
    past = max(math.hypot(s[row.X, i] - lip_x, s[row.Z, i] - lip_z), 2.0 * AT_LIP_M)
    s[row.X, i], s[row.Z, i] = lip_x + past * way_x, lip_z + past * way_z
    s[row.U, i], s[row.W, i] = speed * way_x, speed * way_z


@compiled
def round_lips(s: Floats, n: int, ledges: Floats) -> bool:
    """Turn what has come to a lip along its segment around it. Returns whether the lure was.

    Without this a node would run straight on past the lip and the line would lengthen at the corner.
    """
    lure = False
    for j in range(n):
        m = int(s[row.LIP, j]) - 1
        if m < 0:
            continue
        s[row.LIP, j] = 0.0
        lip_x, lip_z = ledges[m, 0], ledges[m, 1]
        k = j + 1
        left = (s[row.X, k] - lip_x) * s[row.DX, j] + (s[row.Z, k] - lip_z) * s[row.DZ, j]
        if left < AT_LIP_M:
            _turned(s=s, i=k, lip_x=lip_x, lip_z=lip_z, way_x=-s[row.NX, j], way_z=-s[row.NZ, j])
            lure = lure or k == n
            continue
        left = (lip_x - s[row.X, j]) * s[row.NX, j] + (lip_z - s[row.Z, j]) * s[row.NZ, j]
        if j > 0 and left < AT_LIP_M:
            _turned(s=s, i=j, lip_x=lip_x, lip_z=lip_z, way_x=s[row.DX, j], way_z=s[row.DZ, j])
    return lure


@compiled
def keep_line_out(s: Floats, n: int, bottom: Floats, shallowest: float, ledges: Floats) -> None:
    """Line nodes that came down on the floor rest on it; those that came into a face stay before it."""
    for i in range(1, n):
        x, z = s[row.X, i], s[row.Z, i]
        if z <= shallowest:
            continue
        floor = bottom_at(x, bottom)
        if z <= floor:
            continue
        m = face_met(x, z, floor, ledges)
        if m >= 0:
            away = 1.0 if ledges[m, 2] >= ledges[m, 0] else -1.0
            s[row.X, i] = face_at(z, ledges, m) + away * AT_LIP_M
            s[row.U, i] = away * max(0.0, away * s[row.U, i])
        elif z <= floor + THROUGH_M:
            s[row.Z, i] = floor
            s[row.W, i] = min(0.0, s[row.W, i])


@compiled
def stand(
    s: Floats, n: int, bottom: Floats, ledges: Floats, before: Ground, pull_x: float, pull_z: float
) -> Ground:
    """Keep the lure out of the rock and say how it stands to it now.

    ``pull_x``, ``pull_z`` are all the forces on it (N) but the bottom's; ``before`` is how it stood.
    """
    x, z = s[row.X, n], s[row.Z, n]
    floor = bottom_at(x, bottom)
    m = face_met(x, z, floor, ledges) if z > floor else -1
    if m < 0 and before.faced:
        # Still leaning on the face that it slid along, within a touch of it?
        for k in range(ledges.shape[0]):
            if ledges[k, 1] < z < ledges[k, 3] and abs(x - face_at(z, ledges, k)) < AT_LIP_M:
                m = k
    if m >= 0:
        up_x, up_z = face_up(ledges, m)
        away = 1.0 if ledges[m, 2] >= ledges[m, 0] else -1.0
        press = -(pull_x * (-up_z) * away + pull_z * up_x * away)
        if before.faced and press <= 0.0:
            return Ground(False, False, 1.0, 0.0, 0.0)
        s[row.X, n] = face_at(z, ledges, m)
        along = s[row.U, n] * up_x + s[row.W, n] * up_z
        s[row.U, n], s[row.W, n] = along * up_x, along * up_z
        if z > ledges[m, 3] and along <= 0.0:
            s[row.Z, n] = ledges[m, 3]
        return Ground(True, True, up_x, up_z, 0.0)
    touching = z >= floor - 1e-9
    s[row.Z, n] = min(z, floor)
    if before.touching and not before.faced:
        touching = pull_z > 0.0 and z >= floor - TOUCH_M
    elif touching:
        s[row.W, n] = 0.0
    if not touching:
        return Ground(False, False, 1.0, 0.0, 0.0)
    s[row.Z, n] = floor
    slope = slope_at(x, bottom)
    length = math.sqrt(1.0 + slope * slope)
    return Ground(True, False, 1.0 / length, slope / length, max(0.0, pull_z))
