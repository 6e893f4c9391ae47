"""Finishing the rig: what the rules and the chosen schools settle about everything but head and trailer
size."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.advice.rules import rig_facts, spoken
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import SLOTS
from heathdrop.physics.rig import Rig
from heathdrop.sizing.schools import applying, chosen
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet


@dataclass(frozen=True)
class Settled:
    """One thing settled: its slot and label, what, who says so (rule or school) and the reason."""

    slot: str
    label: str
    text: str
    source: str
    because: str


def has_part(slot: str, rig: Rig) -> bool:
    """Whether a rig has such a part at all."""
    if slot == "orientation":
        return rig.trailer.appendages >= 2
    if slot in ("blades", "blade_finish"):
        return rig.family.blade != ""
    if slot == "trailer_hook":
        return rig.family.takes_trailer_hook
    if slot == "guard":
        return rig.family.guarded
    return not rig.skirt.bare if slot == "skirt" else True


def finish_of(catalog: Catalog, sizing: Sizing, rated: Rated) -> tuple[Settled, ...]:
    """Every slot that applies to the rig, settled by the strongest rule; a chosen school goes before
    rules."""
    facts = rig_facts(sizing, rated)
    family = rated.rig.family
    found: dict[str, Settled] = {}
    schools = chosen(catalog, sizing.scenario.schools)

    def settle(slot: str, text: str, source: str, because: str) -> None:
        found.setdefault(slot, Settled(slot, SLOTS[slot], text, source, because))

    for topic in applying(catalog, facts):
        effect = schools[topic.id].effect
        for slot, text in effect.finish.items():
            settle(slot, text, f"school: {schools[topic.id].name}", schools[topic.id].says)
        if effect.by_clarity is not None:
            murky = sizing.facts["clarity_ft"] < catalog.judgement.targets.clear_ft
            metal = effect.by_clarity.under_4 if murky else effect.by_clarity.over_4
            bright = any(r.finish.get("blade_finish") == "painted or dull" for r in spoken(catalog, facts))
            text = f"{metal}, painted or dull" if bright else metal
            settle("blade_finish", text, f"school: {schools[topic.id].name}", schools[topic.id].says)
    for rule in spoken(catalog, facts):
        for slot, text in rule.finish.items():
            settle(
                slot, "on edge" if (slot, text) == ("orientation", "vertical") else text, rule.name, rule.says
            )
    settle("line", family.line, "Line by the job", catalog.rules["line-for-the-family"].says)
    settle(
        "reel",
        _turns(sizing, rated),
        "Pace in turns",
        "Inches of line per turn times turns a second is the pace.",
    )
    return tuple(found[slot] for slot in SLOTS if slot in found and has_part(slot, rated.rig))


def _turns(sizing: Sizing, rated: Rated) -> str:
    gear = sizing.scenario.gear
    turns = gear.turns_per_s(feet(rated.tuned.pace_m_s)) * 10
    return f"{turns:.0f} turns in 10 s at {gear.reel.inches_per_turn:g} in a turn"
