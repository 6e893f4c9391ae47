"""The call: which presentation and family for this water, with the reasons for and against each."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from heathdrop.advice.rules import family_facts, spoken
from heathdrop.advice.why import limit_sentence
from heathdrop.catalog import Catalog, Family, Rule
from heathdrop.conditions.facts import Facts
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.candidates import screening_rigs
from heathdrop.sizing.known import UNTAUGHT, Knowledge
from heathdrop.sizing.schools import leaning_of
from heathdrop.sizing.size import Rated, Sizing, size

#: Families sized in full when the caller left them to us.
CALLED = 4


@dataclass(frozen=True)
class Standing:
    """One family's standing: the model's fit of its best screened rig, the rules' points, both together."""

    family: Family
    best: Rated
    fit: float
    points: float
    standing: float
    presentation: str
    fors: tuple[Rule, ...]
    againsts: tuple[Rule, ...]
    model: str


@dataclass(frozen=True)
class Call:
    """All families, best standing first, and the sizing they were screened in."""

    standings: tuple[Standing, ...]
    sizing: Sizing

    @property
    def family(self) -> str:
        """The family called."""
        return self.standings[0].family.id


def presentation_of(catalog: Catalog, family: Family, facts: Facts) -> str:
    """How a family is fished in this water: drag, shake, hop, swim, slow-roll, burn, pitch or punch."""
    at = catalog.judgement.presentation
    cold, deep, mood = facts["temp_f"] < at.cold_f, facts["fish_depth_ft"] >= at.deep_ft, facts["activity"]
    if family.work == "drop":
        return family.drop_way
    if family.work == "bottom":
        if mood < at.shake_below or family.bottom_way == "shake":
            return "shake"
        return "drag" if cold or family.bottom_way == "drag" else "hop"
    if family.slow_rolled and (deep or mood < at.slow_below):
        return "slow-roll"
    return "burn" if mood >= at.burn_from and not deep else "swim"


def call(catalog: Catalog, scenario: Scenario, known: Knowledge = UNTAUGHT) -> Call:
    """Screen every family and rank them: model fit times e to the rules' points. Raises BadInput."""
    families = tuple(catalog.families)
    sizing = size(
        catalog,
        replace(scenario, families=families),
        screening_rigs(catalog, families),
        refine=False,
        known=known,
    )
    best: dict[str, Rated] = {}
    for rated in sizing.rigs:
        best.setdefault(rated.rig.family.id, rated)
    standings = [_standing(catalog, sizing, best[f]) for f in families]
    return Call(tuple(sorted(standings, key=lambda s: (-s.standing, s.family.id))), sizing)


def _standing(catalog: Catalog, sizing: Sizing, best: Rated) -> Standing:
    family = best.rig.family
    facts = family_facts(sizing.facts, family)
    weighed = [r for r in spoken(catalog, facts) if r.favours.get(family.id)]
    school = leaning_of(catalog, sizing.scenario.schools, facts).favours.get(family.id, 0.0)
    points = sum(r.favours[family.id] for r in weighed) + school
    by_weight = sorted(weighed, key=lambda r: -abs(r.favours[family.id]))
    return Standing(
        family=family,
        best=best,
        fit=best.fits.score,
        points=points,
        standing=best.fits.score * math.exp(points),
        presentation=presentation_of(catalog, family, facts),
        fors=tuple(r for r in by_weight if r.favours[family.id] > 0),
        againsts=tuple(r for r in by_weight if r.favours[family.id] < 0),
        model=limit_sentence(sizing, best),
    )
