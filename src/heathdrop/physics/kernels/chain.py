"""The line simulation: a weighted line and a lure in the vertical plane.

The line from the rod tip to the lure is a chain of inextensible segments
carried on a mesh that shrinks with the line left out: node ``i`` always sits
at the fraction ``mesh[i]`` of that length (0 at the tip, 1 at the lure), and
the line slides through the mesh as the reel turns. Per step, each node gets a
small linear system (mass, drag linearised about the last velocity, weight);
the tensions that keep the segments at their lengths follow from one
tridiagonal solve; a segment that would have to push goes slack instead.

Coordinates: ``x`` distance from the angler, m; ``z`` depth, m, down positive.
One time step in parts; :mod:`heathdrop.physics.kernels.march` puts them together. What the arrays and
records mean stands in :mod:`heathdrop.physics.kernels.records`.
"""

import math

from heathdrop.physics.kernels import compiled
from heathdrop.physics.kernels import state as row
from heathdrop.physics.kernels.ground import Ground, over_lips
from heathdrop.physics.kernels.records import MEETS_MOST_M, MEETS_SHARE, Floats, LineParams, LureParams
from heathdrop.units import GRAVITY_M_S2

#: Smoothing, in metres, of the lure's passage through the surface.
SKIN_M = 0.03
#: Share of its drag that a lure keeps while it skims along the surface (assumption).
PLANING = 0.5
#: Damping of line in the air, N·s/m per metre: only there to still it.
AIR_DAMPING = 1e-3
#: Share of its pace at which a slow-rolling hand waits for the next touch (practice).
EASING = 0.2
#: A hand taking up slack stops when the lure starts to slide (m/s) on a line this nearly straight (practice).
FELT_M_S, NEARLY = 0.02, 0.975
#: Rounds in which segments may change between tight and slack in one step.
PIVOTS = 10


@compiled
def _fit_mesh(mesh: Floats, corner: float) -> None:
    """Stretch the mesh so that one node sits at the fraction ``corner``.

    Without a node there the chord across the corner would leave line slack.
    """
    n = mesh.shape[0] - 1
    k = 1
    for i in range(1, n):
        if abs(mesh[i] - corner) < abs(mesh[k] - corner):
            k = i
    if 0.0 < corner < 1.0 - 0.3 * (1.0 - mesh[n - 1]):
        was = mesh[k]
        for i in range(1, n):
            if i <= k:
                mesh[i] = mesh[i] * corner / was
            else:
                mesh[i] = corner + (mesh[i] - was) * (1.0 - corner) / (1.0 - was)


@compiled
def lay(s: Floats, mesh: Floats, x0: float, z0: float, tip_x: float, tip_z: float) -> float:
    """Lay the line: tip to water, along the surface, straight down at x0.

    Returns its length; ``mesh`` is changed in place to put a node at the point of entry.
    """
    n = mesh.shape[0] - 1
    meets = tip_x + min(MEETS_SHARE * (x0 - tip_x), MEETS_MOST_M)
    air = math.hypot(meets - tip_x, tip_z)
    level = x0 - meets
    total = air + level + z0
    _fit_mesh(mesh, (air + level) / total)
    for i in range(n + 1):
        at = mesh[i] * total
        if at < air:
            s[row.X, i] = tip_x + (meets - tip_x) * at / air
            s[row.Z, i] = tip_z - tip_z * at / air
        elif at < air + level:
            s[row.X, i] = meets + at - air
            s[row.Z, i] = 0.0
        else:
            s[row.X, i] = x0
            s[row.Z, i] = at - air - level
    return total


@compiled
def directions(s: Floats, n: int, ledges: Floats) -> None:
    """Lengths and unit vectors of the segments, tip-side end and lure-side end; they differ over a lip."""
    for j in range(n):
        ex = s[row.X, j + 1] - s[row.X, j]
        ez = s[row.Z, j + 1] - s[row.Z, j]
        length = math.sqrt(ex * ex + ez * ez) + 1e-12
        inverse = 1.0 / length
        s[row.LENGTH, j] = length
        s[row.DX, j] = ex * inverse
        s[row.DZ, j] = ez * inverse
        s[row.NX, j], s[row.NZ, j] = s[row.DX, j], s[row.DZ, j]
    if ledges.shape[0] > 0:
        over_lips(s, n, ledges)


