"""The fall on a slack line, in closed form.

Weight, the lure's drag and the friction of the line being dragged balance at
every depth: ``v(z) = √(2W / (ρ (A + π d Ct ℓ(z))))`` with ``ℓ = ℓ₀ + z``.
The time to a depth is the exact integral of 1/v. Inertia is left out: a rig
reaches this speed within about its own length.

``net_weight_n`` and ``depth_m`` take floats or arrays and broadcast. A weight
of zero or less does not fall: speed 0, time infinite.
"""

import math

import numpy as np
from numpy.typing import ArrayLike, NDArray

from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water


def glide_factor(glide_ratio: ArrayLike) -> NDArray[np.float64]:
    """How much slower a gliding body sinks than one that drops straight, 0 to 1.

    With ``k`` metres sideways per metre down the slant speed is
    ``√(2W / (ρ A √(1+k²)))`` and its vertical part is that over ``√(1+k²)``.
    """
    slant = np.sqrt(1.0 + np.asarray(glide_ratio, dtype=np.float64) ** 2)
    return np.asarray(slant**-1.5)


def fall_speed_m_s(
    net_weight_n: ArrayLike,
    area_m2: ArrayLike,
    depth_m: ArrayLike,
    line: Line,
    water: Water,
    surface_line_m: float = 0.0,
) -> NDArray[np.float64]:
    """Sink speed, m/s, at ``depth_m`` with ``surface_line_m`` of line dragged besides."""
    weight = np.maximum(np.asarray(net_weight_n, dtype=np.float64), 0.0)
    dragged = surface_line_m + np.asarray(depth_m, dtype=np.float64)
    area = np.asarray(area_m2) + line.skin_area_m2(dragged)
    return np.asarray(np.sqrt(2.0 * weight / (water.density_kg_m3 * area)))


def fall_time_s(
    net_weight_n: ArrayLike,
    area_m2: ArrayLike,
    depth_m: ArrayLike,
    line: Line,
    water: Water,
    surface_line_m: float = 0.0,
) -> NDArray[np.float64]:
    """Seconds to sink from the surface to ``depth_m``: the integral of 1/v.

    With ``B = π d Ct``: ``√(ρ/2W) · (2/3B) · ((A+B(ℓ₀+z))^{3/2} − (A+Bℓ₀)^{3/2})``,
    written so that it keeps its digits when B is tiny; over a leader first, then over the line behind it.
    """
    weight = np.asarray(net_weight_n, dtype=np.float64)
    z = np.asarray(depth_m, dtype=np.float64)
    area = np.asarray(area_m2, dtype=np.float64) + line.skin_area_m2(surface_line_m)
    if line.leader is None:
        roots = _root_integral(area, line.skin_m, z)
    else:
        first = np.minimum(z, max(0.0, line.leader_m - surface_line_m))
        roots = _root_integral(area, line.leader.skin_m, first)
        roots = roots + _root_integral(area + line.leader.skin_m * first, line.skin_m, z - first)
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(weight > 0.0, np.sqrt(water.density_kg_m3 / (2.0 * weight)) * roots, np.inf)


def _root_integral(area: NDArray[np.float64], skin: float, z: NDArray[np.float64]) -> NDArray[np.float64]:
    """The integral of √(area + skin·x) over x from 0 to z."""
    p = np.sqrt(area)
    q = np.sqrt(area + skin * z)
    # (q³ − p³)/(q² − p²) · z  =  z (q² + qp + p²)/(q + p)
    return np.asarray(z * (q * q + q * p + p * p) / (q + p) * (2.0 / 3.0))


def time_to_depth_s(
    lure: Lure, depth_m: float, line: Line, water: Water, surface_line_m: float = 0.0
) -> float:
    """Seconds for ``lure`` to reach ``depth_m`` on a slack line, gliding included."""
    straight = fall_time_s(
        lure.net_weight_n,
        lure.fall_drag_area_m2,
        depth_m=depth_m,
        line=line,
        water=water,
        surface_line_m=surface_line_m,
    )
    return float(straight / glide_factor(lure.glide_ratio))


def depth_after_s(lure: Lure, seconds: float, line: Line, water: Water, surface_line_m: float = 0.0) -> float:
    """Depth, m, after ``seconds`` of slack fall (the inverse of :func:`time_to_depth_s`)."""
    if seconds <= 0.0 or lure.net_weight_n <= 0.0:
        return 0.0
    start = lure.fall_drag_area_m2 + float(line.skin_area_m2(surface_line_m))
    pace = math.sqrt(2.0 * lure.net_weight_n / water.density_kg_m3) * float(glide_factor(lure.glide_ratio))
    leader = max(0.0, line.leader_m - surface_line_m) if line.leader is not None else 0.0
    if leader > 0.0 and line.leader is not None:
        spent = time_to_depth_s(lure, leader, line, water, surface_line_m)
        if seconds <= spent:
            return _sunk_m(start, line.leader.skin_m, pace * seconds)
        return leader + _sunk_m(start + line.leader.skin_m * leader, line.skin_m, pace * (seconds - spent))
    return _sunk_m(start, line.skin_m, pace * seconds)


def _sunk_m(area: float, skin: float, way: float) -> float:
    """How deep (m) √(area + skin·x) integrates to ``way``."""
    if skin == 0.0:
        return way / math.sqrt(area)
    return float(((area**1.5 + 1.5 * skin * way) ** (2.0 / 3.0) - area) / skin)
