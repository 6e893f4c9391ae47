"""Which rigs to try: every listed head with every standard trailer of each family."""

from __future__ import annotations

from heathdrop.catalog import Catalog
from heathdrop.physics.rig import Rig, rig_by_name


def standard_trailers(catalog: Catalog) -> list[str]:
    """Standard trailers, slim to bulky (by run drag area)."""
    rows = [t for t in catalog.trailers.values() if t.standard]
    return [t.id for t in sorted(rows, key=lambda t: t.run_drag_area_cm2)]


def standard_rigs(catalog: Catalog, families: tuple[str, ...]) -> list[Rig]:
    """The standard set: families × heads × trailers, in that order."""
    return [
        rig_by_name(catalog, family, oz, trailer)
        for family in families
        for trailer in standard_trailers(catalog)
        for oz in catalog.families[family].weights_oz
    ]
