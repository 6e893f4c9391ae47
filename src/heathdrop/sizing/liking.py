"""Which trailers the rules and the schools like in this water: forage, cold and cover act on them here."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from heathdrop.catalog import Catalog, Family, Trailer
from heathdrop.conditions.facts import Facts, degree
from heathdrop.physics.rig import Rig
from heathdrop.sizing.leans import Tilt, tilt_of
from heathdrop.sizing.schools import Leaning

#: How far the day still tells the trailers apart that a school names together (a power on their liking).
AMONG_NAMED = 0.2


@dataclass(frozen=True)
class Liking:
    """A factor for each trailer of a family as rules, schools and the family have it, and the day's tilt; the
    best liked trailer at its best length has 1. ``named`` are the trailers of a school that is held to: the
    day does not tilt them, and nothing else stands before them."""

    factors: dict[str, float]
    tilt: Tilt
    least: float
    named: frozenset[str] = frozenset()

    def of(self, rig: Rig) -> float:
        """How well a rig's trailer is liked, 0 to 1."""
        if rig.trailer.id in self.named:
            return self.factors[rig.trailer.id]
        worth = self.factors[rig.trailer.id] * math.exp(self.tilt.of_rig(rig))
        return max(self.least, min(1.0, worth))


def pulls_of(catalog: Catalog, facts: Facts) -> dict[str, float]:
    """Log points of the rules for each trailer, each as far as its rule is true."""
    pulls = dict.fromkeys(catalog.trailers, 0.0)
    for rule in catalog.rules.values():
        if rule.trailers:
            how = degree(rule.when, facts)
            for trailer, points in rule.trailers.items():
                pulls[trailer] += how * points
    return pulls


def liking_of(
    catalog: Catalog,
    pulls: Mapping[str, float],
    family: Family,
    leaning: Leaning,
    leans: Mapping[str, float],
) -> Liking:
    """How well each trailer suits a family here. ``pulls`` are the rules' (:func:`pulls_of`), ``leans`` the
    day's."""
    least = catalog.judgement.schools.least_liking
    more = catalog.fitted.suits.get(family.id, {})
    worth = {
        t: math.exp(p + more.get(t, 0.0)) * family.suits.get(t, 1.0) * leaning.tail(family.id, t)
        for t, p in pulls.items()
    }
    bare = family.bare_too or leaning.bare
    tilt = tilt_of(catalog, family, leans)
    best = max(
        worth[t.id] * math.exp(tilt.of(t.action, bulk))
        for t in catalog.trailers.values()
        if t.standard or (t.bare and bare)
        for bulk in bulks_of(family, t)
    )
    named = leaning.named(family.id)
    if not named:
        return Liking({t: v / best for t, v in worth.items()}, tilt, least)
    first = max(worth[t] for t in named)
    factors = {
        t: (v / first) ** AMONG_NAMED if t in named else leaning.tail(family.id, t) * min(1.0, v / best)
        for t, v in worth.items()
    }
    return Liking(factors, tilt, least, named)


def bulks_of(family: Family, trailer: Trailer) -> list[float]:
    """The bulk (cm²) of a trailer at each length that the family is tried in."""
    if trailer.bare:
        return [0.0]
    lengths = family.plastic_in or trailer.lengths_in
    return [trailer.run_drag_area_cm2 * (length / trailer.length_in) ** 2 for length in lengths]
