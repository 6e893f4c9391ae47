"""Last time: the days on record that are most like a water, what bit then, what was tried in vain."""

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby

from heathdrop.answers.plan import rig_said
from heathdrop.answers.thrown import bitten, known_of, number_of_cast, rig_of
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.units import counted, ounces_as_written

#: How far apart (one unit of distance) two waters are: °F, log of visibility, mph, ft.
APART = {
    "water_temp_f": 6.0,
    "clarity_ft": 0.7,
    "wind_mph": 8.0,
    "fish_depth_ft": 4.0,
    "bottom_depth_ft": 8.0,
}
#: What another word costs.
OTHER = {"season": 1.0, "cover": 1.0, "light": 0.6, "trend": 0.6, "forage": 0.6}
SAID = {
    "water_temp_f": "temperature {} °F",
    "clarity_ft": "visibility {} ft",
    "wind_mph": "wind {} mph",
    "fish_depth_ft": "fish depth {} ft",
    "bottom_depth_ft": "bottom {} ft",
}
#: Days told, and how far apart (root mean square) they may be.
DAYS, LIKE = 3, 1.0
#: A water of which fewer conditions than this are on record is like none: warmth alone is no likeness.
LEAST_KNOWN = 4


@dataclass(frozen=True)
class Day:
    """A day at a stop that was like this one: what was alike and what was not, casts and bites, what bit,
    what was tried in vain; ``take`` is the rig that was bitten most, with its count (s) and pace (ft/s)."""

    date: str
    stop: str
    distance: float
    alike: tuple[str, ...]
    differs: tuple[str, ...]
    casts: int
    bites: int
    bit: tuple[str, ...]
    in_vain: tuple[str, ...]
    take: tuple[RigName, float, float] | None = None


def days_like(made: Sequence[MadeCast], today: Scenario) -> list[Day]:
    """The days most like this water, the nearest first; none where nothing is like it."""
    days = []
    for (date, stop), casts in groupby(
        sorted(made, key=lambda c: (c.time.date().isoformat(), c.stop, c.time)),
        key=lambda c: (c.time.date().isoformat(), c.stop),
    ):
        day_casts = list(casts)
        conditions = next((c for c in day_casts if c.conditions), None)
        if conditions is None:
            continue
        distance, alike, differs = apart(conditions, today)
        if distance <= LIKE:
            bit = [c for c in day_casts if bitten(c)]
            vain = {thrown_said(c) for c in day_casts} - {thrown_said(c) for c in bit}
            said = dict.fromkeys(f"{thrown_said(c)}, {counted(c.countdown_s)}" for c in bit)
            tried, take = tuple(sorted(vain)), _taken(bit)
            days.append(
                Day(
                    date=date,
                    stop=stop,
                    distance=distance,
                    alike=alike,
                    differs=differs,
                    casts=len(day_casts),
                    bites=len(bit),
                    bit=tuple(said),
                    in_vain=tried,
                    take=take,
                )
            )
    return sorted(days, key=lambda d: (round(d.distance, 6), d.date, d.stop))[:DAYS]


def _taken(bit: Sequence[MadeCast]) -> tuple[RigName, float, float] | None:
    """The rig and setting that was bitten most, the latest of equals; None where nothing bit, or its rig is
    none that there is."""
    if not bit:
        return None
    counted = Counter((_worn(c), c.countdown_s) for c in bit)
    best = max(reversed(bit), key=lambda c: counted[_worn(c), c.countdown_s])
    try:
        rig = rig_of(best)
    except BadInput:
        return None
    return name_of(rig), best.countdown_s, best.pace_ft_s


def _worn(cast: MadeCast) -> str:
    """All that a cast's rig wears, by its name; by its words where it is none that there is."""
    try:
        return name_of(rig_of(cast)).text()
    except BadInput:
        return thrown_said(cast)


def thrown_said(cast: MadeCast) -> str:
    """The rig of a cast in words, as everywhere; by its family alone where it is none that there is."""
    try:
        return rig_said(rig_of(cast))
    except BadInput:
        return f"{ounces_as_written(cast.head_oz)} oz {cast.family.replace('-', ' ')}"


def apart(cast: MadeCast, today: Scenario) -> tuple[float, tuple[str, ...], tuple[str, ...]]:
    """How far a cast's water is from today's (root mean square of what both know), what is alike, what is
    not; infinitely far where too little is on record."""
    c, squares = today.conditions, []
    alike: list[str] = []
    differs: list[str] = []
    for name, unit in APART.items():
        then, now = number_of_cast(cast, name), float(getattr(c, name))
        if then is None:
            continue
        logs = name == "clarity_ft"
        off = (math.log(max(then, 0.2) / max(now, 0.2)) if logs else then - now) / unit
        squares.append(off * off)
        (alike if abs(off) < 0.6 else differs).append(SAID[name].format(f"{then:g}"))
    for name, cost in OTHER.items():
        was, is_ = known_of(cast, name), c.cover.kind if name == "cover" else getattr(c, name)
        if was is None:
            continue
        squares.append(0.0 if was == is_ else cost * cost)
        (alike if was == is_ else differs).append(f"{name} {str(was).replace('-', ' ')}")
    enough = len(squares) >= LEAST_KNOWN
    distance = math.sqrt(sum(squares) / len(squares)) if enough else math.inf
    return distance, tuple(alike), tuple(differs)
