"""The sense of weight: what most would tie on for a family at a depth, as a soft prior on the head.

A school that names weights speaks in the table's place; a lean moves everything by a step. Under a mat
the weight that goes through often enough stands in for habit.
"""

import math
from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog, Family
from heathdrop.catalog.judgement_records import Usual
from heathdrop.conditions.scenario import Conditions
from heathdrop.physics.cover import Stand, halfway_oz
from heathdrop.sizing.fit import ebbing
from heathdrop.sizing.schools import Leaning
from heathdrop.sizing.targets import Targets

#: Half the width (log) of the weights that go through a mat often enough, and the least of any band.
MAT_HALF, LEAST_HALF = 0.25, 0.25
#: The mood above which fish count as quick.
WILLING = 2.0


@dataclass(frozen=True)
class Weights:
    """Weights that are usual: their middle (oz), half their width (log), and who says so; ``ounces`` where
    they are of the head alone and not of the head as it fishes (:mod:`heathdrop.sizing.bearing`)."""

    middle_oz: float
    half: float
    edge: float
    because: str
    ounces: bool = False

    def fit(self, head_oz: float) -> float:
        """How usual a weight is: 1 at the middle, a half at ``edge`` half-widths off, with a long tail."""
        return ebbing(math.log(head_oz / self.middle_oz) / (self.half * self.edge))


def table_band(usual: Usual, depth_ft: float) -> tuple[float, float]:
    """Lightest and heaviest (oz) at a depth: each row holds at its middle, straight lines in logs between."""
    edges = [0.0, *(row[0] for row in usual.rows)]
    middles = [0.5 * (a + b) for a, b in zip(edges, edges[1:], strict=False)]
    low, high = (
        math.exp(float(np.interp(depth_ft, middles, [math.log(row[k]) for row in usual.rows])))
        for k in (1, 2)
    )
    return low, high


def weights_for(
    catalog: Catalog,
    family: Family,
    targets: Targets,
    c: Conditions,
    stand: Stand,
    leaning: Leaning,
    mat_factor: float = 1.0,
    shift: float = 0.0,
    held: bool = False,
) -> Weights:
    """The usual weights of a family in this water, a school's where one speaks, moved by the lean and by the
    day's ``shift`` (log) unless the school is one that the angler ``held`` to."""
    fit = catalog.judgement.fit
    band = leaning.band(family.id)
    day = math.exp(shift)
    if band is not None:
        low, high = (oz if held else oz * day for oz in band)
        middle, half = math.sqrt(low * high), max(LEAST_HALF, 0.5 * math.log(high / low))
        return Weights(middle * leaning.lean, half, fit.school_edge, "the school you hold to", ounces=True)
    if stand.row.does == "mat" and family.work == "drop":
        odds = fit.enough / (1.0 - fit.enough)
        lobbed = catalog.cover.mats.lobbed if stand.lobbed else 1.0
        opens = (
            mat_factor * halfway_oz(catalog, stand) * odds ** (1.0 / catalog.cover.mats.steepness) / lobbed
        )
        middle = opens ** (1.0 - fit.mat_habit) * fit.mat_habit_oz**fit.mat_habit
        return Weights(
            middle * leaning.lean * day, MAT_HALF, fit.weight_edge, "what opens this mat", ounces=True
        )
    usual = catalog.usual[family.id]
    depth = targets.depth_ft[1] if usual.by == "target" else c.works_ft
    low, high = table_band(usual, depth)
    more = fit.wind_heavier * max(0.0, c.wind_mph - fit.breeze_mph)
    if usual.by == "target":
        more += fit.quick_heavier * (targets.activity.value - WILLING)
    middle, half = (
        math.sqrt(low * high) * math.exp(more) * leaning.lean * day,
        max(LEAST_HALF, 0.5 * math.log(high / low)),
    )
    return Weights(middle, half, fit.weight_edge, f"what is usual at {depth:.0f} ft")
