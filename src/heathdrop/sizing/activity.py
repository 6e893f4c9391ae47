"""From the day's conditions to how active the fish are, 0 dormant to 4 chasing."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Conditions


@dataclass(frozen=True)
class Activity:
    """Activity 0..4, its name, whether the angler said so, and the reasons."""

    value: float
    name: str
    judged: bool
    reasons: tuple[str, ...]


def judge(catalog: Catalog, c: Conditions) -> Activity:
    """The angler's own word when given, else temperature moved by trend, light, wind, fronts and pressure."""
    table = catalog.mood
    names = table.names
    if c.activity is not None:
        return Activity(c.activity, names[round(c.activity)], False, ("your own word",))
    value = next(float(level) for below, level in table.base if c.water_temp_f < below)
    reasons = [f"{c.water_temp_f:g} °F water starts at {value:g}"]
    if c.trend == "rising" and c.water_temp_f < 60.0:
        value += table.rising_below_60
        reasons.append(f"warming under 60 °F {table.rising_below_60:+g}")
    if c.trend == "falling":
        value += table.falling
        reasons.append(f"falling temperature {table.falling:+g}")
    windy = c.wind_mph >= table.wind_from_mph
    if windy or c.light in ("low", "overcast"):
        value += table.low_light_or_wind
        reasons.append(f"{'wind' if windy else 'low light'} {table.low_light_or_wind:+g}")
    if c.front == "passed":
        value += table.front_passed
        reasons.append(f"cold front passed {table.front_passed:+g}")
    if c.season == "spawn":
        value += table.spawning
        reasons.append(f"on beds they guard, they do not chase {table.spawning:+g}")
    if c.pressure == "heavy":
        value += table.heavy_pressure
        reasons.append(f"fished hard {table.heavy_pressure:+g}")
    value = min(4.0, max(0.0, value))
    return Activity(value, names[round(value)], True, tuple(reasons))
