"""What the kernels take and give, by name. SI throughout; every array is one-dimensional and float64.

Numba takes these as they are. Rows of a batch travel as two-dimensional arrays whose columns are the
fields in order; only :func:`lure_at`, :func:`line_at`, :func:`leg_at` and :func:`limits_at` read them back.
"""

from typing import Any, NamedTuple, TypeAlias

import numpy as np
from numpy.typing import NDArray

from heathdrop.physics.kernels import compiled, written_in

Floats: TypeAlias = NDArray[np.float64]
#: Stands for "no such end": finite, because the compiled code assumes finite numbers.
FAR = 1e9
#: The useful part of a retrieve: lure between these shares of the cast away.
USEFUL_FAR, USEFUL_NEAR = 0.8, 0.2
#: Line lies on the surface from a fifth of the cast, at most 4 m, from the tip (practice).
MEETS_SHARE, MEETS_MOST_M = 0.2, 4.0
#: A path this near a band (m, 0.6 ft) counts as near it.
NEAR_M = 0.183
#: After a count the slack is taken up at this speed (m/s, practice) until the lure's straight distance is
#: this share of the line out, or this long (s) at most.
SLACK_M_S, TIGHT, LONGEST_TAKE_UP_S = 0.9, 0.97, 20.0
#: A retrieve is given up after this many times its own length at its pace, and this long besides.
LONGEST_WAYS, LONGEST_MORE_S = 1.6, 30.0


class LureParams(NamedTuple):
    """A lure: kg, N, m² (run drag, fall drag, lift), 1 where lift fades in a dive, friction on the bottom."""

    mass: float
    weight: float
    run: float
    fall: float
    lift: float
    fades: float
    grip: float


class LineParams(NamedTuple):
    """A line in its water: m², kg/m³, and drag terms per metre (½ρd, 10(ν/d)^⅔, ½ρπdCt), water kg/m³; its
    leader's length (m, 0 without one) and the leader's own m², kg/m³ and drag terms."""

    area: float
    density: float
    normal: float
    viscous: float
    tangent: float
    water: float
    leader_m: float = 0.0
    leader_area: float = 0.0
    leader_density: float = 0.0
    leader_normal: float = 0.0
    leader_viscous: float = 0.0
    leader_tangent: float = 0.0


class Leg(NamedTuple):
    """One leg of a programme: at most ``time`` s of reeling and tip motion (m/s), and what ends it."""

    time: float
    reel: float = 0.0
    tip_x: float = 0.0
    tip_z: float = 0.0
    depth: float = FAR
    rise: float = -FAR
    near: float = -FAR
    bottom: float = 0.0
    phase: float = 0.0
    clear: float = 0.0
    tight: float = 0.0


class Grid(NamedTuple):
    """How finely: node fractions 0..1, step (m of motion), longest step (s), and how a length error is
    taken back: its share in one step, at most at this share of the leg's own speed."""

    mesh: Floats
    step_m: float
    longest_s: float
    relax: float
    relax_most: float


class Start(NamedTuple):
    """Where the line is laid: lure's distance and depth, tip height above water (m), the clock (s)."""

    x: float
    z: float
    tip: float
    t: float


class Samples(NamedTuple):
    """A cast as recorded, one entry per sample: s, m, N; phase, 1 on the bottom, tip, line out (m)."""

    t: Floats
    x: Floats
    z: Floats
    tension: Floats
    phase: Floats
    bottom: Floats
    tip_x: Floats
    tip_z: Floats
    line: Floats


class Band(NamedTuple):
    """A depth band and the cover's top, m; how blurred the band is at best (one sigma), how near the surface
    a lure skates, and how uneven the cover's top is (one sigma). What a share of the retrieve in the band is
    worth saturates over ``eased`` (a share); a pace is counted to the power ``price`` beside it."""

    top: float
    low: float
    cover: float
    haze: float
    skates: float
    uneven: float
    eased: float = 0.3
    price: float = 1.0


class Scene(NamedTuple):
    """What every cast of a search shares: line, bottom rows, usual cast and tip height (m), depth band."""

    line: LineParams
    bottom: Floats
    distance: float
    tip: float
    band: Band


