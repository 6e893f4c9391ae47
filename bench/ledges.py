"""Ledges: random stepped bottoms, what the line and the lure do over them, and the reference's word."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from bench.reference import depth_at, reference_cast
from heathdrop.physics.cast import DISPLAY, Cast, CastResult, Fidelity, fly
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import water_at

WATER, TIP_M = water_at(58.0), 0.6
#: Widths of a face, m: upright to leaning.
FACES_M = (0.001, 0.01, 0.1, 0.2, 0.5)
#: Shares of the cast at which depths are compared.
SHARES = np.linspace(0.8, 0.2, 7)


@dataclass(frozen=True)
class Stepped:
    """A lure brought home over steps: bottom rows (m), lure, line, cast (m), pace (m/s)."""

    bottom: tuple[tuple[float, float], ...]
    lure: Lure
    line: Line
    cast_m: float
    pace_m_s: float

    def played(self, fidelity: Fidelity = DISPLAY, start_m: float | None = None) -> CastResult:
        """The cast, from the bottom or from ``start_m``."""
        program = [Phase("fall", slack=True, to_depth_m=start_m), Phase("retrieve", speed_m_s=self.pace_m_s)]
        cast = Cast(self.cast_m, TIP_M, self.bottom)
        return fly(self.lure, self.line, WATER, cast, program, fidelity=fidelity, sample_s=0.05, shapes=True)


def stepped(seed: int, face_m: float | None = None) -> Stepped:
    """A random bottom of one to three steps rising toward the angler, with a random lure and line."""
    rng = np.random.default_rng(seed)
    deep, away, steps = rng.uniform(3.0, 9.0), rng.uniform(18.0, 30.0), int(rng.integers(1, 4))
    lips = (0.2 + 0.65 * (np.arange(steps) + rng.uniform(0.1, 0.9, steps)) / steps) * away
    depths = np.linspace(rng.uniform(0.25, 0.5) * deep, deep, steps + 1)
    face = float(rng.choice(FACES_M)) if face_m is None else face_m
    rows = [(0.0, depths[0])]
    for lip, above, below in zip(lips, depths, depths[1:], strict=False):
        rows += [(lip, above), (lip + face, below)]
    rows.append((200.0, deep))
    weight, lift = rng.uniform(0.08, 0.25), rng.uniform(0.0, 3.0) * 1e-4
    lure = Lure(0.12 * weight, weight, 1e-3, 1e-3, lift, bottom_grip=0.4)
    line = Line(float(rng.choice([0.28, 0.37, 0.43])) * 1e-3, 1780.0, 0.01)
    bottom = tuple((float(x), float(z)) for x, z in rows)
    return Stepped(bottom, lure, line, float(away), float(rng.uniform(0.4, 1.1)))


def line_over(shape: NDArray[np.float64], bottom: tuple[tuple[float, float], ...]) -> float:
    """Length (m) of a drawn line, by way of the lips in its way."""
    lips = [a for a, b in zip(bottom, bottom[1:], strict=False) if b[1] - a[1] > 1.5 * (b[0] - a[0])]
    total = 0.0
    for (ax, az), (bx, bz) in zip(shape, shape[1:], strict=False):
        piece = float(np.hypot(bx - ax, bz - az))
        for x, z in lips:
            if (ax - x) * (bx - x) < 0.0 and az + (bz - az) * (x - ax) / (bx - ax) > z:
                piece = max(piece, float(np.hypot(x - ax, z - az) + np.hypot(bx - x, bz - z)))
        total += piece
    return total


def measured(case: Stepped, cast: CastResult) -> dict[str, float]:
    """Greatest stretch of the line, the lure's speed in mid-water over the reel's, all of it and along the
    line alone, and how deep it was in the rock (m)."""
    after = cast.time_s >= cast.fall_s
    t, x, z = cast.time_s[after], cast.distance_m[after], cast.depth_m[after]
    shapes, out = cast.shapes[after], cast.samples.line[after]
    rows = np.array(case.bottom)
    floor = np.interp(x, rows[:, 0], rows[:, 1])
    u, w = np.diff(x) / np.diff(t), np.diff(z) / np.diff(t)
    last = shapes[1:, -1] - shapes[1:, -2]
    last /= np.hypot(last[:, 0], last[:, 1])[:, None] + 1e-12
    along = -(u * last[:, 0] + w * last[:, 1]) / case.pace_m_s
    mid = z[1:] < floor[1:] - 0.1
    lengths = np.array([line_over(shape, case.bottom) for shape in shapes])
    return {
        "stretch": float((lengths / out - 1.0).max()),
        "speed": float(np.hypot(u, w)[mid].max() / case.pace_m_s) if mid.any() else 0.0,
        "along": float(along[mid].max()) if mid.any() else 0.0,
        "in_rock": float((z - floor).max()),
    }


def beside_reference(seed: int) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Depths (m) at SHARES of one frictionless cast over upright faces: the reference's and ours."""
    case = stepped(seed, face_m=FACES_M[0])
    case = replace(case, lure=replace(case.lure, bottom_grip=0.0))
    upright = [case.bottom[0]]
    for lip, foot in zip(case.bottom[1:-1:2], case.bottom[2:-1:2], strict=True):
        upright += [lip, (lip[0], foot[1])]
    upright.append(case.bottom[-1])
    start = 0.9 * case.bottom[-1][1]
    rows = reference_cast(
        case.lure, case.line, WATER, case.cast_m, TIP_M, start, case.pace_m_s, floor=tuple(upright)
    )
    ours = case.played(start_m=start)
    at = SHARES * case.cast_m
    return np.array([depth_at(rows, d) for d in at]), np.array([ours.depth_at(d) for d in at])
