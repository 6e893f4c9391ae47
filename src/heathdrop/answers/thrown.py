"""A cast that was made, looked at again: its rig, the depth it ran at, its seconds among the fish."""

import json
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PRICES
from heathdrop.conditions.given import RIG_FIELDS
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import check
from heathdrop.errors import BadInput
from heathdrop.physics.rig import Rig, areas_of
from heathdrop.physics.rig_name import RigName, name_of, rig_given
from heathdrop.sizing.hour import among_s
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Rated, rated_at
from heathdrop.units import feet

#: Parts of a fit that say what fish make of a rig: depth and pace are the cast's, cover is in the odds.
SUITS = ("fall", "action", "profile", "weight", "touch", "tackle")
#: No part of a fit counts for less: what is out of all bounds is bitten once in a while.
LEAST_FIT = 1e-3
#: Casts whose run is remembered; no cast counts for fewer seconds, for fish are not nailed to a depth.
REMEMBERED, LEAST_S = 16384, 2.0


@dataclass(frozen=True)
class Run:
    """How a cast ran in its own water, as simulated: mean depth and height over the bottom (ft), seconds
    among the fish, its way to the cover, the area that its trailer falls with (cm²), its fall rate (ft/s),
    what these fish make of the rig and the cover leaves of its cast (``suit``, 0 to 1), its fit (of 100)."""

    depth_ft: float
    among_s: float
    height_ft: float = 0.0
    way: str = ""
    bulk_cm2: float = 0.0
    fall_ft_s: float = 0.0
    suit: float = 1.0
    fit: float = 0.0


def bitten(cast: MadeCast) -> bool:
    """Whether a fish answered."""
    return OUTCOME[cast.outcome].bitten


def known_of(cast: MadeCast, name: str) -> Any:
    """A condition of a cast's water, the kind where it is the cover; None where it is not on record."""
    value = (cast.conditions or {}).get(name)
    return value.get("kind") if name == "cover" and isinstance(value, dict) else value


def number_of_cast(cast: MadeCast, name: str) -> float | None:
    """A condition that is a number; None where it is not on record."""
    value = known_of(cast, name)
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None


def rig_of(cast: MadeCast, at: str = "") -> Rig:
    """The rig that was thrown, the same object for casts of one rig. Raises BadInput naming the field under
    ``at``."""
    return _rig_of(tuple(getattr(cast, name) for name in RIG_FIELDS), at)


#: Rigs of casts that are remembered: a log of many seasons throws some hundreds.
RIGS_KEPT = 4096


@lru_cache(maxsize=RIGS_KEPT)
def _rig_of(values: tuple[Any, ...], at: str) -> Rig:
    return rig_given(catalogue.load(), dict(zip(RIG_FIELDS, values, strict=True)), at)


def fishes_oz(cast: MadeCast, setting: Setting) -> float:
    """The head (oz) that was thrown as it fishes in a setting; its ounces where the rig is none that there
    is."""
    try:
        return setting.as_it_fishes_oz(rig_of(cast))
    except BadInput:
        return cast.head_oz


def suit_of(catalog: Catalog, rated: Rated) -> float:
    """What fish make of a rig whatever its depth, pace and cover: its other fits, weighed (0 to 1)."""
    weights, parts = catalog.judgement.fit.weights, rated.fits.parts
    asked = [k for k in parts if k in SUITS]
    whole = sum(weights[k] for k in asked if k not in PRICES)
    return math.exp(sum(weights[k] * math.log(max(LEAST_FIT, parts[k])) for k in asked) / whole)


def run_of(cast: MadeCast) -> Run | None:
    """How a cast ran; None where its water is not known whole, or its rig is none that there is."""
    try:
        rig = name_of(rig_of(cast)).text()
    except BadInput:
        return None
    count = cast.countdown_s if cast.count_s is None else cast.count_s
    return _run(json.dumps(cast.conditions or {}, sort_keys=True), rig, round(2 * count) / 2, cast.pace_ft_s)


@lru_cache(maxsize=REMEMBERED)
def _run(conditions: str, rig: str, count_s: float, pace_ft_s: float) -> Run | None:
    catalog, name = catalogue.load(), RigName.parse(rig)
    try:
        asked = {"conditions": json.loads(conditions), "families": [name.family]}
        scenario = SizeRequest.model_validate(asked).scenario()
        check(scenario)
    except (ValidationError, BadInput):
        return None
    setting = setting_of(catalog, scenario)
    rig_, c = name.rig(catalog), scenario.conditions
    rated = rated_at(setting, rig_, count_s, pace_ft_s or None)
    depth = feet(rated.tuned.mean_m)
    return Run(
        depth_ft=depth,
        among_s=float(among_s(catalog, setting.targets, rated)),
        height_ft=max(0.0, c.bottom_depth_ft - depth),
        way=rated.way,
        bulk_cm2=areas_of(catalog, rig_, c.water_temp_f).fall[3],
        fall_ft_s=float(rated.fall_ft_s),
        suit=suit_of(catalog, rated) * rated.cover.passes,
        fit=100.0 * rated.fits.score,
    )


def hours_among(runs: Sequence[Run | None]) -> list[float] | None:
    """Hours that each cast spent among the fish, by its run; a cast whose water is not known counts as the
    others do on average. None where no cast's water is known."""
    seconds = [max(LEAST_S, r.among_s) for r in runs if r is not None]
    if not seconds:
        return None
    usual = sum(seconds) / len(seconds)
    return [(usual if r is None else max(LEAST_S, r.among_s)) / 3600.0 for r in runs]
