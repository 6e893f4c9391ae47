"""Water per hour: how many casts a rig allows in an hour, and how long it is among the fish in them."""

from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.targets import Targets
from heathdrop.units import feet, metres

SECONDS = 3600.0


@dataclass(frozen=True)
class PerHour:
    """Casts an hour, seconds among the fish in them, and rigs lost to what they hang in."""

    casts: float
    seconds_among: float
    rigs_lost: float


def cast_s(catalog: Catalog, sizing: Sizing, rated: Rated) -> float:
    """How long one cast takes (s): the count, the work, the way home, and what lies between two casts."""
    hand, between = catalog.judgement.hand, catalog.search.minutes.between_casts_s
    away, work = rated.cast.distance_m, rated.work
    if work == "swim":
        worked = away / rated.tuned.pace_m_s
    elif work == "bottom":
        worked = away / rated.tuned.pace_m_s * hand.worked_share + (1.0 - hand.worked_share) * _home(
            catalog, away
        )
    else:
        held = rated.tuned.useful_s if work == "hang" else hand.worked_s
        worked = held + _home(catalog, min(away, metres(hand.pitch_ft)))
    return rated.countdown_s + worked + between


def _home(catalog: Catalog, away_m: float) -> float:
    """Seconds to reel an empty lure in from so far (m)."""
    return feet(away_m) / catalog.judgement.hand.reel_home_ft_s


def among_s(catalog: Catalog, targets: Targets, rated: Rated) -> float:
    """Seconds of one cast among the fish, by where they stand."""
    tuned, work = rated.tuned, rated.work
    if work in ("swim", "hang"):
        return tuned.soft_share * tuned.useful_s
    if work == "bottom":
        away = rated.cast.distance_m
        return tuned.soft_share * away / tuned.pace_m_s * catalog.judgement.hand.worked_share
    top, low = targets.depth_ft
    passing = (low - top) / rated.fall_ft_s if rated.fall_ft_s > 0.0 else 0.0
    return tuned.soft_share * catalog.judgement.hand.worked_s + passing


def per_hour(catalog: Catalog, sizing: Sizing, rated: Rated) -> PerHour:
    """Water per hour of a rated rig in its water."""
    casts = SECONDS / cast_s(catalog, sizing, rated)
    lost = casts * rated.cover.hangs * catalog.judgement.hand.lost_of_hung
    return PerHour(casts, casts * among_s(catalog, sizing.targets, rated), lost)
