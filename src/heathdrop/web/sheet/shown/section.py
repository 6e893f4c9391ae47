"""The section of water as shapes: everything the drawing needs, in drawing units."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from heathdrop.conditions.cover import Cover
from heathdrop.measures import TURNS, is_metric, marks
from heathdrop.physics.cast import CastResult
from heathdrop.sizing.bands import Bands
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import M_PER_FT, feet, feet_said, metres
from heathdrop.web.sheet.shown.coverdraw import Place, cover_things
from heathdrop.web.shell.frame import LEFT, LOW, NARROW, RIGHT, WIDE, Frame, Scale

SECONDS_APART = 5
#: Marks of the clock nearer to one another than this would be written over each other.
LEAST_APART, LINE_HEIGHT = 30.0, 15.0
#: Steps between the marks of an axis, in the units said.
STEPS = (1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0)


#: How far (ft, up) stems are drawn that stand out of the water.
OUT_OF_WATER_FT = -0.6


@dataclass(frozen=True)
class Mark:
    x: float
    y: float
    text: str


@dataclass(frozen=True)
class Section:
    """Shapes of the section, without a cast where ``lure`` is None; texts carry their units. ``band_said``
    and ``bottom_said`` are depths in the unit said now, ``per_said`` drawing units in one of them."""

    frame: str
    width: float
    height: float
    left: float
    right: float
    surface_y: float
    bottom_y: float
    depth_ticks: tuple[Mark, ...]
    distance_ticks: tuple[Mark, ...]
    band: tuple[float, float]
    band_said: tuple[str, str]
    per_said: float
    bottom_said: str
    band_text: str
    band_text_y: float
    grass: tuple[str, ...]
    grass_top: Mark | None
    things: tuple[tuple[str, str], ...]
    fish: tuple[Mark, ...]
    floor: str
    summary: str
    fall: str = ""
    path: str = ""
    slack: str = ""
    spread: str = ""
    line: str = ""
    lure: Mark | None = None
    rod: str = ""
    rivals: tuple[tuple[str, str, Mark], ...] = ()
    glide: str = ""
    seconds: tuple[Mark, ...] = ()
    count: Mark | None = None
    table: tuple[tuple[str, str, str], ...] = ()


def span_ft(own: CastResult, others: Sequence[CastResult] = ()) -> float:
    """How far (ft) the longest of the casts that are drawn goes."""
    return max(feet(c.cast.distance_m) for c in (own, *others))


def water_section(place: Place, cast_ft: float, frame: Frame = WIDE) -> Section:
    """The drawing of a water alone, as far (ft) as a cast would go: no cast, no rig."""
    c, tip_ft = place.scenario.conditions, place.scenario.gear.rod_tip_height_ft
    bottom_ft = c.bottom_depth_ft
    s = Scale(frame, cast_ft, bottom_ft, tip_ft)
    top, low = place.targets.depth_ft
    per = TURNS["ft"].factor if is_metric() else 1.0
    depths = marks(bottom_ft, "ft", STEPS, 6 if frame is LOW else 10)
    ways = marks(cast_ft, "ft", STEPS, int(frame.width / 90.0))
    tops_ft = c.cover.top_depth_ft if c.cover.kind != "open" else None
    return Section(
        frame=frame.name,
        width=frame.width,
        height=frame.height,
        left=LEFT,
        right=frame.width - RIGHT,
        surface_y=s.y(0.0),
        bottom_y=s.y(bottom_ft),
        depth_ticks=tuple(Mark(LEFT, s.y(d), said) for d, said in depths),
        distance_ticks=tuple(Mark(s.x(d), frame.height - 6.0, said) for d, said in ways[1:]),
        band=(s.y(top), s.y(low)),
        band_said=(f"{round(top * per, 1):g}", f"{round(low * per, 1):g}"),
        per_said=s.per_ft_y / per,
        bottom_said=f"{round(bottom_ft * per, 2):g}",
        band_text=f"target {feet_said(top)}–{feet_said(low)} ft",
        band_text_y=max(s.y(top) + 13.0, s.y(0.0) + 13.0),
        floor=_floor(s, place, cast_ft, frame),
        grass=_grass(s, cast_ft, place, _stems_ft(c.cover), c.cover.stands),
        things=cover_things(s, place, cast_ft),
        grass_top=Mark(s.x(cast_ft), s.y(tops_ft) - 4.0, f"{c.cover.row.top_said} at {tops_ft:g} ft")
        if tops_ft
        else None,
        fish=_fish(s, place, cast_ft, c.fish_depth_ft),
        summary=f"Side view: {c.cover.kind.replace('-', ' ')}, over a bottom at {bottom_ft:g} ft.",
    )


def section_of(
    sizing: Sizing,
    rated: Rated,
    cast: CastResult,
    bands: Bands | None = None,
    frame: Frame = WIDE,
    rivals: Sequence[tuple[str, CastResult]] = (),
    spread: bool = True,
) -> Section:
    """The drawing of one rig's cast through its water, with up to two rivals' paths.

    ``spread`` draws the ``bands`` around the path: they belong to the steady retrieve alone.
    """
    cast_ft, bottom_ft = (
        span_ft(cast, [other for _, other in rivals]),
        sizing.scenario.conditions.bottom_depth_ft,
    )
    water = water_section(sizing, cast_ft, frame)
    tip_ft = sizing.scenario.gear.rod_tip_height_ft
    s = Scale(frame, cast_ft, bottom_ft, tip_ft)
    t, x, z = cast.time_s, cast.distance_m, cast.depth_m
    moving = t >= cast.fall_s - 1e-9
    middle = int(np.searchsorted(-x[moving], -0.5 * cast.cast.distance_m))
    middle = min(middle, int(moving.sum()) - 1)
    count_y = s.y(feet(cast.start_depth_m) / 2) + 4.0
    top = water.grass_top
    return replace(
        water,
        rivals=tuple(_rival(s, mark, other) for mark, other in rivals),
        glide=_glide(s, cast_ft, rated, cast),
        grass_top=None if top is None else replace(top, y=_clear_of(count_y, top.y)),
        fall=s.points(x[~moving], z[~moving]) + f" {s.x(cast_ft)},{s.y(feet(cast.start_depth_m))}",
        path=s.points(x[moving][::2], z[moving][::2]),
        slack=s.points(x[cast.taking_up], z[cast.taking_up]) if cast.taking_up.sum() > 1 else "",
        spread=_spread(s, x[moving], z[moving], bands, bottom_ft) if spread and bands is not None else "",
        line=_line(s, cast, int(np.argmax(moving)), middle),
        lure=Mark(s.x(feet(x[moving][middle])), s.y(feet(z[moving][middle])), ""),
        rod=f"6,{s.y(0.0) - 12} {s.x(0.0) - 14},{s.y(-0.75 * tip_ft)} {s.x(0.0)},{s.y(-tip_ft)}",
        seconds=_seconds(s, cast, 2 * SECONDS_APART if frame.name == NARROW.name else SECONDS_APART)
        if spread
        else (),
        count=Mark(s.x(cast_ft) - 8.0, count_y, f"count {cast.fall_s:.1f} s"),
        table=_table(cast),
        summary=_summary(sizing, rated, cast),
    )


def _stems_ft(cover: Cover) -> float | None:
    """Depth (ft) to which drawn stems reach: as told, out of the water where their top may be left out, to
    the surface where it floats there; None where no stems stand."""
    row = cover.row
    if row.does != "stems":
        return None
    if row.top == "may" and cover.top_depth_ft is None:
        return OUT_OF_WATER_FT
    return cover.top_depth_ft if row.top else 0.0


def _clear_of(taken: float, y: float) -> float:
    """A line of text's height, moved below another that stands in its way."""
    return y if abs(y - taken) >= LINE_HEIGHT else taken + LINE_HEIGHT


