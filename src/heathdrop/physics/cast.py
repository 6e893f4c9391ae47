"""A cast: lure, line, water and a programme of phases, through to samples.

A slack fall at the start is taken in closed form (nothing else moves); every
other phase runs through the line simulation of :mod:`heathdrop.physics.chain`.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from heathdrop.errors import BadInput, require_between
from heathdrop.physics import chain
from heathdrop.physics.fall import depth_after_s, time_to_depth_s
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water

LONGEST_CAST_S = 600.0
AT_THE_ROD_M = 1.5
#: The useful part of a retrieve: lure between these shares of the cast away.
USEFUL = (0.8, 0.2)


@dataclass(frozen=True)
class Fidelity:
    """How finely a cast is computed: segments, grading toward the lure, step (m of motion)."""

    segments: int
    grading: float
    step_m: float
    longest_step_s: float

    def mesh(self) -> NDArray[np.float64]:
        """Node fractions 0..1, segments shrinking by ``grading`` from tip to lure."""
        sizes = np.geomspace(1.0, self.grading, self.segments)
        nodes = np.concatenate([[0.0], np.cumsum(sizes) / sizes.sum()])
        nodes[-1] = 1.0
        return nodes


#: What screens show, and what a search looks through; docs/model.md gives their measured errors.
DISPLAY = Fidelity(24, 0.3, 0.025, 0.05)
SEARCH = Fidelity(10, 0.35, 0.06, 0.12)


@dataclass(frozen=True)
class Cast:
    """Where the line starts: distance of the cast, rod-tip height, bottom profile (all m)."""

    distance_m: float
    rod_tip_m: float
    bottom: tuple[tuple[float, float], ...]

    def bottom_rows(self) -> NDArray[np.float64]:
        """The bottom as an array of (distance, depth) rows."""
        return np.asarray(self.bottom, dtype=np.float64)


@dataclass(frozen=True)
class Phase:
    """One step of a programme. Unused fields stay None; times s, lengths m, speeds m/s."""

    do: str
    slack: bool = False
    to_depth_m: float | None = None
    for_s: float | None = None
    speed_m_s: float | None = None


@dataclass(frozen=True)
class CastResult:
    """Samples of a cast (columns of ``chain.S_*``) and where the fall ended."""

    cast: Cast
    samples: NDArray[np.float64]
    fall_s: float
    start_depth_m: float
    shapes: NDArray[np.float64] = field(default_factory=lambda: np.empty((0, 0, 2)))

    def _column(self, k: int) -> NDArray[np.float64]:
        return self.samples[:, k]

    @property
    def time_s(self) -> NDArray[np.float64]:
        return self._column(chain.S_T)

    @property
    def distance_m(self) -> NDArray[np.float64]:
        return self._column(chain.S_X)

    @property
    def depth_m(self) -> NDArray[np.float64]:
        return self._column(chain.S_Z)

    def useful(self) -> NDArray[np.float64]:
        """Depths (m) after the fall while the lure is 80 % to 20 % of the cast away."""
        far, near = (share * self.cast.distance_m for share in USEFUL)
        x = self.distance_m
        keep = (self.time_s >= self.fall_s) & (x <= far) & (x >= near)
        return self.depth_m[keep]

    def depth_at(self, distance_m: float) -> float:
        """Depth (m) where the lure first comes as near as ``distance_m``."""
        x = self.distance_m
        after = np.flatnonzero((x <= distance_m) & (self.time_s >= self.fall_s))
        if after.size == 0:
            return math.nan
        i = int(after[0])
        if i == 0 or x[i - 1] == x[i]:
            return float(self.depth_m[i])
        share = (x[i - 1] - distance_m) / (x[i - 1] - x[i])
        return float(self.depth_m[i - 1] + share * (self.depth_m[i] - self.depth_m[i - 1]))


def lure_row(lure: Lure, grip: float = 0.5) -> NDArray[np.float64]:
    """The lure packed for the simulation."""
    return np.array(
        [
            lure.mass_kg,
            lure.net_weight_n,
            lure.run_drag_area_m2,
            lure.fall_drag_area_m2,
            lure.run_lift_area_m2,
            1.0 if lure.fades else 0.0,
            grip,
        ]
    )


def line_row(line: Line, water: Water) -> NDArray[np.float64]:
    """Line and water packed for the simulation."""
    d, rho = line.diameter_m, water.density_kg_m3
    viscous = 10.0 * (water.viscosity_m2_s / d) ** (2.0 / 3.0)
    return np.array([line.area_m2, line.density_kg_m3, 0.5 * rho * d, viscous, 0.5 * rho * math.pi * d * line.friction, rho])


def fly(
    lure: Lure,
    line: Line,
    water: Water,
    cast: Cast,
    program: Sequence[Phase],
    *,
    fidelity: Fidelity = DISPLAY,
    sample_s: float = 0.1,
    shapes: bool = False,
) -> CastResult:
    """Play ``program`` and return the cast's samples, at most ``sample_s`` apart.

    Raises BadInput when the programme cannot be played (unknown phase, missing
    or negative number, more than ten minutes).
    """
    if not program:
        raise BadInput("program", "empty", "a list of at least one phase")
    bottom = cast.bottom_rows()
    entry_bottom = float(np.interp(cast.distance_m, bottom[:, 0], bottom[:, 1]))
    rows: list[list[float]] = []
    fall_s, z0, first = 0.0, 0.0, 0
    if program[0].do == "fall" and program[0].slack:
        fall_s, z0 = _slack_fall(program[0], lure, line, water, entry_bottom)
        rows = _fall_rows(lure, line, water, cast, fall_s, z0, entry_bottom, sample_s)
        first = 1
    legs = np.array([_leg(i, p, cast) for i, p in enumerate(program) if i >= first], dtype=np.float64)
    head = np.asarray(rows, dtype=np.float64).reshape(-1, chain.SAMPLE_COLUMNS)
    if legs.size == 0:
        return CastResult(cast, head, fall_s, z0)
    room = int((min(float(legs[:, chain.LEG_TIME].sum()), LONGEST_CAST_S)) / sample_s) + 4
    out = np.zeros((room, chain.SAMPLE_COLUMNS))
    mesh = fidelity.mesh()
    drawn = np.zeros((room if shapes else 0, mesh.size, 2))
    start = np.array([cast.distance_m, z0, 0.0, -cast.rod_tip_m, fall_s])
    k = chain.run_chain(
        lure_row(lure),
        line_row(line, water),
        bottom,
        legs,
        mesh,
        start,
        fidelity.step_m,
        fidelity.longest_step_s,
        sample_s,
        out,
        drawn,
    )
    return CastResult(cast, np.vstack([head, out[:k]]), fall_s, z0, drawn[:k])


def _slack_fall(phase: Phase, lure: Lure, line: Line, water: Water, bottom_m: float) -> tuple[float, float]:
    """Seconds and end depth of a slack fall, stopped by the bottom."""
    if phase.to_depth_m is not None:
        depth = min(require_between("to_depth", phase.to_depth_m, 0.0, 1e4, "m"), bottom_m)
    elif phase.for_s is not None:
        seconds = require_between("for_s", phase.for_s, 0.0, LONGEST_CAST_S, "s")
        depth = min(depth_after_s(lure, seconds, line, water), bottom_m)
        return seconds, depth
    else:
        raise BadInput("fall", None, "given to_depth_ft or for_s")
    seconds = time_to_depth_s(lure, depth, line, water)
    if seconds > LONGEST_CAST_S:
        raise BadInput("net_weight_n", lure.net_weight_n, "enough to sink there within ten minutes")
    return seconds, depth


def _fall_rows(
    lure: Lure, line: Line, water: Water, cast: Cast, fall_s: float, z0: float, bottom_m: float, sample_s: float
) -> list[list[float]]:
    """Samples of the closed-form fall, its end left to the simulation's first sample."""
    rows = []
    for i in range(math.ceil(fall_s / sample_s)):
        t = i * sample_s
        depth = min(depth_after_s(lure, t, line, water), z0)
        grounded = 1.0 if depth >= bottom_m - 1e-6 else 0.0
        rows.append([t, cast.distance_m, depth, 0.0, 0.0, grounded, 0.0, -cast.rod_tip_m, cast.distance_m + depth])
    return rows


