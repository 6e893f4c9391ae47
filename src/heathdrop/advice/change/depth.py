"""It ran too high or too low: the step of the hand or of the tackle that lands nearest to the band."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from heathdrop.advice.change.hand import (
    Change,
    Hand,
    Tries,
    mean_depth_ft,
    neighbour_head,
    neighbour_trailer,
    other_line,
    pick,
    turned,
    with_part,
)
from heathdrop.sizing.setting import Setting, limits_for
from heathdrop.sizing.size import Rated
from heathdrop.units import feet, feet_said, metres, ounces_as_written

#: A change of depth smaller than this (ft) is no change worth showing.
WORTH_SHOWING_FT = 0.15
#: Nearer the surface than this (ft) it no longer swims: such a step is not offered.
SKATES_FT = 0.2
#: Steps of pace and of the count that are tried, and the highest rod tip (ft).
PACE_STEPS, COUNT_STEPS, TIP_MOST_FT = 16, 3, 12.0

#: How far the next heads are away: a lure that skates needs more than one.
HEADS_APART = ("One head", "Two heads", "Three heads")

Step = tuple[str, Hand, Tries]


def depth_changes(setting: Setting, rated: Rated, hand: Hand, down: float, missed_ft: float) -> list[Change]:
    """Changes that bring the path down (``down`` 1) or up (−1) by about ``missed_ft``, smallest first.

    Of each kind the step that lands nearest is offered; what goes the other way or does nothing is not.
    """
    kinds = (
        *hand_steps(setting, hand, down),
        _trailer_steps(setting, hand, down),
        head_steps(setting, hand, down),
        _line_steps(setting, hand, down),
    )
    return landing(setting, hand, kinds, down, missed_ft)


def landing(
    setting: Setting, hand: Hand, kinds: Sequence[Sequence[Step]], down: float, missed_ft: float
) -> list[Change]:
    """Of each kind of steps the one that lands nearest ``missed_ft`` down (``down`` 1) or up (−1)."""
    before = mean_depth_ft(setting, hand)
    found = []
    for kind in kinds:
        landed = [(step, mean_depth_ft(setting, step[1])) for step in kind]
        helps = [
            (s, after)
            for s, after in landed
            if down * (after - before) >= WORTH_SHOWING_FT and after >= SKATES_FT
        ]
        if not helps:
            continue
        (what, _, tries), after = min(helps, key=lambda row: abs(down * (row[1] - before) - missed_ft))
        found.append(
            Change(
                what,
                _effect(setting, before, after),
                "model",
                _mends(setting, down * (after - before), missed_ft),
                tries,
            )
        )
    return found


def _mends(setting: Setting, change_ft: float, missed_ft: float) -> bool:
    """Whether a change is enough by itself, and not far too much."""
    enough = setting.catalog.judgement.change.enough
    return enough * missed_ft <= change_ft <= missed_ft + max(1.0, missed_ft)


def _effect(setting: Setting, before: float, after: float) -> str:
    """The change in feet, beside the band and the bottom."""
    side = "deeper" if after > before else "higher"
    top, low = (feet_said(v) for v in setting.targets.depth_ft)
    bottom = setting.scenario.conditions.bottom_depth_ft
    return (
        f"runs {abs(after - before):.1f} ft {side}: {after:.1f} ft instead of {before:.1f} ft; "
        f"the band is {top}–{low} ft, the bottom {bottom:g} ft"
    )


def hand_steps(setting: Setting, hand: Hand, down: float) -> list[list[Step]]:
    """Pace, count and rod tip, each in a few sizes: nothing is retied."""
    gear, numbers = setting.scenario.gear, setting.catalog.judgement.change
    here, word = feet(hand.pace_m_s), "Slow" if down > 0 else "Speed up"
    least = max(numbers.slowest_ft_s, feet(limits_for(setting).slowest_m_s) if setting.family.blade else 0.0)
    paces: list[Step] = []
    for k in range(1, PACE_STEPS + 1):
        inches = 0.25 * k * numbers.pace_step_in_s
        pace = here - down * inches / 12.0
        if pace >= least:
            what = turned(word, gear.turns_per_s(here) * 10, gear.turns_per_s(pace) * 10)
            paces.append((what, replace(hand, pace_m_s=metres(pace)), _kept(hand.count_s, pace)))
    counts: list[Step] = []
    for k in range(1, COUNT_STEPS + 1):
        count = hand.count_s + down * k * numbers.count_step_s
        if count > 0.3:
            more = "longer" if down > 0 else "less"
            seconds = "a second" if k == 1 else f"{k:g} seconds"
            counts.append((f"Count {seconds} {more}", replace(hand, count_s=count), _kept(count, here)))
    tips: list[Step] = []
    tip = min(TIP_MOST_FT, max(0.0, feet(hand.tip_m) - down * numbers.tip_step_ft))
    if abs(tip - feet(hand.tip_m)) > 0.4:
        way = "down" if down > 0 else "up"
        tries = (("rod_tip_height_ft", f"{tip:g}"), *_kept(hand.count_s, here))
        tips.append((f"Rod tip {way}, to {tip:g} ft", replace(hand, tip_m=metres(tip)), tries))
    return [paces, counts, tips]


def _kept(count_s: float, pace_ft_s: float) -> Tries:
    """The count and the pace that a change was promised at."""
    return (("count_s", f"{count_s:.1f}"), ("pace_ft_s", f"{pace_ft_s:.2f}"))


def _trailer_steps(setting: Setting, hand: Hand, down: float) -> list[Step]:
    """A slimmer or bulkier trailer at the same count and pace."""
    kept = _kept(hand.count_s, feet(hand.pace_m_s))
    trailers: list[Step] = []
    for k in (1, 2):
        tail = neighbour_trailer(setting.catalog, hand.rig, (-1 if down > 0 else 1) * k)
        if tail is not None:
            rig = with_part(setting, hand.rig, trailer=tail)
            word = f"{'One step' if k == 1 else 'Two steps'} {'slimmer' if down > 0 else 'bulkier'}"
            trailers.append((f"{word}: {rig.trailer.name}", replace(hand, rig=rig), (*pick(rig), *kept)))
    return trailers


def head_steps(setting: Setting, hand: Hand, down: float) -> list[Step]:
    """A heavier or lighter head at the same count and pace."""
    kept = _kept(hand.count_s, feet(hand.pace_m_s))
    heads: list[Step] = []
    for k, word in enumerate(HEADS_APART, 1):
        oz = neighbour_head(hand.rig, k * int(down))
        if oz is not None:
            rig = with_part(setting, hand.rig, oz=oz)
            what = f"{word} {'up' if down > 0 else 'down'}: {ounces_as_written(oz)} oz"
            heads.append((what, replace(hand, rig=rig), (*pick(rig), *kept)))
    return heads


def _line_steps(setting: Setting, hand: Hand, down: float) -> list[Step]:
    """The next thinner or thicker line at the same count and pace."""
    line = other_line(setting, thinner=down > 0)
    if line is None:
        return []
    test, moved = line
    what = f"{'Thinner' if down > 0 else 'Thicker'} line: {test:g} lb {setting.scenario.gear.line.material}"
    tries = (("test_lb", f"{test:g}"), *_kept(hand.count_s, feet(hand.pace_m_s)))
    return [(what, replace(hand, line=moved), tries)]
