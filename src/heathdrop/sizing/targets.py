"""From activity, fish and cover to what the lure should do."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.sizing.activity import Activity
from heathdrop.sizing.scenario import Conditions

#: Fish feed upward: the band reaches this far above them (ft).
ABOVE_FISH_FT = 2.0
#: Ticking grass: from this far above its top to this far into it (ft).
TICK_ABOVE_FT, TICK_INTO_FT = 1.0, 0.5
#: Fish this close to the bottom are on it (ft).
ON_BOTTOM_FT = 0.5
#: Clarity (ft of visibility) where bulk gives way to slimness, and by how much it shifts.
CLEAR_FT, BULK_SHIFT = 4.0, 1.35


@dataclass(frozen=True)
class Targets:
    """What a lure should do today: depth band (ft), fall and pace bands (ft/s), action, bulk (cm²)."""

    activity: Activity
    depth_ft: tuple[float, float]
    depth_reason: str
    fall_ft_s: tuple[float, float]
    pace_ft_s: tuple[float, float]
    action: float
    action_name: str
    bulk_cm2: tuple[float, float]
    profile: str


def targets_for(catalog: Catalog, c: Conditions, activity: Activity, band: tuple[float, float] | None) -> Targets:
    """Targets for the conditions; ``band`` (ft) overrides the judged depth band."""
    levels = [t.activity for t in catalog.targets]

    def between(read: str, k: int | None = None) -> float:
        column = [getattr(t, read) if k is None else getattr(t, read)[k] for t in catalog.targets]
        return float(np.interp(activity.value, levels, column))

    near = catalog.targets[round(activity.value)]
    shift = BULK_SHIFT if c.clarity_ft < CLEAR_FT else 1.0 / BULK_SHIFT
    depth, reason = depth_band(c) if band is None else (band, "the band you set")
    return Targets(
        activity=activity,
        depth_ft=depth,
        depth_reason=reason,
        fall_ft_s=(between("fall_ft_s", 0), between("fall_ft_s", 1)),
        pace_ft_s=(between("pace_ft_s", 0), between("pace_ft_s", 1)),
        action=between("action"),
        action_name=near.action_name,
        bulk_cm2=(between("bulk_cm2", 0) * shift, between("bulk_cm2", 1) * shift),
        profile=near.profile,
    )


def depth_band(c: Conditions) -> tuple[tuple[float, float], str]:
    """The band (ft, top and low edge) a lure should keep to, and why."""
    fish, bottom, top = c.fish_depth_ft, c.bottom_depth_ft, c.cover.top_depth_ft
    if c.cover.kind == "submerged-grass" and top is not None and fish >= top:
        low = min(top + TICK_INTO_FT, bottom)
        return (max(0.0, top - TICK_ABOVE_FT), low), "fish are in the grass: tick its top"
    if fish >= bottom - ON_BOTTOM_FT:
        return (max(0.0, bottom - 1.0), bottom), "fish are on the bottom: the last foot above it"
    return (max(0.0, fish - ABOVE_FISH_FT), fish), "fish feed upward: from two feet above them to their own level"
