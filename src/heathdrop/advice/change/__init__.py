"""One change: what practice changes first after a cast that went wrong, and what that would do to it.

The order is the catalogue's (``changes.toml``): the hand before the tackle, the trailer before the head,
another family last. Where the model knows, a change is played from the cast as it was fished, shifted to what
was seen of it, and its effect said in feet or in chances; where it does not, a rule speaks. A change without
effect, or one that touches what it should keep off, is not offered.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from heathdrop.advice.change.hand import (
    AS_SIZED,
    LEAST_WAY_FT,
    Fished,
    Hand,
    odds_of,
    path_of,
    seen_at,
)
from heathdrop.advice.change.moves import STEPS, Case, Step, liked, may_be
from heathdrop.catalog import Catalog, SpokenChange
from heathdrop.conditions.cover import KINDS, ROOFS, SNAGS
from heathdrop.conditions.facts import holds
from heathdrop.conditions.outcome import OLD_NAMES, WENT
from heathdrop.errors import BadInput, require_between
from heathdrop.physics.rig_name import name_of
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.ways import WAY
from heathdrop.units import feet, feet_said, metres

__all__ = [
    "AS_SIZED",
    "MEASURED",
    "MOST_MISSED_FT",
    "Change",
    "Changes",
    "Fished",
    "askable",
    "changes_for",
    "likely",
    "mended",
]

#: Changes of the pace alone.
PACES = frozenset({"faster", "slower"})
#: Cover that fouls a lure.
STEMS = tuple(kind.id for kind in KINDS if kind.does in ("stems", "mat"))
#: What can be measured in feet, with the way that mends it: 1 down, −1 up.
MEASURED = {"ran-high": 1.0, "ran-low": -1.0}
#: The most that a lure may have missed by, ft; the least change of depth worth offering.
MOST_MISSED_FT, LEAST_FT = 30.0, 0.15
#: Nearer the surface than this (ft) it no longer swims: such a step is not offered. What is to be cleared is
#: cleared by this much, and by so much a change may miss the band and still mend.
SKATES_FT, CLEAR_FT, NEARLY_FT = 0.2, 0.6, 0.25
#: A share (felt, passes) that moves by less than this is no change; one of fouls or hangs by less than a
#: tenth of itself, nor by half a cast in a hundred. Getting through is mended by twice the first.
LEAST_SHARE, LEAST_OF_ITSELF, LEAST_SPOILT = 0.05, 0.1, 0.005
#: From here on a mat is got through often enough, and less than a clear gain is one.
ENOUGH = 0.9
#: Who mends less than this share of a miss stands behind who mends more.
HALF = 0.5
#: A pace that the fish like this much less than the one before is offered after what keeps the pace.
LIKED_LESS = 0.5


@dataclass(frozen=True)
class Change:
    """One change: its id, what to do, its effect in words, whether the model or a rule says so, whether it is
    enough by itself; the rig (by its name) and the hand that it leaves, what it then runs at (ft; None where
    that is not asked), its family, another line test (lb) where one is spooled."""

    id: str
    what: str
    effect: str
    by: str
    mends: bool
    rig: str
    fished: Fished
    family: str
    runs_ft: float | None = None
    test_lb: float | None = None
    material: str = ""

    @property
    def tries(self) -> tuple[tuple[str, str], ...]:
        """How the sheet is asked for it, what was not changed left as it was fished; nothing for what only
        the angler can do."""
        if self.by == "rule":
            return ()
        fished, found = self.fished, [("family", self.family), ("pick", self.rig)]
        for name, value, digits in (
            ("count_s", fished.countdown_s, 1),
            ("pace_ft_s", fished.pace_ft_s, 2),
            ("rod_tip_height_ft", fished.rod_tip_height_ft, 1),
        ):
            if value is not None:
                found.append((name, f"{round(value, digits):g}"))
        if self.test_lb is not None:
            found.append(("test_lb", f"{self.test_lb:g}"))
        if self.material:
            found.append(("line", self.material))
        return tuple(found)


@dataclass(frozen=True)
class Changes:
    """What a cast that went wrong ran at (ft; None for what is not swum), and the changes, best first."""

    ran_ft: float | None
    changes: tuple[Change, ...]


def likely(work: str, cover_kind: str) -> tuple[str, ...]:
    """What a stop is prepared for: what a lure of this work can do wrong in this cover."""
    held = ("fouled",) if cover_kind in STEMS else ("hung",) if cover_kind in SNAGS else ()
    if work == "swim":
        return (*MEASURED, *held, "short", "nothing")
    through = ("stalled",) if cover_kind in ROOFS else ()
    return ("not-felt", *through, *(() if through else held), "short", "nothing")


def askable(sizing: Sizing, rated: Rated) -> tuple[str, ...]:
    """What a rig may have done, or met, in its water: what is asked about it."""
    kind, swum = sizing.scenario.conditions.cover.kind, rated.rig.family.work == "swim"
    never = set() if swum else {"ran-high", "ran-low", "ticked-top", "rolled"}
    if sizing.scenario.conditions.cover.top_depth_ft is None:
        never |= {"ticked-top"}
    if kind not in STEMS:
        never |= {"stalled", "fouled"} if kind != "open" else {"stalled", "hung"}
    if swum:
        never |= {"stalled"}
    if kind in STEMS:
        never |= {"hung"} if swum else {"fouled"}
    if not rated.rig.family.blade:
        never |= {"blade-stops"}
    return tuple(id_ for id_ in WENT if id_ not in never)


def changes_for(
    catalog: Catalog,
    sizing: Sizing,
    rated: Rated,
    went: str,
    by_ft: float | None = None,
    fished: Fished = AS_SIZED,
) -> tuple[Change, ...]:
    """The changes of :func:`mended` alone. Raises BadInput."""
    return mended(catalog, sizing, rated, went, by_ft, fished).changes


def mended(
    catalog: Catalog,
    sizing: Sizing,
    rated: Rated,
    went: str,
    by_ft: float | None = None,
    fished: Fished = AS_SIZED,
) -> Changes:
    """What to change after a cast of ``rated`` that ``went`` so, best first; ``by_ft`` is by how much it ran
    too high or low against what was told (None: not known), ``fished`` how it was fished. Raises BadInput for
    an outcome that is none, or a miss or a hand that cannot be."""
    went = OLD_NAMES.get(went, went)
    if went not in WENT:
        raise BadInput("went", went, "one of " + ", ".join(WENT))
    if by_ft is not None:
        require_between("by_ft", by_ft, 0.1, MOST_MISSED_FT, "ft")
    setting = setting_of(catalog, replace(sizing.scenario, families=(rated.rig.family.id,)), sizing.known)
    hand = _hand(setting, rated, fished)
    facts = {
        **setting.facts,
        "trailer": rated.rig.trailer.id,
        "head_oz": rated.rig.head_oz,
        "work": "bottom" if rated.along_floor else setting.family.work,
    }
    case, ran = Case(setting, rated, hand, went), None
    swum = facts["work"] == "swim"
    if swum:
        case = replace(case, hand=_as_told(setting, rated, hand))
        told = path_of(setting, case.hand).mean_ft
        case = replace(case, told_ft=told)
        ran = _ran_at(setting, went, told, by_ft)
        if abs(ran - told) >= LEAST_FT:
            case = replace(case, hand=seen_at(setting, case.hand, ran))
            ran = path_of(setting, case.hand).mean_ft
    order = next((o.changes for o in catalog.orders if went in o.went and holds(o.when, facts)), ())
    made = [_change(case, id_, ran, swum) for id_ in order if may_be(case, id_)]
    found = [change for change in made if change is not None]
    weak = {c.id for c in found if _weak(case, c, ran)}
    less = {c.id for c in found if _liked_less(case, c)}
    if not any(c.mends for c in found if c.id not in weak | less):
        less = set()
    return Changes(ran, tuple(sorted(found, key=lambda c: (c.id in weak, c.id in less))))


def _hand(setting: Setting, rated: Rated, fished: Fished) -> Hand:
    """The hand that fished a rig: what was not said is as it was sized. Raises BadInput."""
    count, pace, tip = fished.countdown_s, fished.pace_ft_s, fished.rod_tip_height_ft
    if count is not None:
        require_between("fished.countdown_s", count, 0.0, 120.0, "s")
    if pace is not None:
        require_between("fished.pace_ft_s", pace, 0.2, 8.0, "ft/s")
    if tip is not None:
        require_between("fished.rod_tip_height_ft", tip, 0.0, 12.0, "ft")
    sized = rated.cadence
    way = "steady" if sized is None or sized.cadence.floor or pace is not None else sized.way
    if fished.work in WAY and fished.work not in ("slow-roll", "hop", "drag", "shake", "yo-yo"):
        way = fished.work
    return Hand(
        rig=rated.rig,
        line=setting.line,
        count_s=rated.countdown_s if count is None else count,
        pace_m_s=rated.tuned.pace_m_s if pace is None else metres(pace),
        tip_m=setting.cast.rod_tip_m if tip is None else metres(tip),
        way=way,
    )


def _as_told(setting: Setting, rated: Rated, hand: Hand) -> Hand:
    """The hand with what the rig's own cast is told to run deeper than it is played: one figure for both."""
    own = replace(
        hand, count_s=rated.countdown_s, pace_m_s=rated.tuned.pace_m_s, tip_m=setting.cast.rod_tip_m
    )
    sized = rated.cadence
    if sized is not None and not sized.cadence.floor:
        own = replace(own, way=sized.way, pace_m_s=sized.handle_m_s)
    return replace(hand, told_ft=feet(rated.tuned.mean_m) - path_of(setting, own).mean_ft)


