"""How a rig is dressed besides head and trailer: its skirt, what its plastic is poured of, how its trailer is
turned. Rules and schools settle it, and the rig is simulated as they say.

None of the three is a candidate of its own: over random waters the best dress moves a rig's score by less
than the noise of a score (docs/judgement.md).
"""

from __future__ import annotations

from collections.abc import Mapping

from heathdrop.catalog import Catalog, Family, Trailer
from heathdrop.catalog.records import DressPart
from heathdrop.conditions.facts import Facts, holds
from heathdrop.physics.rig import Rig
from heathdrop.sizing.schools import Leaning

#: Fewer appendages than this cannot be turned on edge.
TURNED_FROM = 2

Dress = Mapping[DressPart, str]


def worn_by(rig: Rig) -> Dress:
    """The dress of a rig."""
    return {"orientation": rig.orientation.id, "skirt": rig.skirt.id, "plastic": rig.plastic.id}


def settled(catalog: Catalog, facts: Facts, family: Family, leaning: Leaning, trailer: Trailer) -> Dress:
    """What rules and schools settle of a rig with this trailer: the strongest rule that holds, a chosen
    school before it; nothing that such a rig has not, and no skirt fuller than its own. ``facts`` hold the
    family."""
    known = {**facts, "trailer": trailer.id, "skirt": family.skirt}
    found: dict[DressPart, str] = {}
    for rule in sorted(catalog.rules.values(), key=lambda r: -r.strength):
        if rule.dress and holds(rule.when, known):
            found = {**rule.dress, **found}
    found |= leaning.dress
    skirts = catalog.skirts
    own = skirts[family.skirt].fall_drag_area_cm2
    can = {
        "orientation": trailer.appendages >= TURNED_FROM,
        "plastic": not trailer.bare,
        "skirt": "skirt" in found and skirts[found["skirt"]].fall_drag_area_cm2 < own,
    }
    return {part: word for part, word in found.items() if can[part]}
