"""What a change does, said in feet, in chances or in words, and by whom: the record of one change."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from heathdrop.advice.change.hand import LEAST_WAY_FT, Fished, Hand, odds_of, path_of
from heathdrop.advice.change.moves import STEPS, Case, Step
from heathdrop.catalog import SpokenChange
from heathdrop.conditions.cover import ROOFS, SNAGS
from heathdrop.physics.rig_name import name_of
from heathdrop.sizing.setting import setting_of
from heathdrop.units import feet, feet_said

#: What can be measured in feet, with the way that mends it: 1 down, −1 up.
MEASURED = {"ran-high": 1.0, "ran-low": -1.0}
#: The least change of depth worth offering, ft.
LEAST_FT = 0.15
#: Nearer the surface than this (ft) it no longer swims: such a step is not offered. What is to be cleared is
#: cleared by this much, and by so much a change may miss the band and still mend.
SKATES_FT, CLEAR_FT, NEARLY_FT = 0.2, 0.6, 0.25
#: A share (felt, passes) that moves by less than this is no change; one of fouls or hangs by less than a
#: tenth of itself, nor by half a cast in a hundred. Getting through is mended by twice the first.
LEAST_SHARE, LEAST_OF_ITSELF, LEAST_SPOILT = 0.05, 0.1, 0.005
#: From here on a mat is got through often enough, and less than a clear gain is one.
ENOUGH = 0.9


@dataclass(frozen=True)
class Change:
    """One change: its id, what to do, its effect in words, whether the model or a rule says so, whether it is
    enough by itself; the rig (by its name) and the hand that it leaves, what it then runs at (ft; None where
    that is not asked), its family, another line test (lb) and material where one is spooled, the factor on
    its drag and lift that the cast showed."""

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
    seen: float = 1.0

    @property
    def tries(self) -> tuple[tuple[str, str], ...]:
        """How the sheet is asked for it, what was not changed left as it was fished; nothing for what only
        the angler can do."""
        if self.by == "rule":
            return ()
        fished, fields = self.fished, [("family", self.family), ("pick", self.rig)]
        for name, value, digits in (
            ("count_s", fished.countdown_s, 1),
            ("pace_ft_s", fished.pace_ft_s, 2),
            ("rod_tip_height_ft", fished.rod_tip_height_ft, 1),
        ):
            if value is not None:
                fields.append((name, f"{round(value, digits):g}"))
        if self.test_lb is not None:
            fields.append(("test_lb", f"{self.test_lb:g}"))
        if self.material:
            fields.append(("line", self.material))
        fields.append(("seen", f"{self.seen:.3f}" if round(self.seen, 3) != 1.0 else ""))
        return tuple(fields)


def change_of(case: Case, id_: str, ran_ft: float | None, swum: bool) -> Change | None:
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
        seen=hand.factor,
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
            setting.catalog, replace(setting.scenario, families=(step.hand.rig.family.id,)), setting.knowledge
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
