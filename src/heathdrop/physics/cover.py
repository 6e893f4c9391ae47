"""Cover: a calibrated index, not first principles.

Standing stems: a rig meets them in proportion to its width and its way; each
meeting may stop or foul it, so the odds of getting through are the exponential
of the expected stops. Mats: a logistic in the log of the weight that counts.
Wood and rock: expected hang-ups a cast, by family, kind and density.
"""

import math
from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import KIND, SNAGS, Kind
from heathdrop.physics.rig import Rig

#: Weights below these count as these, so that nothing divides by nothing.
LEAST_WEIGHT_N, LEAST_WEIGHT_OZ = 0.01, 1e-3


@dataclass(frozen=True)
class CoverOdds:
    """Chances 0..1: falls through to its depth, fouls on the retrieve, hangs up."""

    passes: float
    fouls: float
    hangs: float


CLEAR = CoverOdds(1.0, 0.0, 0.0)


@dataclass(frozen=True)
class Stand:
    """The cover a rig meets. Lengths ft, thickness in; ``lobbed`` for a high, loud entry into a mat."""

    kind: str
    density: str = "moderate"
    texture: str | None = None
    thickness_in: float | None = None
    detail: str | None = None
    lobbed: bool = False

    @property
    def row(self) -> Kind:
        """All that goes by its kind."""
        return KIND[self.kind]


def _wood_of(catalog: Catalog, stand: Stand) -> str:
    """What wood a cover is of: a kind that is one of them itself (docks), else as told, else the usual."""
    wood = catalog.cover.wood
    return stand.kind if stand.kind in wood.kinds else stand.detail or wood.usual


def meetings_per_ft(catalog: Catalog, stand: Stand) -> float:
    """Stems met per foot of way (stems/ft² times width in ft)."""
    grass = catalog.cover.grass
    return catalog.cover.stems.share[stand.kind] * grass.stems_per_ft2[stand.density] * grass.width_ft


def _stem_odds(
    catalog: Catalog, rig: Rig, net_weight_n: float, stand: Stand, fall_in_ft: float, swim_in_ft: float
) -> CoverOdds:
    """Odds among standing stems for a fall of ``fall_in_ft`` and a swim of ``swim_in_ft`` inside them."""
    meets = meetings_per_ft(catalog, stand)
    grass, stems = catalog.cover.grass, catalog.cover.stems
    catching = grass.catching_base + rig.trailer.catching
    blunt = grass.bluntness - rig.head_shape.slenderness
    stops = meets * fall_in_ft * grass.stop_scale * catching * blunt / max(net_weight_n, LEAST_WEIGHT_N)
    sticks = meets * swim_in_ft * rig.family.weed_meeting * (1.0 + grass.gathers * rig.trailer.catching)
    if rig.family.open_hook:
        sticks *= stems.open_hook.get(stand.kind, 1.0)
    if rig.trailer.appendages == 2:
        sticks *= stems.two_tails.get(stand.kind, 1.0)
    return CoverOdds(math.exp(-stops), 1.0 - math.exp(-sticks), 0.0)


def top_ft(catalog: Catalog, stand: Stand, bottom_ft: float, told_ft: float | None) -> float | None:
    """Depth (ft) of the cover's top: as told, else as such cover stands in ``bottom_ft`` of water; None in
    open water."""
    if not stand.row.does:
        return None
    if told_ft is not None:
        return told_ft
    if stand.row.does == "stone":
        rock = catalog.cover.rock
        return max(0.0, bottom_ft - rock.height_ft[stand.detail or rock.usual])
    if stand.row.does == "wood":
        return (1.0 - catalog.cover.wood.rises[_wood_of(catalog, stand)]) * bottom_ft
    return 0.0


