"""The line simulation: a weighted line and a lure in the vertical plane.

The line from the rod tip to the lure is a chain of inextensible segments
carried on a mesh that shrinks with the line left out: node ``i`` always sits
at the fraction ``mesh[i]`` of that length (0 at the tip, 1 at the lure), and
the line slides through the mesh as the reel turns. Per step, each node gets a
small linear system (mass, drag linearised about the last velocity, weight);
the tensions that keep the segments at their lengths follow from one
tridiagonal solve; a segment that would have to push goes slack instead.

Coordinates: ``x`` distance from the angler, m; ``z`` depth, m, down positive.
Everything here is compiled, one time step in parts; :mod:`heathdrop.physics.march` puts them together.
The arrays' meanings are fixed by the constants below and packed by :mod:`heathdrop.physics.cast`.
"""

from __future__ import annotations

import math

from heathdrop.compiled import compiled

GRAVITY = 9.80665
#: Smoothing, in metres, of the lure's passage through the surface.
SKIN_M = 0.03
#: Share of its drag that a lure keeps while it skims along the surface (assumption).
PLANING = 0.5
#: Damping of line in the air, N·s/m per metre: only there to still it.
AIR_DAMPING = 1e-3
#: Share of a length error taken back in one step, and the speed it may cause (m/s).
LENGTH_RELAX, LENGTH_SPEED = 0.3, 0.3
#: A bottom that rises this much within one step is a wall to the lure, m.
WALL_M = 0.05
#: How far ahead of a lure at the foot of a ledge the ledge is looked for, m.
WALL_REACH_M = 0.15
#: Share of its pace at which a slow-rolling hand waits for the next touch (practice).
EASING = 0.2
#: A hand taking up slack stops when the lure starts to slide (m/s) on a line this nearly straight (practice).
FELT_M_S, NEARLY = 0.02, 0.975
#: Rounds in which segments may change between tight and slack in one step.
PIVOTS = 10

# Rows of the state array, one column per node (segments use their tip-side node).
(X, Z, U, W, US, WS, B00, B01, B10, B11, DX, DZ, LN, T, LO, DI, UP, RH, CB, TP) = range(20)
STATE_ROWS = 20

# Lure parameters.
(MASS, WEIGHT, A_RUN, A_FALL, A_LIFT, FADE, GRIP) = range(7)
# Line and water parameters.
(L_AREA, L_DENSITY, L_NORMAL, L_VISC, L_TANGENT, WATER_RHO) = range(6)
# One leg of a programme.
(LEG_TIME, LEG_REEL, LEG_TIP_X, LEG_TIP_Z, LEG_DEPTH, LEG_RISE, LEG_NEAR, LEG_BOTTOM, LEG_PHASE, LEG_CLEAR, LEG_TIGHT) = range(11)
LEG_COLUMNS = 11
#: Stands for "no such end": finite, because the compiled code assumes finite numbers.
FAR = 1e9
# One sample.
(S_T, S_X, S_Z, S_TENSION, S_PHASE, S_BOTTOM, S_TIP_X, S_TIP_Z, S_LINE) = range(9)
SAMPLE_COLUMNS = 9


@compiled
def bottom_at(x, bottom):
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
def _fit_mesh(mesh, corner):
    """A copy of the mesh stretched so that one node sits at the fraction ``corner``.

    Without a node there the chord across the corner would leave line slack.
    """
    n = mesh.shape[0] - 1
    fitted = mesh.copy()
    k = 1
    for i in range(1, n):
        if abs(mesh[i] - corner) < abs(mesh[k] - corner):
            k = i
    if 0.0 < corner < 1.0 - 0.3 * (1.0 - mesh[n - 1]):
        for i in range(1, n):
            if i <= k:
                fitted[i] = mesh[i] * corner / mesh[k]
            else:
                fitted[i] = corner + (mesh[i] - mesh[k]) * (1.0 - corner) / (1.0 - mesh[k])
    return fitted