def _spread(s: Scale, x: NDArray[np.float64], z: NDArray[np.float64], bands: Bands, bottom_ft: float) -> str:
    """A closed band around the path: eight casts of ten stay inside it."""
    off_m = 0.5 * (bands.mean_high_m - bands.mean_low_m)
    upper = np.clip(z - off_m, 0.0, None)
    lower = np.clip(z + off_m, 0.0, bottom_ft * M_PER_FT)
    every = slice(None, None, 4)
    return s.points(x[every], upper[every]) + " " + s.points(x[every][::-1], lower[every][::-1])


def _line(s: Scale, cast: CastResult, first: int, middle: int) -> str:
    """The line's shape when the lure is half-way home."""
    shapes = cast.shapes
    if middle >= len(shapes):
        return ""
    # From the tip to the water it is drawn straight: in the air slack line hangs any way the wind likes.
    wet = np.flatnonzero(shapes[middle][:, 1] >= -1e-6)
    indices = np.unique(np.concatenate([[0], wet]))
    return s.points(shapes[middle][indices, 0], shapes[middle][indices, 1])


def _seconds(s: Scale, cast: CastResult, apart: int) -> tuple[Mark, ...]:
    """Marks along the path, every few seconds of the retrieve."""
    t = cast.time_s
    marks: list[Mark] = []
    for k in range(apart, int(t[-1] - cast.fall_s) + 1, apart):
        i = int(np.searchsorted(t, cast.fall_s + k))
        if i < len(t) and (not marks or abs(s.x(feet(cast.distance_m[i])) - marks[-1].x) >= LEAST_APART):
            marks.append(Mark(s.x(feet(cast.distance_m[i])), s.y(feet(cast.depth_m[i])), f"{k} s"))
    return tuple(marks)


