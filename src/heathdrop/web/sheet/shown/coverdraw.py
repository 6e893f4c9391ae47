"""Cover in the section: mats, pads, docks, wood and stones, where they stand."""

from __future__ import annotations

import math
from collections.abc import Callable

from heathdrop import catalog as catalogue
from heathdrop.physics.cover import Stand, top_ft
from heathdrop.sizing.size import Sizing
from heathdrop.units import feet, metres
from heathdrop.web.shell.frame import Scale

#: A thing: its style class and an SVG path.
Thing = tuple[str, str]
APART = {"sparse": 1.6, "moderate": 1.0, "thick": 0.65}


def _chance(k: int) -> float:
    """A number in 0..1 that is always the same for ``k``."""
    wave = math.sin(k * 78.233 + 4.1) * 43758.5453
    return wave - math.floor(wave)


def cover_top_ft(sizing: Sizing) -> float | None:
    """Depth (ft) of the cover's top as it is drawn and reckoned with; None in open water."""
    c = sizing.scenario.conditions
    stand = Stand(c.cover.kind, detail=c.cover.detail)
    return top_ft(catalogue.load(), stand, c.bottom_depth_ft, c.cover.top_depth_ft)


def _holed(sizing: Sizing, at_ft: float, cast_ft: float) -> bool:
    """Whether a place (ft from the angler) lies in the hole that is fished, at the far end of the cast."""
    hole = sizing.scenario.conditions.cover.hole_ft
    return hole is not None and abs(at_ft - cast_ft) <= 0.5 * hole


def cover_things(s: Scale, sizing: Sizing, cast_ft: float) -> tuple[Thing, ...]:
    """The shapes of this water's cover; grass and stems are drawn elsewhere."""
    row = sizing.scenario.conditions.cover.row
    made: dict[str, Callable[[Scale, Sizing, float], list[Thing]]] = {
        "mat": _mat,
        "stone": _rock,
        "wood": _dock if row.under else _wood,
    }
    if row.does == "stems" and not row.top:
        made["stems"] = _pads
    return tuple(made[row.does](s, sizing, cast_ft)) if row.does in made else ()


def _floor_y(s: Scale, sizing: Sizing, at_ft: float) -> float:
    return s.y(feet(sizing.cast.bottom_at(metres(at_ft))))


def _mat(s: Scale, sizing: Sizing, cast_ft: float) -> list[Thing]:
    """A mat at its thickness over the far half, its underside ragged, with the hole that the lure makes."""
    thick = (sizing.scenario.conditions.cover.thickness_in or 3.0) / 12.0
    left, right = 0.45 * cast_ft, 1.03 * cast_ft
    hole = sizing.scenario.conditions.cover.hole_ft
    spans = [(left, right)]
    if hole is not None:
        spans = [(left, cast_ft - 0.5 * hole), (cast_ft + 0.5 * hole, 1.06 * cast_ft)]
    found: list[Thing] = []
    for a, b in spans:
        if b <= a:
            continue
        ragged = [(a + (b - a) * k / 40, thick * (0.75 + 0.5 * _chance(k))) for k in range(41)]
        top = f"M{s.x(a)},{s.y(0.0) - 4} L{s.x(b)},{s.y(0.0) - 4}"
        under = " ".join(f"L{s.x(x)},{max(s.y(z), s.y(0.0) + 5):.1f}" for x, z in reversed(ragged))
        found.append(("matted", f"{top} {under} Z"))
    return found


def _pads(s: Scale, sizing: Sizing, cast_ft: float) -> list[Thing]:
    """Leaves on the surface; their stems are drawn as grass."""
    found = []
    apart = 4.2 * APART[sizing.scenario.conditions.cover.stands]
    for k in range(int(cast_ft / apart)):
        at = (k + 0.6 + 0.4 * _chance(k)) * apart
        if _holed(sizing, at, cast_ft):
            continue
        x, y = s.x(at), s.y(0.0)
        wide = 9.0 + 5.0 * _chance(k + 9)
        found.append(
            (
                "pad",
                f"M{x - wide:.1f},{y - 1} a{wide:.1f},3.6 0 1,0 {2 * wide:.1f},0 a{wide:.1f},3.6 0 "
                f"1,0 -{2 * wide:.1f},0",
            )
        )
    return found


