"""Schools: what holding to one side of a disagreement changes in the numbers."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Any

from heathdrop.catalog import Catalog, School, Topic
from heathdrop.errors import BadInput
from heathdrop.sizing.facts import Facts, holds

#: How far (log) outside a school's liking a head or trailer loses most of its standing.
HEAD_EDGE, LADDER_EDGE = 0.30, 0.30
#: However far off a weight is, a school only takes this much from its profile: the trade must stay in sight.
LEAST_LIKING = 0.1


@dataclass(frozen=True)
class Leaning:
    """The schools' joint effect on sizing. Weights oz, bulk cm², fall ft/s; factors have no unit."""

    heads: dict[str, tuple[float, float]] = field(default_factory=dict)
    ladder: dict[str, float] = field(default_factory=dict)
    trailers: dict[str, dict[str, float]] = field(default_factory=dict)
    favours: dict[str, float] = field(default_factory=dict)
    orientation: dict[str, str] = field(default_factory=dict)
    bulk_cm2: tuple[float, float] | None = None
    fall_ft_s: tuple[float, float] | None = None
    lobbed: bool = False
    bare: bool = False

    def liking(self, family: str, head_oz: float, trailer: str) -> float:
        """How well a rig suits the schools, as a factor on its profile (1 when they have no say)."""
        band = self.heads.get(family) or self.heads.get("*")
        off = max(0.0, math.log(band[0] / head_oz), math.log(head_oz / band[1])) / HEAD_EDGE if band else 0.0
        rung = self.ladder.get(family)
        if rung is not None:
            off = max(off, abs(math.log(head_oz / rung)) / LADDER_EDGE)
        tails = {**self.trailers.get("*", {}), **self.trailers.get(family, {})}
        weight = LEAST_LIKING + (1.0 - LEAST_LIKING) * math.exp(-(off**2))
        return weight * tails.get(trailer, 1.0)


NEUTRAL = Leaning()


def chosen(catalog: Catalog, picks: tuple[tuple[str, str], ...]) -> dict[str, School]:
    """Every topic's school: the angler's pick, else the default. Raises BadInput for an unknown one."""
    for topic_id, school_id in picks:
        topic: Topic = catalog.pick("topics", f"schools.{topic_id}", topic_id)
        if school_id not in topic.schools:
            raise BadInput(f"schools.{topic_id}", school_id, "one of " + ", ".join(topic.schools))
    wanted = dict(picks)
    return {t.id: t.schools[wanted.get(t.id, t.default)] for t in catalog.topics.values()}


def applying(catalog: Catalog, facts: Facts) -> list[Topic]:
    """Topics that matter for this water (and rig, when the facts hold one)."""
    return [t for t in catalog.topics.values() if holds(t.applies, facts, missing=True)]


def leaning_of(catalog: Catalog, picks: tuple[tuple[str, str], ...], facts: Facts) -> Leaning:
    """The joint effect of the schools whose topic applies."""
    schools = chosen(catalog, picks)
    found: dict[str, Any] = {"heads": {}, "ladder": {}, "trailers": {}, "favours": {}, "orientation": {}}
    for effect in (schools[t.id].effect for t in applying(catalog, facts)):
        for key in ("heads", "orientation"):
            found[key] |= {k: tuple(v) if isinstance(v, list) else v for k, v in effect.get(key, {}).items()}
        for family, tails in effect.get("trailers", {}).items():
            found["trailers"][family] = {**found["trailers"].get(family, {}), **tails}
        for family, points in effect.get("favours", {}).items():
            found["favours"][family] = found["favours"].get(family, 0.0) + points
        for family, rows in effect.get("ladder", {}).items():
            found["ladder"][family] = next(oz for deepest, oz in rows if facts["fish_depth_ft"] <= deepest)
        for name, key in (("bulk", "bulk_cm2"), ("fall_ft_s", "fall_ft_s")):
            if name in effect:
                found[key] = tuple(effect[name])
        for key in ("lobbed", "bare"):
            found[key] = found.get(key, False) or bool(effect.get(key, False))
    return Leaning(**found)


def pace_factor(catalog: Catalog, picks: tuple[tuple[str, str], ...], family: str) -> float:
    """A school's factor on one family's pace (heavy and fast wants more)."""
    facts = {"family": family}
    factor = 1.0
    for topic in catalog.topics.values():
        if "family" in topic.applies and holds({"family": topic.applies["family"]}, facts):
            factor *= chosen(catalog, picks)[topic.id].effect.get("pace_factor", 1.0)
    return float(factor)
