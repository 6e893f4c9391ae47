"""How well a tuned rig fits the targets, part by part, 0 to 1."""

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import PRICES
from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.rig import Rig
from heathdrop.sizing.targets import Targets

#: A trailer of no bulk counts as this much, cm², so that its log exists.
LEAST_BULK_CM2 = 0.1
#: A part at or above this holds nothing back.
NOT_LIMITING = 0.95
#: How sharply work on the floor loses fish that stand higher: at 2 half a foot flips a score (assumption).
FLOOR_POWER = 1.75
#: Parts are never reckoned smaller than this when costs are compared.
LEAST_PART = 1e-12


@dataclass(frozen=True)
class Fits:
    """Part fits 0..1 and their overall score; ``limiting`` names the lowest, None when nothing is low."""

    parts: dict[str, float]
    score: float
    limiting: str | None


def within(value: float, band: tuple[float, float], edge: float) -> float:
    """1 inside the band, falling off with the log of the ratio outside it: half at ``edge``."""
    if value <= 0.0:
        return 0.0
    return ebbing(max(math.log(band[0] / value), math.log(value / band[1]), 0.0) / edge)


def ebbing(off: float) -> float:
    """1 where nothing is off, a half at 1, with a long tail: no small step makes a great difference."""
    return 1.0 / (1.0 + off * off)


def action_of(catalog: Catalog, rig: Rig) -> float:
    """A rig's action, 0 still to 4 strong."""
    share = catalog.judgement.fit.family_share
    return share * rig.family.action + (1.0 - share) * rig.trailer.action


def action_fit(catalog: Catalog, rig: Rig, action: float, targets: Targets) -> float:
    """Fit of an action: how far from what the mood asks of the lure itself, in levels."""
    numbers = catalog.judgement.fit
    wanted = numbers.asked_of_lure[rig.family.work] * targets.action
    return ebbing((action - wanted) / numbers.action_edge)


def cover_fit(catalog: Catalog, cover: CoverOdds, matted: bool) -> float:
    """Fit of the odds: gets through, comes back clean, does not hang. Through a mat, enough is enough."""
    passes = min(1.0, cover.passes / catalog.judgement.fit.enough) if matted else cover.passes
    return passes * (1.0 - cover.fouls) * (1.0 - cover.hangs)


def seconds_worth(catalog: Catalog, seconds: float) -> float:
    """Worth of so many seconds among the fish, 0 to 1: the first count most, ``seconds_enough`` are all."""
    fit = catalog.judgement.fit
    whole = 1.0 - math.exp(-fit.seconds_enough / fit.seconds_eased)
    return min(1.0, (1.0 - math.exp(-max(0.0, seconds) / fit.seconds_eased)) / whole)


def near_floor(above_ft: float, reach_ft: float) -> float:
    """How far fish so far above the floor are met by work on it, 0 to 1: all within half a foot."""
    return math.exp(-((max(0.0, above_ft - 0.5) / reach_ft) ** FLOOR_POWER))


def joined(catalog: Catalog, parts: dict[str, float]) -> Fits:
    """Parts and their weighted geometric mean, so that one failure cannot hide. Prices (the pace) multiply it
    to their own exponent and do not share the mean."""
    weights = catalog.judgement.fit.weights
    lost = total = 0.0
    limiting, least = None, math.inf
    for part, fits in parts.items():
        lost += weights[part] * -math.log(max(fits, LEAST_PART))
        if part not in PRICES:
            total += weights[part]
        if fits < least or (fits == least and weights[part] > weights[limiting or part]):
            limiting, least = part, fits
    score = math.exp(-lost / total) if least > 0.0 else 0.0
    return Fits(parts, score, limiting if least <= NOT_LIMITING else None)