def _ran_at(setting: Setting, went: str, told_ft: float, by_ft: float | None) -> float:
    """Where it ran (ft): off what is told by so much as was said; where that is not known as told when that
    is out of the band on that side already, else off it by the usual miss, and clearly out of the band."""
    down = MEASURED.get(went)
    if down is None:
        return told_ft
    top, low = setting.targets.depth_ft
    if by_ft is None:
        if (told_ft < top - NEARLY_FT) if down > 0.0 else (told_ft > low + NEARLY_FT):
            return told_ft
        usual = setting.catalog.judgement.change.needed_ft
        out_of_band = told_ft - top if down > 0.0 else low - told_ft
        by_ft = max(usual, out_of_band + 0.5 * usual)
    return min(setting.scenario.conditions.bottom_depth_ft, max(0.0, told_ft - down * by_ft))


def _weak(case: Case, change: Change, ran_ft: float | None) -> bool:
    """Whether a change of depth brings less than half of what is needed."""
    if case.went not in MEASURED or ran_ft is None:
        return False
    top, low = case.setting.targets.depth_ft
    needed, runs = abs(min(low, max(top, case.told_ft)) - ran_ft), change.runs_ft
    return runs is None or (not change.mends and abs(runs - ran_ft) < HALF * needed)


def _liked_less(case: Case, change: Change) -> bool:
    """Whether a change of pace leaves the fish one that they like clearly less."""
    if not {change.id} & PACES or change.fished.pace_ft_s is None:
        return False
    then = replace(case.hand, pace_m_s=metres(change.fished.pace_ft_s))
    return liked(case, then) < LIKED_LESS * liked(case, case.hand)


