"""Short cautions where they apply; each defers to local rules and qualified people."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import ROOFS
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.size import Rated

__all__ = ["Caution", "cautions_for"]

#: Water with less sight than this (ft) in the cold is blown out.
BLOWN_OUT_FT = 1.0


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
    if c.cover.kind in ROOFS and c.clarity_ft <= at.mud_ft:
        found.append(
            (
                "mud",
                "Mud is running in under this mat: they hunt by sight there, so leave it for a clear one.",
            )
        )
    hard = c.cover.row.within or c.cover.detail in ("riprap", "bluff")
    if c.wind_mph >= at.windy_mph or (hard and c.wind_mph >= at.windy_in_wood_mph):
        found.append(
            (
                "wind",
                "Wind near timber, riprap or a dam moves a boat faster than you think, and "
                "lightning gives no second chance: "
                "when in doubt, leave.",
            )
        )
    if c.light == "low":
        found.append(
            (
                "low-light",
                "Low light: run slowly, lights on, and keep clear of timber and stones that you cannot see.",
            )
        )
    if c.water_temp_f < at.cold_water_f and c.clarity_ft < BLOWN_OUT_FT:
        found.append(
            (
                "blown-out",
                "Blown out: timber floats in such water, and fish leave it; find some that ran clear.",
            )
        )
    if c.cover.detail == "standing-timber":
        found.append(
            (
                "timber",
                "Standing timber breaks and hides its own stumps: idle in, and never tie under dead limbs.",
            )
        )
    if c.water_temp_f >= at.hot_f:
        found.append(
            (
                "heat",
                "Heat: drink, cover up; warm water holds little air: fight fish briefly, release at once.",
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
        found.append(
            (
                "closed-season",
                "Bedding fish: seconds out of water, back where it was; some waters close the spawn, "
                "check the local rules.",
            )
        )
    return tuple(Caution(*row) for row in found)
