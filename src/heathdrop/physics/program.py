"""Programmes: what the hands do, as legs of the simulation.

Each kind of phase has one function that turns it into legs: records of
:class:`Leg` in SI. Hand speeds are practice: a rod is lifted at
about 0.9 m/s and lowered at 0.6.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from heathdrop.errors import BadInput, require_between
from heathdrop.physics.kernels.records import (
    FAR,
    LONGEST_MORE_S,
    LONGEST_TAKE_UP_S,
    LONGEST_WAYS,
    SLACK_M_S,
    TIGHT,
    Leg,
)

LONGEST_CAST_S = 600.0
MOST_LEGS = 2000
AT_THE_ROD_M = 1.5
LIFT_M_S, LOWER_M_S, TAKE_UP_M_S = 0.9, 0.6, 0.3
#: A stroke snaps the lure up as fast as a rod can, m/s.
STROKE_M_S = 2.5
#: What the take-up of slack adds to the number of its phase in the samples.
TAKING_UP = 0.5
#: Straight distance over line out that leaves a slight bow.
SLIGHT_BOW = 0.99


@dataclass(frozen=True)
class Phase:
    """One step of a programme. Unused fields stay None; times s, lengths m, speeds m/s.

    ``do`` is one of :data:`KINDS`. ``tip_m`` moves the rod tip to that height as the phase begins;
    ``take_up`` reels in the slack of a fall fast before a retrieve's own pace.
    """

    do: str
    slack: bool = False
    pulled_off_reel: bool = False
    to_depth_m: float | None = None
    for_s: float | None = None
    speed_m_s: float | None = None
    lift_m: float | None = None
    times: int | None = None
    wait_s: float | None = None
    tip_m: float | None = None
    take_up: bool = False


@dataclass(frozen=True)
class Scene:
    """What a phase's legs depend on: cast (m), deepest bottom (m), the lure's own fall (m/s), tip height
    (m)."""

    distance_m: float
    deepest_m: float
    fall_m_s: float
    tip_m: float


def leg(
    index: int,
    seconds: float,
    *,
    reel: float = 0.0,
    tip_x: float = 0.0,
    tip_z: float = 0.0,
    to_depth: float | None = None,
    near: float | None = None,
    till_bottom: bool = False,
    clear: float = 0.0,
    tight: float = 0.0,
) -> Leg:
    """One leg: at most ``seconds`` of reeling (m/s) and tip motion (m/s), with its ends."""
    return Leg(
        time=seconds,
        reel=reel,
        tip_x=tip_x,
        tip_z=tip_z,
        depth=FAR if to_depth is None else to_depth,
        near=-FAR if near is None else near,
        bottom=1.0 if till_bottom else 0.0,
        phase=float(index),
        clear=clear,
        tight=tight,
    )


def take_up(index: int) -> Leg:
    """Reel in the slack until the line has only a slight bow, enough to see a tick."""
    return leg(index, 40.0, reel=TAKE_UP_M_S, tight=SLIGHT_BOW)


def lifted(index: int, lift_m: float, speed_m_s: float) -> Leg:
    """The tip raised (speed positive) or lowered by ``lift_m``: half up, half back, as a rod turns in the
    hands."""
    part = speed_m_s * math.sqrt(0.5)
    return leg(index, lift_m / abs(speed_m_s), tip_x=-part, tip_z=-part)


def _given(
    i: int, name: str, value: float | None, low: float, high: float, unit: str, default: float | None = None
) -> float:
    if value is None:
        value = default
    if value is None:
        raise BadInput(f"program[{i}].{name}", None, f"given in {unit}")
    return require_between(f"program[{i}].{name}", value, low, high, unit)


def _times(i: int, p: Phase, default: int) -> int:
    return int(
        _given(
            i,
            "times",
            value=None if p.times is None else float(p.times),
            low=1,
            high=100,
            unit="times",
            default=default,
        )
    )


def _speed(i: int, p: Phase, default_m_s: float | None = None) -> float:
    return _given(i, "speed_ft_s", value=p.speed_m_s, low=0.03, high=4.6, unit="m/s", default=default_m_s)


def _lift(i: int, p: Phase, default_m: float) -> float:
    return _given(i, "lift", value=p.lift_m, low=0.002, high=3.1, unit="m", default=default_m)


def _seconds(i: int, p: Phase, default: float | None = None) -> float:
    return _given(i, "for_s", value=p.for_s, low=0.0, high=LONGEST_CAST_S, unit="s", default=default)


def _slack_in(i: int, p: Phase) -> list[Leg]:
    """The slack of a fall reeled in until the line comes tight, where the phase asks for it."""
    if not p.take_up:
        return []
    taken = leg(i, LONGEST_TAKE_UP_S, reel=SLACK_M_S, near=AT_THE_ROD_M, tight=TIGHT)
    return [taken._replace(phase=i + TAKING_UP)]


def _retrieve(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """A steady reel, to the rod or for a time."""
    speed = _speed(i, p)
    longest = LONGEST_WAYS * scene.distance_m / speed + LONGEST_MORE_S
    home = leg(i, p.for_s if p.for_s is not None else longest, reel=speed, near=AT_THE_ROD_M)
    return [*_slack_in(i, p), home]


def _slow_roll(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Reeled so that it keeps touching down: full pace at the bottom, less the higher it is."""
    speed = _speed(i, p)
    longest = scene.distance_m * 4.0 / speed + 30.0
    seconds = p.for_s if p.for_s is not None else longest
    roll = leg(i, seconds, reel=speed, near=AT_THE_ROD_M, clear=_lift(i, p, 0.15))
    return [*_slack_in(i, p), roll]


