"""Each rig at its own best pace and count: packs the compiled search and shares it out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop.physics.cast import Cast, Fidelity, line_row, lure_row
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water
from heathdrop.sizing import search_loop as loop

#: The search's and the board's fidelity; docs/model.md gives their measured errors.
SEARCH = Fidelity(8, 0.2, 0.08, 0.14)
BOARD = Fidelity(12, 0.2, 0.06, 0.12)

_WORKERS = 2
_pool = ThreadPoolExecutor(_WORKERS, thread_name_prefix="cast")


@dataclass(frozen=True)
class Tuned:
    """A rig's best setting for the band and what it does there; m, m/s, shares 0..1."""

    pace_m_s: float
    start_depth_m: float
    soft_share: float
    in_band: float
    mean_m: float
    shallowest_m: float
    deepest_m: float
    in_cover: float
    comfort: float


@dataclass(frozen=True)
class Limits:
    """What one rig may do: paces (m/s) and the deepest start of its retrieve (m)."""

    slowest_m_s: float
    fastest_m_s: float
    deepest_start_m: float


Scene = tuple[NDArray[np.float64], NDArray[np.float64], float, float, NDArray[np.float64]]
Grid = tuple[NDArray[np.float64], float, float]


def scene_of(line: Line, water: Water, cast: Cast, band_m: tuple[float, float], cover_top_m: float) -> Scene:
    """Line, bottom, cast and band packed for the compiled search."""
    band = np.array([*band_m, cover_top_m])
    return line_row(line, water), cast.bottom_rows(), float(cast.distance_m), float(cast.rod_tip_m), band


def grid_of(fidelity: Fidelity) -> Grid:
    """A fidelity packed for the compiled search."""
    return fidelity.mesh(), float(fidelity.step_m), float(fidelity.longest_step_s)


def shared_out(job: Callable[..., None], count: int, *packed: object) -> None:
    """Run ``job(*packed, first, last)`` over ``count`` rows, two threads at a time."""
    cuts = np.linspace(0, count, min(8 * _WORKERS, count) + 1).astype(int)
    jobs = [_pool.submit(job, *packed, a, b) for a, b in zip(cuts, cuts[1:], strict=False)]
    for one in jobs:
        one.result()


def tune(lures: Sequence[Lure], limits: Sequence[Limits], scene: Scene, refine: bool = True) -> list[Tuned]:
    """Search every lure's best pace and starting depth, two threads at a time.

    The same input gives the same output: lures do not influence one another. Without ``refine`` the
    figures are at search fidelity, good enough to compare families by.
    """
    if not lures:
        return []
    rows = np.array([lure_row(lure) for lure in lures])
    bounds = np.array([(m.slowest_m_s, m.fastest_m_s, m.deepest_start_m) for m in limits])
    results = np.zeros((len(lures), loop.RESULT_COLUMNS))
    shared_out(loop.search, len(lures), rows, bounds, scene, grid_of(SEARCH), grid_of(BOARD), refine, results)
    return [Tuned(*(float(v) for v in row)) for row in results]
