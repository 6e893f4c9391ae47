"""Finishing the rig: what the rules and the chosen schools settle about everything but head and trailer
size. What the rig itself shows (its trailer, how it is turned, its plastic) is read from the rig."""

from dataclasses import dataclass, replace

from heathdrop.advice.linesay import held_line, line_said
from heathdrop.advice.rules import rig_facts, spoken
from heathdrop.catalog import Catalog
from heathdrop.catalog.vocabulary import SLOTS
from heathdrop.conditions.facts import Facts, degree
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import USUAL
from heathdrop.sizing.dress import TURNED_FROM, worn_by
from heathdrop.sizing.schools import applying, chosen
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, inches_said, turns_said

#: What is true of every rig dressed so, where no rule has spoken.
DRESS_SAYS = {
    "vertical": "On edge it lifts less, and runs deeper at the same pace.",
    "flat": "Laid flat it planes and rights itself.",
    "full": "More strands float it more: it falls slower than with a trimmed skirt.",
    "trimmed": "Fewer strands float it less: it falls faster than with a full skirt.",
    "salted": "It sinks faster than neutral plastic and lies down at rest.",
    "floating": "It sinks slower than neutral plastic and stands up at rest.",
}


#: A blade's metal with what the light wants of its shine.
SHONE = {
    "bright": "{metal}, bright",
    "painted or dull": "painted, or {metal} gone dull",
    "black or painted dark": "black or painted dark, no {metal}",
}


#: What the light may make of a metal that the angler holds to: it stays that metal.
HELD_SHINES = ("", "bright")


@dataclass(frozen=True)
class Settled:
    """One thing settled: its slot and label, what, who says so (rule or school) and the reason."""

    slot: str
    label: str
    text: str
    source: str
    because: str


def has_part(slot: str, rig: Rig) -> bool:
    """Whether a rig has such a part at all."""
    family = rig.family
    parts = {
        "turned": rig.trailer.appendages >= TURNED_FROM,
        "plastic": not rig.trailer.bare,
        "cut": not rig.trailer.bare,
        "trailer_colour": not rig.trailer.bare and not rig.skirt.bare,
        "blades": bool(family.blades) or family.blade == "under",
        "blade": family.blade != "",
        "trailer_hook": family.takes_trailer_hook,
        "guard": family.guarded,
        "skirt": not rig.skirt.bare,
        "slack": family.work == "bottom",
    }
    return parts.get(slot, True)


def finish_of(catalog: Catalog, sizing: Sizing, rated: Rated) -> tuple[Settled, ...]:
    """Every slot that applies to the rig, settled by the strongest rule; a chosen school goes before
    rules."""
    facts = rig_facts(catalog, sizing, rated)
    settled: dict[str, Settled] = {}
    schools = chosen(catalog, sizing.scenario.schools)

    def settle(slot: str, text: str, source: str, because: str) -> None:
        settled.setdefault(slot, Settled(slot, SLOTS[slot], text, source, because))

    # What the angler holds to is settled before what is only where we start from.
    for topic in sorted(applying(catalog, facts), key=lambda t: schools[t.id].id == t.default):
        school = schools[topic.id]
        held = school.id != topic.default
        for slot, text in school.effect.finish.items():
            settle(slot, text, f"school: {school.name}", school.says)
        if school.effect.by_clarity is not None:
            murky = sizing.facts["clarity_ft"] < catalog.judgement.targets.clear_ft
            metal = school.effect.by_clarity.under_4 if murky else school.effect.by_clarity.over_4
            shine = next((r.finish["blade"] for r in spoken(catalog, facts) if "blade" in r.finish), "")
            if held and shine not in HELD_SHINES:
                shine = "bright"
            text = SHONE.get(shine, "{metal}").format(metal=metal)
            settle("blade", text, f"school: {school.name}", school.says)
    as_rigged = worn_by(rated.rig)
    other = catalog.cadences.get(str(facts["way"]))
    if other is not None and (rated.cadence is not None or rated.work == "bottom"):
        settle("working", other.says, "Worked as sized", "It is met by more of them so than reeled evenly.")
    for rule in spoken(catalog, facts):
        for slot, text in rule.finish.items():
            # A skirt is cut and a trailer turned at the water; what plastic is poured of stays as it is.
            if slot != "plastic" or rule.dress.get("plastic", as_rigged["plastic"]) == as_rigged["plastic"]:
                settle(slot, text, rule.name, rule.says)
    settle("trailer", *_trailer(catalog, facts, rated.rig))
    settle("turned", *_turned(catalog, facts, rated.rig))
    for slot, name, id_, usual in (
        ("skirt", rated.rig.skirt.name, as_rigged["skirt"], rated.rig.family.skirt),
        ("plastic", rated.rig.plastic.name, as_rigged["plastic"], USUAL["plastic"]),
    ):
        if id_ != usual and id_ in DRESS_SAYS:
            settle(slot, name, "As simulated", DRESS_SAYS[id_])
    if rated.rig.blades is not None:
        settle("blades", *_blades(catalog, facts, rated.rig))
    if rated.rig.head_material.id != USUAL["head_material"]:
        settle("head", *_head(catalog, facts, rated.rig))
    if "line" in settled:
        said = held_line(catalog, sizing, rated, settled["line"].text)
        settled["line"] = replace(settled["line"], text=said)
    else:
        settle("line", *line_said(catalog, sizing, rated))
    if rated.work == "swim":
        settled["reel"] = _reel(settled.get("reel"), sizing, rated)
    else:
        settled.pop("reel", None)
        if rated.work == "bottom":
            settled["reel"] = _sweep(rated)
    return tuple(settled[slot] for slot in SLOTS if slot in settled and has_part(slot, rated.rig))


