"""It fouled, hung up or would not go through: what meets the cover better."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from heathdrop.advice.change.depth import hand_steps, head_steps, landing
from heathdrop.advice.change.hand import (
    LEAST_WAY_FT,
    Change,
    Hand,
    neighbour_head,
    odds_of,
    percent,
    pick,
    with_part,
)
from heathdrop.catalog import Catalog, Material, Trailer
from heathdrop.conditions.cover import KINDS, SNAGS
from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.rig import Rig, rig_by_name
from heathdrop.physics.rig_name import USUAL
from heathdrop.sizing.candidates import standard_trailers
from heathdrop.sizing.setting import Setting
from heathdrop.sizing.size import Rated
from heathdrop.units import ounces_as_written

#: How much higher is clear of more of it, ft.
CLEAR_FT = 0.6
#: Worth showing is a chance that moves by so much, or by a tenth of itself and half a cast in a hundred.
WORTH_SHOWING = 0.015
WORTH_SHARE = 0.1
LEAST_SHOWN = 0.005
#: Cover that fouls a lure.
STEMS = tuple(kind.id for kind in KINDS if kind.does in ("stems", "mat"))


def slicker(catalog: Catalog, rig: Rig, how: Callable[[Trailer], float]) -> str | None:
    """The next trailer that does better by ``how`` (more is slicker), None when this is the slickest."""
    better = [t for t in standard_trailers(catalog) if how(catalog.trailers[t]) > how(rig.trailer) + 0.02]
    return min(better, key=lambda t: how(catalog.trailers[t])) if better else None


def fouled(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Slicker trailer, higher line, lighter head, another family: in that order."""
    if setting.stand.kind in SNAGS:
        return hung(setting, rated, hand)
    if setting.stand.kind not in STEMS:
        says = "there is nothing to foul on in this water: a lure that picks things up is on the bottom"
        return [Change("Did it touch bottom?", says, "rule", False)]
    rig = rated.rig
    found = []
    tail = slicker(setting.catalog, rig, lambda t: -t.catching)
    if tail is not None:
        other = with_part(setting, rig, trailer=tail)
        found += _less(setting, rated, other, f"Slicker trailer: {other.trailer.name}", "fouls")
    if rig.family.work == "swim":
        found += _higher(setting, hand)
    return found + other_family(setting, rated, "fouls")


def _higher(setting: Setting, hand: Hand) -> list[Change]:
    """Quicker, a shorter count, rod tip up, or a head down: clear of more of it."""
    up = -1.0
    kinds = (*hand_steps(setting, hand, up), head_steps(setting, hand, up))
    return landing(setting, hand, kinds, up, CLEAR_FT)


def _less(setting: Setting, rated: Rated, other: Rig, what: str, verb: str) -> list[Change]:
    """Another rig that fouls or hangs less; nothing when it does not."""
    before, after = (getattr(odds_of(setting, rated, r), verb) for r in (rated.rig, other))
    least = max(LEAST_SHOWN, min(WORTH_SHOWING, WORTH_SHARE * before))
    if before - after < least or percent(after) == percent(before):
        return []
    effect = f"{verb} on {percent(after)} casts instead of {percent(before)}"
    return [Change(what, effect, "model", after < 0.85 * before, pick(other))]


def other_family(setting: Setting, rated: Rated, verb: str) -> list[Change]:
    """The family of the same way of working that meets this cover best."""
    catalog, rig = setting.catalog, rated.rig
    others = [
        rig_by_name(catalog, f.id, rig.head_oz, f.usual_trailer)
        for f in catalog.families.values()
        if f.id != rig.family.id and f.work == rig.family.work
    ]
    if not others:
        return []

    def chance(one: Rig) -> float:
        odds: CoverOdds = odds_of(setting, rated, one)
        return float(getattr(odds, verb))

    best, before = min(others, key=chance), chance(rig)
    if before - chance(best) < WORTH_SHOWING:
        return []
    effect = f"{verb} on {percent(chance(best))} casts instead of {percent(before)}"
    tries = (("family", best.family.id), ("pick", ""))
    return [
        Change(f"Another family: {best.family.name}", effect, "model", chance(best) < 0.8 * before, tries)
    ]


def hung(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Wood and rock: free it first; two arms behind a blade, a lighter head, a family that sheds it."""
    rig = rated.rig
    found = [
        Change(
            "Go past it and pull from the other side",
            "most heads came in where they will go out",
            "rule",
            False,
        ),
        Change(
            "Slack line and a shake of the tip",
            "the head's own weight drops it back out of the crack"
            if setting.stand.row.does == "stone"
            else "the head's own weight drops it back off the limb",
            "rule",
            False,
        ),
    ]
    if rig.family.two_right < 1.0 and rig.trailer.appendages < 2:
        arms = with_part(setting, rig, trailer="small-craw")
        found += _less(setting, rated, arms, "Two arms behind it: small craw", "hangs")
    if setting.stand.row.does == "stone":
        found += _narrower(setting, rated)
        if rig.head_material.id == USUAL["head_material"]:
            small = replace(rig, head_material=_slimmest(setting))
            what = f"The same weight in {small.head_material.name}: a slimmer head"
            found += _less(setting, rated, small, what, "hangs")
    if setting.stand.kind in SNAGS:
        found += other_family(setting, rated, "hangs")
    return found


def _narrower(setting: Setting, rated: Rated) -> list[Change]:
    """The first of the next heads down that wedges less among stones."""
    for down, words in enumerate(("One head", "Two heads", "Three heads"), start=1):
        oz = neighbour_head(rated.rig, -down)
        if oz is None:
            break
        light = with_part(setting, rated.rig, oz=oz)
        found = _less(setting, rated, light, f"{words} down: {ounces_as_written(oz)} oz", "hangs")
        if found:
            return found
    return []


def _slimmest(setting: Setting) -> Material:
    """The densest material that heads are cast of."""
    heads = [m for m in setting.catalog.materials.values() if m.head]
    return max(heads, key=lambda m: m.density_g_cm3)


def through(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """It will not go through: slicker (by what a mat feels), heavier, then louder."""
    catalog, rig = setting.catalog, rated.rig
    matted = setting.stand.row.does == "mat"
    before = odds_of(setting, rated, rig).passes
    tail = slicker(catalog, rig, lambda t: t.punching if matted else -t.catching)
    oz = neighbour_head(rig, 1)
    moves = []
    if tail is not None:
        other = with_part(setting, rig, trailer=tail)
        moves.append((f"Slicker trailer: {other.trailer.name}", other))
    if oz is not None:
        moves.append((f"One head up: {ounces_as_written(oz)} oz", with_part(setting, rig, oz=oz)))
    found = []
    for what, other in moves:
        after = odds_of(setting, rated, other).passes
        if after - before >= WORTH_SHOWING:
            effect = f"goes through {percent(after)} times instead of {percent(before)}"
            found.append(Change(what, effect, "model", after > before + 0.1, pick(other)))
    if matted and not setting.stand.lobbed:
        loud = replace(setting.stand, lobbed=True)
        after = setting.odds(rig, setting.lure(rig), rated.tuned, LEAST_WAY_FT, loud).passes
        if after - before >= WORTH_SHOWING:
            effect = f"goes through {percent(after)} times instead of {percent(before)}; it is loud"
            found.append(Change("Lob it in, high and hard", effect, "model", after > before + 0.1))
    return found