def _grass(s: Scale, cast_ft: float, place: Place, top_ft: float | None, density: str) -> tuple[str, ...]:
    """Stems from the bottom to the grass top, closer where it is denser; always the same ones."""
    if top_ft is None:
        return ()
    apart = {"sparse": 3.4, "moderate": 1.9, "thick": 1.1}[density]
    stems = []
    for k in range(int(cast_ft * 1.02 / apart)):
        wave = math.sin(k * 12.9898) * 43758.5453
        jitter = wave - math.floor(wave)
        at = apart * (k + 0.3 + 0.5 * jitter)
        bottom_ft = feet(place.cast.bottom_at(metres(at)))
        hole = place.scenario.conditions.cover.hole_ft
        if bottom_ft <= top_ft or (hole is not None and abs(at - cast_ft) <= 0.5 * hole):
            continue
        foot = s.x(at)
        tall = top_ft + (bottom_ft - top_ft) * 0.22 * jitter
        lean = 7.0 * (jitter - 0.4)
        mid = (s.y(bottom_ft) + s.y(tall)) / 2
        stems.append(f"M{foot},{s.y(bottom_ft)} Q{foot - lean:.1f},{mid:.1f} {foot + lean:.1f},{s.y(tall)}")
    return tuple(stems)


def _floor(s: Scale, place: Place, cast_ft: float, frame: Frame) -> str:
    """The bottom as a closed shape down to the frame's edge."""
    at = sorted({0.0, cast_ft * 1.1, *(feet(x) for x, _ in place.cast.bottom if feet(x) < cast_ft * 1.1)})
    line = [f"{s.x(d)},{s.y(feet(place.cast.bottom_at(metres(d))))}" for d in at]
    return " ".join([f"{s.x(0.0)},{frame.height}", *line, f"{s.x(cast_ft * 1.1)},{frame.height}"])


def _rival(s: Scale, mark: str, other: CastResult) -> tuple[str, str, Mark]:
    """Another cast's path with its letter on it, each letter at a place of its own."""
    x, z = other.distance_m, other.depth_m
    share = 0.47 if mark == "B" else 0.33
    i = min(int(np.searchsorted(-x, -share * other.cast.distance_m)), len(x) - 1)
    return mark, s.points(x[::2], z[::2]), Mark(s.x(feet(x[i])), s.y(feet(z[i])), mark)


def _glide(s: Scale, cast_ft: float, rated: Rated, cast: CastResult) -> str:
    """Where a gliding body can go: a wedge to both sides of the straight fall."""
    reach = feet(rated.lure.glide_ratio * cast.start_depth_m)
    if reach < 0.3:
        return ""
    deep = s.y(feet(cast.start_depth_m))
    return f"{s.x(cast_ft)},{s.y(0.0)} {s.x(cast_ft - reach)},{deep} {s.x(cast_ft + reach)},{deep}"


def _fish(s: Scale, place: Place, cast_ft: float, fish_ft: float) -> tuple[Mark, ...]:
    """Two fish at their depth, where there is water that deep and the retrieve passes them."""
    wet = [
        x
        for x in (0.33, 0.62, 0.76, 0.92)
        if feet(place.cast.bottom_at(metres(cast_ft * x))) >= fish_ft - 1e-6
    ]
    return tuple(Mark(s.x(cast_ft * share), s.y(fish_ft), "") for share in (wet or [0.97])[:2])


def _table(cast: CastResult) -> tuple[tuple[str, str, str], ...]:
    """Distance, depth and time down the retrieve: the section in words."""
    rows = []
    span = feet(cast.cast.distance_m)
    for d in np.arange(span, 4.9, -max(5.0, round(span / 60.0) * 5.0)):
        depth = cast.depth_at(d * M_PER_FT)
        if math.isfinite(depth):
            i = int(np.flatnonzero((cast.distance_m <= d * M_PER_FT) & (cast.time_s >= cast.fall_s))[0])
            rows.append((f"{d:.0f} ft", f"{feet(depth):.1f} ft", f"{cast.time_s[i] - cast.fall_s:.0f} s"))
    return tuple(rows)


def _summary(sizing: Sizing, rated: Rated, cast: CastResult) -> str:
    depths = cast.useful()
    if depths.size == 0:
        bottom = f"{sizing.scenario.conditions.bottom_depth_ft:g} ft"
        if cast.bottom_s < 0.5:
            return (
                f"Side view: the lure sinks {feet(cast.start_depth_m):.1f} ft in {cast.fall_s:.1f} s and is "
                f"worked there, over a bottom at {bottom}."
            )
        return f"Side view: the lure works {cast.bottom_s:.0f} s on the bottom at {bottom}."
    high, low = f"{feet(float(depths.min())):.1f}", f"{feet(float(depths.max())):.1f}"
    runs = f"at {high} ft" if high == low else f"between {high} and {low} ft"
    deepest = feet(float(cast.depth_m.max()))
    runs += f" (at its deepest {deepest:.1f} ft)" if deepest > float(low) + 0.5 else ""
    return (
        f"Side view: the lure sinks {feet(cast.start_depth_m):.1f} ft in {cast.fall_s:.1f} s, "
        f"then runs {runs}, over a bottom at {sizing.scenario.conditions.bottom_depth_ft:g} ft."
    )
