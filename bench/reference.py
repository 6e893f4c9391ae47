"""A converged reference for the line simulation: the oracle that tests and docs measure against.

Written apart from :mod:`heathdrop.physics.chain` and differently: pieces of line
are material (the reel shortens and drops the one at the tip) instead of sliding
through a mesh; every force is explicit and full (no linearised drag, no extra
mass); 100 segments and a step of 0.2 ms. Only the equations are shared, and they
are written out again here. Slow: a second or two for a cast.
"""

import math

import numpy as np
from numba import njit
from numpy.typing import NDArray

from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water

G = 9.80665
SKIN_M, PLANING = 0.03, 0.5
STEP_S, SEGMENTS = 2e-4, 100
#: A hand that rolls along the floor eases to this share of its pace once the lure is off it.
EASED_HAND = 0.2
#: A hand taking up slack stops once the lure slides (m/s) on a line this nearly straight.
FELT_M_S, NEARLY = 0.02, 0.975


@njit(cache=True)
def _solve(dg, off, rhs, lam, tight, c, n0, n):
    """Impulses of segments n0..n-1, none below zero (those that would push let go)."""
    for j in range(n0, n):
        tight[j] = True
    for _ in range(12):
        for j in range(n0, n):
            d, r, up = (dg[j], rhs[j], off[j]) if tight[j] else (1.0, 0.0, 0.0)
            if j > n0 and tight[j]:
                q = off[j - 1] / c[0, j - 1]
                d -= q * c[1, j - 1]
                r -= q * lam[j - 1]
            c[0, j], c[1, j], lam[j] = d, up, r
        lam[n - 1] /= c[0, n - 1]
        for j in range(n - 2, n0 - 1, -1):
            lam[j] = (lam[j] - c[1, j] * lam[j + 1]) / c[0, j]
        changed = False
        for j in range(n0, n):
            if tight[j] and lam[j] < -1e-12:
                tight[j], changed = False, True
            elif not tight[j]:
                over = rhs[j]
                over -= off[j - 1] * lam[j - 1] if j > n0 else 0.0
                over -= off[j] * lam[j + 1] if j < n - 1 else 0.0
                if over > 1e-12:
                    tight[j], changed = True, True
        if not changed:
            break
    for j in range(n0, n):
        lam[j] = max(lam[j], 0.0)


@njit(cache=True)
def _over(x, z, j, floor, shallowest, d):
    """Length of piece j and its directions at both ends into ``d``: straight, or by way of a lip of the floor
    that stands in its way (floor: rows of distance and depth, faces upright)."""
    ex, ez = x[j + 1] - x[j], z[j + 1] - z[j]
    e = math.hypot(ex, ez) + 1e-12
    d[0, j], d[1, j], d[2, j], d[3, j] = ex / e, ez / e, ex / e, ez / e
    if max(z[j], z[j + 1]) <= shallowest:
        return e
    for k in range(floor.shape[0] - 1):
        px, pz = floor[k, 0], min(floor[k, 1], floor[k + 1, 1])
        if floor[k + 1, 0] - px > 1e-6 or (x[j] - px) * (x[j + 1] - px) >= 0.0:
            continue
        if z[j] + ez * (px - x[j]) / ex <= pz:
            continue
        a, b = math.hypot(px - x[j], pz - z[j]), math.hypot(x[j + 1] - px, z[j + 1] - pz)
        if min(a, b) > 2e-4:
            e = a + b
            d[0, j], d[1, j] = (px - x[j]) / a, (pz - z[j]) / a
            d[2, j], d[3, j] = (x[j + 1] - px) / b, (z[j + 1] - pz) / b
    return e


@njit(cache=True)
def _kept_off(x, z, u, w, i, floor, shallowest):
    """Keep point i out of the rock: before an upright face that it came through, or on the floor."""
    if z[i] <= shallowest:
        return
    for k in range(floor.shape[0] - 1):
        px, top, deep = floor[k, 0], floor[k, 1], floor[k + 1, 1]
        upright = floor[k + 1, 0] - px < 1e-6 and deep > top
        if upright and z[i] > top and 0.0 < px - x[i] < min(0.3, z[i] - top):
            x[i], u[i] = px + 1e-9, max(u[i], 0.0)
            return
    here = np.interp(x[i], floor[:, 0], floor[:, 1])
    if z[i] > here:
        z[i], w[i] = here, min(w[i], 0.0)


@njit(cache=True)
def _ended(leg, x, z, u, rest, n0, n, down):
    """Whether a leg ends here: on the floor, or with the line as straight as it asks for (or nearly so, once
    the lure is felt to move over the floor). ``leg``: time, reel, tip_x, tip_z, bottom, tight, clear; as
    :class:`heathdrop.physics.kernels.records.Leg`."""
    if leg[4] > 0.5 and down:
        return True
    if leg[5] <= 0.0:
        return False
    straight, out = math.hypot(x[n] - x[n0], z[n] - z[n0]), rest[n0:n].sum()
    felt = down and abs(u[n]) > FELT_M_S and straight >= NEARLY * out
    return felt or straight >= leg[5] * out


