"""Short cautions where they apply; each defers to local rules and qualified people."""

from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import ROOFS
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.size import Rated

#: Cold water with less sight than this (ft) is blown out; colder than this (°F) it may carry ice.
BLOWN_OUT_FT, ICE_F = 1.0, 38.0
#: From this warm (°F) on heat builds storms; heads from this heavy (oz) on are lobbed with care.
STORMS_F, HEAVY_LOB_OZ = 78.0, 1.5


@dataclass(frozen=True)
class Caution:
    id: str
    text: str


def cautions_for(catalog: Catalog, scenario: Scenario, rated: Rated | None = None) -> tuple[Caution, ...]:
    """The cautions that apply to this water and rig, the gravest first."""
    c, at = scenario.conditions, catalog.judgement.cautions
    rig = rated.rig if rated else None
    cold, lobbed = c.water_temp_f < at.cold_water_f, dict(scenario.schools).get("mat-entry") == "lobbed"
    hard = c.cover.row.within or c.cover.detail in ("riprap", "bluff")
    rows = (
        (
            cold,
            "cold-water",
            "Cold water: wear the life jacket, tell someone where you are; immersion disables "
            "within minutes.",
        ),
        (
            c.water_temp_f < ICE_F,
            "ice",
            "Ice: keep off it and out of it; wading or on a frosted deck, one slip is enough. Not alone.",
        ),
        (
            c.front == "coming" or (c.water_temp_f >= STORMS_F and c.light == "overcast"),
            "lightning",
            "Lightning: a long rod on open water is the highest thing. At the first thunder, "
            "rods down and off "
            "the water.",
        ),
        (
            c.fish_depth_ft >= at.deep_fish_ft,
            "deep-fish",
            "Fish from this depth suffer from pressure: bring them up gently, release at once, and use a "
            "descending device where local rules call for one.",
        ),
        (
            c.cover.kind in ROOFS and c.clarity_ft <= at.mud_ft,
            "mud",
            "Mud is running in under this mat: they hunt by sight there, so leave it for a clear one.",
        ),
        (
            c.wind_mph >= at.windy_mph or (hard and c.wind_mph >= at.windy_in_wood_mph),
            "wind",
            "Wind near timber, riprap or a dam moves a boat faster than you think: when in doubt, leave.",
        ),
        (
            c.light == "low",
            "low-light",
            "Low light: run slowly, lights on, and keep clear of timber and stones that you cannot see.",
        ),
        (
            cold and c.clarity_ft < BLOWN_OUT_FT,
            "blown-out",
            "Blown out: timber floats in such water, and fish leave it; find some that ran clear.",
        ),
        (
            c.cover.detail == "standing-timber",
            "timber",
            "Standing timber breaks and hides its own stumps: idle in, and never tie under dead limbs.",
        ),
        (
            c.water_temp_f >= at.hot_f,
            "heat",
            "Heat: drink, cover up; warm water holds little air: fight fish briefly, release at once.",
        ),
        (
            lobbed and (rig is None or rig.head_oz >= HEAVY_LOB_OZ),
            "lobbed",
            "A heavy head lobbed high comes down anywhere: nobody within a rod's length of it, "
            "hats and glasses on.",
        ),
        (
            True,
            "hooks",
            "Look behind before every cast. A heavy head pulled free flies back: glasses on, "
            "face away, never pull "
            "braid with bare hands; a hook that is in past the barb is a doctor's.",
        ),
        (
            rig is None or rig.head_material == catalog.materials["lead"],
            "lead",
            "Lead: wash your hands; some waters restrict small lead, so check the local rules, "
            "or use tungsten.",
        ),
        (
            rig is not None and rig.family.takes_trailer_hook,
            "trailer-hook",
            "Trailer hooks and the number of hooks or lures: check the local rules.",
        ),
        (
            c.season == "spawn",
            "closed-season",
            "Bedding fish: seconds out of water, back where it was; some waters close the "
            "spawn, check the local "
            "rules.",
        ),
        (
            True,
            "rules",
            "Under way the life jacket is on, in any water. Length and bag limits: check the local rules.",
        ),
    )
    return tuple(Caution(id_, text) for applies, id_, text in rows if applies)
