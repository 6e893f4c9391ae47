"""A cast: lure, line, water and a programme of phases, through to samples.

A slack fall at the start is taken in closed form (nothing else moves); every
other phase runs through the line simulation of :mod:`heathdrop.physics.kernels`.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from heathdrop.errors import BadInput, require_between
from heathdrop.physics.fall import depth_after_s, fall_speed_m_s, time_to_depth_s
from heathdrop.physics.kernels.march import run_chain
from heathdrop.physics.kernels.records import (
    MEETS_MOST_M,
    MEETS_SHARE,
    USEFUL_FAR,
    USEFUL_NEAR,
    Grid,
    LineParams,
    LureParams,
    Samples,
    Start,
    rows_of,
    samples_room,
)
from heathdrop.physics.line import Line
from heathdrop.physics.program import LIFT_M_S, LONGEST_CAST_S, TAKING_UP, Phase, Scene, legs_of
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import Water

#: Tension is told over so many seconds either way.
FELT_S = 0.3


@lru_cache(maxsize=64)
def mesh(segments: int, grading: float) -> NDArray[np.float64]:
    """Node fractions 0..1, so many segments shrinking by ``grading`` from tip to lure (made once; every cast
    of a fidelity reads it)."""
    sizes = np.geomspace(1.0, grading, segments)
    nodes = np.concatenate([[0.0], np.cumsum(sizes) / sizes.sum()])
    nodes[-1] = 1.0
    return nodes


@dataclass(frozen=True)
class Fidelity:
    """How finely a cast is computed: segments, grading toward the lure, step (m of motion); the share of a
    length error taken back in one step, at most at this share of the leg's own speed (all of it, slowly,
    keeps the length best; coarse steps need the other)."""

    segments: int
    grading: float
    step_m: float
    longest_step_s: float
    relax: float = 1.0
    relax_most: float = 0.1

    def grid(self) -> Grid:
        """This fidelity as the kernels take it."""
        return Grid(
            mesh(self.segments, self.grading), self.step_m, self.longest_step_s, self.relax, self.relax_most
        )

    def finer(self, factor: float) -> "Fidelity":
        """The same mesh, its steps shortened by ``factor``."""
        return replace(self, step_m=factor * self.step_m, longest_step_s=factor * self.longest_step_s)


#: A twitched retrieve is stepped this much finer, and never on a coarser mesh than the screens': each snap of
#: the tip leaves a little of the line's stretch behind, and forty of them bring the lure home too soon; a
#: coarse mesh plays it feet too deep (docs/evidence.md).
SNAPPED = 0.2
#: Worked otherwise than steadily, a lure is stepped at least so often within its own time (2m/ρAv, how soon
#: the water stops it), at most so much finer than usual: a light one on thin line follows the hand at once.
OWN_TIMES, FINEST = 4.0, 0.25
#: The limb a line is laid over: how far from where the lure goes in and how high above the water, m
#: (assumption).
LIMB_M = 0.3
#: What screens show; docs/model.md gives its measured error.
DISPLAY = Fidelity(24, 0.3, 0.025, 0.05)
#: Phases in which nothing is snatched.
STEADY = {"fall", "retrieve", "slow-roll"}


@dataclass(frozen=True)
class Cast:
    """Where the line starts: distance of the cast, rod-tip height, bottom profile (all m).

    ``bottom`` holds (distance from the angler, depth) pairs, distance rising: level, sloping or stepped.
    ``over_limb``: the line lies over a limb beside the lure and goes straight down from there.
    """

    distance_m: float
    rod_tip_m: float
    bottom: tuple[tuple[float, float], ...]
    over_limb: bool = False

    def bottom_rows(self) -> NDArray[np.float64]:
        """The bottom as an array of (distance, depth) rows."""
        return np.asarray(self.bottom, dtype=np.float64)

    def bottom_at(self, distance_m: float) -> float:
        """Depth of the bottom (m) at a distance from the angler."""
        rows = self.bottom_rows()
        return float(np.interp(distance_m, rows[:, 0], rows[:, 1]))


@dataclass(frozen=True)
class CastResult:
    """Samples of a cast and where the first fall ended; ``shapes`` (samples, nodes, 2) when they were asked
    for."""

    cast: Cast
    samples: Samples
    fall_s: float
    start_depth_m: float
    shapes: NDArray[np.float64] = field(default_factory=lambda: np.empty((0, 0, 2)))

    @property
    def time_s(self) -> NDArray[np.float64]:
        return self.samples.t

    @property
    def distance_m(self) -> NDArray[np.float64]:
        return self.samples.x

    @property
    def depth_m(self) -> NDArray[np.float64]:
        return self.samples.z

    @property
    def on_bottom(self) -> NDArray[np.bool_]:
        return self.samples.bottom > 0.5

    @property
    def tension_n(self) -> NDArray[np.float64]:
        """Tension at the tip (N) as a hand feels it: the median of :data:`FELT_S` either way. A step that
        takes length back at once answers with an impulse that is the step's and not the water's."""
        t, raw = self.samples.t, self.samples.tension
        begin, end = np.searchsorted(t, t - FELT_S), np.searchsorted(t, t + FELT_S, side="right")
        return np.array([np.median(raw[a:b]) for a, b in zip(begin, end, strict=True)])

    @property
    def bottom_s(self) -> float:
        """Seconds spent on the bottom."""
        if self.time_s.size < 2:
            return 0.0
        return float(np.sum(np.diff(self.time_s) * self.on_bottom[1:]))

    def useful(self) -> NDArray[np.float64]:
        """Depths (m) after the fall while the lure is 80 % to 20 % of the cast away."""
        far, near = USEFUL_FAR * self.cast.distance_m, USEFUL_NEAR * self.cast.distance_m
        x = self.distance_m
        keep = (self.time_s >= self.fall_s) & (x <= far) & (x >= near)
        return self.depth_m[keep]

    def worked(self) -> NDArray[np.float64]:
        """Depths (m) of the work: the useful part of a retrieve, or for a lure that stays far out (hopped,
        dragged, shaken) all after the first fall."""
        depths = self.useful()
        return depths if depths.size else self.depth_m[self.time_s >= self.fall_s - 1e-9]

    @property
    def taking_up(self) -> NDArray[np.bool_]:
        """Where the slack of the fall is being reeled in."""
        return np.asarray(self.samples.phase % 1.0 == TAKING_UP)

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


def lure_params(lure: Lure) -> LureParams:
    """The lure as the kernels take it."""
    fades = 1.0 if lure.fades else 0.0
    areas = lure.run_drag_area_m2, lure.fall_drag_area_m2, lure.run_lift_area_m2
    # Whole numbers among them would be another type, and compiled anew in the midst of a request.
    given = lure.mass_kg, lure.net_weight_n, *areas, fades, lure.bottom_grip
    return LureParams(*(float(v) for v in given))


def line_params(line: Line, water: Water) -> LineParams:
    """Line and water as the kernels take them."""
    leader = line.leader
    more = () if leader is None else (float(line.leader_m), *_per_metre(leader, water))
    return LineParams(*_per_metre(line, water), water.density_kg_m3, *more)


def _per_metre(line: Line, water: Water) -> tuple[float, float, float, float, float]:
    """Area (m²), density (kg/m³) and the drag terms of a metre."""
    d, rho = line.diameter_m, water.density_kg_m3
    viscous = 10.0 * (water.viscosity_m2_s / d) ** (2.0 / 3.0)
    terms = line.area_m2, line.density_kg_m3, 0.5 * rho * d, viscous, 0.5 * rho * line.skin_m
    a, b, c, d, e = (float(v) for v in terms)
    return a, b, c, d, e


def surface_line_m(cast: Cast) -> float:
    """Line lying on the surface after the cast, m."""
    return cast.distance_m - min(MEETS_SHARE * cast.distance_m, MEETS_MOST_M)


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

    Raises BadInput when the programme cannot be played: an unknown phase, a
    missing or impossible number, more than ten minutes, or a phase for which
    no line is left out.
    """
    if not program:
        raise BadInput("program", "empty", "a list of at least one phase")
    if cast.over_limb:
        deep = cast.bottom_at(cast.distance_m)
        below = Cast(LIMB_M, LIMB_M, ((0.0, deep), (200.0, deep)))
        hung = fly(lure, line, water, below, program, fidelity=fidelity, sample_s=sample_s, shapes=shapes)
        return _from_the_rod(hung, cast)
    fall_s, z0, first = 0.0, 0.0, 0
    head = samples_room(0)
    if program[0].do == "fall" and program[0].slack:
        fall_s, z0 = _slack_fall(program[0], lure, line, water, cast)
        dragged = 0.5 * surface_line_m(cast) if program[0].pulled_off_reel else 0.0
        head = _fall_samples(
            lure, line, water=water, cast=cast, fall_s=fall_s, z0=z0, sample_s=sample_s, dragged_m=dragged
        )
        first = 1
    still = float(fall_speed_m_s(lure.net_weight_n, lure.fall_drag_area_m2, 0.0, line, water))
    scene = Scene(cast.distance_m, max(z for _, z in cast.bottom), still, cast.rod_tip_m)
    legs = legs_of(program, first, scene)
    if not legs:
        return CastResult(cast, head, fall_s, z0)
    room = int(min(sum(leg.time for leg in legs), 2.0 * LONGEST_CAST_S) / sample_s) + 4
    out = samples_room(room)
    grid = _fine_enough(fidelity, lure, water, program).grid()
    drawn = np.zeros((room if shapes else 0, grid.mesh.size, 2))
    start = Start(*(float(v) for v in (cast.distance_m, z0, cast.rod_tip_m, fall_s)))
    packed = lure_params(lure), line_params(line, water), cast.bottom_rows(), rows_of(legs), grid, start
    k = run_chain(*packed, sample_s, out, drawn)
    played = Samples(*(column[:k] for column in out))
    _all_played(program, played)
    if shapes and head.t.size:
        drawn = np.concatenate([_hanging(head, grid.mesh.size), drawn[:k]])
    whole = Samples(*(np.concatenate(both) for both in zip(head, played, strict=True)))
    return CastResult(cast, whole, fall_s, z0, drawn[: whole.t.size])


