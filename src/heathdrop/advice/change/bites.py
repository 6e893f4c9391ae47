"""Short strikes, no touch, nothing at all."""

from __future__ import annotations

from dataclasses import replace

from heathdrop.advice.change.hand import (
    Change,
    Hand,
    Tries,
    mean_depth_ft,
    neighbour_head,
    other_line,
    pick,
    turned,
    with_part,
)
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Rig
from heathdrop.sizing.candidates import standard_trailers
from heathdrop.sizing.setting import Setting
from heathdrop.sizing.size import Rated
from heathdrop.sizing.tackle import BRAID
from heathdrop.units import feet, metres, ounces_as_written

#: A share of what the hand feels that moves by less than this is not worth showing.
WORTH_FEELING = 0.01
#: A depth that moves by less than this (ft) is called the same.
SAME_DEPTH_FT = 0.1


def short(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Short strikes: wait, take plastic off, then help the hook."""
    rig = rated.rig
    found = [Change("Let them have it: load the rod before the set", "a nip becomes a hold", "rule", False)]
    if not rig.trailer.bare:
        if rig.family.takes_trailer_hook:
            other, what = with_part(setting, rig, trailer="none"), "Take the trailer off"
        else:
            shorter = max(1.0, rig.trailer_length_in - 0.5)
            other = replace(rig, trailer_length_in=shorter)
            what = f"Shorten the trailer by 0.5 in, to {shorter:g} in"
        found.append(Change(what, _less_to_nip(setting, hand, other), "model", True, pick(other)))
    if rig.family.takes_trailer_hook and setting.stand.row.does != "wood":
        rule = setting.catalog.rules["short-strikes"]
        found.append(Change("Add a trailer hook, where local rules allow", rule.says, "rule", True))
    if rig.family.work == "swim":
        says = "gives them time to get all of it"
        found.append(Change("A touch slower, with a pause now and then", says, "rule", False))
    return found


def _less_to_nip(setting: Setting, hand: Hand, other: Rig) -> str:
    if other.family.work != "swim":
        return "less to nip at; it works where it did"
    off = mean_depth_ft(setting, replace(hand, rig=other)) - mean_depth_ft(setting, hand)
    if abs(off) < SAME_DEPTH_FT:
        return "less to nip at; it runs where it did"
    return f"less to nip at; runs {abs(off):.1f} ft {'deeper' if off > 0 else 'higher'}"


def felt(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Not felt: thinner line, a heavier head, braid; each by the chance that a landing or a tick is felt."""
    rig = rated.rig

    def touch(other: Rig, line: Line) -> float:
        return setting.felt(setting.lure(other).net_weight_n, line)

    before = touch(rig, setting.line)
    says = "a slight bow that goes slack has landed; count the seconds to it"
    found = [Change("Watch the line, not the hand", says, "rule", False)]
    moves: list[tuple[str, Rig, Line, Tries]] = []
    oz = neighbour_head(rig, 1)
    if oz is not None:
        heavy = with_part(setting, rig, oz=oz)
        moves.append((f"One head up: {ounces_as_written(oz)} oz", heavy, setting.line, pick(heavy)))
    thin = other_line(setting, thinner=True)
    if thin is not None:
        name = f"{thin[0]:g} lb {setting.scenario.gear.line.material}"
        moves.append((f"Thinner line: {name}", rig, thin[1], (("test_lb", f"{thin[0]:g}"),)))
    braid = _braid_like(setting)
    if braid is not None:
        on = line_by_test(setting.catalog, BRAID, braid)
        swap = (("line", BRAID), ("test_lb", f"{braid:g}"))
        moves.append((f"{braid:g} lb braid, with a leader where it is clear", rig, on, swap))
    for what, other, line, tries in moves:
        after = touch(other, line)
        if after - before >= WORTH_FEELING:
            effect = f"felt {after * 100:.0f} times of 100 instead of {before * 100:.0f}"
            found.append(Change(what, effect, "model", after > before + 0.02, tries))
    return found


def _braid_like(setting: Setting) -> float | None:
    """Test (lb) of a braid as strong as the line that is on, as spools are sold; None on braid."""
    line = setting.scenario.gear.line
    if line.material == BRAID:
        return None
    tests = [lb for lb, _ in setting.catalog.lines[BRAID].diameters_mm]
    return next((lb for lb in tests if lb >= line.test_lb), tests[-1])


def lost_touch(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """A lure worked on the floor cannot run high or low: what was missed is touch."""
    says = "it was not felt there, or pulled too fast"
    found = [Change("It is worked on the floor, so it cannot run high or low", says, "rule", False)]
    return found + felt(setting, rated, hand)[1:]


def nothing(setting: Setting, rated: Rated, hand: Hand) -> list[Change]:
    """Nothing at all: where first, then the depth, then the pace; the lure last."""
    c, catalog = setting.scenario.conditions, setting.catalog
    numbers = catalog.judgement.change
    found = [
        Change(
            "New water first: another angle, the next change along",
            catalog.rules["find-the-change"].says,
            "rule",
            True,
        )
    ]
    if setting.family.work == "swim":
        found += _elsewhere(setting, hand)
        pace = max(metres(numbers.slowest_ft_s), hand.pace_m_s - metres(numbers.pace_step_in_s / 12.0))
        if pace < hand.pace_m_s - 1e-3:
            before, after = (setting.scenario.gear.turns_per_s(feet(v)) * 10 for v in (hand.pace_m_s, pace))
            says = "they have longer to look"
            found.append(Change(turned("Slow", before, after), says, "model", False))
        if c.cover.kind in ("submerged-grass", "pads", "wood"):
            found.append(
                Change(
                    "Stop, pop or kill it where the cover opens", catalog.rules["vary-it"].says, "rule", False
                )
            )
        if "suspended" in c.postures and c.cover.kind in ("open", "rock"):
            tries = (("family", "football-jig"), ("pick", ""))
            says = catalog.rules["back-underneath"].says
            found.append(Change("Go back through underneath, on the bottom", says, "rule", False, tries))
    else:
        found.append(
            Change(
                "Leave it longer where it lies",
                "a fish that looks is not yet a fish that eats",
                "rule",
                False,
            )
        )
    return found + (_quieter(setting, hand) if setting.family.work != "drop" else [])


def _quieter(setting: Setting, hand: Hand) -> list[Change]:
    """The next slimmer trailer that moves less, on the same head, and what that does to its depth."""
    rig = hand.rig
    slim_first = [setting.catalog.trailers[id_] for id_ in standard_trailers(setting.catalog)]
    slimmer = [t for t in slim_first if t.run_drag_area_cm2 < rig.trailer.run_drag_area_cm2]
    quieter = [t for t in slimmer if t.action < rig.trailer.action]
    if rig.trailer.bare or not quieter:
        return []
    trailer = quieter[-1]
    other = with_part(setting, rig, trailer=trailer.id)
    says = "a fish that follows and turns away has seen enough of the other"
    if setting.family.work == "swim":
        off = mean_depth_ft(setting, replace(hand, rig=other)) - mean_depth_ft(setting, hand)
        if abs(off) >= SAME_DEPTH_FT:
            says += f"; runs {abs(off):.1f} ft {'deeper' if off > 0.0 else 'higher'}"
    return [Change(f"A quieter trailer: {trailer.name}", says, "model", False, pick(other))]


def _elsewhere(setting: Setting, hand: Hand) -> list[Change]:
    """The same rig counted to the water below, when the count changes anything."""
    numbers = setting.catalog.judgement.change
    longer = replace(hand, count_s=hand.count_s + 2.0 * numbers.count_step_s)
    deep = mean_depth_ft(setting, longer) - mean_depth_ft(setting, hand)
    if abs(deep) < SAME_DEPTH_FT:
        return []
    side = "deeper" if deep > 0.0 else "higher"
    says = f"runs {abs(deep):.1f} ft {side}: water not yet searched"
    return [Change(f"Count {2.0 * numbers.count_step_s:g} seconds longer", says, "model", False)]
