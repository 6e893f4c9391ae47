"""From activity, fish and cover to what the lure should do."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Conditions
from heathdrop.sizing.activity import Activity
from heathdrop.sizing.schools import NEUTRAL, Leaning


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


def targets_for(
    catalog: Catalog,
    c: Conditions,
    activity: Activity,
    band: tuple[float, float] | None,
    leaning: Leaning = NEUTRAL,
) -> Targets:
    """Targets for the conditions; ``band`` (ft) overrides the judged depth band, ``leaning`` is what the
    schools hold."""
    levels = [t.activity for t in catalog.targets]

    def between(read: str, k: int | None = None) -> float:
        column = [getattr(t, read) if k is None else getattr(t, read)[k] for t in catalog.targets]
        return float(np.interp(activity.value, levels, column))

    numbers = catalog.judgement.targets
    near = catalog.targets[round(activity.value)]
    shift = numbers.bulk_shift if c.clarity_ft < numbers.clear_ft else 1.0 / numbers.bulk_shift
    under_mat = c.cover.kind == "matted-grass"
    fall = leaning.fall_ft_s or (between("fall_ft_s", 0), between("fall_ft_s", 1))
    depth, reason = depth_band(catalog, c) if band is None else (band, "the band you set")
    return Targets(
        activity=activity,
        depth_ft=depth,
        depth_reason=reason,
        fall_ft_s=(fall[0], max(fall[1], numbers.mat_fall_ft_s)) if under_mat else fall,
        pace_ft_s=(between("pace_ft_s", 0), between("pace_ft_s", 1)),
        action=between("action"),
        action_name=near.action_name,
        bulk_cm2=leaning.bulk_cm2 or (between("bulk_cm2", 0) * shift, between("bulk_cm2", 1) * shift),
        profile=near.profile,
    )


def depth_band(catalog: Catalog, c: Conditions) -> tuple[tuple[float, float], str]:
    """The band (ft, top and low edge) a lure should keep to, and why."""
    numbers = catalog.judgement.targets
    fish, bottom, top = c.fish_depth_ft, c.bottom_depth_ft, c.cover.top_depth_ft
    if c.cover.kind == "submerged-grass" and top is not None and fish >= top:
        low = min(top + numbers.tick_into_ft, bottom)
        return (max(0.0, top - numbers.tick_above_ft), low), "fish are in the grass: tick its top"
    if c.stands == "on-bottom":
        return (max(0.0, bottom - 1.0), bottom), "fish are on the bottom: the last foot above it"
    if c.stands == "under-cover":
        under = (
            (c.cover.thickness_in or 0.0) / 12.0
            if c.cover.kind == "matted-grass"
            else fish - numbers.above_fish_ft
        )
        return (
            max(0.0, min(under, fish - 0.5)),
            max(fish, 0.5),
        ), "fish hold under the cover: from its underside to their level"
    return (
        max(0.0, fish - numbers.above_fish_ft),
        fish,
    ), "fish feed upward: from two feet above them to their own level"