def _from_the_rod(hung: CastResult, cast: Cast) -> CastResult:
    """What was flown from the limb, seen from the angler: the line comes over the limb from the rod."""
    away, samples = cast.distance_m - LIMB_M, hung.samples
    shapes = hung.shapes
    if shapes.size:
        rod = np.broadcast_to((-away, -cast.rod_tip_m), (len(shapes), 1, 2))
        shapes = np.append(rod, shapes, axis=1) + np.array((away, 0.0))
    # The limb holds the line: the rod's own tip moves no further than the shake.
    tip = samples.tip_z + (LIMB_M - cast.rod_tip_m)
    moved = samples._replace(x=samples.x + away, line=samples.line + away, tip_z=tip)
    return CastResult(cast, moved, hung.fall_s, hung.start_depth_m, shapes)


def _fine_enough(fidelity: Fidelity, lure: Lure, water: Water, program: Sequence[Phase]) -> Fidelity:
    """The fidelity that this lure in this programme needs, at least the one asked for."""
    if any(phase.do == "twitch" for phase in program):
        return (fidelity if fidelity.segments >= DISPLAY.segments else DISPLAY).finer(SNAPPED)
    if fidelity.step_m > DISPLAY.step_m or {phase.do for phase in program} <= STEADY:
        return fidelity
    quickest = max(LIFT_M_S, *(phase.speed_m_s or 0.0 for phase in program))
    own_s = 2.0 * lure.mass_kg / (water.density_kg_m3 * lure.run_drag_area_m2 * quickest)
    steps_s = min(fidelity.longest_step_s, fidelity.step_m / quickest)
    return fidelity.finer(min(1.0, max(FINEST, own_s / OWN_TIMES / steps_s)))


