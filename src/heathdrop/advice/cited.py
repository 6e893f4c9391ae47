"""The advice that goes with an answer: rules, schools and what the model found, marked which is which."""

from dataclasses import dataclass, replace

from heathdrop.advice.finish import has_part
from heathdrop.advice.rules import rig_facts, spoken
from heathdrop.advice.why import limit_sentence
from heathdrop.catalog import Catalog, Effect, Rule
from heathdrop.physics.rig import Rig
from heathdrop.sizing.schools import applying, chosen
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.units import ounces_as_written

#: Rules cited at most, so that the strong ones are read.
MOST = 9
#: What a school without an effect holds.
NO_EFFECT = Effect()


@dataclass(frozen=True)
class Cited:
    """One piece of advice. ``kind`` is rule, school or model; ``school`` names the school of a topic."""

    kind: str
    name: str
    sentence: str
    school: str | None = None
    rule_id: str | None = None


def _concerns(rule: Rule, rig: Rig) -> bool:
    """Whether a rule is about this rig: its trailer where it speaks of trailers, else its family, a part it
    has, or rigs at large. What the rig does not show is not said beside it."""
    if rule.trailers and rule.trailers.get(rig.trailer.id, 0.0) <= 0.0:
        return False
    if rule.favours:
        return bool(rule.favours.get(rig.family.id)) or bool(rule.trailers)
    if rule.finish:
        return any(has_part(slot, rig) for slot in rule.finish)
    return True


def advice_for(catalog: Catalog, sizing: Sizing, rated: Rated, most: int = MOST) -> tuple[Cited, ...]:
    """What speaks for this rig in this water: the model first, then rules strongest first, then schools."""
    facts = rig_facts(catalog, sizing, rated)
    advice = [Cited("model", "The simulation", limit_sentence(sizing, rated))]
    rules = [r for r in spoken(catalog, facts) if _concerns(r, rated.rig)]
    advice += [Cited("rule", r.name, r.says, None, r.id) for r in rules[:most]]
    schools = chosen(catalog, sizing.scenario.schools)
    for topic in applying(catalog, facts):
        school = schools[topic.id]
        # A default that changes nothing has nothing to say.
        if school.id != topic.default or school.effect != NO_EFFECT:
            advice.append(Cited("school", topic.name, school.says, school.name))
    own = without_schools(catalog, sizing, rated)
    if own:
        advice.append(Cited("model", "Without your school", own))
    return tuple(advice)


def without_schools(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """What would be tied on if no school were held to, in one sentence; nothing where it is the same rig, or
    where the angler holds to none."""
    topics, scenario = catalog.topics, sizing.scenario
    if all(school == topics[topic].default for topic, school in scenario.schools):
        return ""
    alone = replace(scenario, schools=(), families=(rated.rig.family.id,))
    best = size(catalog, alone, knowledge=sizing.knowledge).rigs[0]
    here, there = ((r.rig.head_oz, r.rig.trailer.id, r.rig.trailer_length_in) for r in (rated, best))
    if here == there:
        return ""
    return (
        f"Without it, by its own numbers: {ounces_as_written(best.rig.head_oz)} oz "
        f"{best.rig.family.name} with "
        f"a {best.rig.trailer.name} (fit {best.fits.score * 100:.0f})."
    )
