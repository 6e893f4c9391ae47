"""Each rig at its own best pace and count: packs the compiled search and shares it out."""

import os
from collections.abc import Hashable, Sequence
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import numpy as np

from heathdrop.physics.cast import Cast, Fidelity, line_params, lure_params
from heathdrop.physics.kernels.records import (
    FAR,
    Band,
    Floats,
    Limits,
    LineParams,
    LureParams,
    Scene,
    Tuned,
    rows_of,
)
from heathdrop.physics.kernels.search import search
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water
from heathdrop.sizing.memory import Memory

#: The search's and the board's fidelity; docs/model.md gives their measured errors.
SEARCH = Fidelity(segments=6, grading=0.2, step_m=0.13, longest_step_s=0.22, relax=0.3, relax_most=0.5)
BOARD = Fidelity(segments=12, grading=0.2, step_m=0.09, longest_step_s=0.16, relax=0.5, relax_most=0.5)
#: What a search reckons the water that a cast covers with: between the two.
COVERING = Fidelity(segments=8, grading=0.2, step_m=0.12, longest_step_s=0.20, relax=0.3, relax_most=0.5)
#: Rounds of small moves for a rig that may be the best.
ROUNDS = 3

#: Settings found, and casts replayed, that are remembered.
REMEMBERED = 8192
TUNED: Memory[Tuned] = Memory(REMEMBERED)

#: Every lure on the scene's own line.
NO_LINES = np.zeros((0, len(LineParams._fields)))

_WORKERS = 2


class _Pool:
    """The threads that cast; a forked process has none of its parent's and starts its own."""

    def __init__(self) -> None:
        self.renew()
        os.register_at_fork(after_in_child=self.renew)

    def renew(self) -> None:
        self.threads = ThreadPoolExecutor(_WORKERS, thread_name_prefix="cast")


_pool = _Pool()


def scene_of(
    line: Line,
    water: Water,
    cast: Cast,
    band_m: tuple[float, float],
    cover_top_m: float,
    haze_m: float = 1.0,
    skates_m: float = 0.1,
    uneven_m: float = 0.1,
    eased: float = 0.3,
    price: float = 1.0,
) -> Scene:
    """Line, bottom, cast and band as the compiled search takes them; ``haze_m`` blurs the band at best,
    ``uneven_m`` the cover's top; ``eased`` and ``price`` say what a share of the retrieve and a pace are
    worth."""
    band = Band(*(float(v) for v in (*band_m, cover_top_m, haze_m, skates_m, uneven_m, eased, price)))
    return Scene(
        line_params(line, water), cast.bottom_rows(), float(cast.distance_m), float(cast.rod_tip_m), band
    )


def _searched(
    lures: Floats,
    limits: Floats,
    scene: Scene,
    begun: Floats,
    *,
    fine: Fidelity,
    lines: Floats = NO_LINES,
    rounds: int = 0,
    refine: bool = True,
) -> list[Tuned]:
    """The settings that the kernel finds for rows of lures within their limits, two threads at a time."""
    count = len(lures)
    results = np.zeros((count, len(Tuned._fields)))
    packed: dict[str, Any] = {
        "lures": lures,
        "lines": lines,
        "limits": limits,
        "scene": scene,
        "coarse": SEARCH.grid(),
        "fine": fine.grid(),
        "rounds": rounds,
        "refine": refine,
        "begun": begun,
        "results": results,
    }
    cuts = np.linspace(0, count, min(8 * _WORKERS, count) + 1).astype(int)
    jobs = [
        _pool.threads.submit(search, **packed, first=a, last=b) for a, b in zip(cuts, cuts[1:], strict=False)
    ]
    for one in jobs:
        one.result()
    return [Tuned(*row) for row in results.tolist()]


