"""Which rigs to try: every listed head with every standard trailer, each at the length that suits it best.

The length is chosen in closed form (fall, action, bulk): it is a finer choice than the board shows, and
simulating each would cost more than it tells.
"""

from __future__ import annotations

import math
from dataclasses import replace

from heathdrop.catalog import Catalog, Family, Trailer
from heathdrop.physics.rig import Rig, lure_of, rig_by_name
from heathdrop.sizing.fit import LEAST_BULK_CM2, action_fit, action_of, within
from heathdrop.sizing.setting import Setting
from heathdrop.units import feet

#: Bottom lures and drops hold trailers of two appendages or more on edge when a rule turns them.
TURNED_FROM = 2


def standard_trailers(catalog: Catalog, bare: bool = False) -> list[str]:
    """Standard trailers, slim to bulky (by run drag area); ``bare`` adds the skirt alone."""
    rows = [t for t in catalog.trailers.values() if t.standard or (bare and t.bare)]
    return [t.id for t in sorted(rows, key=lambda t: t.run_drag_area_cm2)]


def lengths_of(family: Family, trailer: Trailer) -> tuple[float, ...]:
    """The lengths (in) a family's trailer of this shape is tried in: cut ones, else as they are sold."""
    if trailer.bare:
        return (0.0,)
    return family.plastic_in or trailer.lengths_in


def dressed(setting: Setting, head_oz: float, trailer: Trailer, length_in: float) -> Rig:
    """A standard rig as the rules and schools dress it here."""
    dress = dict(setting.liking.dress)
    if trailer.appendages < TURNED_FROM:
        dress.pop("orientation", None)
    if setting.catalog.skirts[setting.family.skirt].bare:
        dress.pop("skirt", None)
    return rig_by_name(
        setting.catalog,
        setting.family.id,
        head_oz,
        trailer.id,
        trailer_length_in=length_in,
        **dress,
    )


def standard_rigs(setting: Setting) -> list[Rig]:
    """The standard set of the setting's family: trailers × heads, each pair at its best length."""
    catalog, family = setting.catalog, setting.family
    found = []
    for id_ in standard_trailers(catalog, setting.leaning.bare or family.bare_too):
        trailer = catalog.trailers[id_]
        made = [dressed(setting, family.weights_oz[0], trailer, length) for length in lengths_of(family, trailer)]
        for oz in family.weights_oz:
            heads = [replace(rig, head_oz=oz) for rig in made]
            found.append(max(heads, key=lambda rig: quick_worth(setting, rig)) if len(heads) > 1 else heads[0])
    return found


def quick_worth(setting: Setting, rig: Rig) -> float:
    """A rig's promise without a cast: its fall, action, profile and weight against the targets, as a log."""
    catalog, targets = setting.catalog, setting.targets
    lure = lure_of(catalog, rig, setting.water.density_kg_m3, setting.temperature_f)
    weight = max(lure.net_weight_n, 1e-6)
    fall = feet(math.sqrt(2.0 * weight / (setting.water.density_kg_m3 * lure.fall_drag_area_m2)))
    numbers = catalog.judgement.fit
    parts = {
        "fall": within(fall, targets.fall_ft_s, numbers.fall_edge),
        "action": action_fit(catalog, rig, action_of(catalog, rig), targets),
        "profile": setting.liking.factors[rig.trailer.id]
        * within(max(rig.bulk_cm2, LEAST_BULK_CM2), targets.bulk_cm2, numbers.profile_edge),
        "weight": setting.weights.fit(rig.head_oz),
    }
    return sum(numbers.weights[k] * math.log(max(v, 1e-9)) for k, v in parts.items())