def _leg(index: int, phase: Phase, cast: Cast) -> list[float]:
    """One leg of the simulation for one phase."""
    leg = [LONGEST_CAST_S, 0.0, 0.0, 0.0, chain.FAR, -chain.FAR, -chain.FAR, 0.0, float(index)]
    if phase.do == "retrieve":
        if phase.speed_m_s is None:
            raise BadInput(f"program[{index}].speed_ft_s", None, "given for a retrieve")
        leg[chain.LEG_REEL] = require_between(f"program[{index}].speed_ft_s", phase.speed_m_s, 0.01, 5.0, "m/s")
        leg[chain.LEG_NEAR] = AT_THE_ROD_M
        leg[chain.LEG_TIME] = phase.for_s if phase.for_s is not None else cast.distance_m * 1.6 / phase.speed_m_s + 30.0
    elif phase.do in ("pause", "fall"):
        if phase.for_s is None and phase.to_depth_m is None:
            raise BadInput(f"program[{index}].for_s", None, f"given for a {phase.do}")
        leg[chain.LEG_TIME] = phase.for_s if phase.for_s is not None else 120.0
        if phase.to_depth_m is not None:
            leg[chain.LEG_DEPTH] = phase.to_depth_m
    else:
        raise BadInput(f"program[{index}].do", phase.do, "one of fall, retrieve, pause")
    return leg