@compiled
def lay(s, mesh, x0, z0, tip_x, tip_z):
    """Lay the line: tip to water, along the surface, straight down at x0.

    Returns its length; ``mesh`` is changed in place to put a node at the point of entry.
    """
    n = mesh.shape[0] - 1
    meets = tip_x + min((x0 - tip_x) / 5.0, 4.0)
    air = math.hypot(meets - tip_x, tip_z)
    level = x0 - meets
    total = air + level + z0
    mesh[:] = _fit_mesh(mesh, (air + level) / total)
    for i in range(n + 1):
        at = mesh[i] * total
        if at < air:
            s[X, i] = tip_x + (meets - tip_x) * at / air
            s[Z, i] = tip_z - tip_z * at / air
        elif at < air + level:
            s[X, i] = meets + at - air
            s[Z, i] = 0.0
        else:
            s[X, i] = x0
            s[Z, i] = at - air - level
    return total


@compiled
def directions(s, n):
    """Lengths and unit vectors of the segments."""
    for j in range(n):
        ex = s[X, j + 1] - s[X, j]
        ez = s[Z, j + 1] - s[Z, j]
        length = math.sqrt(ex * ex + ez * ez) + 1e-12
        inverse = 1.0 / length
        s[LN, j] = length
        s[DX, j] = ex * inverse
        s[DZ, j] = ez * inverse


@compiled
def _wet(here, there, length):
    """Wetted part of a half segment between two depths."""
    if here >= 0.0 and there >= 0.0:
        return length
    top = max(here, there)
    if top <= 0.0:
        return 0.0
    return length * top / abs(here - there)


@compiled
def _cube_root(u, guess):
    """Cube root of u by one Halley step from the node's last one (start it warm)."""
    y3 = guess * guess * guess
    return guess * (y3 + 2.0 * u) / (2.0 * y3 + u + 1e-30)


@compiled
def line_nodes(s, mesh, n, length, reel, line, dt):
    """Free velocities and mobilities of the line's inner nodes."""
    rho = line[WATER_RHO]
    m_air = line[L_DENSITY] * line[L_AREA]
    m_wet = rho * line[L_AREA]
    g_area = GRAVITY * line[L_AREA]
    for i in range(1, n):
        tx = s[DX, i - 1] + s[DX, i]
        tz = s[DZ, i - 1] + s[DZ, i]
        q = tx * tx + tz * tz
        if q < 1e-6:
            tx, tz, q = s[DX, i], s[DZ, i], 1.0
        q = 1.0 / math.sqrt(q)
        tx *= q
        tz *= q
        la = 0.5 * length * (mesh[i] - mesh[i - 1])
        lb = 0.5 * length * (mesh[i + 1] - mesh[i])
        both = la + lb
        z = s[Z, i]
        wet = _wet(z, 0.5 * (s[Z, i - 1] + z), la) + _wet(z, 0.5 * (s[Z, i + 1] + z), lb)
        dry = AIR_DAMPING * (both - wet)
        along = s[U, i] * tx + s[W, i] * tz
        un = -s[U, i] * tz + s[W, i] * tx
        ut = along - reel * (1.0 - mesh[i])
        au = abs(un)
        root = _cube_root(au, s[CB, i])
        s[CB, i] = max(root, 0.05)
        gn = line[L_NORMAL] * wet * (au + line[L_VISC] * root) * un
        dn = line[L_NORMAL] * wet * (2.0 * au + 4.0 / 3.0 * line[L_VISC] * root) + dry
        gt = line[L_TANGENT] * wet * abs(ut) * ut
        dtan = 2.0 * line[L_TANGENT] * wet * abs(ut) + dry
        mass = m_air * both + m_wet * wet
        # Sideways, a node carries enough extra mass that a tight line stays
        # stable at this step; its motion is ruled by drag, not by inertia.
        pull = max(s[TP, i - 1], s[TP, i])
        heavy = mass + 0.5 * pull * dt * dt * both / (la * lb)
        down = g_area * (line[L_DENSITY] * both - rho * wet)
        at = 1.0 / (mass / dt + dtan)
        an = 1.0 / (heavy / dt + dn)
        vt = at * (mass / dt * along + down * tz - gt + dtan * along)
        vn = an * (heavy / dt * un + down * tx - gn + dn * un)
        s[US, i] = vt * tx - vn * tz
        s[WS, i] = vt * tz + vn * tx
        s[B00, i] = at * tx * tx + an * tz * tz
        s[B11, i] = at * tz * tz + an * tx * tx
        s[B01, i] = (at - an) * tx * tz
        s[B10, i] = s[B01, i]


