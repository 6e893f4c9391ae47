"""How a rig is dressed besides head and trailer: its skirt, what its plastic is poured of, how its trailer is
turned, its blades, what its head is cast of. Rules and schools settle it, and the rig is simulated so.

None is a candidate of its own: over random waters another dress hardly ever moves a rig's score by more than
the noise of a score (docs/judgement.md).
"""

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
    return {
        "orientation": rig.orientation.id,
        "skirt": rig.skirt.id,
        "plastic": rig.plastic.id,
        "blades": rig.blades.id if rig.blades else "",
        "head_material": rig.head_material.id,
    }


def dresses_of(catalog: Catalog, facts: Facts, family: Family, leaning: Leaning) -> dict[str, Dress]:
    """For each trailer, what rules and schools settle of a rig of the family with it: the strongest rule that
    holds, a chosen school before it. ``facts`` hold the family."""
    family_facts = {**facts, "skirt": family.skirt}
    # What a rule asks of the water is the same for every trailer.
    there = [
        (tuple(clause for clause in rule.when if clause.fact == "trailer"), rule)
        for rule in sorted((r for r in catalog.rules.values() if r.dress), key=lambda r: r.strength)
        if holds(tuple(clause for clause in rule.when if clause.fact != "trailer"), family_facts)
    ]
    dresses = {}
    for trailer in catalog.trailers.values():
        said: dict[DressPart, str] = {}
        for of_trailer, rule in there:
            if holds(of_trailer, {"trailer": trailer.id}):
                said |= rule.dress
        dresses[trailer.id] = _wearable(catalog, family, trailer, said | leaning.dress)
    return dresses


def _wearable(catalog: Catalog, family: Family, trailer: Trailer, said: Dress) -> Dress:
    """What of a dress such a rig can wear: nothing that it has not, and no skirt fuller than its own."""
    skirts = catalog.skirts
    own = skirts[family.skirt].fall_drag_area_cm2
    hung = catalog.blades.get(said.get("blades", ""))
    can = {
        "blades": hung is not None and hung.hangs == family.blade,
        "head_material": True,
        "orientation": trailer.appendages >= TURNED_FROM,
        "plastic": not trailer.bare,
        "skirt": "skirt" in said and skirts[said["skirt"]].fall_drag_area_cm2 < own,
    }
    return {part: word for part, word in said.items() if can[part]}