@compiled
def _wet(here: float, there: float, length: float) -> float:
    """Wetted part of a half segment between two depths."""
    if here >= 0.0 and there >= 0.0:
        return length
    top = max(here, there)
    if top <= 0.0:
        return 0.0
    return length * top / abs(here - there)


@compiled
def _cube_root(u: float, guess: float) -> float:
    """Cube root of u by one Halley step from the node's last one (start it warm)."""
    y3 = guess * guess * guess
    return guess * (y3 + 2.0 * u) / (2.0 * y3 + u + 1e-30)


@compiled
def _mixed(line: LineParams, near: float, far: float) -> LineParams:
    """The line between ``near`` and ``far`` metres from the lure: all leader, all line, or their mixture.

    A mixture keeps mass and drag; its area is the mean one and its density what that makes of the mass.
    """
    f = min(1.0, max(0.0, (line.leader_m - near) / (far - near)))
    g = 1.0 - f
    area = f * line.leader_area + g * line.area
    normal = f * line.leader_normal + g * line.normal
    return LineParams(
        area=area,
        density=(f * line.leader_area * line.leader_density + g * line.area * line.density) / area,
        normal=normal,
        viscous=(f * line.leader_normal * line.leader_viscous + g * line.normal * line.viscous) / normal,
        tangent=f * line.leader_tangent + g * line.tangent,
        water=line.water,
        leader_m=line.leader_m,
        leader_area=line.leader_area,
        leader_density=line.leader_density,
        leader_normal=line.leader_normal,
        leader_viscous=line.leader_viscous,
        leader_tangent=line.leader_tangent,
    )


@compiled
def line_nodes(
    s: Floats, mesh: Floats, n: int, length: float, reel: float, line: LineParams, dt: float
) -> None:
    """Free velocities and mobilities of the line's inner nodes."""
    rho, whole = line.water, line
    m_air = line.density * line.area
    m_wet = rho * line.area
    g_area = GRAVITY_M_S2 * line.area
    for i in range(1, n):
        if whole.leader_m > 0.0:
            near = 0.5 * length * (2.0 - mesh[i] - mesh[i + 1])
            line = _mixed(whole, near, 0.5 * length * (2.0 - mesh[i] - mesh[i - 1]))
            m_air, m_wet = line.density * line.area, rho * line.area
            g_area = GRAVITY_M_S2 * line.area
        tx = s[row.DX, i - 1] + s[row.NX, i]
        tz = s[row.DZ, i - 1] + s[row.NZ, i]
        q = tx * tx + tz * tz
        if q < 1e-6:
            tx, tz, q = s[row.NX, i], s[row.NZ, i], 1.0
        q = 1.0 / math.sqrt(q)
        tx *= q
        tz *= q
        la = 0.5 * length * (mesh[i] - mesh[i - 1])
        lb = 0.5 * length * (mesh[i + 1] - mesh[i])
        both = la + lb
        z = s[row.Z, i]
        wet = _wet(z, 0.5 * (s[row.Z, i - 1] + z), la) + _wet(z, 0.5 * (s[row.Z, i + 1] + z), lb)
        dry = AIR_DAMPING * (both - wet)
        along = s[row.U, i] * tx + s[row.W, i] * tz
        un = -s[row.U, i] * tz + s[row.W, i] * tx
        ut = along - reel * (1.0 - mesh[i])
        au = abs(un)
        root = _cube_root(au, s[row.ROOT, i])
        s[row.ROOT, i] = max(root, 0.05)
        gn = line.normal * wet * (au + line.viscous * root) * un
        dn = line.normal * wet * (2.0 * au + 4.0 / 3.0 * line.viscous * root) + dry
        gt = line.tangent * wet * abs(ut) * ut
        dtan = 2.0 * line.tangent * wet * abs(ut) + dry
        mass = m_air * both + m_wet * wet
        # Sideways, a node carries enough extra mass that a tight line stays
        # stable at this step; its motion is ruled by drag, not by inertia.
        pull = max(s[row.PEAK, i - 1], s[row.PEAK, i])
        heavy = mass + 0.5 * pull * dt * dt * both / (la * lb)
        down = g_area * (line.density * both - rho * wet)
        at = 1.0 / (mass / dt + dtan)
        an = 1.0 / (heavy / dt + dn)
        vt = at * (mass / dt * along + down * tz - gt + dtan * along)
        vn = an * (heavy / dt * un + down * tx - gn + dn * un)
        s[row.FREE_U, i] = vt * tx - vn * tz
        s[row.FREE_W, i] = vt * tz + vn * tx
        s[row.B00, i] = at * tx * tx + an * tz * tz
        s[row.B11, i] = at * tz * tz + an * tx * tx
        s[row.B01, i] = (at - an) * tx * tz
        s[row.B10, i] = s[row.B01, i]


