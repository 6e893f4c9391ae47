"""How well a tuned rig fits the targets, part by part, 0 to 1."""

from __future__ import annotations

import math
from dataclasses import dataclass

from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.rig import Rig
from heathdrop.sizing.targets import Targets
from heathdrop.sizing.tune import Tuned

#: Exponents of the geometric mean (assumption: depth leads, the rest share evenly).
WEIGHTS = {"depth": 0.40, "fall": 0.15, "cover": 0.15, "action": 0.15, "profile": 0.15, "touch": 0.15}
#: Softness: natural log for ratios, action levels for action.
FALL_EDGE, PROFILE_EDGE, ACTION_EDGE = 0.25, 0.5, 1.2
#: Share of a rig's action that is the family's own; the rest is the trailer's.
FAMILY_SHARE = 0.4
#: Share of the wanted action that the lure itself must bring; the hand brings the rest (assumption).
ASKED_OF_LURE = {"swim": 1.0, "bottom": 0.6, "drop": 0.3}


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


def action_of(rig: Rig) -> float:
    """A rig's action, 0 still to 4 strong."""
    return FAMILY_SHARE * rig.family.action + (1.0 - FAMILY_SHARE) * rig.trailer.action


def bulk_of(rig: Rig) -> float:
    """A trailer's bulk on the move, cm², as rigged."""
    if rig.trailer.length_in == 0.0:
        return 0.0
    return rig.trailer.run_drag_area_cm2 * (rig.trailer_length_in / rig.trailer.length_in) ** 2


def touch_fit(touch: float) -> float:
    """Fit of a touch W / (W + F): 1 − e^(−W/F), so that a lure twice the line's pull is well felt."""
    if touch >= 1.0:
        return 1.0
    return 1.0 - math.exp(-touch / (1.0 - touch))


def fits_of(
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
    ``liking`` is how well the trailer suits the family and the rig the chosen schools, a factor on its profile.
    """
    parts = {
        "depth": tuned.soft_share * tuned.comfort,
        "fall": _within(fall_ft_s, targets.fall_ft_s, FALL_EDGE),
        "cover": cover.passes * (1.0 - cover.fouls) * (1.0 - cover.hangs),
        "action": math.exp(-(((action - ASKED_OF_LURE[rig.family.work] * targets.action) / ACTION_EDGE) ** 2)),
        "profile": min(1.0, liking * _within(max(bulk_of(rig), 0.1), targets.bulk_cm2, PROFILE_EDGE)),
    }
    if touch is not None:
        parts["touch"] = touch
    total = sum(WEIGHTS[k] for k in parts)
    if any(v <= 0.0 for v in parts.values()):
        score = 0.0
    else:
        score = math.exp(sum(WEIGHTS[k] * math.log(v) for k, v in parts.items()) / total)
    costs = {k: WEIGHTS[k] * -math.log(max(v, 1e-12)) for k, v in parts.items()}
    return Fits(parts, score, max(costs, key=lambda k: costs[k]))
