"""How far a hand and a boat scatter a cast that is meant to be the same: pace, count, distance, tip, drift.

Quadrature of independent errors, each one sigma; the angler's own hand stands in place of the one assumed.
"""

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import EXACT, Scenario
from heathdrop.sizing.knowledge import UNTAUGHT, Knowledge
from heathdrop.units import M_S_PER_MPH, metres


@dataclass(frozen=True)
class Scatter:
    """One sigma each: ``pace`` and ``cast`` (log), ``count`` (a share), ``tip_m``, ``drift_m_s`` of the boat
    along the cast. ``pace_bias`` (log) is how much quicker than told this hand is known to turn."""

    pace: float = 0.0
    pace_bias: float = 0.0
    count: float = 0.0
    cast: float = 0.0
    tip_m: float = 0.0
    drift_m_s: float = 0.0

    def pace_at(self, pace_m_s: float) -> float:
        """One sigma (log) of the pace through the water at a pace (m/s): the handle and the boat."""
        return math.hypot(self.pace, self.drift_m_s / pace_m_s)


#: A hand and a boat that do just what is told.
STILL = Scatter()


def scatter_of(
    catalog: Catalog, scenario: Scenario | None = None, knowledge: Knowledge = UNTAUGHT
) -> Scatter:
    """The scatter of a hand as it is known, and of the boat in a scenario's wind and drift (none: held
    still). Nothing scatters where an exact hand is asked for."""
    if scenario is not None and scenario.hand == EXACT:
        return STILL
    model, counted, handle = catalog.model, knowledge.count_error(), knowledge.handle()
    drift = 0.0
    if scenario is not None:
        c = scenario.conditions
        of_wind, of_drift = model.drift_share
        windy = max(0.0, c.wind_mph - catalog.judgement.fit.breeze_mph)
        drift = M_S_PER_MPH * math.hypot(of_wind * windy, of_drift * c.drift_mph)
    return Scatter(
        pace=model.pace_error if handle is None else handle.error,
        pace_bias=0.0 if handle is None else handle.quicker,
        count=model.count_error if counted is None else counted,
        cast=model.cast_error,
        tip_m=metres(model.tip_error_ft),
        drift_m_s=drift,
    )


def moved_by_pace_m(catalog: Catalog, cast_m: float, depth_m: float) -> float:
    """How far (m) a swum lure moves for a unit of the log of its pace, reeled at a depth over a cast: a line
    through many sized rigs (docs/model.md)."""
    of_cast, of_depth = catalog.judgement.fit.pace_moves
    return of_cast * cast_m + of_depth * depth_m
