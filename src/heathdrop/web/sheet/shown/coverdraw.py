"""Cover in the section: mats, pads, docks, wood and stones, where they stand."""

import math
from collections.abc import Callable

from heathdrop import catalog as catalogue
from heathdrop.physics.cover import Stand, top_ft
from heathdrop.sizing.setting import Setting
from heathdrop.sizing.size import Sizing
from heathdrop.units import feet, metres
from heathdrop.web.shell.frame import Scale

#: A thing: its style class and an SVG path; where it stands.
Thing = tuple[str, str]
Place = Sizing | Setting
APART = {"sparse": 1.6, "moderate": 1.0, "thick": 0.65}


def _chance(k: int) -> float:
    """A number in 0..1 that is always the same for ``k``."""
    wave = math.sin(k * 78.233 + 4.1) * 43758.5453
    return wave - math.floor(wave)


def cover_top_ft(place: Place) -> float | None:
    """Depth (ft) of the cover's top as it is drawn and reckoned with; None in open water."""
    c = place.scenario.conditions
    stand = Stand(c.cover.kind, detail=c.cover.detail)
    return top_ft(catalogue.load(), stand, c.bottom_depth_ft, c.cover.top_depth_ft)


def _holed(place: Place, at_ft: float, cast_ft: float) -> bool:
    """Whether a place (ft from the angler) lies in the hole that is fished, at the far end of the cast."""
    hole = place.scenario.conditions.cover.hole_ft
    return hole is not None and abs(at_ft - cast_ft) <= 0.5 * hole


def cover_things(s: Scale, place: Place, cast_ft: float) -> tuple[Thing, ...]:
    """The shapes of this water's cover; grass and stems are drawn elsewhere."""
    row = place.scenario.conditions.cover.row
    made: dict[str, Callable[[Scale, Place, float], list[Thing]]] = {
        "mat": _mat,
        "stone": _rock,
        "wood": _dock if row.under else _wood,
    }
    if row.does == "stems" and not row.top:
        made["stems"] = _pads
    return tuple(made[row.does](s, place, cast_ft)) if row.does in made else ()


def _floor_y(s: Scale, place: Place, at_ft: float) -> float:
    return s.y(feet(place.cast.bottom_at(metres(at_ft))))


def _mat(s: Scale, place: Place, cast_ft: float) -> list[Thing]:
    """A mat at its thickness over the far half, its underside ragged, with the hole that the lure makes."""
    thick = (place.scenario.conditions.cover.thickness_in or 3.0) / 12.0
    left, right = 0.45 * cast_ft, 1.03 * cast_ft
    hole = place.scenario.conditions.cover.hole_ft
    spans = [(left, right)]
    if hole is not None:
        spans = [(left, cast_ft - 0.5 * hole), (cast_ft + 0.5 * hole, 1.06 * cast_ft)]
    things: list[Thing] = []
    for a, b in spans:
        if b <= a:
            continue
        ragged = [(a + (b - a) * k / 40, thick * (0.75 + 0.5 * _chance(k))) for k in range(41)]
        top = f"M{s.x(a)},{s.y(0.0) - 4} L{s.x(b)},{s.y(0.0) - 4}"
        under = " ".join(f"L{s.x(x)},{max(s.y(z), s.y(0.0) + 5):.1f}" for x, z in reversed(ragged))
        things.append(("matted", f"{top} {under} Z"))
        # What holds it up stands beneath, thinner than it is above.
        for k in range(int((b - a) / 1.4)):
            x = s.x(a + (b - a) * (k + _chance(k + 31)) / ((b - a) / 1.4))
            foot = _floor_y(s, place, (x - s.x(0.0)) / s.per_ft_x)
            sway = 8.0 * (_chance(k + 57) - 0.5)
            head = max(s.y(thick), s.y(0.0) + 5)
            things.append(
                (
                    "understem",
                    f"M{x:.1f},{foot:.1f} Q{x + sway:.1f},{0.5 * (foot + head):.1f} {x:.1f},{head:.1f}",
                )
            )
    return things


