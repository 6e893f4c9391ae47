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
    applies = {
        "cold-water": cold,
        "ice": c.water_temp_f < ICE_F,
        "lightning": c.front == "coming" or (c.water_temp_f >= STORMS_F and c.light == "overcast"),
        "deep-fish": c.fish_depth_ft >= at.deep_fish_ft,
        "mud": c.cover.kind in ROOFS and c.clarity_ft <= at.mud_ft,
        "wind": c.wind_mph >= at.windy_mph or (hard and c.wind_mph >= at.windy_in_wood_mph),
        "low-light": c.light == "low",
        "blown-out": cold and c.clarity_ft < BLOWN_OUT_FT,
        "timber": c.cover.detail == "standing-timber",
        "heat": c.water_temp_f >= at.hot_f,
        "lobbed": lobbed and (rig is None or rig.head_oz >= HEAVY_LOB_OZ),
        "hooks": True,
        "lead": rig is None or rig.head_material == catalog.materials["lead"],
        "trailer-hook": rig is not None and rig.family.takes_trailer_hook,
        "closed-season": c.season == "spawn",
        "rules": True,
    }
    return tuple(Caution(id_, text) for id_, text in catalog.words.cautions.items() if applies[id_])