def tune(
    lures: Sequence[Lure],
    limits: Sequence[Limits],
    scene: Scene,
    refine: bool = True,
    rounds: int = ROUNDS,
    begun: Sequence[Tuned] = (),
) -> list[Tuned]:
    """Search every lure's best pace and starting depth, two threads at a time.

    The same input gives the same output: lures do not influence one another. Without ``refine`` the
    figures are at search fidelity. ``rounds`` of small moves follow the first trials; below 0 one trial is
    all, enough for a rig that its closed-form parts have ruled out. ``begun`` is what an earlier call without
    rounds found for the same lures: the rounds go on from there.
    """
    if not lures:
        return []
    records = [lure_params(lure) for lure in lures]
    there = scene_key(scene)

    def find(which: list[int]) -> list[Tuned]:
        rows, bounds = rows_of(records[k] for k in which), rows_of(limits[k] for k in which)
        start = np.array([begun[k] for k in which if begun], dtype=np.float64)
        start = start.reshape(-1, len(Tuned._fields))
        return _searched(rows, bounds, scene, start, fine=BOARD, rounds=rounds, refine=refine)

    # What the rounds begin from follows from the rest of the key.
    keys = [(r, m, there, rounds, refine, bool(begun)) for r, m in zip(records, limits, strict=True)]
    return TUNED.all_of(keys, find)


def cast_once(
    lures: Sequence[Lure], limits: Sequence[Limits], scene: Scene, settings: Sequence[tuple[float, float]]
) -> list[Tuned]:
    """What each lure does at its pace (m/s) and starting depth (m), at the search's fidelity."""
    records = [lure_params(lure) for lure in lures]
    there = scene_key(scene)

    def find(which: list[int]) -> list[Tuned]:
        rows, bounds = rows_of(records[k] for k in which), rows_of(limits[k] for k in which)
        return _played(rows, NO_LINES, bounds, scene, [settings[k] for k in which])

    keys = [(r, m, there, at) for r, m, at in zip(records, limits, settings, strict=True)]
    return TUNED.all_of(keys, find)


def _played(
    lures: Floats, lines: Floats, limits: Floats, scene: Scene, settings: Sequence[tuple[float, float]]
) -> list[Tuned]:
    """Rows of lures cast once at their settings, nothing searched."""
    begun = np.zeros((len(settings), len(Tuned._fields)))
    begun[:, :2] = settings
    return _searched(lures, limits, scene, begun, fine=SEARCH, lines=lines)


#: A lure on a line, reeled at a pace (m/s) from a start (m), so far away (m).
Replay = tuple[LureParams, LineParams, float, float, float]


def scene_key(scene: Scene) -> Hashable:
    """Everything of a scene that a cast hangs on, to remember it by."""
    return scene.line, scene.bottom.tobytes(), scene.distance, scene.tip, scene.band


def tuned_at(lure: Lure, limits: Limits, scene: Scene, pace_m_s: float, start_m: float) -> Tuned:
    """What a lure does at a pace and a starting depth that are given, at the board's fidelity."""
    begun = np.array([[pace_m_s, start_m, *[0.0] * (len(Tuned._fields) - 2)]])
    rows, bounds = rows_of([lure_params(lure)]), rows_of([limits])
    return _searched(rows, bounds, scene, begun, fine=BOARD)[0]


def replayed(casts: Sequence[Replay], scene: Scene) -> list[Tuned]:
    """What lures do on their own lines from their own settings, at the search's fidelity."""
    lures, lines = (rows_of(cast[n] for cast in casts) for n in (0, 1))
    slowest = min(cast[2] for cast in casts)
    fastest = 10.0 * slowest
    any_pace = rows_of(
        Limits(
            slowest_m_s=slowest,
            fastest_m_s=fastest,
            deepest_start_m=FAR,
            haze_m=scene.band.haze,
            liked_slow_m_s=slowest,
            liked_fast_m_s=fastest,
            slower=1.0,
            quicker=1.0,
            distance_m=cast[4],
        )
        for cast in casts
    )
    return _played(lures, lines, any_pace, scene, [cast[2:4] for cast in casts])
