"""The call: which presentation and family for this water, with the reasons for and against each."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from heathdrop.advice.doubt import doubted
from heathdrop.advice.rules import family_facts
from heathdrop.advice.why import limit_sentence
from heathdrop.catalog import Catalog, Family, Rule
from heathdrop.conditions.facts import Facts, degree
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.sizing.candidates import promise
from heathdrop.sizing.hits import missed_by
from heathdrop.sizing.knowledge import UNTAUGHT, Knowledge
from heathdrop.sizing.presentation import presented
from heathdrop.sizing.schools import Leaning, leaning_of
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Rated, Sizing

#: Families shown when the caller left them to us.
CALLED = 4
#: What yields stands so far behind what it yields to, as a factor.
BEHIND = 0.999
#: Points smaller than this are no reason worth saying.
WORTH_SAYING = 0.05


@dataclass(frozen=True)
class Standing:
    """One family's standing: the fit of its best rig, the rules' points, both together. ``yields`` are log
    points given up by a rig that is doubted, so that it stands behind one that fits as well without;
    ``missed`` how many of the targets that are set its best rig misses, and by how much."""

    family: Family
    best: Rated
    sizing: Sizing
    fit: float
    points: float
    standing: float
    presentation: str
    fors: tuple[Rule, ...]
    againsts: tuple[Rule, ...]
    model: str
    doubted: bool = False
    yields: float = 0.0
    missed: tuple[int, float] = (0, 0.0)


@dataclass(frozen=True)
class Call:
    """Families, best standing first, and those set aside with the reason in words."""

    standings: tuple[Standing, ...]
    aside: tuple[tuple[Family, str], ...] = ()

    @property
    def family(self) -> str:
        """The family called."""
        return self.standings[0].family.id


def call(
    catalog: Catalog,
    scenario: Scenario,
    sized: Callable[[Scenario], Sizing],
    knowledge: Knowledge = UNTAUGHT,
    places: int | None = None,
) -> Call:
    """Size the families that the scenario allows (all when it names none) and rank them: the fit of a
    family's best rig times e to the rules' points. ``sized`` sizes one family. Raises BadInput.

    With ``places`` only families that may stand among so many are sized: one whose most promising rig,
    everything else perfect, would not reach them is left out. Every place given is the same as without.
    """
    check(scenario)
    alone = [replace(scenario, families=(f,)) for f in scenario.families or tuple(catalog.families)]
    if places is None or scenario.box != "standard":
        sized_up = [_standing(catalog, sized(one)) for one in alone]
        return Call(yielded(_in_order(sized_up)))
    promised = [(_promised(catalog, setting_of(catalog, one, knowledge)), one) for one in alone]
    promised.sort(key=lambda row: -row[0])
    sized_up = []
    for most, one in promised:
        order = _in_order(sized_up)
        # Who leads in doubt may yield to any that is called.
        wanted = max(places, CALLED) if order and order[0].doubted else places
        if scenario.wanted.yours:
            # Targets that are set are looked for until a family does them all.
            if len(sized_up) >= max(places, CALLED) and not order[0].missed[0]:
                break
        elif len(sized_up) >= wanted and most < order[wanted - 1].standing:
            break
        sized_up.append(_standing(catalog, sized(one)))
    order = yielded(_in_order(sized_up))
    left = [setting_of(catalog, one, knowledge) for _, one in promised[len(sized_up) :]]
    aside = [
        (s.family, reason_against(catalog, s.sizing.facts, s.sizing.scenario, s.family))
        for s in order[places:]
    ]
    aside += [(s.family, reason_against(catalog, s.facts, s.scenario, s.family)) for s in left]
    return Call(order[:places], tuple(aside))


def reason_against(catalog: Catalog, water: Facts, scenario: Scenario, family: Family) -> str:
    """The name of the rule that weighs most against a family; that others stand better when none does."""
    weighed, _ = points_of(catalog, water, scenario, family)
    rule, points = min(weighed, key=lambda row: row[1], default=(None, 0.0))
    return rule.name if rule is not None and points < 0.0 else "Others stand better"


def _in_order(standings: Sequence[Standing]) -> tuple[Standing, ...]:
    return tuple(sorted(standings, key=lambda s: (s.missed, -s.standing, -s.fit, s.family.id)))


def yielded(order: tuple[Standing, ...]) -> tuple[Standing, ...]:
    """Standings in which none that is doubted leads while another of the called ones fits as well without:
    that one goes first, who stood ahead of it close behind."""
    first = order[0]
    alike = [s for s in order[:CALLED] if s.missed == first.missed]
    sure = next((s for s in alike if not s.doubted and s.fit >= first.fit), first)
    if not first.doubted or sure is first:
        return order
    ordered, at = [sure], order.index(sure)
    for s in order[:at]:
        standing = min(s.standing, BEHIND * ordered[-1].standing)
        ordered.append(replace(s, standing=standing, yields=math.log(standing / s.standing)))
    return _in_order([*ordered, *order[at + 1 :]])


def _promised(catalog: Catalog, setting: Setting) -> float:
    """The standing that no rig of the setting's family can pass."""
    weighed, school = points_of(catalog, setting.facts, setting.scenario, setting.family, setting.leaning)
    return promise(setting) * math.exp(sum(p for _, p in weighed) + school)


def points_of(
    catalog: Catalog, water: Facts, scenario: Scenario, family: Family, leaning: Leaning | None = None
) -> tuple[list[tuple[Rule, float]], float]:
    """The rules that weigh for or against a family here with their log points, each as far as it is true;
    and the points of the schools, whose ``leaning`` may be known already."""
    facts = family_facts(water, family)
    weighed = [
        (rule, degree(rule.when, facts) * rule.favours[family.id])
        for rule in catalog.rules.values()
        if rule.favours.get(family.id)
    ]
    leaning = leaning or leaning_of(catalog, scenario.schools, facts)
    school = leaning.favours.get(family.id, 0.0)
    return [(rule, points) for rule, points in weighed if points], school


def _standing(catalog: Catalog, sizing: Sizing) -> Standing:
    best = sizing.rigs[0]
    family = best.rig.family
    weighed, school = points_of(catalog, sizing.facts, sizing.scenario, family)
    points = sum(p for _, p in weighed) + school
    by_weight = sorted(weighed, key=lambda row: -abs(row[1]))
    said = [(rule, p) for rule, p in by_weight if abs(p) >= WORTH_SAYING]
    return Standing(
        family=family,
        best=best,
        sizing=sizing,
        fit=best.fits.score,
        points=points,
        standing=best.fits.score * math.exp(points),
        presentation=presented(catalog, family_facts(sizing.facts, family), best),
        fors=tuple(rule for rule, p in said if p > 0),
        againsts=tuple(rule for rule, p in said if p < 0),
        model=limit_sentence(sizing, best),
        doubted=doubted(catalog, sizing, best),
        missed=missed_by(sizing.scenario.wanted, best),
    )
