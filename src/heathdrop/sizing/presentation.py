"""How a family is fished in this water: its presentation, and the way of working that plays it."""

from heathdrop.catalog import Catalog, Family
from heathdrop.conditions.facts import Facts, holds
from heathdrop.sizing.rated import Rated

#: The way of working (``sizing.program``) that a presentation is played by.
WAY_OF = {
    "drag": "drag",
    "shake": "shake",
    "hop": "hop",
    "pitch": "hop",
    "punch": "hop",
    "swim": "steady",
    "slow-roll": "steady",
    "burn": "steady",
    "yo-yo": "yo-yo",
    "step-down": "step-down",
    "stroke": "stroke",
}


def presentation_of(catalog: Catalog, family: Family, facts: Facts) -> str:
    """Drag, shake, hop, step-down, stroke, swim, slow-roll, burn, pitch or punch."""
    at = catalog.judgement.presentation
    cold, deep, mood = facts["temp_f"] < at.cold_f, facts["fish_depth_ft"] >= at.deep_ft, facts["activity"]
    if family.work == "drop":
        return family.drop_way
    if family.work == "bottom":
        family_facts = {**facts, "family": family.id, "work": family.work}
        other = next((c.id for c in catalog.cadences.values() if holds(c.when, family_facts)), None)
        if other is not None:
            return other
        if family.bottom_way == "shake" or mood < at.shake_below:
            return family.bottom_way or "shake"
        return "drag" if cold or family.bottom_way == "drag" else "hop"
    if family.slow_rolled and (deep or mood < at.slow_below):
        return "slow-roll"
    return "burn" if mood >= at.burn_from and not deep else "swim"


def presented(catalog: Catalog, facts: Facts, rated: Rated) -> str:
    """How a rated rig is fished: in the cadence that it was sized in, else as its family is."""
    if rated.cadence is not None:
        return rated.cadence.way
    return presentation_of(catalog, rated.rig.family, facts)
