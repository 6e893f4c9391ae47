"""How well a tuned rig fits the targets, part by part, 0 to 1."""

from __future__ import annotations

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.rig import Rig
from heathdrop.sizing.targets import Targets
from heathdrop.sizing.tune import Tuned

#: A trailer of no bulk counts as this much, cm², so that its log exists.
LEAST_BULK_CM2 = 0.1


@dataclass(frozen=True)
class Fits:
    """Part fits 0..1 and their overall score; ``limiting`` names the weakest."""

    parts: dict[str, float]
    score: float
    limiting: str


def _within(value: float, band: tuple[float, float], edge: float) -> float:
    """1 inside the band, falling off with the log of the ratio outside it."""
    if value <= 0.0:
        return 0.0
    off = max(math.log(band[0] / value), math.log(value / band[1]), 0.0)
    return math.exp(-((off / edge) ** 2))


def action_of(catalog: Catalog, rig: Rig) -> float:
    """A rig's action, 0 still to 4 strong."""
    share = catalog.judgement.fit.family_share
    return share * rig.family.action + (1.0 - share) * rig.trailer.action


def touch_fit(touch: float) -> float:
    """Fit of a touch W / (W + F): 1 − e^(−W/F), so that a lure twice the line's pull is well felt."""
    if touch >= 1.0:
        return 1.0
    return 1.0 - math.exp(-touch / (1.0 - touch))


def fits_of(
    catalog: Catalog,
    rig: Rig,
    tuned: Tuned,
    fall_ft_s: float,
    cover: CoverOdds,
    targets: Targets,
    action: float,
    touch: float | None = None,
    liking: float = 1.0,
) -> Fits:
    """Part fits and their weighted geometric mean, so that one failure cannot hide.

    ``action`` is the rig's in this water; ``touch`` (0..1) counts only where the bottom must be felt;
    ``liking`` is how well the trailer suits the family and the rig the chosen schools, a factor on its
    profile.
    """
    numbers = catalog.judgement.fit
    wanted = numbers.asked_of_lure[rig.family.work] * targets.action
    bulk = max(rig.bulk_cm2, LEAST_BULK_CM2)
    parts = {
        "depth": tuned.soft_share * tuned.comfort,
        "fall": _within(fall_ft_s, targets.fall_ft_s, numbers.fall_edge),
        "cover": cover.passes * (1.0 - cover.fouls) * (1.0 - cover.hangs),
        "action": math.exp(-(((action - wanted) / numbers.action_edge) ** 2)),
        "profile": min(1.0, liking * _within(bulk, targets.bulk_cm2, numbers.profile_edge)),
    }
    if touch is not None:
        parts["touch"] = touch
    total = sum(numbers.weights[k] for k in parts)
    if any(v <= 0.0 for v in parts.values()):
        score = 0.0
    else:
        score = math.exp(sum(numbers.weights[k] * math.log(v) for k, v in parts.items()) / total)
    costs = {k: numbers.weights[k] * -math.log(max(v, 1e-12)) for k, v in parts.items()}
    return Fits(parts, score, max(costs, key=lambda k: costs[k]))
