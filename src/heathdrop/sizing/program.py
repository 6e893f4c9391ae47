"""Programmes for a rated rig: its own count and pace, or another way of working it."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import CastResult, fly
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure
from heathdrop.sizing.presentation import WAY_OF, presentation_of
from heathdrop.sizing.size import Rated, Sizing


@dataclass(frozen=True)
class Way:
    """A way of working a lure: its words, and its usual lift (m) and hold (s) where it has them."""

    id: str
    name: str
    says: str
    lift_m: float | None = None
    hold_s: float | None = None


#: Usual lifts and holds are practice.
WAYS: tuple[Way, ...] = (
    Way("steady", "steady retrieve", "count down, then reel at the pace, rod still"),
    Way("slow-roll", "slow-roll the bottom", "let it land, then reel so that it keeps touching", lift_m=0.15),
    Way("stop-and-go", "stop and kill", "reel, then stop dead and let it fall, over and over", hold_s=1.5),
    Way("burn-and-drop", "burn and drop", "three fast seconds, then a drop on tight line", hold_s=2.0),
    Way("yo-yo", "yo-yo", "reel it up by the lift, let it swing down on tight line", lift_m=0.9, hold_s=3.0),
    Way("hop", "hop", "rod lifts of the stated length, each let fall to the bottom", lift_m=0.12, hold_s=1.0),
    Way("drag", "drag", "slow sweeps of the rod along the bottom, never off it", lift_m=0.6, hold_s=1.0),
    Way(
        "shake",
        "shake",
        "small quick lifts of the tip in one place, then a drag on",
        lift_m=0.025,
        hold_s=4.0,
    ),
    Way(
        "lift-and-drop",
        "lift and drop by ledges",
        "a long lift off each ledge, then down to the next",
        lift_m=0.9,
    ),
    Way(
        "swing", "swing back under the boat", "retrieve half-way, stop, and let it pendulum home", hold_s=8.0
    ),
)
WAY = {way.id: way for way in WAYS}


def usual_way(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """The way of working that the rig's presentation in this water asks for."""
    return WAY_OF[presentation_of(catalog, rated.rig.family, sizing.facts)]


def program_of(
    sizing: Sizing,
    rated: Rated,
    way: str = "steady",
    lift_m: float | None = None,
    hold_s: float | None = None,
) -> tuple[Phase, ...]:
    """The programme of ``way`` for this rig, at the count and the pace that the search found."""
    chosen = WAY[way]
    lift = chosen.lift_m if lift_m is None else lift_m
    hold = chosen.hold_s if hold_s is None else hold_s
    pace, away = rated.tuned.pace_m_s, sizing.cast.distance_m
    count = Phase("fall", slack=True, for_s=rated.countdown_s)
    down = Phase("fall", slack=True)
    home = Phase("retrieve", speed_m_s=pace, take_up=True)
    if way == "slow-roll":
        return (down, Phase("slow-roll", speed_m_s=min(pace, 0.6), lift_m=lift, take_up=True))
    if way == "stop-and-go":
        leg = away / 5.0 / pace
        stops = [
            p
            for k in range(3)
            for p in (
                Phase("retrieve", speed_m_s=pace, for_s=leg, take_up=k == 0),
                Phase("kill", for_s=hold),
            )
        ]
        return (count, *stops, home)
    if way == "burn-and-drop":
        burn = Phase(
            "burn-and-drop", speed_m_s=max(1.2, pace), for_s=3.0, wait_s=hold, times=20, take_up=True
        )
        return (count, burn)
    if way == "yo-yo":
        return (down, Phase("yo-yo", lift_m=lift, wait_s=hold, times=int(min(30, away / (lift or 0.9)))))
    if way in ("hop", "drag", "lift-and-drop"):
        return (down, Phase(way, lift_m=lift, wait_s=hold, times=8))
    if way == "shake":
        return (
            down,
            Phase("shake", lift_m=lift, for_s=hold),
            Phase("drag", times=2),
            Phase("shake", lift_m=lift, for_s=hold),
        )
    if way == "swing":
        half = Phase("retrieve", speed_m_s=pace, for_s=0.5 * away / pace, take_up=True)
        return (count, half, Phase("swing", for_s=hold))
    return (count, home)


def play(
    sizing: Sizing,
    rated: Rated,
    way: str = "steady",
    lift_m: float | None = None,
    hold_s: float | None = None,
    *,
    lure: Lure | None = None,
    line: Line | None = None,
) -> CastResult:
    """The cast at display fidelity; another ``lure`` or ``line`` on the same programme, to compare."""
    program = program_of(sizing, rated, way, lift_m, hold_s)
    return fly(lure or rated.lure, line or sizing.line, sizing.water, sizing.cast, program, shapes=True)
