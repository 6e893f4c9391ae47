"""Short cautions where they apply; each defers to local rules and qualified people."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.sizing.scenario import Scenario

COLD_WATER_F = 60.0
DEEP_FISH_FT = 20.0


@dataclass(frozen=True)
class Caution:
    id: str
    text: str


def cautions_for(scenario: Scenario, uses_lead: bool = True) -> tuple[Caution, ...]:
    """The cautions that apply to this water and tackle."""
    c = scenario.conditions
    found = []
    if c.water_temp_f < COLD_WATER_F:
        found.append(
            Caution(
                "cold-water",
                "Cold water: wear the life jacket and tell someone where you are; immersion disables within minutes.",
            )
        )
    if c.fish_depth_ft >= DEEP_FISH_FT:
        found.append(
            Caution(
                "deep-fish",
                "Fish from this depth suffer from pressure: bring them up gently, release at once, "
                "and use a descending device where local rules call for one.",
            )
        )
    found.append(Caution("hooks", "A heavy head pulled free flies back: glasses on, face away, never pull braid with bare hands."))
    if uses_lead:
        found.append(Caution("lead", "Lead: wash your hands; some waters restrict small lead, so check the local rules."))
    return tuple(found)