@compiled
def lure_node(
    s: Floats,
    mesh: Floats,
    n: int,
    length: float,
    lure: LureParams,
    line: LineParams,
    dt: float,
    ground: Ground,
) -> tuple[float, float]:
    """Free velocity and mobility of the lure with its last half segment of line.

    Returns the water's resistance to it (N, against x and z) for the bottom's account.
    """
    u, w, z = s[row.U, n], s[row.W, n], s[row.Z, n]
    speed = math.sqrt(u * u + w * w) + 1e-9
    wet = 1.0 if z >= 0.0 else max(0.0, 1.0 + z / SKIN_M)
    dive = w * w / (speed * speed) if w > 0.0 else 0.0
    area = lure.run + (lure.fall - lure.run) * dive
    fade = min(1.0, 2.0 * abs(u) / speed) if lure.fades > 0.5 else 1.0
    side = -1.0 if u > 0.0 else 1.0
    rho = line.water
    # A lure skimming the surface planes: it sheds its lift and weight first, its drag only in part.
    kd = 0.5 * rho * area * max(wet, PLANING)
    kl = 0.5 * rho * lure.lift * wet * fade * side
    mx = kd * u + kl * w
    mz = kd * w - kl * u
    weight = lure.weight + (1.0 - wet) * (lure.mass * GRAVITY_M_S2 - lure.weight)
    half = 0.5 * length * (mesh[n] - mesh[n - 1])
    if line.leader_m > 0.0:
        line = _mixed(line, 0.0, half)
    tx, tz = s[row.DX, n - 1], s[row.DZ, n - 1]
    un = -u * tz + w * tx
    au = abs(un)
    root = _cube_root(au, s[row.ROOT, n])
    s[row.ROOT, n] = max(root, 0.05)
    gn = line.normal * half * wet * (au + line.viscous * root) * un
    dn = line.normal * half * wet * (2.0 * au + 4.0 / 3.0 * line.viscous * root)
    mass = lure.mass + (line.density + rho) * line.area * half
    weight += line.area * GRAVITY_M_S2 * (line.density - rho * wet) * half
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
    if ground.touching:
        # Along the bottom only, with Coulomb friction as a drag.
        cx, cz = ground.along_x, ground.along_z
        rub = lure.grip * ground.press / max(abs(u * cx + w * cz), 1e-3)
        b = 1.0 / (cx * (a00 * cx + a01 * cz) + cz * (a10 * cx + a11 * cz) + rub)
        along = b * (f0 * cx + f1 * cz)
        s[row.FREE_U, n], s[row.FREE_W, n] = along * cx, along * cz
        s[row.B00, n], s[row.B01, n] = b * cx * cx, b * cx * cz
        s[row.B10, n], s[row.B11, n] = b * cx * cz, b * cz * cz
    else:
        det = 1.0 / (a00 * a11 - a01 * a10)
        s[row.B00, n], s[row.B01, n] = a11 * det, -a01 * det
        s[row.B10, n], s[row.B11, n] = -a10 * det, a00 * det
        s[row.FREE_U, n] = s[row.B00, n] * f0 + s[row.B01, n] * f1
        s[row.FREE_W, n] = s[row.B10, n] * f0 + s[row.B11, n] * f1
    return speed * mx, speed * mz