@compiled
def lure_node(s, mesh, n, length, lure, line, dt, grounded, walled, slope, press):
    """Free velocity and mobility of the lure with its last half segment of line.

    Returns the upward hydrodynamic force (N) for the bottom's account.
    """
    u, w, z = s[U, n], s[W, n], s[Z, n]
    speed = math.sqrt(u * u + w * w) + 1e-9
    wet = 1.0 if z >= 0.0 else max(0.0, 1.0 + z / SKIN_M)
    dive = w * w / (speed * speed) if w > 0.0 else 0.0
    area = lure[A_RUN] + (lure[A_FALL] - lure[A_RUN]) * dive
    fade = min(1.0, 2.0 * abs(u) / speed) if lure[FADE] > 0.5 else 1.0
    side = -1.0 if u > 0.0 else 1.0
    rho = line[WATER_RHO]
    # A lure skimming the surface planes: it sheds its lift and weight first, its drag only in part.
    kd = 0.5 * rho * area * max(wet, PLANING)
    kl = 0.5 * rho * lure[A_LIFT] * wet * fade * side
    mx = kd * u + kl * w
    mz = kd * w - kl * u
    weight = lure[WEIGHT] + (1.0 - wet) * (lure[MASS] * GRAVITY - lure[WEIGHT])
    half = 0.5 * length * (mesh[n] - mesh[n - 1])
    tx, tz = s[DX, n - 1], s[DZ, n - 1]
    un = -u * tz + w * tx
    au = abs(un)
    root = _cube_root(au, s[CB, n])
    s[CB, n] = max(root, 0.05)
    gn = line[L_NORMAL] * half * wet * (au + line[L_VISC] * root) * un
    dn = line[L_NORMAL] * half * wet * (2.0 * au + 4.0 / 3.0 * line[L_VISC] * root)
    mass = lure[MASS] + (line[L_DENSITY] + rho) * line[L_AREA] * half
    weight += line[L_AREA] * GRAVITY * (line[L_DENSITY] - rho * wet) * half
    # Full derivative of speed-squared drag and lift, so that one step is one Newton step.
    j00 = speed * kd + mx * u / speed
    j01 = speed * kl + mx * w / speed
    j10 = -speed * kl + mz * u / speed
    j11 = speed * kd + mz * w / speed
    a00 = mass / dt + j00 + dn * tz * tz
    a01 = j01 - dn * tx * tz
    a10 = j10 - dn * tx * tz
    a11 = mass / dt + j11 + dn * tx * tx
    f0 = mass / dt * u - speed * mx + j00 * u + j01 * w - tz * (dn * un - gn)
    f1 = mass / dt * w - speed * mz + j10 * u + j11 * w + tx * (dn * un - gn) + weight
    if walled:
        # Against a ledge: only up or down it.
        b = 1.0 / a11
        s[US, n], s[WS, n] = 0.0, b * f1
        s[B00, n], s[B01, n], s[B10, n], s[B11, n] = 0.0, 0.0, 0.0, b
    elif grounded:
        # Along the bottom only, with Coulomb friction as a drag.
        rub = lure[GRIP] * press / max(abs(u), 1e-3)
        b = 1.0 / (a00 + rub + slope * (a01 + a10) + slope * slope * a11)
        along = b * (f0 + slope * f1)
        s[US, n], s[WS, n] = along, slope * along
        s[B00, n], s[B01, n] = b, b * slope
        s[B10, n], s[B11, n] = b * slope, b * slope * slope
    else:
        det = 1.0 / (a00 * a11 - a01 * a10)
        s[B00, n], s[B01, n] = a11 * det, -a01 * det
        s[B10, n], s[B11, n] = -a10 * det, a00 * det
        s[US, n] = s[B00, n] * f0 + s[B01, n] * f1
        s[WS, n] = s[B10, n] * f0 + s[B11, n] * f1
    return speed * mz


