"""Short cautions where they apply; each defers to local rules and qualified people."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.size import Rated


@dataclass(frozen=True)
class Caution:
    id: str
    text: str


def cautions_for(catalog: Catalog, scenario: Scenario, rated: Rated | None = None) -> tuple[Caution, ...]:
    """The cautions that apply to this water and rig, the gravest first."""
    c, at = scenario.conditions, catalog.judgement.cautions
    rig = rated.rig if rated else None
    found = []
    if c.water_temp_f < at.cold_water_f:
        found.append(
            (
                "cold-water",
                "Cold water: wear the life jacket, tell someone where you are; immersion disables "
                "within minutes.",
            )
        )
    if c.fish_depth_ft >= at.deep_fish_ft:
        found.append(
            (
                "deep-fish",
                "Fish from this depth suffer from pressure: bring them up gently, release at once, "
                "and use a descending device where local rules call for one.",
            )
        )
    if c.wind_mph >= at.windy_mph or (c.cover.kind == "wood" and c.wind_mph >= at.windy_in_wood_mph):
        found.append(
            (
                "wind",
                "Wind near timber, riprap or a dam moves a boat faster than you think, and "
                "lightning gives no second chance: "
                "when in doubt, leave.",
            )
        )
    found.append(
        (
            "hooks",
            "A heavy head pulled free flies back: glasses on, face away, never pull braid with bare hands.",
        )
    )
    if rig is None or rig.head_material == catalog.materials["lead"]:
        found.append(
            (
                "lead",
                "Lead: wash your hands; some waters restrict small lead, so check the local rules, "
                "or use tungsten.",
            )
        )
    if rig is not None and rig.family.takes_trailer_hook:
        found.append(
            ("trailer-hook", "Trailer hooks and the number of hooks or lures: check the local rules.")
        )
    if c.season == "spawn":
        found.append(("closed-season", "Some waters close or limit the spawn: check the local rules."))
    return tuple(Caution(*row) for row in found)
