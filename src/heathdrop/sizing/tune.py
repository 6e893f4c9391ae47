"""Each rig at its own best pace and count: packs the compiled search and shares it out."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor

import numpy as np

from heathdrop.physics.cast import Cast, Fidelity, line_params, lure_params
from heathdrop.physics.kernels.records import Band, Limits, Scene, Tuned, rows_of
from heathdrop.physics.kernels.search import search, trial_room, try_one
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water

__all__ = ["BOARD", "SEARCH", "Limits", "Scene", "Tuned", "scene_of", "shared_out", "tune", "tuned_at"]

#: The search's and the board's fidelity; docs/model.md gives their measured errors.
SEARCH = Fidelity(8, 0.2, 0.08, 0.14, 0.3, 0.5)
BOARD = Fidelity(12, 0.2, 0.06, 0.12, 0.3, 0.5)
#: Rounds of small moves for a rig that may be the best.
ROUNDS = 3

_WORKERS = 2
_pool = ThreadPoolExecutor(_WORKERS, thread_name_prefix="cast")


def scene_of(
    line: Line,
    water: Water,
    cast: Cast,
    band_m: tuple[float, float],
    cover_top_m: float,
    haze_m: float = 1.0,
    skates_m: float = 0.1,
) -> Scene:
    """Line, bottom, cast and band as the compiled search takes them; ``haze_m`` blurs the band at best."""
    band = Band(*(float(v) for v in (*band_m, cover_top_m, haze_m, skates_m)))
    return Scene(
        line_params(line, water), cast.bottom_rows(), float(cast.distance_m), float(cast.rod_tip_m), band
    )


def shared_out(job: Callable[..., None], count: int, *packed: object) -> None:
    """Run ``job(*packed, first, last)`` over ``count`` rows, two threads at a time."""
    cuts = np.linspace(0, count, min(8 * _WORKERS, count) + 1).astype(int)
    jobs = [_pool.submit(job, *packed, a, b) for a, b in zip(cuts, cuts[1:], strict=False)]
    for one in jobs:
        one.result()


def tune(
    lures: Sequence[Lure],
    limits: Sequence[Limits],
    scene: Scene,
    refine: bool = True,
    rounds: int = ROUNDS,
) -> list[Tuned]:
    """Search every lure's best pace and starting depth, two threads at a time.

    The same input gives the same output: lures do not influence one another. Without ``refine`` the
    figures are at search fidelity. ``rounds`` of small moves follow the first trials; below 0 one trial is
    all, enough for a rig that its closed-form parts have ruled out.
    """
    if not lures:
        return []
    rows, bounds = rows_of(lure_params(lure) for lure in lures), rows_of(limits)
    results = np.zeros((len(lures), len(Tuned._fields)))
    shared_out(search, len(lures), rows, bounds, scene, SEARCH.grid(), BOARD.grid(), rounds, refine, results)
    return [Tuned(*row) for row in results.tolist()]


def tuned_at(lure: Lure, limits: Limits, scene: Scene, pace_m_s: float, start_m: float) -> Tuned:
    """What a lure does at a pace and a starting depth that are given, at the board's fidelity."""
    room = trial_room(scene.distance, pace_m_s)
    return Tuned(*try_one(lure_params(lure), scene, BOARD.grid(), limits, pace_m_s, start_m, room))
