"""Cover: a calibrated index, not first principles.

Standing submerged grass: a rig meets stems in proportion to its width and its
way; each meeting may stop or foul it. Chances multiply, so the odds of getting
through are the exponential of the expected stops.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.physics.rig import Rig


@dataclass(frozen=True)
class CoverOdds:
    """Chances 0..1: falls through to its depth, fouls on the retrieve, hangs up."""

    passes: float
    fouls: float
    hangs: float


CLEAR = CoverOdds(1.0, 0.0, 0.0)


def meetings_per_ft(catalog: Catalog, density: str) -> float:
    """Stems met per foot of way in standing grass (stems/ft² times width in ft)."""
    grass = catalog.cover["grass"]
    return float(grass["stems_per_ft2"][density] * grass["width_ft"])


def grass_odds(catalog: Catalog, rig: Rig, net_weight_n: float, density: str, fall_in_ft: float, swim_in_ft: float) -> CoverOdds:
    """Odds in standing grass for a fall of ``fall_in_ft`` and a swim of ``swim_in_ft`` inside it."""
    meets = meetings_per_ft(catalog, density)
    scale = float(catalog.cover["grass"]["stop_scale"])
    catching = 0.3 + rig.trailer.catching
    blunt = 1.3 - rig.head_shape.slenderness
    stops = meets * fall_in_ft * scale * catching * blunt / max(net_weight_n, 0.01)
    sticks = meets * swim_in_ft * rig.family.weed_meeting * (1.0 + 2.0 * rig.trailer.catching)
    return CoverOdds(math.exp(-stops), 1.0 - math.exp(-sticks), 0.0)
