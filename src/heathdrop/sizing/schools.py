"""Schools: what holding to one side of a disagreement changes in the numbers."""

import math
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from heathdrop.catalog import Catalog, School, Topic
from heathdrop.catalog.records import DressPart
from heathdrop.catalog.vocabulary import ANY
from heathdrop.conditions.facts import Facts, holds
from heathdrop.errors import BadInput


@dataclass(frozen=True)
class Leaning:
    """The schools' joint effect on sizing. Weights oz, bulk cm², fall ft/s; factors have no unit.

    ``lean`` is the factor that moves the usual weights by a step; ``own`` are the trailers, by family, that a
    school which the angler holds to names as its own.
    """

    heads: dict[str, tuple[float, float]] = field(default_factory=dict)
    ladder: dict[str, float] = field(default_factory=dict)
    trailers: dict[str, dict[str, float]] = field(default_factory=dict)
    favours: dict[str, float] = field(default_factory=dict)
    dress: dict[DressPart, str] = field(default_factory=dict)
    bulk_cm2: tuple[float, float] | None = None
    fall_ft_s: tuple[float, float] | None = None
    lean: float = 1.0
    bulk_factor: float = 1.0
    lobbed: bool = False
    bare: bool = False
    own: dict[str, frozenset[str]] = field(default_factory=dict)

    def band(self, family: str) -> tuple[float, float] | None:
        """The weights (oz) a school names for this family; None when none does."""
        rung = self.ladder.get(family)
        return (rung, rung) if rung is not None else self.heads.get(family) or self.heads.get(ANY)

    def tail(self, family: str, trailer: str) -> float:
        """How a school likes a trailer on this family, as a factor (1 when it has no say)."""
        return self.trailers.get(family, {}).get(trailer, self.trailers.get(ANY, {}).get(trailer, 1.0))

    def named(self, family: str) -> frozenset[str]:
        """The trailers of a family that a school held to names as its own."""
        return self.own.get(family) or self.own.get(ANY) or frozenset()


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
    effects: dict[str, Any] = {
        "heads": {},
        "ladder": {},
        "trailers": {},
        "favours": {},
        "dress": {},
        "own": {},
    }
    for topic in applying(catalog, facts):
        school = schools[topic.id]
        effect = school.effect
        effects["heads"] |= effect.heads
        effects["dress"] |= effect.dress
        deep = effect.below_ft is not None and facts["fish_depth_ft"] > effect.below_ft
        for family, tails in (effect.below if deep else effect.trailers).items():
            effects["trailers"][family] = {**effects["trailers"].get(family, {}), **tails}
            if school.id != topic.default and (own := frozenset(t for t, v in tails.items() if v >= 1.0)):
                effects["own"][family] = own
        for family, points in effect.favours.items():
            effects["favours"][family] = effects["favours"].get(family, 0.0) + points
        for family, rows in effect.ladder.items():
            effects["ladder"][family] = rung(rows, facts["fish_depth_ft"])
        for key, band in (("bulk_cm2", effect.bulk), ("fall_ft_s", effect.fall_ft_s)):
            if band is not None:
                effects[key] = band
        effects["lean"] = effects.get("lean", 1.0) * effect.lean
        effects["bulk_factor"] = effects.get("bulk_factor", 1.0) * effect.bulk_factor
        effects["lobbed"] = effects.get("lobbed", False) or effect.lobbed
        effects["bare"] = effects.get("bare", False) or effect.bare
    return Leaning(**effects)


#: From one rung to the next a ladder changes over so far (ft) either way of the depth that it names.
RUNG_FT = 0.75


def rung(rows: tuple[tuple[float, float], ...], depth_ft: float) -> float:
    """A ladder's weight (oz) at a depth: each rung down to its depth, evenly (in logs) from one to the next
    over ``RUNG_FT`` either way."""
    at = [edge + side * RUNG_FT for edge, _ in rows[:-1] for side in (-1.0, 1.0)]
    logs = [math.log(oz) for _, oz in rows for _ in (0, 1)][1:-1]
    return math.exp(float(np.interp(depth_ft, at, logs))) if at else rows[0][1]


def pace_factor(catalog: Catalog, picks: tuple[tuple[str, str], ...], family: str) -> float:
    """A school's factor on one family's pace (heavy and fast wants more)."""
    factor, schools = 1.0, chosen(catalog, picks)
    for topic in catalog.topics.values():
        of_family = tuple(clause for clause in topic.applies if clause.fact == "family" and not clause.turned)
        if of_family and holds(of_family, {"family": family}):
            factor *= schools[topic.id].effect.pace_factor
    return factor
