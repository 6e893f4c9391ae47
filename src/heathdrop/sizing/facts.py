"""Facts about a water, a mood and a rig, and whether a rule's condition holds for them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from heathdrop.sizing.scenario import Scenario

Facts = dict[str, Any]


def facts_of(scenario: Scenario, activity: float) -> Facts:
    """The water, the mood and the gear as facts (units in the names, words as the scenario has them)."""
    c, g = scenario.conditions, scenario.gear
    return {
        "temp_f": c.water_temp_f,
        "trend": c.trend,
        "season": c.season,
        "clarity_ft": c.clarity_ft,
        "light": c.light,
        "wind_mph": c.wind_mph,
        "forage": c.forage,
        "bottom": c.bottom,
        "bottom_depth_ft": c.bottom_depth_ft,
        "fish_depth_ft": c.fish_depth_ft,
        "posture": c.stands,
        "cover": c.cover.kind,
        "detail": c.cover.detail,
        "density": c.cover.density if c.cover.kind != "open" else None,
        "texture": c.cover.texture,
        "thickness_in": c.cover.thickness_in,
        "pressure": c.pressure,
        "front": c.front,
        "activity": activity,
        "line": g.line_material,
        "test_lb": g.line_test_lb,
    }


def holds(when: Mapping[str, Any], facts: Facts, missing: bool = False) -> bool:
    """Whether every clause of ``when`` is true of ``facts``.

    A list of words is "any of these", two numbers a range with both ends in,
    ``not_<fact>`` the opposite. A clause on a fact that is not known counts as ``missing``.
    """
    for name, wanted in when.items():
        turned = name.startswith("not_")
        key = name.removeprefix("not_")
        if key not in facts:
            if not missing:
                return False
            continue
        value = facts[key]
        if value is None:
            inside = False
        elif isinstance(wanted[0], str):
            inside = value in wanted
        else:
            inside = wanted[0] <= value <= wanted[1]
        if inside == turned:
            return False
    return True