@compiled
def assemble(s, mesh, n, length, dt):
    """The tridiagonal system of the tensions (impulses per step length)."""
    for j in range(n):
        ex, ez = s[DX, j], s[DZ, j]
        k = j + 1
        bx = s[B00, k] * ex + s[B01, k] * ez
        bz = s[B10, k] * ex + s[B11, k] * ez
        diagonal = ex * bx + ez * bz
        s[LO, j] = 0.0
        if j > 0:
            px = s[B00, j] * ex + s[B01, j] * ez
            pz = s[B10, j] * ex + s[B11, j] * ez
            diagonal += ex * px + ez * pz
            fx, fz = s[DX, j - 1], s[DZ, j - 1]
            s[LO, j] = -(ex * (s[B00, j] * fx + s[B01, j] * fz) + ez * (s[B10, j] * fx + s[B11, j] * fz))
        s[UP, j] = 0.0
        if j < n - 1:
            fx, fz = s[DX, k], s[DZ, k]
            s[UP, j] = -(ex * (s[B00, k] * fx + s[B01, k] * fz) + ez * (s[B10, k] * fx + s[B11, k] * fz))
        rest = length * (mesh[k] - mesh[j])
        short = rest - s[LN, j]
        if short < 0.03 * rest:
            back = min(LENGTH_SPEED, max(-LENGTH_SPEED, LENGTH_RELAX * short / dt))
        else:
            back = short / dt  # slack: free to lengthen until it is tight
        parting = (s[US, k] - s[US, j]) * ex + (s[WS, k] - s[WS, j]) * ez
        s[DI, j] = diagonal
        s[RH, j] = parting - back


@compiled
def tensions(s, work, n):
    """Solve for the tensions, none below zero.

    A linear complementarity problem: each segment is either tight (its length
    holds, tension >= 0) or slack (tension 0, free to shorten). Block pivoting:
    let go what pushes, take up what would overstretch, until nothing changes.
    It starts from the last step's choice (``work[2]``), which is mostly right.
    """
    for _ in range(PIVOTS):
        for j in range(n):
            tight = work[2, j] > 0.5
            d, r, lo, up = 1.0, 0.0, 0.0, 0.0
            if tight:
                d, r, lo, up = s[DI, j], s[RH, j], s[LO, j], s[UP, j]
            if j > 0:
                q = lo / work[0, j - 1]
                d -= q * work[1, j - 1]
                r -= q * s[T, j - 1]
            work[0, j] = d
            work[1, j] = up
            s[T, j] = r
        s[T, n - 1] /= work[0, n - 1]
        for j in range(n - 2, -1, -1):
            s[T, j] = (s[T, j] - work[1, j] * s[T, j + 1]) / work[0, j]
        changed = False
        for j in range(n):
            if work[2, j] > 0.5:
                if s[T, j] < -1e-9:
                    work[2, j] = 0.0
                    changed = True
            else:
                over = s[RH, j]
                if j > 0:
                    over -= s[LO, j] * s[T, j - 1]
                if j < n - 1:
                    over -= s[UP, j] * s[T, j + 1]
                if over > 1e-9:
                    work[2, j] = 1.0
                    changed = True
        if not changed:
            break
    for j in range(n):
        s[T, j] = max(s[T, j], 0.0)
        s[TP, j] = max(s[T, j], 0.8 * s[TP, j])


@compiled
def move(s, n, dt, bottom, shallowest):
    """Apply the tensions, move the nodes, keep the line above the bottom. Returns whether a ledge stopped the lure."""
    wall = False
    for i in range(1, n + 1):
        gx = -s[T, i - 1] * s[DX, i - 1]
        gz = -s[T, i - 1] * s[DZ, i - 1]
        if i < n:
            gx += s[T, i] * s[DX, i]
            gz += s[T, i] * s[DZ, i]
        s[U, i] = s[US, i] + s[B00, i] * gx + s[B01, i] * gz
        s[W, i] = s[WS, i] + s[B10, i] * gx + s[B11, i] * gz
        s[X, i] += dt * s[U, i]
        s[Z, i] += dt * s[W, i]
        if s[Z, i] <= shallowest:
            continue
        floor = bottom_at(s[X, i], bottom)
        if i == n and s[Z, i] > floor + WALL_M and bottom_at(s[X, i] - dt * s[U, i], bottom) > floor + WALL_M:
            # A ledge in the way: the lure stays at its foot until the line lifts it.
            s[X, i] -= dt * s[U, i]
            s[U, i] = 0.0
            wall = True
            floor = bottom_at(s[X, i], bottom)
        if s[Z, i] > floor:
            s[Z, i] = floor
            if i < n and s[W, i] > 0.0:
                s[W, i] = 0.0
    if s[Z, n] < -SKIN_M:
        s[Z, n] = -SKIN_M
        if s[W, n] < 0.0:
            s[W, n] = 0.0
    return wall
