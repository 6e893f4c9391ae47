"""Each rig at its own best pace and count: packs the compiled search and shares it out."""

from __future__ import annotations

from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass

import numpy as np

from heathdrop.physics.cast import Cast, Fidelity, line_row, lure_row
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water
from heathdrop.sizing import search_loop as loop

#: The search's and the board's fidelity; docs/model.md gives their measured errors.
SEARCH = Fidelity(8, 0.35, 0.08, 0.14)
BOARD = Fidelity(16, 0.3, 0.04, 0.08)

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
class Aim:
    """What the search aims for: band and cover top (m), paces (m/s), deepest count (m)."""

    band_m: tuple[float, float]
    cover_top_m: float
    paces_m_s: tuple[float, float]
    deepest_start_m: float


def tune(lures: Sequence[Lure], line: Line, water: Water, cast: Cast, aim: Aim) -> list[Tuned]:
    """Search every lure's best pace and starting depth, two threads at a time.

    The same input gives the same output: lures do not influence one another.
    """
    if not lures:
        return []
    rows = np.array([lure_row(lure) for lure in lures])
    results = np.zeros((len(lures), loop.RESULT_COLUMNS))
    packed = (
        rows,
        line_row(line, water),
        cast.bottom_rows(),
        cast.distance_m,
        cast.rod_tip_m,
        np.array([*aim.band_m, aim.cover_top_m]),
        np.array(aim.paces_m_s),
        aim.deepest_start_m,
        SEARCH.mesh(),
        np.array([SEARCH.step_m, SEARCH.longest_step_s]),
        BOARD.mesh(),
        np.array([BOARD.step_m, BOARD.longest_step_s]),
    )
    cuts = np.linspace(0, len(lures), min(4 * _WORKERS, len(lures)) + 1).astype(int)
    jobs = [_pool.submit(loop.search, *packed, a, b, results) for a, b in zip(cuts, cuts[1:], strict=False)]
    for job in jobs:
        job.result()
    return [Tuned(*(float(v) for v in row)) for row in results]
