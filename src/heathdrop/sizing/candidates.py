"""Which rigs to try: every listed head with every standard trailer of each family."""

from __future__ import annotations

from collections.abc import Mapping

from heathdrop.catalog import Catalog
from heathdrop.physics.rig import Rig, rig_by_name
from heathdrop.sizing.schools import NEUTRAL, Leaning

#: Tried beside a family's usual trailer when families are compared: the middle of the row, or the slim end
#: of it.
SCREENED, SCREENED_ELSE = "small-craw", "beaver"


def standard_trailers(catalog: Catalog, bare: bool = False) -> list[str]:
    """Standard trailers, slim to bulky (by run drag area); ``bare`` adds the skirt alone."""
    rows = [t for t in catalog.trailers.values() if t.standard or (bare and t.bare)]
    return [t.id for t in sorted(rows, key=lambda t: t.run_drag_area_cm2)]


def standard_rigs(
    catalog: Catalog, families: tuple[str, ...], leanings: Mapping[str, Leaning] | None = None
) -> list[Rig]:
    """The standard set: families × trailers × heads, in that order, turned as the schools hold."""
    found = []
    for family in families:
        leaning = (leanings or {}).get(family, NEUTRAL)
        turned = leaning.orientation.get(family)
        for trailer in standard_trailers(catalog, leaning.bare):
            on_edge = turned if catalog.trailers[trailer].appendages == 2 else None
            for oz in catalog.families[family].weights_oz:
                found.append(rig_by_name(catalog, family, oz, trailer, orientation=on_edge))
    return found


def screening_rigs(catalog: Catalog, families: tuple[str, ...]) -> list[Rig]:
    """A thin set to compare families by: every second head with the usual trailer and one other."""
    found = []
    for family in families:
        usual = catalog.families[family].usual_trailer
        for trailer in (usual, SCREENED if usual != SCREENED else SCREENED_ELSE):
            found += [
                rig_by_name(catalog, family, oz, trailer) for oz in catalog.families[family].weights_oz[1::2]
            ]
    return found