def _wood(s: Scale, sizing: Sizing, cast_ft: float) -> list[Thing]:
    """A laid-down trunk, a heap of brush, or standing timber."""
    detail = sizing.scenario.conditions.cover.detail or "laydown"
    found: list[Thing] = []
    if detail == "laydown":
        for at in (0.5, 0.86):
            x, y = s.x(at * cast_ft), _floor_y(s, sizing, at * cast_ft)
            up = s.y(0.0) - y
            found.append(("log", f"M{x - 70},{y} L{x + 60},{y + 0.82 * up:.1f}"))
            for k in range(4):
                f = 0.2 + 0.2 * k
                found.append(
                    (
                        "twig",
                        f"M{x - 70 + 130 * f:.1f},{y + 0.82 * up * f:.1f} "
                        f"l{14 + 6 * k},{-0.16 * abs(up):.1f}",
                    )
                )
    elif detail == "brush":
        for k in range(16):
            at = 0.78 * cast_ft + (_chance(k) - 0.5) * 0.2 * cast_ft
            x, y = s.x(at), _floor_y(s, sizing, at)
            tall = (0.75 + 0.25 * _chance(k + 3)) * (y - s.y(cover_top_ft(sizing) or 0.0))
            found.append(("twig", f"M{x},{y} l{40 * (_chance(k + 5) - 0.5):.1f},{-tall:.1f}"))
    else:
        apart = 0.16 * cast_ft * APART[sizing.scenario.conditions.cover.stands]
        for k in range(int(0.75 * cast_ft / apart)):
            at = 0.25 * cast_ft + (k + 0.4 * _chance(k)) * apart
            x, y = s.x(at), _floor_y(s, sizing, at)
            told = sizing.scenario.conditions.cover.top_depth_ft
            up = s.y(0.0) - 12 if not told else s.y(told + 0.12 * _chance(k + 2) * told)
            found.append(("log", f"M{x},{y} L{x + 6 * (_chance(k) - 0.5):.1f},{up:.1f}"))
            found.append(("twig", f"M{x},{0.5 * (y + up):.1f} l16,-14"))
    return found


def _rock(s: Scale, sizing: Sizing, cast_ft: float) -> list[Thing]:
    """Stones on the bottom, by their size."""
    size = {"gravel": 3.0, "chunk": 9.0, "riprap": 12.0, "bluff": 20.0}[
        sizing.scenario.conditions.cover.detail or "chunk"
    ]
    c = sizing.scenario.conditions
    told = c.cover.top_depth_ft
    tall_ft = None if told is None else c.bottom_depth_ft - told
    found: list[Thing] = []
    x, k = s.x(0.08 * cast_ft), 0
    while x < s.x(1.03 * cast_ft):
        r = size * (0.6 + 0.8 * _chance(k))
        if tall_ft is not None:
            r = max(size, 0.7 * (0.7 + 0.5 * _chance(k)) * abs(s.y(tall_ft) - s.y(0.0)))
        y = _floor_y(s, sizing, (x - s.x(0.0)) / s.per_ft_x)
        stone = ((0.2, -0.9), (0.8, -0.3), (0.9, 0.5), (0.2, 0.7))
        sides = " ".join(f"l{dx * r:.1f},{dy * r:.1f}" for dx, dy in stone)
        found.append(("stone", f"M{x:.1f},{y + 3:.1f} {sides} Z"))
        x, k = x + r * (1.7 + 1.2 * _chance(k + 7)), k + 1
    return found


def _dock(s: Scale, sizing: Sizing, cast_ft: float) -> list[Thing]:
    """A deck on posts over the far end, its shade beneath."""
    left, right, top = s.x(0.7 * cast_ft), s.x(1.03 * cast_ft), s.y(0.0) - 14
    found: list[Thing] = [
        ("shade", f"M{left},{s.y(0.0)} H{right} V{_floor_y(s, sizing, cast_ft)} H{left} Z"),
        ("deck", f"M{left - 6},{top} H{right} v6 H{left - 6} Z"),
    ]
    for k in range(4):
        at = 0.72 * cast_ft + 0.1 * k * cast_ft
        found.append(("log", f"M{s.x(at)},{top + 4} V{_floor_y(s, sizing, at)}"))
    return found