def _pause(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """The reel stops, the line stays tight: the lure swings down and back."""
    return [leg(i, _seconds(i, p))]


def _fall(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """A fall on tight line to a depth, for a time, or to the bottom; slack when the hand gives line."""
    depth = p.to_depth_m
    seconds = p.for_s if p.for_s is not None else 120.0
    give = -1.05 * scene.fall_m_s if p.slack else 0.0
    return [leg(i, seconds, reel=give, to_depth=depth, till_bottom=depth is None and p.for_s is None)]


def _kill(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """The lure is killed: line given so that it falls straight where it is."""
    return [leg(i, _seconds(i, p), reel=-1.05 * scene.fall_m_s, till_bottom=True)]


def _hop(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Rod lifts of stated length, each let fall to the bottom and the slack taken up."""
    lift = _lift(i, p, 0.12)
    wait = _given(i, "wait_s", value=p.wait_s, low=0.0, high=60.0, unit="s", default=1.0)
    one = [
        lifted(i, lift, LIFT_M_S),
        lifted(i, lift, -LOWER_M_S),
        leg(i, 8.0, till_bottom=True),
        leg(i, wait),
        take_up(i),
    ]
    return [take_up(i), *(one * _times(i, p, 4))]


def _drag(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Slow sweeps of the rod along the bottom, the line taken up as the rod comes back."""
    sweep, speed = _lift(i, p, 0.6), _speed(i, p, 0.25)
    wait = _given(i, "wait_s", value=p.wait_s, low=0.0, high=60.0, unit="s", default=1.0)
    one = [
        leg(i, sweep / speed, tip_x=-speed),
        leg(i, sweep / (2 * speed), tip_x=2 * speed, reel=2 * speed),
        leg(i, wait),
        take_up(i),
    ]
    return [take_up(i), *(one * _times(i, p, 6))]


def _shake(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Small quick lifts of the tip, three a second, without gaining line."""
    lift = _lift(i, p, 0.025)
    half = 1.0 / 6.0
    one = [lifted(i, lift, lift / half), lifted(i, lift, -lift / half)]
    return [take_up(i), *(one * max(1, round(_seconds(i, p, 3.0) / (2 * half))))]


def _yo_yo(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Reeled up by a stated length, then let swing down on tight line, over and over."""
    lift, speed = _lift(i, p, 0.9), _speed(i, p, 0.9)
    wait = _given(i, "wait_s", value=p.wait_s, low=0.0, high=60.0, unit="s", default=3.0)
    one = [leg(i, lift / speed, reel=speed, near=AT_THE_ROD_M), leg(i, wait, till_bottom=True)]
    return [take_up(i), *(one * _times(i, p, 5))]


def _burn_and_drop(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """A few fast seconds, then a drop on tight line, over and over."""
    speed, burn = _speed(i, p, 1.2), _seconds(i, p, 3.0)
    wait = _given(i, "wait_s", value=p.wait_s, low=0.0, high=60.0, unit="s", default=2.0)
    one = [leg(i, burn, reel=speed, near=AT_THE_ROD_M), leg(i, wait, till_bottom=True)]
    return [*(_slack_in(i, p) or [take_up(i)]), *(one * _times(i, p, 5))]


def _lift_and_drop(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """A long lift off each ledge, then the rod follows it down to the next."""
    lift = _lift(i, p, 0.9)
    one = [
        lifted(i, lift, LIFT_M_S),
        lifted(i, lift, -LOWER_M_S),
        leg(i, 12.0, till_bottom=True),
        leg(i, 1.0),
        take_up(i),
    ]
    return [take_up(i), *(one * _times(i, p, 4))]


def _stroke(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Snapped up off the floor by a long lift of the rod, then line given so that it falls on slack."""
    lift = _lift(i, p, 1.8)
    one = [
        lifted(i, lift, STROKE_M_S),
        lifted(i, lift, -STROKE_M_S),
        leg(i, 12.0, till_bottom=True),
        leg(i, 1.0),
        take_up(i),
    ]
    return [take_up(i), *(one * _times(i, p, 4))]


def _step_down(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Drawn a little toward the lip of a step, then line given: it drops to the next and rests there."""
    draw, wait = (
        _lift(i, p, 0.3),
        _given(i, "wait_s", value=p.wait_s, low=0.0, high=60.0, unit="s", default=2.0),
    )
    give = -1.05 * scene.fall_m_s
    one = [
        lifted(i, draw, 0.3),
        lifted(i, draw, -0.3),
        leg(i, 3.0, reel=give, till_bottom=True),
        leg(i, wait),
        take_up(i),
    ]
    return [take_up(i), *(one * _times(i, p, 6))]


def _twitch(i: int, p: Phase, scene: Scene) -> list[Leg]:
    """Reeled at a pace all the while, the tip snapped up again and again, lowered as the lure sinks back."""
    speed, lift = _speed(i, p, 0.6), _lift(i, p, 0.15)
    wait = _given(i, "wait_s", value=p.wait_s, low=0.0, high=60.0, unit="s", default=0.6)
    up, down = lifted(i, lift, LIFT_M_S), lifted(i, lift, -LOWER_M_S)
    one = [
        leg(i, wait, reel=speed, near=AT_THE_ROD_M),
        up._replace(reel=speed, near=AT_THE_ROD_M),
        down._replace(reel=speed, near=AT_THE_ROD_M),
    ]
    return [*_slack_in(i, p), *(one * _times(i, p, 12))]


#: Every kind of phase, with the function that makes its legs.
KINDS: dict[str, Callable[[int, Phase, Scene], list[Leg]]] = {
    "fall": _fall,
    "retrieve": _retrieve,
    "slow-roll": _slow_roll,
    "pause": _pause,
    "kill": _kill,
    "swing": _pause,
    "hop": _hop,
    "drag": _drag,
    "shake": _shake,
    "yo-yo": _yo_yo,
    "burn-and-drop": _burn_and_drop,
    "lift-and-drop": _lift_and_drop,
    "stroke": _stroke,
    "step-down": _step_down,
    "twitch": _twitch,
}


def legs_of(program: Sequence[Phase], first: int, scene: Scene) -> list[Leg]:
    """The legs of ``program`` from phase ``first`` on. Raises BadInput naming the phase at fault."""
    legs: list[Leg] = []
    tip = scene.tip_m
    for i, phase in enumerate(program):
        if phase.do not in KINDS:
            raise BadInput(f"program[{i}].do", phase.do, "one of " + ", ".join(KINDS))
        if i < first:
            continue
        made = KINDS[phase.do](i, phase, scene)
        if phase.tip_m is not None:
            target = require_between(f"program[{i}].rod_tip_height_ft", phase.tip_m, 0.0, 4.0, "m")
            moved = abs(target - tip) / LIFT_M_S
            if moved > 0.0:
                rate = (tip - target) / moved
                legs.append(leg(i, moved, reel=made[0].reel, tip_z=rate, near=made[0].near))
            tip = target
        legs += made
    spent = sum(_nominal(row, scene) for row in legs)
    if spent > LONGEST_CAST_S:
        raise BadInput("program", f"about {spent:.0f} s long", f"at most {LONGEST_CAST_S:.0f} s of cast")
    if len(legs) > MOST_LEGS:
        raise BadInput("program", f"{len(legs)} moves long", f"at most {MOST_LEGS} moves")
    return legs


def _nominal(row: Leg, scene: Scene) -> float:
    """How long a leg is meant to take: a retrieve to the rod by its speed, the rest by their limit."""
    if row.near > 0.0 and row.reel > 0.0:
        return min(row.time, scene.distance_m / row.reel)
    if row.tight > 0.0:
        return 1.0
    if row.bottom > 0.5 or row.depth < FAR:
        return min(row.time, scene.deepest_m / max(scene.fall_m_s, 0.05))
    return row.time