def _pads(s: Scale, place: Place, cast_ft: float) -> list[Thing]:
    """Leaves on the surface; their stems are drawn as grass."""
    things = []
    apart = 4.2 * APART[place.scenario.conditions.cover.stands]
    for k in range(int(cast_ft / apart)):
        at = (k + 0.6 + 0.4 * _chance(k)) * apart
        if _holed(place, at, cast_ft):
            continue
        x, y = s.x(at), s.y(0.0)
        wide = 9.0 + 5.0 * _chance(k + 9)
        things.append(
            (
                "pad",
                f"M{x - wide:.1f},{y - 1} a{wide:.1f},3.6 0 1,0 {2 * wide:.1f},0 a{wide:.1f},3.6 0 "
                f"1,0 -{2 * wide:.1f},0",
            )
        )
    return things


def _wood(s: Scale, place: Place, cast_ft: float) -> list[Thing]:
    """A laid-down trunk, a heap of brush, or standing timber."""
    detail = place.scenario.conditions.cover.detail or "laydown"
    things: list[Thing] = []
    if detail == "laydown":
        for at in (0.5, 0.86):
            x, y = s.x(at * cast_ft), _floor_y(s, place, at * cast_ft)
            things += _tree(x - 70, y, along=130.0, up=0.8 * (y - s.y(0.0)), seed=int(100 * at))
    elif detail == "brush":
        for k in range(16):
            at = 0.78 * cast_ft + (_chance(k) - 0.5) * 0.2 * cast_ft
            x, y = s.x(at), _floor_y(s, place, at)
            tall = (0.75 + 0.25 * _chance(k + 3)) * (y - s.y(cover_top_ft(place) or 0.0))
            things.append(("twig", f"M{x},{y} l{40 * (_chance(k + 5) - 0.5):.1f},{-tall:.1f}"))
    else:
        apart = 0.16 * cast_ft * APART[place.scenario.conditions.cover.stands]
        for k in range(int(0.75 * cast_ft / apart)):
            at = 0.25 * cast_ft + (k + 0.4 * _chance(k)) * apart
            x, y = s.x(at), _floor_y(s, place, at)
            top_ft = place.scenario.conditions.cover.top_depth_ft
            up = s.y(0.0) - 12 if not top_ft else s.y(top_ft + 0.12 * _chance(k + 2) * top_ft)
            things.append(("log", f"M{x},{y} L{x + 6 * (_chance(k) - 0.5):.1f},{up:.1f}"))
            things.append(("twig", f"M{x},{0.5 * (y + up):.1f} l16,-14"))
    return things


def _arc(kind: str, x: float, y: float, bend: tuple[float, float], to: tuple[float, float]) -> Thing:
    """A curved stroke from a place, by a bend to an end (both as steps from the place)."""
    return kind, f"M{x:.1f},{y:.1f} q{bend[0]:.1f},{bend[1]:.1f} {to[0]:.1f},{to[1]:.1f}"


def _tree(x: float, y: float, along: float, up: float, seed: int) -> list[Thing]:
    """A tree that lies from its root at (x, y) so far along and up: roots, limbs that fork to both sides and
    are longest near the root, a trunk that thins."""
    things: list[Thing] = []
    for k in range(5):
        spread, deep = 22 * (_chance(seed + k) - 0.6), 10 * (_chance(seed + k + 20) - 0.35)
        things.append(_arc("twig", x + 2, y - 3, (0.5 * spread, -2.0), (spread, -deep)))
    for k in range(9):
        f = 0.22 + 0.086 * k
        foot_x, foot_y = x + along * f, y - up * f
        side = 1 if k % 2 else -1
        long = (1.0 - 0.75 * f) * (0.5 + 0.4 * _chance(seed + k)) * max(28.0, 0.6 * up)
        # Limbs above stand up from the trunk, those below lie along the floor, which cuts them short.
        dx, dy = (
            (-0.2 * long, -0.95 * long) if side > 0 else (0.75 * long, min(0.6 * long, 0.8 * (y - foot_y)))
        )
        things.append(_arc("limb", foot_x, foot_y, (0.2 * dx, 0.6 * dy), (dx, dy)))
        for n, (at, turn) in enumerate(((0.5, 1.0), (0.75, -0.8))):
            twig = 0.35 * long * (0.7 + 0.6 * _chance(seed + 3 * k + n))
            end = (0.8 * twig, -0.5 * turn * twig)
            things.append(
                _arc("twig", foot_x + at * dx, foot_y + 0.9 * at * dy, (0.6 * twig, -0.1 * twig), end)
            )
    middle, thick = x + 0.5 * along, 6.0
    upper = f"Q{middle:.1f},{y - 0.56 * up - thick:.1f} {x + along:.1f},{y - up:.1f}"
    lower = f"Q{middle:.1f},{y - 0.46 * up:.1f} {x + 6:.1f},{y + 3:.1f}"
    things.append(("trunk", f"M{x:.1f},{y + 2:.1f} L{x - 2:.1f},{y - thick:.1f} {upper} {lower} Z"))
    return things


