"""Touch: whether a lure on the bottom is felt through the day's wind and drift.

The lure's weight against the line's pull: the boat drifts, so the wetted line
is swept sideways through the water, and the dry part catches the wind. The
share ``W / (W + F)`` is 1 when only the lure is felt and falls toward 0 when
the line hides it. Drift is a share of the wind (practice).
"""

from __future__ import annotations

import math

from heathdrop.catalog import Catalog
from heathdrop.physics.line import Line, normal_drag_coefficient
from heathdrop.physics.water import Water
from heathdrop.units import M_S_PER_MPH


def line_pull_n(
    catalog: Catalog, line: Line, water: Water, depth_m: float, distance_m: float, wind_mph: float
) -> float:
    """Sideways force of drift and wind on the line, N: what blurs the touch."""
    wind = wind_mph * M_S_PER_MPH
    numbers = catalog.judgement.touch
    drift = max(numbers.least_drift_m_s, numbers.drift_share * wind)
    wet = math.hypot(depth_m, numbers.wet_share * distance_m)
    dry = numbers.dry_share * distance_m
    thick = line.mean_diameter_m(wet)
    cn = float(normal_drag_coefficient(max(drift * thick / water.viscosity_m2_s, 1.0)))
    in_water = 0.5 * water.density_kg_m3 * thick * cn * drift**2 * wet
    in_air = 0.5 * numbers.air_density_kg_m3 * line.diameter_m * numbers.air_drag * wind**2 * dry
    return in_water + in_air


def touch_of(
    catalog: Catalog,
    net_weight_n: float,
    line: Line,
    water: Water,
    depth_m: float,
    distance_m: float,
    wind_mph: float,
) -> float:
    """How clearly the bottom is felt, 0 to 1."""
    if net_weight_n <= 0.0:
        return 0.0
    return net_weight_n / (net_weight_n + line_pull_n(catalog, line, water, depth_m, distance_m, wind_mph))
