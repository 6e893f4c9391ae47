"""How far a lure flies: the usual cast is said for a weight, and others go as their mass and bulk let them.

The launch speed follows from the cast that the angler said; within the rod's rating it is the same for every
lure, outside it falls. A second measured cast teaches what the line costs.
"""

import math
from dataclasses import dataclass

from scipy.optimize import brentq

from heathdrop.catalog import Catalog
from heathdrop.physics.kernels.flight import distance_flown
from heathdrop.physics.line import Line
from heathdrop.units import KG_PER_OZ, M_S_PER_MPH, metres

#: Launch speeds between which the usual cast lies, m/s, and line factors that two casts may teach.
SPEEDS_M_S, LINE_FACTORS = (4.0, 90.0), (0.0, 12.0)


@dataclass(frozen=True)
class Thrown:
    """What a cast is thrown with: line's mass (kg/m), release height (m), wind along it (m/s, from behind
    positive), the rating that the rod launches alike (kg, lightest and heaviest lure)."""

    line_kg_m: float
    height_m: float
    wind_m_s: float
    rated_kg: tuple[float, float]


@dataclass(frozen=True)
class Launch:
    """The angler's own launch: speed (m/s) within the rod's rating, and the line's friction factor."""

    speed_m_s: float
    line_factor: float
    angle_rad: float


@dataclass(frozen=True)
class Measured:
    """A cast that was measured in still air: lure (kg), its drag ½ρCA (kg/m), distance (m)."""

    mass_kg: float
    drag_kg_m: float
    distance_m: float


def speed_for(launch: Launch, mass_kg: float, rated_kg: tuple[float, float]) -> float:
    """Launch speed (m/s) of a lure: the same within the rating, outside it by the square root of how far."""
    low, high = rated_kg
    off = min(1.0, mass_kg / low, high / mass_kg)
    return launch.speed_m_s * math.sqrt(off)


def flown_m(launch: Launch, thrown: Thrown, mass_kg: float, drag_kg_m: float) -> float:
    """Distance (m) that a lure of this mass (kg) and drag (½ρCA, kg/m) flies."""
    speed = speed_for(launch, mass_kg, thrown.rated_kg)
    line = launch.line_factor * thrown.line_kg_m
    return float(
        distance_flown(
            mass=mass_kg,
            drag=drag_kg_m,
            line=line,
            speed=speed,
            angle=launch.angle_rad,
            height=thrown.height_m,
            wind=thrown.wind_m_s,
        )
    )


def launch_of(catalog: Catalog, thrown: Thrown, usual: Measured, other: Measured | None = None) -> Launch:
    """The launch whose ``usual`` cast goes as far as was said; an ``other`` measured cast sets the line's
    factor, as far as any factor can make both come out.

    Both were measured in still air: the day's wind is not asked.
    """
    numbers = catalog.flight
    angle, still = math.radians(numbers.angle_deg), 0.0
    calm = Thrown(thrown.line_kg_m, thrown.height_m, still, thrown.rated_kg)

    def speed(factor: float) -> float:
        def off(v: float) -> float:
            return flown_m(Launch(v, factor, angle), calm, usual.mass_kg, usual.drag_kg_m) - usual.distance_m

        low, high = SPEEDS_M_S
        return high if off(high) < 0.0 else float(brentq(off, low, high, xtol=1e-3))

    if other is None:
        return Launch(speed(numbers.line_factor), numbers.line_factor, angle)

    def missed(factor: float) -> float:
        launch = Launch(speed(factor), factor, angle)
        return flown_m(launch, calm, other.mass_kg, other.drag_kg_m) - other.distance_m

    low, high = LINE_FACTORS
    if missed(low) * missed(high) > 0.0:
        factor = low if abs(missed(low)) < abs(missed(high)) else high
    else:
        factor = float(brentq(missed, low, high, xtol=1e-2))
    return Launch(speed(factor), factor, angle)


def air_drag_kg_m(catalog: Catalog, areas_m2: float) -> float:
    """½ρCA (kg/m) in air of a lure whose drag area on the move in water is ``areas_m2``."""
    numbers = catalog.flight
    return 0.5 * numbers.air_density_kg_m3 * numbers.air_share * areas_m2


def usual_cast(catalog: Catalog, cast_ft: float, cast_oz: float) -> Measured:
    """The cast that was said for a weight (oz): a head of it with hook, skirt and plastic as most have."""
    numbers = catalog.flight
    mass = cast_oz * KG_PER_OZ + numbers.dressed_g * 1e-3
    return Measured(mass, air_drag_kg_m(catalog, numbers.dressed_cm2 * 1e-4), metres(cast_ft))


def wind_along_m_s(catalog: Catalog, wind_mph: float, way: str) -> float:
    """Wind along the cast (m/s) at the height that a lure flies; across it none."""
    sign = {"behind": 1.0, "ahead": -1.0}.get(way, 0.0)
    return sign * catalog.flight.wind_share * wind_mph * M_S_PER_MPH


def line_kg_m(line: Line) -> float:
    """Mass of a metre of line (kg)."""
    return line.density_kg_m3 * line.area_m2
