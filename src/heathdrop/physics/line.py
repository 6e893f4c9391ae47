"""Fishing line: what one metre of it weighs and how it resists the water."""

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import ArrayLike, NDArray

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.units import GRAVITY_M_S2

#: Stiffness (Pa) of a line of which only diameter and density are known.
MODULUS_PA = 2.6e9


@dataclass(frozen=True)
class Line:
    """A line: diameter (m), density (kg/m³), tangential friction coefficient (-).

    A ``leader`` of another line may make up its last ``leader_m`` metres, at the lure; ``modulus_pa`` is how
    stiff it is at a small load (Pa).
    """

    diameter_m: float
    density_kg_m3: float
    friction: float
    leader: "Line | None" = None
    leader_m: float = 0.0
    modulus_pa: float = MODULUS_PA

    def stretch_m_n(self, length_m: float) -> float:
        """How far ``length_m`` of line next to the lure stretches for a newton, m/N: leader first."""
        own = length_m / (self.modulus_pa * self.area_m2)
        if self.leader is None:
            return own
        of_leader = min(length_m, self.leader_m)
        return self.leader.stretch_m_n(of_leader) + own * (length_m - of_leader) / length_m

    @property
    def area_m2(self) -> float:
        """Cross-section, m²."""
        return math.pi * self.diameter_m**2 / 4.0

    @property
    def skin_m(self) -> float:
        """Friction of a metre of it drawn lengthways, as a drag area per metre: π d Ct, m."""
        return math.pi * self.diameter_m * self.friction

    def skin_area_m2(self, length_m: ArrayLike) -> NDArray[np.float64]:
        """Drag area (m²) of ``length_m`` of line next to the lure, drawn lengthways: leader first."""
        length = np.asarray(length_m, dtype=np.float64)
        if self.leader is None:
            return np.asarray(self.skin_m * length)
        of_leader = np.minimum(length, self.leader_m)
        return np.asarray(self.leader.skin_m * of_leader + self.skin_m * (length - of_leader))

    def mean_diameter_m(self, length_m: float) -> float:
        """Mean diameter (m) over ``length_m`` of line next to the lure."""
        if self.leader is None or length_m <= 0.0:
            return self.diameter_m
        share = min(1.0, self.leader_m / length_m)
        return share * self.leader.diameter_m + (1.0 - share) * self.diameter_m

    def thicker(self, share: float) -> "Line":
        """The same line, leader included, with its diameter greater by ``share``."""
        leader = None if self.leader is None else self.leader.thicker(share)
        return replace(self, diameter_m=self.diameter_m * (1.0 + share), leader=leader)

    def net_weight_n_m(self, water_density_kg_m3: float) -> float:
        """Weight of a wetted metre, N/m; negative for a line that floats."""
        return self.area_m2 * GRAVITY_M_S2 * (self.density_kg_m3 - water_density_kg_m3)


def normal_drag_coefficient(reynolds: ArrayLike) -> NDArray[np.float64]:
    """Drag coefficient of a cylinder across the flow, Cn = 1 + 10 Re^(−2/3).

    Re is built on the diameter; the fit holds for 1 < Re < 2·10⁵.
    Source: White, Viscous Fluid Flow, curve fit for the smooth cylinder.
    """
    return np.asarray(1.0 + 10.0 * np.asarray(reynolds, dtype=np.float64) ** (-2.0 / 3.0))


def line_by_test(catalog: Catalog, material: str, test_lb: float, field: str = "line") -> Line:
    """A line by material and pound test, its diameter from the catalogue's table.

    Between listed tests the diameter follows the square root of strength;
    outside the table BadInput names the range and the input's ``field``.
    """
    if material not in catalog.lines:
        raise BadInput(f"{field}.material", material, "one of " + ", ".join(catalog.lines))
    spec = catalog.lines[material]
    tests = [lb for lb, _ in spec.diameters_mm]
    if not math.isfinite(test_lb) or not tests[0] <= test_lb <= tests[-1]:
        raise BadInput(f"{field}.test_lb", test_lb, f"from {tests[0]:g} to {tests[-1]:g} lb for {material}")
    roots = [math.sqrt(lb) for lb in tests]
    mm = float(np.interp(math.sqrt(test_lb), roots, [d for _, d in spec.diameters_mm]))
    stiff = spec.modulus_gpa * 1e9
    return Line(mm * 1e-3, spec.density_kg_m3, catalog.model.line_friction, modulus_pa=stiff)


def line_by_size(catalog: Catalog, diameter_mm: float, density: float) -> Line:
    """A line by its measured diameter (mm) and density (kg/m³)."""
    return Line(diameter_mm * 1e-3, density, catalog.model.line_friction)