def halfway_oz(catalog: Catalog, stand: Stand) -> float:
    """The weight (oz) that goes through this mat every second time, entered quietly."""
    mats = catalog.cover.mats
    texture = mats.textures[stand.texture or mats.usual_texture]
    thick = mats.usual_thickness_in if stand.thickness_in is None else stand.thickness_in
    return texture.base_oz + texture.per_in_oz * thick


def counting_oz(rig: Rig) -> float:
    """The weight (oz) that counts against a mat: less for what catches and for wide heads."""
    return rig.head_oz * rig.trailer.punching * rig.head_shape.mat_width


def mat_odds(
    catalog: Catalog, rig: Rig, stand: Stand, swim_in_ft: float = 0.0, halfway: float | None = None
) -> CoverOdds:
    """Odds against a mat: the entry, and what a reeled lure gathers in ``swim_in_ft`` of it.

    ``halfway`` (oz) is this mat's own half-way weight when it has been learned.
    """
    mats = catalog.cover.mats
    w50 = halfway_oz(catalog, stand) if halfway is None else halfway
    weight = counting_oz(rig) * (mats.lobbed if stand.lobbed else 1.0)
    passes = 1.0 / (1.0 + math.exp(-mats.steepness * math.log(max(weight, LEAST_WEIGHT_OZ) / w50)))
    sticks = mats.reeled_stems_per_ft * swim_in_ft * rig.family.weed_meeting
    sticks *= 1.0 + catalog.cover.grass.gathers * rig.trailer.catching
    return CoverOdds(passes, 1.0 - math.exp(-sticks), 0.0)


def _lead_oz(catalog: Catalog, rig: Rig) -> float:
    """The weight (oz) of a lead head as wide as the rig's: tungsten is slimmer than its weight."""
    lead = catalog.materials[catalog.cover.rock.wedge_of]
    return rig.head_oz * lead.density_g_cm3 / rig.head_material.density_g_cm3


def _hang_odds(catalog: Catalog, rig: Rig, stand: Stand, touching: float = 1.0) -> CoverOdds:
    """Chance a cast hangs in wood, docks or rock; it is in or on it for the share ``touching`` of its way."""
    if stand.row.does == "stone":
        rock = catalog.cover.rock
        wedge = _lead_oz(catalog, rig) / rock.wedge_oz
        wedge **= rock.wedge_power if rig.head_shape.wedges else rock.rocks_over_power
        hangs = rig.family.rock_hang * rock.kinds[stand.detail or rock.usual] * wedge
        return CoverOdds(1.0, 0.0, 1.0 - math.exp(-hangs * touching))
    wood = catalog.cover.wood
    hangs = rig.family.wood_hang * wood.kinds[_wood_of(catalog, stand)] * wood.density[stand.density]
    if rig.trailer.appendages >= 2:
        # Laid flat the arms right it; on edge they do half of it.
        hangs *= rig.family.two_right ** (1.0 if rig.orientation.id == wood.right_way else 0.5)
    return CoverOdds(1.0, 0.0, 1.0 - math.exp(-hangs * touching))


def cover_odds(
    catalog: Catalog,
    rig: Rig,
    net_weight_n: float,
    stand: Stand,
    fall_in_ft: float,
    swim_in_ft: float,
    mat_factor: float = 1.0,
    touching: float = 1.0,
) -> CoverOdds:
    """Odds for any kind of cover; open water is clear. ``mat_factor`` is what was learned of this mat's
    half-way weight, ``touching`` the share of its way that a lure is in or on wood, docks or rock."""
    if stand.row.does == "stems":
        return _stem_odds(
            catalog, rig, net_weight_n=net_weight_n, stand=stand, fall_in_ft=fall_in_ft, swim_in_ft=swim_in_ft
        )
    if stand.row.does == "mat":
        return mat_odds(catalog, rig, stand, swim_in_ft, mat_factor * halfway_oz(catalog, stand))
    if stand.kind in SNAGS:
        return _hang_odds(catalog, rig, stand, touching)
    return CLEAR
