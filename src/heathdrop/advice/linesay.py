"""The line set against the line that suits: said with what the difference does to the depth, and offered."""

from __future__ import annotations

import re

from heathdrop.catalog import Catalog, Family
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.physics.line import Line, line_by_test
from heathdrop.sizing.program import play
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet

#: A line that moves the lure by less than this (ft) is not worth a figure.
WORTH_SAYING_FT = 0.1


def suits(family: Family, line: LineSet) -> bool:
    """Whether the line set, or the leader tied to it, is among those that suit the family."""
    tests = [(line.material, line.test_lb)]
    if line.leader is not None:
        tests.append((line.leader.material, line.leader.test_lb))
    return any(m == own and low <= lb <= high for m, low, high in family.lines for own, lb in tests)


def offered(family: Family) -> tuple[str, float]:
    """The line to offer in its place: material and test (lb), the middle of the first that suits."""
    material, low, high = family.lines[0]
    return material, round(0.5 * (low + high))


def mean_ft(sizing: Sizing, rated: Rated, line: Line) -> float | None:
    """Mean depth (ft) of the rig's own retrieve on a line; None when it never reaches the useful part."""
    depths = play(sizing, rated, line=line).useful()
    return feet(float(depths.mean())) if depths.size else None


def line_said(catalog: Catalog, sizing: Sizing, rated: Rated) -> tuple[str, str, str]:
    """What is said of the line: words, who says so, why."""
    family, set_ = rated.rig.family, sizing.scenario.gear.line
    rule = catalog.rules["line-for-the-family"]
    mine = set_.said
    if suits(family, set_):
        return f"your {mine} suits", rule.name, f"Usual: {family.line}."
    words = f"you set {mine}; usual is {family.line}"
    return words + _moved(catalog, sizing, rated, *offered(family)), rule.name, rule.says


def held_line(catalog: Catalog, sizing: Sizing, rated: Rated, wanted: str) -> str:
    """A school's line against the line set, with what the difference does to the depth."""
    found = re.match(r"(\d+) to (\d+) lb (\w+)", wanted)
    if found is None or found[3] not in catalog.lines:
        return wanted
    low, high, material = float(found[1]), float(found[2]), found[3]
    set_ = sizing.scenario.gear.line
    mine = set_.said
    if set_.material == material and low <= set_.test_lb <= high:
        return f"{wanted}: your {mine} suits"
    return f"{wanted}; you set {mine}" + _moved(catalog, sizing, rated, material, round(0.5 * (low + high)))


def _moved(catalog: Catalog, sizing: Sizing, rated: Rated, material: str, test: float) -> str:
    """What another line does to a swum rig's depth; nothing where that is not worth a figure."""
    if rated.rig.family.work != "swim":
        return ""
    here = mean_ft(sizing, rated, sizing.line)
    there = mean_ft(sizing, rated, line_by_test(catalog, material, test))
    if here is None or there is None or abs(there - here) < WORTH_SAYING_FT:
        return ""
    side = "deeper" if there > here else "higher"
    return f": on {test:g} lb {material} this runs {abs(there - here):.1f} ft {side}"