@njit(cache=True)
def _run(x, z, rest, lure, line, legs, near, dt, every, floor, out):
    """March the chain through ``legs``; ``out`` takes (t, x, z, tension at the tip) of the lure. Returns rows
    written."""
    mass_l, weight, a_run, a_fall, a_lift, fades = lure
    area, rho_l, d, nu, ct, rho = line
    n = x.size - 1
    u, w = np.zeros(n + 1), np.zeros(n + 1)
    m = np.zeros(n + 1)
    dg, off, rhs, lam = np.zeros(n), np.zeros(n), np.zeros(n), np.zeros(n)
    tight, c = np.zeros(n, dtype=np.bool_), np.zeros((2, n))
    d_ends, shallowest = np.zeros((4, n)), floor[:, 1].min()
    full = rest[0]
    n0, k, t, due = 0, 0, 0.0, 0.0
    row, leg_end, rising = 0, legs[0, 0], True
    while k < out.shape[0]:
        down = z[n] >= np.interp(x[n], floor[:, 0], floor[:, 1]) - 1e-3
        if t >= leg_end or _ended(legs[row], x, z, u, rest, n0, n, down):
            row += 1
            if row >= legs.shape[0]:
                break
            leg_end = t + legs[row, 0]
            continue
        reel = legs[row, 1]
        if legs[row, 6] > 0.0:
            height = np.interp(x[n], floor[:, 0], floor[:, 1]) - z[n]
            if height > legs[row, 6]:
                rising = False
            elif height < 0.01:
                rising = True
            reel *= 1.0 if rising else EASED_HAND
        if t >= due:
            out[k, 0], out[k, 1], out[k, 2], out[k, 3] = t, x[n], max(0.0, z[n]), lam[n0] / dt
            k += 1
            due += every
        if x[n] <= near:
            break
        t += dt
        rest[n0] -= reel * dt
        if rest[n0] < 0.5 * full and n - n0 > 3:
            # The piece at the tip is wound in: its far end becomes part of the next piece.
            x[n0 + 1], z[n0 + 1] = x[n0], z[n0]
            rest[n0 + 1] += rest[n0]
            full = rest[n0 + 1]
            n0 += 1
        u[n0], w[n0] = legs[row, 2], legs[row, 3]
        x[n0] += dt * u[n0]
        z[n0] += dt * w[n0]
        for i in range(n0 + 1, n + 1):
            la = 0.5 * rest[i - 1]
            lb = 0.5 * rest[i] if i < n else 0.0
            ex, ez = x[i] - x[i - 1], z[i] - z[i - 1]
            if i < n:
                ex, ez = x[i + 1] - x[i - 1], z[i + 1] - z[i - 1]
            e = math.hypot(ex, ez) + 1e-12
            ex, ez = ex / e, ez / e
            wet = 0.0
            for side in range(2):
                half = la if side == 0 else lb
                zo = z[i]
                if half > 0.0:
                    zo = 0.5 * (z[i] + (z[i - 1] if side == 0 else z[i + 1]))
                if z[i] >= 0.0 and zo >= 0.0:
                    wet += half
                elif max(z[i], zo) > 0.0:
                    wet += half * max(z[i], zo) / abs(z[i] - zo)
            both = la + lb
            un = -u[i] * ez + w[i] * ex
            ut = u[i] * ex + w[i] * ez
            cn = 1.0 + 10.0 * max(abs(un) * d / nu, 1e-9) ** (-2.0 / 3.0)
            fn = -0.5 * rho * d * wet * cn * abs(un) * un
            ft = -0.5 * rho * math.pi * d * ct * wet * abs(ut) * ut
            fx = ft * ex - fn * ez - 1e-3 * (both - wet) * u[i]
            fz = ft * ez + fn * ex - 1e-3 * (both - wet) * w[i] + G * area * (rho_l * both - rho * wet)
            m[i] = area * (rho_l * both + rho * wet)
            if i == n:
                speed = math.hypot(u[i], w[i]) + 1e-12
                share = 1.0 if z[i] >= 0.0 else max(0.0, 1.0 + z[i] / SKIN_M)
                dive = (w[i] / speed) ** 2 if w[i] > 0.0 else 0.0
                kd = 0.5 * rho * (a_run + (a_fall - a_run) * dive) * max(share, PLANING)
                fade = min(1.0, 2.0 * abs(u[i]) / speed) if fades > 0.5 else 1.0
                kl = 0.5 * rho * a_lift * share * fade * (-1.0 if u[i] > 0.0 else 1.0)
                fx += -speed * (kd * u[i] + kl * w[i])
                fz += -speed * (kd * w[i] - kl * u[i]) + weight + (1.0 - share) * (mass_l * G - weight)
                m[i] += mass_l
            u[i] += dt * fx / m[i]
            w[i] += dt * fz / m[i]
        for j in range(n0, n):
            e = _over(x, z, j, floor, shallowest, d_ends)
            inv = 1.0 / m[j + 1] + (1.0 / m[j] if j > n0 else 0.0)
            dg[j] = inv
            stretch = (e - rest[j]) / dt
            rhs[j] = (
                u[j + 1] * d_ends[2, j]
                + w[j + 1] * d_ends[3, j]
                - u[j] * d_ends[0, j]
                - w[j] * d_ends[1, j]
                + (0.2 * stretch if stretch > 0.0 else stretch)
            )
        nx, nz, dx, dz = d_ends
        for j in range(n0, n - 1):
            off[j] = -(dx[j] * nx[j + 1] + dz[j] * nz[j + 1]) / m[j + 1]
        _solve(dg, off, rhs, lam, tight, c, n0, n)
        for i in range(n0 + 1, n + 1):
            gx, gz = -lam[i - 1] * dx[i - 1], -lam[i - 1] * dz[i - 1]
            if i < n:
                gx += lam[i] * nx[i]
                gz += lam[i] * nz[i]
            u[i] += gx / m[i]
            w[i] += gz / m[i]
            x[i] += dt * u[i]
            z[i] += dt * w[i]
            _kept_off(x, z, u, w, i, floor, shallowest)
        if z[n] < -SKIN_M:
            z[n] = -SKIN_M
            w[n] = max(w[n], 0.0)
    return k


