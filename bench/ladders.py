"""The trade's ladders: what practice says a rig runs at, and what the model says, in feet.

`python -m bench.ladders` also says how far the rungs narrow what is not known of a family's drag and lift.
"""

from collections.abc import Callable
from dataclasses import dataclass, replace

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, fly
from heathdrop.physics.line import line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, areas_of, lure_of, rig_by_name
from heathdrop.physics.water import water_at
from heathdrop.units import feet, metres, square_metres

WATER = water_at(58.0)
CAST_M, TIP_M = 25.0, 0.6


@dataclass(frozen=True)
class Rung:
    """One thing that practice says: the rig, pace (ft/s), count (ft), line, and the depths it allows (ft)."""

    family: str
    head_oz: float
    trailer: str
    pace_ft_s: float
    count_ft: float
    low_ft: float
    high_ft: float
    material: str = "fluorocarbon"
    length_in: float | None = None

    @property
    def name(self) -> str:
        return (
            f"{self.family} {self.head_oz:g} oz, {self.trailer}, {self.pace_ft_s:g} ft/s "
            f"from {self.count_ft:g} ft, {self.material} 15 lb"
        )


RUNGS = (
    Rung("bladed-jig", 0.375, "flat-tail", 2.3, 6.5, 4.0, 5.5),
    Rung("bladed-jig", 0.5, "flat-tail", 2.3, 6.5, 5.5, 7.0),
    Rung("bladed-jig", 0.75, "flat-tail", 2.3, 6.5, 7.5, 9.5),
    Rung("swim-jig", 0.25, "chunk", 2.3, 2.0, 0.0, 1.5),
    Rung("swim-jig", 0.375, "paddle-tail", 3.3, 2.5, 1.0, 2.5),
    Rung("swim-jig", 0.375, "paddle-tail", 1.6, 6.5, 6.0, 60.0),
    Rung("swim-jig", 0.75, "beaver", 1.6, 14.0, 10.0, 18.0),
    Rung("spinnerbait", 0.75, "twin-tail", 1.5, 14.0, 12.0, 16.0),
    Rung("spinnerbait", 1.0, "twin-tail", 2.0, 14.0, 12.0, 16.0),
    Rung("spinnerbait", 0.5, "twin-tail", 1.75, 14.0, 0.0, 12.0),
    Rung("spinnerbait", 0.375, "twin-tail", 1.5, 14.0, 0.0, 12.0),
    Rung("spinnerbait", 0.25, "twin-tail", 1.8, 3.0, 2.0, 4.0, length_in=3.0),
    Rung("underspin", 0.375, "paddle-tail", 1.6, 14.0, 10.0, 25.0),
)


def lure_at(catalog: Catalog, rung: Rung) -> Lure:
    """The rung's rig in its water."""
    rig = rig_by_name(catalog, rung.family, rung.head_oz, rung.trailer, trailer_length_in=rung.length_in)
    return lure_of(catalog, rig, WATER.density_kg_m3, 60.0)


def runs_at(catalog: Catalog, rung: Rung, take_up: bool = True, lure: Lure | None = None) -> float:
    """Mean depth (ft) of the useful retrieve, bottom out of reach; another ``lure`` on the same cast."""
    line = line_by_test(catalog, rung.material, 15)
    program = [
        Phase("fall", slack=True, to_depth_m=metres(rung.count_ft)),
        Phase("retrieve", speed_m_s=metres(rung.pace_ft_s), take_up=take_up),
    ]
    cast = Cast(CAST_M, TIP_M, ((0.0, 60.0), (300.0, 60.0)))
    flown = fly(lure or lure_at(catalog, rung), line, WATER, cast, program)
    return feet(float(flown.useful().mean()))


def misfit(rung: Rung, depth_ft: float) -> float:
    """How far (ft) outside what practice allows."""
    return max(0.0, rung.low_ft - depth_ft, depth_ft - rung.high_ft)


def compared(one: Callable[[Rung], float]) -> tuple[list[tuple[Rung, float, float]], float]:
    """Each rung with its depth and misfit (ft), and the sum of squared misfits."""
    rows = [(rung, depth, misfit(rung, depth)) for rung, depth in ((r, one(r)) for r in RUNGS)]
    return rows, sum(off * off for _, _, off in rows)


#: One sigma (log) of a part's areas before any rung, of who said a rung (pace and cast, ft), the least of a
#: rung's own range (ft), and a normal's half of an 80 % range.
PRIOR, SAID_FT, LEAST_FT, EIGHTY = 0.30, 0.5, 0.5, 1.2816


def conditioned(catalog: Catalog) -> dict[str, float]:
    """One sigma (log) of each part's run drag and lift once the rungs with two ends are held to: a linear
    Gaussian update, each rung's range taken as eight of ten."""
    names: list[str] = []
    slopes, sigmas = [], []
    for rung in RUNGS:
        if rung.high_ft > 30.0:
            continue
        rig = rig_by_name(catalog, rung.family, rung.head_oz, rung.trailer, trailer_length_in=rung.length_in)
        areas, lure, step = areas_of(catalog, rig, 60.0), lure_at(catalog, rung), 0.1
        told, row = runs_at(catalog, rung), {}
        body = rig.blades.id if rig.blades else rung.family
        for part, run, lift in (
            (f"{body}, drag", areas.run[1], 0.0),
            (f"{body}, lift", 0.0, areas.lift[1]),
            (f"{rung.trailer}, drag", areas.run[3], 0.0),
            (f"{rung.trailer}, lift", 0.0, areas.lift[3]),
        ):
            more = replace(
                lure,
                run_drag_area_m2=lure.run_drag_area_m2 + square_metres(step * run),
                run_lift_area_m2=lure.run_lift_area_m2 + square_metres(step * lift),
            )
            row[part] = (runs_at(catalog, rung, lure=more) - told) / step
            names += [part] if part not in names else []
        slopes.append(row)
        sigmas.append(max(LEAST_FT, 0.5 * (rung.high_ft - rung.low_ft) / EIGHTY))
    design = np.array([[row.get(name, 0.0) for name in names] for row in slopes])
    weights = 1.0 / (np.array(sigmas) ** 2 + SAID_FT**2)
    precision = np.eye(len(names)) / PRIOR**2 + (design.T * weights) @ design
    return dict(zip(names, np.sqrt(np.diag(np.linalg.inv(precision))).tolist(), strict=True))


if __name__ == "__main__":
    for name, sigma in conditioned(catalogue.load()).items():
        print(f"{name:24s} {sigma:.2f} of {PRIOR:.2f}")