def _change(case: Case, id_: str, ran_ft: float | None, swum: bool) -> Change | None:
    """A change as it is offered: the step of it that does best, by what is asked of it here; None without an
    effect."""
    if id_ == "faster" and case.went == "bump" and feet(case.hand.pace_m_s) >= _liked_slow_ft_s(case):
        return None
    steps = list(STEPS[id_](case)) if id_ in STEPS else []
    hand_only = id_ in ("slower", "faster", "longer-count", "shorter-count")
    if not swum and (hand_only or id_.startswith("rod-tip")):
        steps = []
    if not steps:
        if id_ in STEPS and (swum or id_ not in case.setting.catalog.says):
            return None
        said = _says(case, id_)
        return _made(case, id_, Step(said.what, case.hand), said.effect, "rule", mends=True)
    if id_ == "other-family":
        return _other_family(case, steps[0])
    down = MEASURED.get(case.went, -1.0 if case.went == "ticked-top" else 0.0)
    moved = hand_only or id_.startswith("rod-tip")
    if swum and ran_ft is not None and (down or (moved and case.went in ("fouled", "hung", "stalled"))):
        return _by_depth(case, id_, steps, ran_ft, down or -1.0)
    if case.went in ("fouled", "hung", "stalled") and not moved:
        return _by_odds(case, id_, steps)
    if case.went == "not-felt" or (case.went == "ran-high" and not swum):
        return _by_touch(case, id_, steps)
    return _as_asked(case, id_, steps, ran_ft)


