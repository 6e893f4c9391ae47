"""Touch: whether a lure on the bottom is felt through the day's wind and drift.

The lure's weight against the line's pull: the boat drifts, so the wetted line
is swept sideways through the water, and the dry part catches the wind. The
share ``W / (W + F)`` is 1 when only the lure is felt and falls toward 0 when
the line hides it. Drift is a share of the wind (practice).
"""

from __future__ import annotations

import math

from heathdrop.physics.line import Line, normal_drag_coefficient
from heathdrop.physics.water import Water
from heathdrop.units import M_S_PER_MPH

#: A boat drifts at about this share of the wind; held by motor or anchor, it still swings (practice).
DRIFT_SHARE, LEAST_DRIFT_M_S = 0.02, 0.02
#: Density of air, kg/m³ (textbook, 15 °C).
AIR_DENSITY = 1.225


def line_pull_n(line: Line, water: Water, depth_m: float, distance_m: float, wind_mph: float) -> float:
    """Sideways force of drift and wind on the line, N: what blurs the touch."""
    wind = wind_mph * M_S_PER_MPH
    drift = max(LEAST_DRIFT_M_S, DRIFT_SHARE * wind)
    wet = math.hypot(depth_m, 0.7 * distance_m)
    dry = 0.3 * distance_m
    cn = float(normal_drag_coefficient(max(drift * line.diameter_m / water.viscosity_m2_s, 1.0)))
    in_water = 0.5 * water.density_kg_m3 * line.diameter_m * cn * drift**2 * wet
    in_air = 0.5 * AIR_DENSITY * line.diameter_m * 1.2 * wind**2 * dry
    return in_water + in_air


def touch_of(net_weight_n: float, line: Line, water: Water, depth_m: float, distance_m: float, wind_mph: float) -> float:
    """How clearly the bottom is felt, 0 to 1."""
    if net_weight_n <= 0.0:
        return 0.0
    return net_weight_n / (net_weight_n + line_pull_n(line, water, depth_m, distance_m, wind_mph))
