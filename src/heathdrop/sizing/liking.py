"""Which trailers the rules and the schools like in this water: forage, cold and cover act on them here."""

from __future__ import annotations

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog, Family
from heathdrop.conditions.facts import Facts, degree
from heathdrop.sizing.schools import Leaning


@dataclass(frozen=True)
class Liking:
    """A factor 0..1 for each trailer of a family (1 for the best liked)."""

    factors: dict[str, float]


def pulls_of(catalog: Catalog, facts: Facts) -> dict[str, float]:
    """Log points of the rules for each trailer, each as far as its rule is true."""
    found = dict.fromkeys(catalog.trailers, 0.0)
    for rule in catalog.rules.values():
        if rule.trailers:
            how = degree(rule.when, facts)
            for trailer, points in rule.trailers.items():
                found[trailer] += how * points
    return found


def liking_of(catalog: Catalog, facts: Facts, family: Family, leaning: Leaning) -> Liking:
    """How well each trailer suits a family here. ``facts`` hold the family."""
    pulls = pulls_of(catalog, facts)
    least = catalog.judgement.schools.least_liking
    worth = {t: math.exp(p) * family.suits.get(t, 1.0) * leaning.tail(family.id, t) for t, p in pulls.items()}
    bare = family.bare_too or leaning.bare
    shown = [worth[t.id] for t in catalog.trailers.values() if t.standard or (t.bare and bare)]
    best = max(shown)
    return Liking({t: max(least, min(1.0, v / best)) for t, v in worth.items()})