def _trailer(catalog: Catalog, facts: Facts, rig: Rig) -> tuple[str, str, str]:
    """The trailer picked, and the rule that likes it most (the numbers where none does)."""
    name = (
        rig.trailer.name
        if rig.trailer.bare
        else f"{rig.trailer.name}, {inches_said(rig.trailer_length_in)} in"
    )
    liked = {
        rule.id: degree(rule.when, facts) * rule.trailers.get(rig.trailer.id, 0.0)
        for rule in catalog.rules.values()
    }
    by = max(liked, key=lambda id_: liked[id_])
    if liked[by] <= 0.0:
        return name, "By the numbers", "Its fall, its bulk and its action are nearest to what is wanted."
    return name, catalog.rules[by].name, catalog.rules[by].says


def _blades(catalog: Catalog, facts: Facts, rig: Rig) -> tuple[str, str, str]:
    """The blades as simulated, and the rule that hung them."""
    assert rig.blades is not None
    name = rig.blades.name + (", hung clear of the body" if rig.blades.hangs == "under" else "")
    for rule in spoken(catalog, facts):
        if rule.dress.get("blades") == rig.blades.id:
            return name, rule.name, rule.says
    return name, "As simulated", "What is usual: it flashes most and lifts least."


def _head(catalog: Catalog, facts: Facts, rig: Rig) -> tuple[str, str, str]:
    """What the head is cast of where it is not lead, and the rule or school that wants it so."""
    small = (rig.head_material.density_g_cm3 / 11.0) ** (1.0 / 3.0)
    less = 100 * (1.0 - 1.0 / small)
    reason = f"{rig.head_material.name}: {less:.0f} % slimmer than lead of its weight, and dear"
    for rule in spoken(catalog, facts):
        if rule.dress.get("head_material") == rig.head_material.id:
            return reason, rule.name, rule.says
    return reason, "As simulated", "It falls and feels like a heavier head of its size."


def _turned(catalog: Catalog, facts: Facts, rig: Rig) -> tuple[str, str, str]:
    """How the trailer is turned, as simulated."""
    for rule in spoken(catalog, facts):
        if rule.dress.get("orientation") == rig.orientation.id:
            return rig.orientation.name, rule.name, rule.says
    return rig.orientation.name, "As simulated", DRESS_SAYS[rig.orientation.id]


def _reel(said: Settled | None, sizing: Sizing, rated: Rated) -> Settled:
    """Handle turns for the pace, after what a school says of the gear."""
    gear = sizing.scenario.gear
    turns = turns_said(gear.turns_per_s(feet(rated.tuned.pace_m_s)))
    reason = f"{turns} turns in 20 s at {gear.reel.inches_per_turn:g} in a turn"
    if said is not None:
        return replace(said, text=f"{said.text}; {reason}")
    because = "Inches of line per turn times turns a second is the pace."
    return Settled("reel", SLOTS["reel"], reason, "Pace in turns", because)


def _sweep(rated: Rated) -> Settled:
    """How fast the rod sweeps a dragged lure; the reel only takes up slack."""
    seconds = 1.0 / feet(rated.tuned.pace_m_s)
    reason = f"the rod moves it: a foot of sweep in about {seconds:.0f} s; the reel only takes up slack"
    return Settled("reel", SLOTS["reel"], reason, "The rod moves it", "A dragged lure is moved by the rod.")