def reference_cast(
    lure: Lure,
    line: Line,
    water: Water,
    cast_m: float,
    tip_m: float,
    start_m: float,
    pace_m_s: float,
    *,
    segments: int = SEGMENTS,
    step_s: float = STEP_S,
    seconds: float = 400.0,
    near_m: float = 2.0,
    floor: tuple[tuple[float, float], ...] = ((0.0, 1e3), (1e3, 1e3)),
) -> NDArray[np.float64]:
    """A steady retrieve from the L-shaped line, rows of (s since its start, x m, depth m, tension N).

    ``floor`` has rows of distance and depth (m), level or upright; the line runs over its lips without
    friction, and so does the lure over it.
    """
    legs = np.array([[seconds, pace_m_s, 0.0, 0.0, 0.0, 0.0, 0.0]])
    start, step = (cast_m, tip_m, start_m), step_s
    while True:
        rows = reference_legs(
            lure, line, water, start, legs, segments=segments, step_s=step, near_m=near_m, floor=floor
        )
        # Explicit forces on light line need short steps when a heavy lure snatches it: a cast that ends far
        # from home before its time has burst, and is run again at half the step.
        if rows[-1, 1] <= near_m + 1.0 or rows[-1, 0] > seconds - 1.0 or step < step_s / 10.0:
            return rows
        step *= 0.5


def reference_legs(
    lure: Lure,
    line: Line,
    water: Water,
    start: tuple[float, float, float],
    legs: NDArray[np.float64],
    *,
    segments: int = SEGMENTS,
    step_s: float = STEP_S,
    near_m: float = 2.0,
    floor: tuple[tuple[float, float], ...] = ((0.0, 1e3), (1e3, 1e3)),
) -> NDArray[np.float64]:
    """A programme from the L-shaped line: rows of (s since its start, x m, depth m, tension N).

    ``start`` is the cast's length, the tip's height and the lure's depth (m); ``legs`` has rows of time (s),
    reel, tip_x, tip_z (m/s), till_bottom, tight, clear (m), as the product's own legs.
    """
    cast_m, tip_m, start_m = start
    meets = min(cast_m / 5.0, 4.0)
    corners = np.array([[0.0, -tip_m], [meets, 0.0], [cast_m, 0.0], [cast_m, start_m]])
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(corners, axis=0).T))])
    at = np.unique(np.concatenate([np.linspace(0.0, along[-1], segments + 1), along]))
    keep = np.concatenate([[True], np.diff(at) > 1e-3])
    at = at[keep]
    x, z = (np.interp(at, along, corners[:, k]) for k in (0, 1))
    rows = np.zeros((int(legs[:, 0].sum() / 0.05) + 2, 4))
    packed = (
        lure.mass_kg,
        lure.net_weight_n,
        lure.run_drag_area_m2,
        lure.fall_drag_area_m2,
        lure.run_lift_area_m2,
        1.0 if lure.fades else 0.0,
    )
    of_line = (
        line.area_m2,
        line.density_kg_m3,
        line.diameter_m,
        water.viscosity_m2_s,
        line.friction,
        water.density_kg_m3,
    )
    k = _run(x, z, np.diff(at), packed, of_line, legs, near_m, step_s, 0.05, np.array(floor), rows)
    return rows[:k]


def depth_at(rows: NDArray[np.float64], distance_m: float) -> float:
    """Depth (m) where the lure first comes as near as ``distance_m``; NaN when it never does."""
    near = np.flatnonzero(rows[:, 1] <= distance_m)
    if near.size == 0:
        return math.nan
    i = int(near[0])
    if i == 0:
        return float(rows[0, 2])
    span = rows[i - 1, 1] - rows[i, 1]
    share = (rows[i - 1, 1] - distance_m) / span if span > 0.0 else 0.0
    return float(rows[i - 1, 2] + share * (rows[i, 2] - rows[i - 1, 2]))
