"""Which rules of the trade speak for a water and a rig."""

from heathdrop.advice.why import runs
from heathdrop.catalog import Catalog, Family, Rule
from heathdrop.conditions.facts import Facts, holds
from heathdrop.sizing.presentation import presented
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet


def family_facts(facts: Facts, family: Family) -> Facts:
    """The facts with a family put to them."""
    return {**facts, "family": family.id, "work": family.work}


def rig_facts(catalog: Catalog, sizing: Sizing, rated: Rated) -> Facts:
    """The facts with a rated rig put to them."""
    rig = rated.rig
    return {
        **family_facts(sizing.facts, rig.family),
        "head_oz": rig.head_oz,
        "way": presented(catalog, sizing.facts, rated),
        "skirt": rig.skirt.id,
        "head_shape": rig.head_shape.id,
        "trailer": rig.trailer.id,
        "appendages": rig.trailer.appendages,
        "bulk_cm2": rig.bulk_cm2,
        "pace_ft_s": feet(rated.tuned.pace_m_s),
        "runs": runs(sizing, rated),
        "fouls": rated.cover.fouls,
        "hangs": rated.cover.hangs,
        "passes": rated.cover.passes,
    }


def spoken(catalog: Catalog, facts: Facts) -> list[Rule]:
    """The rules that hold for the facts, strongest first."""
    rules = [rule for rule in catalog.rules.values() if holds(rule.when, facts)]
    return sorted(rules, key=lambda r: -r.strength)