def _liked_slow_ft_s(case: Case) -> float:
    """The slowest pace (ft/s) that these fish like of the family."""
    return case.setting.targets.pace_ft_s[0] * case.setting.family.pace_factor


def _made(
    case: Case, id_: str, step: Step, effect: str, by: str, mends: bool, runs_ft: float | None = None
) -> Change:
    """A change with the rig and the hand that it leaves."""
    hand, swum = step.hand, step.hand.rig.family.work == "swim"
    return Change(
        id=id_,
        what=step.what,
        effect=effect,
        by=by,
        mends=mends,
        rig=name_of(hand.rig).text(),
        fished=Fished(
            countdown_s=hand.count_s if swum else None,
            pace_ft_s=feet(hand.pace_m_s) if swum else None,
            rod_tip_height_ft=feet(hand.tip_m),
            work=hand.way,
        ),
        family=hand.rig.family.id,
        runs_ft=runs_ft,
        test_lb=step.test_lb,
        material=step.material,
    )


def _by_depth(case: Case, id_: str, steps: Sequence[Step], ran_ft: float, down: float) -> Change | None:
    """The step that brings it from where it ran into the band and nearest to what it was meant to run at
    (clear of the cover); none that goes the other way, skates, or touches what it should keep off."""
    setting = case.setting
    top, low = setting.targets.depth_ft
    if case.went not in MEASURED:
        top, low = 0.0, max(SKATES_FT, ran_ft - CLEAR_FT)
    # Who runs too low touches already: less of it is help enough.
    keeps_off = max(_keeps_off(case), path_of(setting, case.hand).deepest_ft if down < 0.0 else 0.0)
    played = [(step, path_of(setting, step.hand)) for step in steps]
    helps = [
        (step, path)
        for step, path in played
        if down * (path.mean_ft - ran_ft) >= LEAST_FT
        and path.mean_ft >= SKATES_FT
        and path.deepest_ft <= keeps_off
    ]
    if not helps:
        return None

    def off(path_ft: float) -> float:
        return max(top - path_ft, path_ft - low, 0.0)

    aim = min(low, max(top, case.told_ft))
    step, path = min(helps, key=lambda row: (off(row[1].mean_ft), abs(row[1].mean_ft - aim)))
    after = path.mean_ft
    if case.went in MEASURED:
        band = f"the band is {feet_said(top)}–{feet_said(low)} ft"
        effect = f"it ran at about {ran_ft:.1f} ft; this brings it to {after:.1f} ft; {band}"
    else:
        effect = f"runs {ran_ft - after:.1f} ft higher: {after:.1f} ft instead of {ran_ft:.1f} ft"
    return _made(case, id_, step, effect, "model", off(after) <= NEARLY_FT, after)


def _keeps_off(case: Case) -> float:
    """How deep (ft) the path may go: to the tops for a lure that goes over the cover, else short of the
    bottom."""
    c, rated = case.setting.scenario.conditions, case.rated
    floor = c.bottom_depth_ft - 0.1
    top = c.cover.top_depth_ft
    over = rated.way == "over" and top is not None and case.setting.targets.depth_ft[1] <= top
    return min(floor, top) if over and top is not None else floor


