"""Touch: the chance that a landing or a tick of the lure is felt in the hand.

The boat drifts, so the wetted line is swept sideways through the water, and the dry part catches the wind:
it bows. When the lure ticks it moves by a little way d; that way is spent on straightening the bow, on the
line's stretch and on the rod's tip, and what is left is a step of tension ΔT = d / (bow + stretch + tip),
never more than the lure's own weight. For a shallow bow under a load w a metre at tension T the first is
w² L³ / (12 T³) (the parabola's, as for a cable); T is the lure's weight and the line's own pull. The chance
is Φ(ln(ΔT / threshold) / scatter): a hand feels by ratios. Drift is a share of the wind (practice); d,
threshold and scatter are assumptions.
"""

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.catalog.judgement_records import TouchNumbers
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


@dataclass(frozen=True)
class Touch:
    """A line out to a lure: its length (m), the sideways pull on it (N), what it bears (N/m), its stretch
    (m/N)."""

    numbers: TouchNumbers
    length_m: float
    pull_n: float
    load_n_m: float
    stretch_m_n: float

    def step_n(self, net_weight_n: float) -> float:
        """The step of tension (N) at the tip when a lure of this weight (N) ticks or lands, at most its own
        weight."""
        bow = self.load_n_m**2 * self.length_m**3 / (12.0 * (net_weight_n + self.pull_n) ** 3)
        gives = bow + self.stretch_m_n + self.numbers.tip_m_n
        return min(net_weight_n, self.numbers.tick_m / gives)

    def felt(self, net_weight_n: float) -> float:
        """Chance, 0 to 1, that a landing or a tick of a lure of this weight (N) is felt."""
        if net_weight_n <= 0.0:
            return 0.0
        numbers, step = self.numbers, self.step_n(net_weight_n)
        return 0.5 * math.erfc(-math.log(step / numbers.threshold_n) / (numbers.scatter * math.sqrt(2.0)))


def touch_of(
    catalog: Catalog, line: Line, water: Water, depth_m: float, distance_m: float, wind_mph: float
) -> Touch:
    """The touch of a lure on this line at this depth and distance, whatever it weighs."""
    length = math.hypot(depth_m, distance_m)
    pull = line_pull_n(catalog, line, water=water, depth_m=depth_m, distance_m=distance_m, wind_mph=wind_mph)
    load = math.hypot(pull / length, line.net_weight_n_m(water.density_kg_m3))
    return Touch(catalog.judgement.touch, length, pull, load, line.stretch_m_n(length))