def _all_played(program: Sequence[Phase], samples: Samples) -> None:
    """Refuse a programme in which a phase begins with the lure already at the rod."""
    reached = int(samples.phase[-1])
    if reached < len(program) - 1:
        late = reached + 1
        raise BadInput(
            f"program[{late}].do", program[late].do, f"left out: no line is left after phase {reached}"
        )


def _slack_fall(phase: Phase, lure: Lure, line: Line, water: Water, cast: Cast) -> tuple[float, float]:
    """Seconds and end depth of a slack fall, stopped by the bottom."""
    bottom_m = cast.bottom_at(cast.distance_m)
    dragged = 0.5 * surface_line_m(cast) if phase.pulled_off_reel else 0.0
    if phase.for_s is not None:
        seconds = require_between("program[0].for_s", phase.for_s, 0.0, LONGEST_CAST_S, "s")
        return seconds, min(depth_after_s(lure, seconds, line, water, dragged), bottom_m)
    depth = (
        bottom_m
        if phase.to_depth_m is None
        else min(require_between("to_depth", phase.to_depth_m, 0.0, 1e4, "m"), bottom_m)
    )
    seconds = time_to_depth_s(lure, depth, line, water, dragged)
    if seconds > LONGEST_CAST_S:
        raise BadInput("lure.net_weight_n", lure.net_weight_n, "enough to sink there within ten minutes")
    return seconds, depth


def _fall_samples(
    lure: Lure,
    line: Line,
    water: Water,
    cast: Cast,
    fall_s: float,
    z0: float,
    sample_s: float,
    dragged_m: float,
) -> Samples:
    """Samples of the closed-form fall, its end left to the simulation's first sample."""
    times = np.arange(math.ceil(fall_s / sample_s)) * sample_s
    falls = (min(depth_after_s(lure, float(t), line, water, dragged_m), z0) for t in times)
    depths = np.fromiter(falls, dtype=np.float64, count=times.size)
    room = samples_room(times.size)
    return room._replace(
        t=times.astype(np.float64),
        x=np.full(times.size, cast.distance_m),
        z=depths,
        bottom=(depths >= cast.bottom_at(cast.distance_m) - 1e-6).astype(np.float64),
        tip_z=np.full(times.size, -cast.rod_tip_m),
        line=cast.distance_m + depths,
    )


def _hanging(head: Samples, nodes: int) -> NDArray[np.float64]:
    """The line's shape during the slack fall: on the surface, then straight down to the lure."""
    shapes = np.zeros((head.t.size, nodes, 2))
    for x0, z, tip, shape in zip(head.x, head.z, head.tip_z, shapes, strict=True):
        meets = min(MEETS_SHARE * x0, MEETS_MOST_M)
        corners = np.array([[0.0, tip], [meets, 0.0], [x0, 0.0], [x0, z]])
        along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(corners, axis=0).T))])
        at = np.linspace(0.0, along[-1], nodes)
        shape[:, 0] = np.interp(at, along, corners[:, 0])
        shape[:, 1] = np.interp(at, along, corners[:, 1])
    return shapes
