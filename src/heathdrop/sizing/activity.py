"""From the day's conditions to how active the fish are, 0 dormant to 4 chasing. Ramps, no steps."""

from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.catalog.judgement_records import Mood
from heathdrop.conditions.scenario import Conditions, fading
from heathdrop.sizing.knowledge import AS_TABLED, OwnFish

#: Warming helps below this (°F); a shift smaller than this is not worth a word.
WARMING_BELOW_F, WORTH_SAYING = 60.0, 0.05


@dataclass(frozen=True)
class Activity:
    """Activity 0..4, its name, whether the angler said so, and the reasons."""

    value: float
    name: str
    judged: bool
    reasons: tuple[str, ...]


def judge(catalog: Catalog, c: Conditions, fish: OwnFish = AS_TABLED) -> Activity:
    """The angler's own word when given, else temperature moved by trend, light, wind, fronts, pressure, and
    by what the log told of one's own ``fish`` at this temperature."""
    table = catalog.mood
    names = table.names
    if c.activity is not None:
        return Activity(c.activity, names[round(c.activity)], False, ("your own word",))
    value = float(np.interp(c.water_temp_f, [f for f, _ in table.base], [level for _, level in table.base]))
    reasons = [f"{c.water_temp_f:g} °F water starts at {value:.1f}"]
    for reason, shift in [*_shifts(table, c), ("your own fish", fish.mood_at(c.water_temp_f))]:
        value += shift
        if abs(shift) >= WORTH_SAYING:
            reasons.append(f"{reason} {shift:+.1f}")
    value = min(4.0, max(0.0, value))
    return Activity(value, names[round(value)], True, tuple(reasons))


def _shifts(table: Mood, c: Conditions) -> list[tuple[str, float]]:
    """What moves fish besides temperature, in words and in levels."""
    edge = table.warming_edge_f
    warming = fading(c.water_temp_f, WARMING_BELOW_F - edge, WARMING_BELOW_F + edge)
    calm = fading(
        c.wind_mph, table.wind_from_mph - table.wind_edge_mph, table.wind_from_mph + table.wind_edge_mph
    )
    dim = c.light in ("low", "overcast")
    return [
        ("warming under 60 °F", table.rising_below_60 * warming if c.trend == "rising" else 0.0),
        _cooling(table, c),
        ("low light" if dim else "wind", table.low_light_or_wind * (1.0 if dim else 1.0 - calm)),
        ("cold front passed", table.front_passed if c.front == "passed" else 0.0),
        ("on beds they guard, they do not chase", table.spawning if c.season == "spawn" else 0.0),
        ("fished hard", table.heavy_pressure if c.pressure == "heavy" else 0.0),
    ]


def _cooling(table: Mood, c: Conditions) -> tuple[str, float]:
    """Falling temperature: autumn's slow cooling feeds fish on bait, another fall costs a little."""
    if c.trend != "falling":
        return "", 0.0
    if c.season == "fall" and c.front != "passed":
        return "autumn's slow cooling on bait", table.cooling_on_bait if c.forage == "baitfish" else 0.0
    return "falling temperature", table.falling