def _rock(s: Scale, place: Place, cast_ft: float) -> list[Thing]:
    """Stones on the bottom, by their size."""
    size = {"gravel": 3.0, "chunk": 9.0, "riprap": 12.0, "bluff": 20.0}[
        place.scenario.conditions.cover.detail or "chunk"
    ]
    c = place.scenario.conditions
    top_ft = c.cover.top_depth_ft
    tall_ft = None if top_ft is None else c.bottom_depth_ft - top_ft
    things: list[Thing] = []
    x, k = s.x(0.08 * cast_ft), 0
    while x < s.x(1.03 * cast_ft):
        r = size * (0.6 + 0.8 * _chance(k))
        if tall_ft is not None:
            r = max(size, 0.7 * (0.7 + 0.5 * _chance(k)) * abs(s.y(tall_ft) - s.y(0.0)))
        y = _floor_y(s, place, (x - s.x(0.0)) / s.per_ft_x)
        # Rounded above, flat where it lies on the floor.
        lean = 0.3 * (_chance(k + 11) - 0.5)
        curves = ((-0.25, -0.7, 0.35 + lean, -0.95), (0.4, -0.25, 0.95 - lean, 0.1), (0.5, 0.3, 0.55, 0.85))
        sides = " ".join(f"q{a * r:.1f},{b * r:.1f} {c * r:.1f},{d * r:.1f}" for a, b, c, d in curves)
        things.append(("stone", f"M{x:.1f},{y:.1f} {sides} Z"))
        things.append(_arc("grain", x + 0.45 * r, y - 0.75 * r, (0.3 * r, 0.05 * r), (0.5 * r, 0.3 * r)))
        x, k = x + r * (1.7 + 1.2 * _chance(k + 7)), k + 1
    return things


def _dock(s: Scale, place: Place, cast_ft: float) -> list[Thing]:
    """A deck on posts over the far end, its shade beneath."""
    left, right, top = s.x(0.7 * cast_ft), s.x(1.03 * cast_ft), s.y(0.0) - 14
    things: list[Thing] = [("shade", f"M{left},{s.y(0.0)} H{right} V{_floor_y(s, place, cast_ft)} H{left} Z")]
    for k in range(4):
        at = s.x((0.72 + 0.1 * k) * cast_ft)
        floor = _floor_y(s, place, (0.72 + 0.1 * k) * cast_ft)
        things.append(("post", f"M{at - 3:.1f},{top + 4} H{at + 3:.1f} V{floor + 2} H{at - 3:.1f} Z"))
        if k < 3:
            to = s.x((0.82 + 0.1 * k) * cast_ft)
            things.append(
                ("twig", f"M{at:.1f},{top + 8} L{to:.1f},{s.y(0.0) + 0.3 * (floor - s.y(0.0)):.1f}")
            )
    things.append(("deck", f"M{left - 6},{top} H{right} v6 H{left - 6} Z"))
    planks = range(int(left), int(right), 14)
    things.append(("grain", " ".join(f"M{x},{top} v6" for x in planks)))
    return things
