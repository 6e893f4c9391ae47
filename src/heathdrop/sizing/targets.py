"""From activity, fish and cover to what the lure should do."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import ROOFS, WITH_TOP
from heathdrop.conditions.scenario import OFF_BOTTOM_FT, Conditions, fading
from heathdrop.conditions.wanted import Wanted
from heathdrop.sizing.activity import Activity
from heathdrop.sizing.schools import NEUTRAL, Leaning

#: Holes this open (share) are what is fished.
HALF_OPEN = 0.5
#: Why the floor's band.
ON_BOTTOM = "fish are on the bottom: the last foot above it"
#: Postures that say where the fish are: grass is then what a lure goes through, not where it is to work.
SAID_WHERE = ("on-bottom", "suspended", "cruising-high")


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
    wanted: Wanted,
    leaning: Leaning = NEUTRAL,
) -> Targets:
    """Targets for the conditions; what is ``wanted`` goes before what is judged, ``leaning`` is what the
    schools hold."""
    levels = [t.activity for t in catalog.targets]

    def between(read: str, k: int | None = None) -> float:
        column = [getattr(t, read) if k is None else getattr(t, read)[k] for t in catalog.targets]
        return float(np.interp(activity.value, levels, column))

    numbers = catalog.judgement.targets
    near = catalog.targets[round(activity.value)]
    shift = leaning.bulk_factor * numbers.bulk_shift ** (2.0 * _murkiness(catalog, c.clarity_ft) - 1.0)
    under_mat = c.cover.kind in ROOFS
    fall = leaning.fall_ft_s or (between("fall_ft_s", 0), between("fall_ft_s", 1))
    depth, reason = depth_band(catalog, c)
    if wanted.depth_ft is not None:
        depth, reason = wanted.depth_ft, "it is the one you set"
    mood = (fall[0], max(fall[1], numbers.mat_fall_ft_s)) if under_mat else fall
    return Targets(
        activity=activity,
        depth_ft=depth,
        depth_reason=reason,
        fall_ft_s=wanted.fall_ft_s or mood,
        pace_ft_s=wanted.pace_ft_s or (between("pace_ft_s", 0), between("pace_ft_s", 1)),
        action=between("action"),
        action_name=near.action_name,
        bulk_cm2=leaning.bulk_cm2 or (between("bulk_cm2", 0) * shift, between("bulk_cm2", 1) * shift),
        profile=near.profile,
    )


def _murkiness(catalog: Catalog, clarity_ft: float) -> float:
    """How far this water counts as murky rather than clear, 0 to 1: it fades over, there is no edge."""
    numbers = catalog.judgement.targets
    return fading(
        clarity_ft, numbers.clear_ft - numbers.clear_edge_ft, numbers.clear_ft + numbers.clear_edge_ft
    )


def depth_band(catalog: Catalog, c: Conditions) -> tuple[tuple[float, float], str]:
    """The band (ft, top and low edge) a lure should keep to, and why.

    Fish between two stations (half off the floor, level with the grass tops) are asked for by a band
    between the two. Its top keeps under the surface: above that a lure skates.
    """
    stations = _stations(catalog, c)
    top = sum(share * band[0] for share, band, _ in stations)
    low = sum(share * band[1] for share, band, _ in stations)
    least = catalog.judgement.targets.skating_ft
    top = min(max(top, least), max(0.0, c.bottom_depth_ft - least))
    low = max(low, top + least)
    return (top, min(low, c.bottom_depth_ft)), max(stations, key=lambda s: s[0])[2]


def _asked_by(catalog: Catalog, postures: Mapping[str, float]) -> dict[str, float]:
    """How far each posture asks for its own band, shares that sum to 1. Fish between the floor and higher
    water are met at their own level almost down to the floor, so that the band sinks evenly with them."""
    low = postures.get("on-bottom", 0.0)
    if not 0.0 < low < 1.0:
        return dict(postures)
    asked = low**catalog.judgement.targets.floor_power
    rest = (1.0 - asked) / (1.0 - low)
    return {k: asked if k == "on-bottom" else rest * share for k, share in postures.items()}


def _stations(catalog: Catalog, c: Conditions) -> list[tuple[float, tuple[float, float], str]]:
    """Where the fish stand: shares that sum to 1, the band (ft) each asks for, and why."""
    numbers = catalog.judgement.targets
    fish, bottom, top = c.fish_depth_ft, c.bottom_depth_ft, c.cover.top_depth_ft
    grass = 0.0
    if c.cover.kind in WITH_TOP and top is not None and (c.cover.edge or c.posture not in SAID_WHERE):
        grass = 1.0 - fading(fish - top, -numbers.tick_above_ft, 0.0)
    stations = []
    if c.cover.stands == "sparse" and not c.cover.edge:
        # Few stems hold nobody up: fish on the floor among them are fished for on the floor.
        low = grass * fading(bottom - fish, *OFF_BOTTOM_FT)
        stations.append((low, (bottom - 1.0, bottom), ON_BOTTOM))
        grass -= low
    if grass > 0.0 and top is not None and c.cover.edge:
        band = (fish - numbers.along_edge_ft, min(fish + numbers.along_edge_ft, bottom))
        stations.append((grass, band, "fish stand along the edge, at their own depth"))
    elif grass > 0.0 and top is not None:
        # Where holes are fished a lure falls in to the fish, as far as they let it.
        narrow, wide = catalog.cover.stems.hole_ft
        holes = 1.0 - fading(c.cover.hole_ft or 0.0, narrow, wide)
        deeper = (numbers.into_holes + (1.0 - numbers.into_holes) * holes) * max(0.0, fish - top)
        band = (top - numbers.tick_above_ft + deeper, min(top + numbers.tick_into_ft + deeper, bottom))
        why = "over its tops and into its holes" if holes >= HALF_OPEN else "tick its top"
        stations.append((grass, band, f"fish are in the grass: {why}"))
    rest = 1.0 - sum(share for share, _, _ in stations)
    for posture, share in _asked_by(catalog, c.postures).items():
        if posture == "on-bottom":
            band, why = (bottom - 1.0, bottom), ON_BOTTOM
        elif posture == "under-cover":
            mat = (c.cover.thickness_in or 0.0) / 12.0
            under = mat if c.cover.kind in ROOFS else fish - numbers.above_fish_ft
            band = (min(under, fish - 0.5), max(fish, 0.5))
            why = "fish hold under the cover: from its underside to their level"
        else:
            band = (fish - numbers.above_fish_ft, fish)
            why = "fish feed upward: from 2 ft above them to their own level"
        stations.append((share * rest, (max(0.0, band[0]), band[1]), why))
    return stations
