"""Schools: what holding to one side of a disagreement changes in the numbers."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Any

from heathdrop.catalog import Catalog, School, Topic
from heathdrop.catalog.records import SchoolNumbers
from heathdrop.catalog.vocabulary import ANY
from heathdrop.conditions.facts import Facts, holds
from heathdrop.errors import BadInput


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

    def liking(self, numbers: SchoolNumbers, family: str, head_oz: float, trailer: str) -> float:
        """How well a rig suits the schools, as a factor on its profile (1 when they have no say)."""
        band = self.heads.get(family) or self.heads.get(ANY)
        off = (
            max(0.0, math.log(band[0] / head_oz), math.log(head_oz / band[1])) / numbers.head_edge
            if band
            else 0.0
        )
        rung = self.ladder.get(family)
        if rung is not None:
            off = max(off, abs(math.log(head_oz / rung)) / numbers.ladder_edge)
        tails = {**self.trailers.get(ANY, {}), **self.trailers.get(family, {})}
        weight = numbers.least_liking + (1.0 - numbers.least_liking) * math.exp(-(off**2))
        return weight * tails.get(trailer, 1.0)


NEUTRAL = Leaning()


def chosen(catalog: Catalog, picks: tuple[tuple[str, str], ...]) -> dict[str, School]:
    """Every topic's school: the angler's pick, else the default. Raises BadInput for an unknown one."""
    for topic_id, school_id in picks:
        topic = catalog.pick(catalog.topics, f"schools.{topic_id}", topic_id)
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
        found["heads"] |= effect.heads
        found["orientation"] |= effect.orientation
        for family, tails in effect.trailers.items():
            found["trailers"][family] = {**found["trailers"].get(family, {}), **tails}
        for family, points in effect.favours.items():
            found["favours"][family] = found["favours"].get(family, 0.0) + points
        for family, rows in effect.ladder.items():
            found["ladder"][family] = next(oz for deepest, oz in rows if facts["fish_depth_ft"] <= deepest)
        for key, band in (("bulk_cm2", effect.bulk), ("fall_ft_s", effect.fall_ft_s)):
            if band is not None:
                found[key] = band
        found["lobbed"] = found.get("lobbed", False) or effect.lobbed
        found["bare"] = found.get("bare", False) or effect.bare
    return Leaning(**found)


def pace_factor(catalog: Catalog, picks: tuple[tuple[str, str], ...], family: str) -> float:
    """A school's factor on one family's pace (heavy and fast wants more)."""
    factor = 1.0
    for topic in catalog.topics.values():
        of_family = tuple(clause for clause in topic.applies if clause.fact == "family" and not clause.turned)
        if of_family and holds(of_family, {"family": family}):
            factor *= chosen(catalog, picks)[topic.id].effect.pace_factor
    return factor