class Limits(NamedTuple):
    """What one rig may do: paces (m/s), the deepest start of its retrieve (m), and how blurred the band is
    to it (one sigma, m): fish, hand and its own uncertainty. The paces that the fish like cost nothing;
    below and above them one falls off with these sigmas (log). Its own cast is ``distance_m`` long;
    ``spread_m`` is how far hand, boat and rig scatter its depth from cast to cast (one sigma, m)."""

    slowest_m_s: float
    fastest_m_s: float
    deepest_start_m: float
    haze_m: float
    liked_slow_m_s: float
    liked_fast_m_s: float
    slower: float
    quicker: float
    distance_m: float
    spread_m: float = 0.0


class Tuned(NamedTuple):
    """A rig's best setting for the band and what it does there; m, m/s, s, shares 0..1. ``in_band`` is the
    share of the retrieve in the band that is to be expected of hand, boat and rig, ``near_band`` the share of
    the path itself within ``NEAR_M`` of the band, ``useful_s`` how long the useful retrieve lasts,
    ``comfort`` what the pace is worth to the fish."""

    pace_m_s: float
    start_depth_m: float
    soft_share: float
    in_band: float
    mean_m: float
    shallowest_m: float
    deepest_m: float
    in_cover: float
    comfort: float
    near_band: float = 0.0
    useful_s: float = 0.0


#: A record without arrays, as it stands in a row of a batch.
Row: TypeAlias = LureParams | LineParams | Leg | Limits


def rows_of(records: Any) -> Floats:
    """Records of one kind as rows of a two-dimensional array."""
    return np.array(list(records), dtype=np.float64)


def samples_room(count: int) -> Samples:
    """Room for ``count`` samples."""
    return Samples(*(np.zeros(count) for _ in Samples._fields))


@compiled
def lure_at(rows: Floats, i: int) -> LureParams:
    """Row ``i`` of a batch of lures."""
    return LureParams(
        mass=rows[i, 0],
        weight=rows[i, 1],
        run=rows[i, 2],
        fall=rows[i, 3],
        lift=rows[i, 4],
        fades=rows[i, 5],
        grip=rows[i, 6],
    )


@compiled
def line_at(rows: Floats, i: int) -> LineParams:
    """Row ``i`` of a batch of lines."""
    return LineParams(
        area=rows[i, 0],
        density=rows[i, 1],
        normal=rows[i, 2],
        viscous=rows[i, 3],
        tangent=rows[i, 4],
        water=rows[i, 5],
        leader_m=rows[i, 6],
        leader_area=rows[i, 7],
        leader_density=rows[i, 8],
        leader_normal=rows[i, 9],
        leader_viscous=rows[i, 10],
        leader_tangent=rows[i, 11],
    )


@compiled
def leg_at(rows: Floats, i: int) -> Leg:
    """Row ``i`` of a programme."""
    return Leg(
        time=rows[i, 0],
        reel=rows[i, 1],
        tip_x=rows[i, 2],
        tip_z=rows[i, 3],
        depth=rows[i, 4],
        rise=rows[i, 5],
        near=rows[i, 6],
        bottom=rows[i, 7],
        phase=rows[i, 8],
        clear=rows[i, 9],
        tight=rows[i, 10],
    )


@compiled
def limits_at(rows: Floats, i: int) -> Limits:
    """Row ``i`` of a batch of limits."""
    return Limits(
        slowest_m_s=rows[i, 0],
        fastest_m_s=rows[i, 1],
        deepest_start_m=rows[i, 2],
        haze_m=rows[i, 3],
        liked_slow_m_s=rows[i, 4],
        liked_fast_m_s=rows[i, 5],
        slower=rows[i, 6],
        quicker=rows[i, 7],
        distance_m=rows[i, 8],
        spread_m=rows[i, 9],
    )


@written_in
def tuned_from(rows: Floats, i: int) -> Tuned:
    """Row ``i`` of settings found."""
    return Tuned(
        pace_m_s=rows[i, 0],
        start_depth_m=rows[i, 1],
        soft_share=rows[i, 2],
        in_band=rows[i, 3],
        mean_m=rows[i, 4],
        shallowest_m=rows[i, 5],
        deepest_m=rows[i, 6],
        in_cover=rows[i, 7],
        comfort=rows[i, 8],
        near_band=rows[i, 9],
        useful_s=rows[i, 10],
    )
