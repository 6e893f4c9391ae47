"""The line set against another: how much deeper, how much better felt, what holds. Never a word without a
figure."""

import re
from dataclasses import replace

from heathdrop.catalog import Catalog, Family
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.physics.line import Line, line_by_test
from heathdrop.sizing.program import play
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.tackle import holding_of
from heathdrop.units import feet

#: Pound tests as spools are sold.
SPOOLS_LB = (4, 6, 8, 10, 12, 15, 17, 20, 25, 30, 40, 50, 65, 80)
#: What a hand feels of another line: so many feet of depth, so many more landings and ticks of a hundred.
WORTH_SAYING_FT, WORTH_SAYING_FELT = 0.2, 0.03


def suits(family: Family, line: LineSet) -> bool:
    """Whether the line set, or the leader tied to it, is among those that suit the family."""
    tests = [(line.material, line.test_lb)]
    if line.leader is not None:
        tests.append((line.leader.material, line.leader.test_lb))
    return any(m == own and low <= lb <= high for m, low, high in family.lines for own, lb in tests)


def offered(family: Family) -> tuple[str, float]:
    """The line to offer in its place: material and test (lb), the middle of the first that suits."""
    material, low, high = family.lines[0]
    middle = 0.5 * (low + high)
    return material, min(SPOOLS_LB, key=lambda lb: (abs(lb - middle), lb))


def mean_ft(sizing: Sizing, rated: Rated, line: Line) -> float | None:
    """Mean depth (ft) of the rig's own retrieve on a line; None when it never reaches the useful part."""
    depths = play(sizing, rated, line=line).useful()
    return feet(float(depths.mean())) if depths.size else None


def line_said(catalog: Catalog, sizing: Sizing, rated: Rated) -> tuple[str, str, str]:
    """What is said of the line: words, who says so, why."""
    family, set_ = rated.rig.family, sizing.scenario.gear.line
    rule = catalog.rules["line-for-the-family"]
    yours = set_.said
    if suits(family, set_):
        other = _another(family, set_)
        return f"your {yours}" + _against(catalog, sizing, rated, *other), rule.name, f"Usual: {family.line}."
    sentence = f"you set {yours}; usual is {family.line}"
    return sentence + _against(catalog, sizing, rated, *offered(family)), rule.name, rule.says


#: A line is held against one that is by so much (share) stronger or weaker, or of another material.
APART = 0.2


def _another(family: Family, line: LineSet) -> tuple[str, float]:
    """A line to hold the one set against: the first of the family's that is not much the same."""
    rows = [(m, float(lb)) for m, low, high in family.lines for lb in (high, low)]
    apart = [(m, lb) for m, lb in rows if m != line.material or abs(lb / line.test_lb - 1.0) >= APART - 1e-9]
    return apart[0] if apart else rows[0]


def _against(catalog: Catalog, sizing: Sizing, rated: Rated, material: str, test: float) -> str:
    """What another line does that a hand feels: feet of depth for a swum rig, landings felt for one on the
    floor, what it holds; nothing where it does nothing."""
    setting = setting_of(catalog, replace(sizing.scenario, families=(rated.rig.family.id,)), sizing.knowledge)
    other = LineSet(material=material, test_lb=test)
    against = []
    if rated.work == "swim":
        here = mean_ft(sizing, rated, sizing.line)
        there = mean_ft(sizing, rated, line_by_test(catalog, material, test))
        if here is not None and there is not None:
            off = abs(there - here)
            if off >= WORTH_SAYING_FT:
                against.append(f"runs {off:.1f} ft {'deeper' if there > here else 'higher'}")
    else:
        felt = setting.felt(rated.lure.net_weight_n, line_by_test(catalog, material, test))
        if felt - rated.felt >= WORTH_SAYING_FELT:
            against.append(f"is felt {felt * 100:.0f} times of 100 instead of {rated.felt * 100:.0f}")
    c, family = sizing.scenario.conditions, rated.rig.family
    lines = (sizing.scenario.gear.line, other)
    held = [
        holding_of(catalog, family, c, replace(sizing.scenario.gear, line=line)).fit(
            rated.rig.head_oz, rated.lure.mass_kg
        )
        for line in lines
    ]
    least = catalog.tackle.numbers.said_below
    if held[1].strength < least <= held[0].strength:
        return ""
    if held[0].strength < least <= held[1].strength:
        against.append("holds what yours does not")
    return f"; on {test:g} lb {material} it " + " and ".join(against) if against else ""


def held_line(catalog: Catalog, sizing: Sizing, rated: Rated, wanted: str) -> str:
    """A school's line against the line set, with what the difference does to the depth."""
    usual = re.match(r"(\d+) to (\d+) lb (\w+)", wanted)
    if usual is None or usual[3] not in catalog.lines:
        return wanted
    low, high, material = float(usual[1]), float(usual[2]), usual[3]
    set_ = sizing.scenario.gear.line
    yours = set_.said
    if set_.material == material and low <= set_.test_lb <= high:
        return f"{wanted}, as you have it"
    middle = 0.5 * (low + high)
    test = float(min(SPOOLS_LB, key=lambda lb: abs(lb - middle)))
    return f"{wanted}; you set {yours}" + _against(catalog, sizing, rated, material, test)
