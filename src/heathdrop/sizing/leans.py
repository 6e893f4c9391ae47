"""What a day leans toward, smoothly: quieter or livelier, slimmer or bulkier, lighter or heavier.

Each lean is a fact of the water as a number that fades (no edges); the fitted table says how far each moves
the liking of trailers and the usual weights of a way of working. Rules speak for what has a name; leans carry
what only has a degree.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from heathdrop.catalog import Catalog, Family
from heathdrop.conditions.cover import KINDS
from heathdrop.conditions.gear import Line
from heathdrop.conditions.scenario import Conditions, fading
from heathdrop.physics.rig import Rig

#: Trailer features are counted from these (action level; bulk, cm²), the log of bulk held to this range.
USUAL_ACTION, USUAL_BULK_CM2, BULK_RANGE = 2.0, 2.5, (-1.8, 1.2)
#: Half the way from clear to murky and from shallow to deep are told from these (ft), as logs of this base.
CLARITY_FT, DEPTH_FT, LOG_BASE = 4.0, 5.0, 4.0
#: Wholly cold and not at all (°F); the mood that leans neither way; the line (lb) that does.
COLD_F, EVEN_MOOD, USUAL_TEST_LB = (45.0, 62.0), 2.0, 15.0
#: How thick cover stands, as a number.
THICK = {"sparse": 0.0, "moderate": 0.5, "thick": 1.0}
STEMMED = tuple(kind.id for kind in KINDS if kind.does == "stems")
#: Tops this far (ft) under the fish crowd a lure wholly, and not at all.
TOPS_FT = (1.0, 4.0)


def _log(value: float, middle: float) -> float:
    """The log of a value against its middle, −1 to 1 over a base either way."""
    return min(1.0, max(-1.0, math.log(max(value, 1e-3) / middle) / math.log(LOG_BASE)))


def _tops(c: Conditions) -> float:
    """How close under the fish grass grows: a lure must be kept above it."""
    top = c.cover.top_depth_ft
    return 0.0 if c.cover.kind not in STEMMED or top is None else fading(top - c.fish_depth_ft, *TOPS_FT)


def leans_of(c: Conditions, activity: float, line: Line, depth_ft: float) -> dict[str, float]:
    """The day's leans by name, each from −1 or 0 to 1; ``depth_ft`` is where the lure is to work."""
    test = line.test_lb if line.leader is None else min(line.test_lb, line.leader.test_lb)
    autumn = fading(c.water_temp_f, 70.0, 78.0) if c.season == "fall" else 0.0
    return {
        "cold": fading(c.water_temp_f, *COLD_F),
        "dull": min(1.0, max(-1.0, (EVEN_MOOD - activity) / EVEN_MOOD)),
        "clear": _log(c.clarity_ft, CLARITY_FT),
        "thick": THICK[c.cover.stands] if c.cover.kind in STEMMED else 0.0,
        "tops": _tops(c),
        "deep": _log(depth_ft, DEPTH_FT),
        "crawfish": float(c.forage == "crawfish"),
        "baitfish": float(c.forage == "baitfish"),
        "rock": float(c.cover.row.does == "stone"),
        "wood": float(c.cover.row.does == "wood"),
        "autumn": autumn,
        "spawn": float(c.season == "spawn"),
        "line": _log(test, USUAL_TEST_LB),
    }


def features(action: float, bulk_cm2: float) -> tuple[float, float]:
    """A trailer as the leans see it: its action from the usual, and the log of its bulk against the usual."""
    low, high = BULK_RANGE
    bulk = math.log(max(bulk_cm2, 1e-3) / USUAL_BULK_CM2)
    return action - USUAL_ACTION, min(high, max(low, bulk))


@dataclass(frozen=True)
class Tilt:
    """How a day's leans like trailers: log points for each level of action, and for each unit of log bulk."""

    action: float = 0.0
    bulk: float = 0.0

    def of(self, action: float, bulk_cm2: float) -> float:
        """Log points of a trailer of this action (0 to 4) and bulk (cm²)."""
        a, b = features(action, bulk_cm2)
        return self.action * a + self.bulk * b

    def of_rig(self, rig: Rig) -> float:
        """Log points of a rig's trailer."""
        return self.of(rig.trailer.action, rig.bulk_cm2)


def tilt_of(catalog: Catalog, family: Family, leans: Mapping[str, float]) -> Tilt:
    """The tilt of a family's trailers on a day of these leans."""
    rows = catalog.leans.leans.get(family.work, {})
    return Tilt(
        *(sum(leans[name] * row.get(what, 0.0) for name, row in rows.items()) for what in ("action", "bulk"))
    )


def weight_shift(catalog: Catalog, family: Family, leans: Mapping[str, float]) -> float:
    """How far (log) the day moves a family's usual weights."""
    rows = catalog.leans.heads.get(family.work, {})
    return catalog.fitted.usual.get(family.id, 0.0) + sum(leans[name] * v for name, v in rows.items())
