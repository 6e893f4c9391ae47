"""Fresh water against temperature: density and viscosity.

Both functions take a float or an array (°C) and broadcast.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from heathdrop.errors import require_between
from heathdrop.units import celsius

LOWEST_F, HIGHEST_F = 32.0, 100.0


def density_kg_m3(temperature_c: ArrayLike) -> NDArray[np.float64]:
    """Density of air-free fresh water, kg/m³, for 0 to 40 °C at 1 atm.

    Source: Tanaka, Girard, Davis, Peuto & Bignell, Metrologia 38 (2001) 301.
    """
    t = np.asarray(temperature_c, dtype=np.float64)
    sag = (t - 3.983035) ** 2 * (t + 301.797) / (522528.9 * (t + 69.34881))
    return np.asarray(999.97495 * (1.0 - sag))


def viscosity_pa_s(temperature_c: ArrayLike) -> NDArray[np.float64]:
    """Dynamic viscosity of water, Pa·s, for −20 to 110 °C at 0.1 MPa.

    Source: IAPWS supplementary release on liquid water at 0.1 MPa (2008), eq. 7.
    """
    x = (np.asarray(temperature_c, dtype=np.float64) + 273.15) / 300.0
    micro = 280.68 * x**-1.9 + 511.45 * x**-7.7 + 61.131 * x**-19.6 + 0.45903 * x**-40.0
    return np.asarray(micro * 1e-6)


@dataclass(frozen=True)
class Water:
    """Water as the physics sees it: density, kg/m³, and kinematic viscosity, m²/s."""

    density_kg_m3: float
    viscosity_m2_s: float


def water_at(temperature_f: float, field: str = "water.temperature_f") -> Water:
    """Fresh water at ``temperature_f`` (32 to 100 °F).

    Raises BadInput outside that range.
    """
    require_between(field, temperature_f, LOWEST_F, HIGHEST_F, "°F")
    t = celsius(temperature_f)
    rho = float(density_kg_m3(t))
    return Water(rho, float(viscosity_pa_s(t)) / rho)