def _by_odds(case: Case, id_: str, steps: Sequence[Step]) -> Change | None:
    """The first step that gets in more often, or spoils less: by what is asked of a lure in this cover."""
    setting, rated = case.setting, case.rated
    mat = setting.stand.kind in ROOFS or setting.family.work == "drop"
    verb = "hangs" if setting.stand.kind in SNAGS else "fouls"
    before = odds_of(setting, rated, case.hand.rig)
    for step in steps:
        after = odds_of(setting, rated, step.hand.rig)
        if mat and setting.stand.kind not in SNAGS:
            more = after.passes - before.passes
            nearly = id_ == "heavier-head" and _of_100(after.passes) != _of_100(before.passes)
            if more >= LEAST_SHARE or (nearly and after.passes > ENOUGH):
                effect = f"goes through {_of_100(after.passes)} times instead of {_of_100(before.passes)}"
                return _made(case, id_, step, effect, "model", more >= 2.0 * LEAST_SHARE)
            continue
        was, now = getattr(before, verb), getattr(after, verb)
        less = max(LEAST_SPOILT, LEAST_OF_ITSELF * was)
        if was - now >= less and _of_100(now) != _of_100(was):
            effect = f"{verb} on {_of_100(now)} casts instead of {_of_100(was)}"
            return _made(case, id_, step, effect, "model", now < 0.85 * was)
    return None


def _by_touch(case: Case, id_: str, steps: Sequence[Step]) -> Change | None:
    """The first step that is felt clearly more often."""
    setting = case.setting

    def felt(hand: Hand) -> float:
        return setting.felt(setting.lure(hand.rig).net_weight_n, hand.line)

    before = felt(case.hand)
    for step in steps:
        after = felt(step.hand)
        if after - before >= LEAST_SHARE:
            effect = f"felt {_of_100(after)} times instead of {_of_100(before)}"
            return _made(case, id_, step, effect, "model", mends=True)
    return None


def _as_asked(case: Case, id_: str, steps: Sequence[Step], ran_ft: float | None) -> Change:
    """A step that answers the fish, with what it does to the depth of a lure that is swum: of a pace a whole
    one, or as much as brings it to what they like."""
    step, says, runs = _whole(case, id_, steps), _says(case, id_).effect, None
    if ran_ft is not None:
        runs = path_of(case.setting, step.hand).mean_ft
        if abs(runs - ran_ft) >= LEAST_FT:
            says += f"; runs {abs(runs - ran_ft):.1f} ft {'deeper' if runs > ran_ft else 'higher'}"
    return _made(case, id_, step, says, "model", mends=True, runs_ft=runs)


def _whole(case: Case, id_: str, steps: Sequence[Step]) -> Step:
    if id_ not in ("slower", "faster"):
        return steps[0]
    numbers, here = case.setting.catalog.judgement.change, feet(case.hand.pace_m_s)
    least = numbers.pace_step_in_s / 12.0
    if id_ == "faster":
        least = max(least, _liked_slow_ft_s(case) - here)
    return next((s for s in steps if abs(feet(s.hand.pace_m_s) - here) >= least - 1e-6), steps[-1])


def _says(case: Case, id_: str) -> SpokenChange:
    """The words of a change, after what went wrong where they are its own."""
    says = case.setting.catalog.says
    return says.get(f"{id_}@{case.went}") or says[id_]


def _other_family(case: Case, step: Step) -> Change | None:
    """Another family at its own best here; None where it would not spoil less."""
    setting, verb = case.setting, "hangs" if case.setting.stand.kind in SNAGS else "fouls"
    says = "fish that have quit what swims above them take it off the floor"
    if case.went != "nothing":
        says = "another lure for this water"
    if case.went in ("fouled", "hung", "stalled"):
        there = setting_of(
            setting.catalog, replace(setting.scenario, families=(step.hand.rig.family.id,)), setting.known
        )
        after = there.odds(step.hand.rig, there.lure(step.hand.rig), case.rated.tuned, LEAST_WAY_FT)
        was = getattr(odds_of(setting, case.rated, case.hand.rig), verb)
        if _of_100(getattr(after, verb)) == _of_100(was):
            return None
        says = f"{verb} on {_of_100(getattr(after, verb))} casts instead of {_of_100(was)}"
    return _made(case, "other-family", step, says, "model", mends=True)


def _of_100(share: float) -> str:
    """A share as so many of a hundred."""
    return f"{math.floor(share * 100 + 0.5)} of 100"
