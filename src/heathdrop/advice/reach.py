"""A rig that does not come near the fish: said with its figure, and with what would reach them.

Slower, another head, another family: each is sized again and named only where its own path comes near.
"""

from collections.abc import Iterator
from dataclasses import replace

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import ROOFS
from heathdrop.sizing.setting import limits_for, setting_of
from heathdrop.sizing.size import Rated, Sizing, rated_at, size
from heathdrop.units import feet, feet_said, metres, ounces_as_written, turns_said

#: A rig misses the fish with less of its useful retrieve near the band, and reaches them with so much.
MISSED, REACHES = 0.6, 0.65
#: Paces that are tried below the rig's own, as factors.
SLOWER = (0.9, 0.8, 0.7, 0.6, 0.5)
#: No other family is named that fits worse than this.
LEAST_FIT = 0.3


def misses(sizing: Sizing, rated: Rated) -> bool:
    """Whether a rig's path does not come near the fish for half of its useful time."""
    c = sizing.scenario.conditions
    if rated.work in ("swim", "hang"):
        return rated.tuned.near_band < MISSED
    return c.bottom_depth_ft - c.fish_depth_ft > c.floor_reach_ft


def missing_said(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """The sentence that a rig misses the fish, with what would reach them; nothing where it does not."""
    if not misses(sizing, rated):
        return ""
    way_said = next((said for said in _ways(catalog, sizing, rated) if said), "")
    return f"{_missed(sizing, rated)} {way_said or _nothing(sizing)}"


def _band(sizing: Sizing) -> str:
    top, low = (feet_said(v) for v in sizing.targets.depth_ft)
    return f"{top}–{low} ft"


def _missed(sizing: Sizing, rated: Rated) -> str:
    """By how much the fish are missed."""
    c, tuned = sizing.scenario.conditions, rated.tuned
    if rated.work in ("swim", "hang"):
        return (
            f"Only {tuned.near_band * 100:.0f} % of the retrieve comes near {_band(sizing)}: it runs at "
            f"{feet(tuned.mean_m):.1f} ft on average."
        )
    top, low = sizing.targets.depth_ft
    works = feet(tuned.start_depth_m)
    if works <= c.fish_depth_ft + c.floor_reach_ft:
        floor = f"{c.bottom_depth_ft:g} ft"
        return f"It needs a ledge at {works:.0f} ft; where there is none it falls on to {floor}."
    if rated.work == "drop" and rated.fall_ft_s > 0.0:
        past = (low - top) / rated.fall_ft_s
        return (
            f"It falls past the fish at {c.fish_depth_ft:g} ft in {past:.1f} s and lands at {works:.0f} ft, "
            f"{works - c.fish_depth_ft:.0f} ft below them."
        )
    return f"It works at {works:.0f} ft, {works - c.fish_depth_ft:.0f} ft below the fish."


def _ways(catalog: Catalog, sizing: Sizing, rated: Rated) -> Iterator[str]:
    """What would reach them, the smallest change first."""
    c = sizing.scenario.conditions
    if rated.work == "swim":
        yield _slower(catalog, sizing, rated)
        yield _other_head(sizing, rated)
    elif c.cover.kind in ROOFS and rated.rig.family.work == "drop":
        yield (
            f"Once it is through, lift it back to {c.fish_depth_ft:g} ft, just under the mat, and shake it "
            "there: the line hangs over the mat's edge and holds it."
        )
    yield _other_family(catalog, sizing, rated)


def _slower(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """A slower handle, where it brings a rig that runs high near the fish."""
    if feet(rated.tuned.mean_m) >= sizing.targets.depth_ft[1]:
        return ""
    alone = replace(sizing.scenario, families=(rated.rig.family.id,))
    setting = setting_of(catalog, alone, sizing.knowledge)
    pace, least = feet(rated.tuned.pace_m_s), feet(limits_for(setting).slowest_m_s)
    for factor in SLOWER:
        if factor * pace < least:
            break
        at = rated_at(setting, rated.rig, rated.countdown_s, factor * pace)
        if at.tuned.near_band >= REACHES:
            turns = turns_said(sizing.scenario.gear.turns_per_s(factor * pace))
            return (
                f"Slower reaches them: {factor * pace:.1f} ft/s, {turns} turns in 20 s, holds it near "
                f"for {at.tuned.near_band * 100:.0f} %, though slower than they like."
            )
    return ""


def _other_head(sizing: Sizing, rated: Rated) -> str:
    """Another head of the family that comes near them."""
    for r in sizing.rigs:
        if r.rig.family is rated.rig.family and r.tuned.near_band >= REACHES:
            head = ounces_as_written(r.rig.head_oz)
            side = "Heavier" if r.rig.head_oz > rated.rig.head_oz else "Lighter"
            side = side if r.rig.head_oz != rated.rig.head_oz else "Another trailer"
            return (
                f"{side} reaches them: {head} oz with a {r.rig.trailer.name} at "
                f"{feet(r.tuned.pace_m_s):.1f} ft/s is near for {r.tuned.near_band * 100:.0f} % "
                f"(fit {r.fits.score * 100:.0f})."
            )
    return ""


def _other_family(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """The best fitting rig of another family that comes near them."""
    c = sizing.scenario.conditions
    low = c.bottom_depth_ft - c.fish_depth_ft <= c.floor_reach_ft
    best: tuple[Sizing, Rated] | None = None
    for family in catalog.families.values():
        if family.id == rated.rig.family.id or family.work not in (("swim", "bottom") if low else ("swim",)):
            continue
        alone = replace(sizing.scenario, families=(family.id,), box="standard")
        other = size(catalog, alone, knowledge=sizing.knowledge)
        r = next((r for r in other.rigs if not misses(other, r)), None)
        if r is not None and (best is None or r.fits.score > best[1].fits.score):
            best = other, r
    if best is None or best[1].fits.score < LEAST_FIT:
        return ""
    r = best[1]
    head = f"{ounces_as_written(r.rig.head_oz)} oz {r.rig.family.name}"
    if r.rig.family.work != "swim":
        return f"A {head} worked on the floor is among them (fit {r.fits.score * 100:.0f})."
    return (
        f"A {head}, {r.rig.trailer.name}, runs there: {feet(r.tuned.mean_m):.1f} ft at "
        f"{feet(r.tuned.pace_m_s):.1f} ft/s, near for {r.tuned.near_band * 100:.0f} % (fit "
        f"{r.fits.score * 100:.0f})."
    )


def _nothing(sizing: Sizing) -> str:
    """Nothing listed reaches them."""
    away = sizing.scenario.gear.cast_ft
    deep = metres(sizing.targets.depth_ft[1]) > 0.25 * metres(away)
    longer = "A longer cast, or t" if deep else "T"
    return f"{longer}hinner line, would have to come first: no rig listed holds that depth here."