@compiled
def assemble(s: Floats, mesh: Floats, n: int, length: float, dt: float, relax: float, most: float) -> None:
    """The tridiagonal system of the tensions (impulses per step length).

    ``relax`` is the share of a length error taken back in this step, ``most`` the speed it may cause (m/s).
    """
    for j in range(n):
        ex, ez = s[row.DX, j], s[row.DZ, j]
        cx, cz = s[row.NX, j], s[row.NZ, j]
        k = j + 1
        bx = s[row.B00, k] * ex + s[row.B01, k] * ez
        bz = s[row.B10, k] * ex + s[row.B11, k] * ez
        diagonal = ex * bx + ez * bz
        s[row.LOWER, j] = 0.0
        if j > 0:
            px = s[row.B00, j] * cx + s[row.B01, j] * cz
            pz = s[row.B10, j] * cx + s[row.B11, j] * cz
            diagonal += cx * px + cz * pz
            s[row.LOWER, j] = -(px * s[row.DX, j - 1] + pz * s[row.DZ, j - 1])
        s[row.UPPER, j] = 0.0
        if j < n - 1:
            s[row.UPPER, j] = -(bx * s[row.NX, k] + bz * s[row.NZ, k])
        rest = length * (mesh[k] - mesh[j])
        short = rest - s[row.LENGTH, j]
        if short < 0.03 * rest:
            back = min(most, max(-most, relax * short / dt))
        else:
            back = short / dt  # slack: free to lengthen until it is tight
        parting = s[row.FREE_U, k] * ex + s[row.FREE_W, k] * ez
        parting -= s[row.FREE_U, j] * cx + s[row.FREE_W, j] * cz
        s[row.DIAGONAL, j] = diagonal
        s[row.RIGHT, j] = parting - back


@compiled
def tensions(s: Floats, n: int) -> None:
    """Solve for the tensions, none below zero.

    A linear complementarity problem: each segment is either tight (its length
    holds, tension >= 0) or slack (tension 0, free to shorten). Block pivoting:
    let go what pushes, take up what would overstretch, until nothing changes.
    It starts from the last step's choice (row ``TIGHT``), which is mostly right.
    """
    for _ in range(PIVOTS):
        for j in range(n):
            tight = s[row.TIGHT, j] > 0.5
            d, r, lo, up = 1.0, 0.0, 0.0, 0.0
            if tight:
                d, r, lo, up = s[row.DIAGONAL, j], s[row.RIGHT, j], s[row.LOWER, j], s[row.UPPER, j]
            if j > 0:
                q = lo / s[row.PIVOT, j - 1]
                d -= q * s[row.ABOVE, j - 1]
                r -= q * s[row.TENSION, j - 1]
            s[row.PIVOT, j] = d
            s[row.ABOVE, j] = up
            s[row.TENSION, j] = r
        s[row.TENSION, n - 1] /= s[row.PIVOT, n - 1]
        for j in range(n - 2, -1, -1):
            s[row.TENSION, j] = (s[row.TENSION, j] - s[row.ABOVE, j] * s[row.TENSION, j + 1]) / s[
                row.PIVOT, j
            ]
        changed = False
        for j in range(n):
            if s[row.TIGHT, j] > 0.5:
                if s[row.TENSION, j] < -1e-9:
                    s[row.TIGHT, j] = 0.0
                    changed = True
            else:
                over = s[row.RIGHT, j]
                if j > 0:
                    over -= s[row.LOWER, j] * s[row.TENSION, j - 1]
                if j < n - 1:
                    over -= s[row.UPPER, j] * s[row.TENSION, j + 1]
                if over > 1e-9:
                    s[row.TIGHT, j] = 1.0
                    changed = True
        if not changed:
            break
    for j in range(n):
        s[row.TENSION, j] = max(s[row.TENSION, j], 0.0)
        s[row.PEAK, j] = max(s[row.TENSION, j], 0.8 * s[row.PEAK, j])


@compiled
def move(s: Floats, n: int, dt: float) -> None:
    """Apply the tensions and move the nodes; the lure stops at the surface."""
    for i in range(1, n + 1):
        gx = -s[row.TENSION, i - 1] * s[row.DX, i - 1]
        gz = -s[row.TENSION, i - 1] * s[row.DZ, i - 1]
        if i < n:
            gx += s[row.TENSION, i] * s[row.NX, i]
            gz += s[row.TENSION, i] * s[row.NZ, i]
        s[row.U, i] = s[row.FREE_U, i] + s[row.B00, i] * gx + s[row.B01, i] * gz
        s[row.W, i] = s[row.FREE_W, i] + s[row.B10, i] * gx + s[row.B11, i] * gz
        s[row.X, i] += dt * s[row.U, i]
        s[row.Z, i] += dt * s[row.W, i]
    if s[row.Z, n] < -SKIN_M:
        s[row.Z, n] = -SKIN_M
        s[row.W, n] = max(0.0, s[row.W, n])
