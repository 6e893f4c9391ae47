"""What the log teaches: days like this one, bites an hour by what was different, schools on trial.

An angler's year is a few hundred casts: what cannot be told from it is said to be so.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import groupby
from typing import Any

import numpy as np
from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.answers.thrown import hours_among
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput
from heathdrop.learning.rates import Effort, Rate, rates_of
from heathdrop.physics.rig import rig_by_name
from heathdrop.physics.rig_name import RigName, name_of
from heathdrop.reading import number_of
from heathdrop.sizing.setting import Setting, mood_paces, setting_of
from heathdrop.units import count_said, ounces_as_written

#: A cast and what lies between it and the next take no longer than this (min) where the clock says more, and
#: this where nothing follows.
LONGEST_MIN, USUAL_MIN = 3.0, 1.0
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
#: Water within a step of so much (°F) is about as warm.
WARM_F = 10.0
#: A school's liking is no bite rate: it counts to this power, so that no log is made to speak too loudly.
TEMPERED = 0.6
#: Casts whose rates are looked at, and those that schools are tried on, at most: the latest.
LOOKED_AT, ON_TRIAL = 3000, 400
#: The trip of fish typed in without their casts: they teach no rate, for nobody knows the effort.
UNCOUNTED = "Typed in, casts not counted"
#: A shift of one's own fish (log): how tolerant they are of another weight or pace, how far the prior stands
#: about none, how far is looked.
TOLERANT, PRIOR, GRID = 0.35, 0.2, 0.9
#: The chance that a shift has the other sign, below which it is said: two are looked at in every log.
DOUBT = 0.0125
#: Log likelihood apart (natural) from which a log leans, and speaks strongly; fewer bites say nothing.
LEANS, STRONGLY, LEAST_BITES = 1.6, 3.5, 5


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


@dataclass(frozen=True)
class Trial:
    """A school held against the log: how much more likely the bites are under its numbers than under the
    default's (natural log), in words, and on how many casts."""

    topic: str
    school: str
    ratio: float
    words: str
    casts: int


@dataclass(frozen=True)
class Shift:
    """How one's own fish differ from the tables: what, by how much (a factor, 1 for not at all) with its 80 %
    interval, and on how many casts; ``told``: so sure that it may be said."""

    what: str
    factor: float
    low: float
    high: float
    casts: int
    told: bool = False


@dataclass(frozen=True)
class Lessons:
    """Everything that the log supports; ``among``: effort is time among the fish, not time by the clock."""

    casts: int
    bites: int
    like_today: tuple[Day, ...]
    rates: tuple[Rate, ...]
    schools: tuple[Trial, ...]
    own: tuple[Shift, ...]
    among: bool = False


def lessons_of(made: Sequence[MadeCast], today: Scenario | None = None) -> Lessons:
    """The lessons of a log, casts in the order of time; ``today`` asks for days like it. Effort is the time
    among the fish, or by the clock where no cast's water is known."""
    late = [c for c in made if c.trip != UNCOUNTED][-LOOKED_AT:]
    minutes, among = minutes_of(late), hours_among(late)
    if among is not None:
        minutes = [60.0 * h for h in among]
    return Lessons(
        casts=len(made),
        bites=sum(bitten(c) for c in made),
        like_today=tuple(days_like(made, today)) if today is not None else (),
        rates=tuple(rates_of(efforts_of(late, minutes))),
        schools=tuple(trials_of(late[-ON_TRIAL:], minutes[-ON_TRIAL:])),
        own=tuple(shifts_of(late[-ON_TRIAL:], minutes[-ON_TRIAL:])),
        among=among is not None,
    )


def bitten(cast: MadeCast) -> bool:
    """Whether a fish answered."""
    return OUTCOME[cast.outcome].bitten


def minutes_of(made: Sequence[MadeCast]) -> list[float]:
    """Minutes that each cast took, by the clock to the next one at the same stop of the same trip."""
    found = []
    follows: list[MadeCast | None] = [*made[1:], None]
    for cast, after in zip(made, follows[: len(made)], strict=True):
        gap = USUAL_MIN
        if after is not None and (after.trip, after.stop) == (cast.trip, cast.stop):
            gap = (after.time - cast.time).total_seconds() / 60.0
        found.append(min(LONGEST_MIN, gap) if gap > 0.0 else USUAL_MIN)
    return found


def _band(value: float, step: float, unit: str) -> str:
    low = step * math.floor(value / step)
    return f"{low:g} to {low + step:g} {unit}"


def _between(value: float, edges: Sequence[float], unit: str) -> str:
    for low, high in zip([0.0, *edges], edges, strict=False):
        if value < high:
            return f"{low:g} to {high:g} {unit}"
    return f"{edges[-1]:g} {unit} and more"


def _known(cast: MadeCast, name: str) -> Any:
    found = (cast.conditions or {}).get(name)
    return found.get("kind") if name == "cover" and isinstance(found, dict) else found


def _number(cast: MadeCast, name: str) -> float | None:
    value = _known(cast, name)
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None


def _if_number(name: str, said: Callable[[float], str]) -> Callable[[MadeCast], str]:
    def of(cast: MadeCast) -> str:
        value = _number(cast, name)
        return "" if value is None else said(value)

    return of


#: What a log is looked at by: the category, and the bin of a cast (empty: not known).
BY: dict[str, Callable[[MadeCast], str]] = {
    "temperature": _if_number("water_temp_f", lambda v: _band(v, 5.0, "°F")),
    "visibility": _if_number("clarity_ft", lambda v: _between(v, (2.0, 4.0, 8.0), "ft")),
    "light": lambda c: str(_known(c, "light") or ""),
    "cover": lambda c: str(_known(c, "cover") or "").replace("-", " "),
    "hour": lambda c: f"{c.time.hour - c.time.hour % 3} to {c.time.hour - c.time.hour % 3 + 3} h",
    "stop": lambda c: c.stop,
    "lure": lambda c: c.family.replace("-", " "),
    "head": lambda c: f"{ounces_as_written(c.head_oz)} oz",
    "trailer": lambda c: c.trailer.replace("-", " "),
    "pace": lambda c: _between(c.pace_ft_s, (1.5, 2.5), "ft/s") if c.pace_ft_s > 0.0 else "",
    "working": lambda c: c.work.replace("-", " "),
}


def efforts_of(made: Sequence[MadeCast], minutes: Sequence[float]) -> list[Effort]:
    """Casts, hours and bites of every bin of every category."""
    found = []
    for by, of in BY.items():
        bins: dict[str, list[int]] = {}
        for k, cast in enumerate(made):
            said = of(cast)
            if said:
                bins.setdefault(said, []).append(k)
        for said in sorted(bins, key=_order):
            mine = bins[said]
            hours, bites = sum(minutes[k] for k in mine) / 60.0, sum(bitten(made[k]) for k in mine)
            found.append(Effort(by, said, len(mine), hours, bites))
    return found


def _order(said: str) -> tuple[float, str]:
    """Bins by the number that they begin with, those of words by the alphabet."""
    try:
        return number_of(said.split(" ", 1)[0]), said
    except ValueError:
        return math.inf, said


def days_like(made: Sequence[MadeCast], today: Scenario) -> list[Day]:
    """The days most like this water, the nearest first; none where nothing is like it."""
    found = []
    for (date, stop), casts in groupby(
        sorted(made, key=lambda c: (c.time.date().isoformat(), c.stop, c.time)),
        key=lambda c: (c.time.date().isoformat(), c.stop),
    ):
        mine = list(casts)
        known = next((c for c in mine if c.conditions), None)
        if known is None:
            continue
        distance, alike, differs = apart(known, today)
        if distance <= LIKE:
            bit = [c for c in mine if bitten(c)]
            vain = {_rig_said(c) for c in mine} - {_rig_said(c) for c in bit}
            said = dict.fromkeys(f"{_rig_said(c)}, count {count_said(c.countdown_s)}" for c in bit)
            tried, take = tuple(sorted(vain)), _taken(bit)
            found.append(
                Day(
                    date=date,
                    stop=stop,
                    distance=distance,
                    alike=alike,
                    differs=differs,
                    casts=len(mine),
                    bites=len(bit),
                    bit=tuple(said),
                    in_vain=tried,
                    take=take,
                )
            )
    return sorted(found, key=lambda d: (round(d.distance, 6), d.date, d.stop))[:DAYS]


def _taken(bit: Sequence[MadeCast]) -> tuple[RigName, float, float] | None:
    """The rig and setting that was bitten most, the latest of equals; None where nothing bit, or its rig is
    none that there is."""
    if not bit:
        return None
    counted = Counter((_rig_said(c), c.countdown_s) for c in bit)
    best = max(reversed(bit), key=lambda c: counted[_rig_said(c), c.countdown_s])
    try:
        rig = rig_by_name(
            catalogue.load(),
            best.family,
            best.head_oz,
            best.trailer,
            head_material=best.head_material,
            trailer_length_in=best.trailer_length_in or None,
        )
    except BadInput:
        return None
    return name_of(rig), best.countdown_s, best.pace_ft_s


def _rig_said(cast: MadeCast) -> str:
    lure = cast.family.replace("-", " ")
    return f"{ounces_as_written(cast.head_oz)} oz {lure}, {cast.trailer.replace('-', ' ')}"


def apart(cast: MadeCast, today: Scenario) -> tuple[float, tuple[str, ...], tuple[str, ...]]:
    """How far a cast's water is from today's (root mean square of what both know), what is alike, what is
    not; infinitely far where too little is on record."""
    c, squares = today.conditions, []
    alike: list[str] = []
    differs: list[str] = []
    for name, unit in APART.items():
        then, now = _number(cast, name), float(getattr(c, name))
        if then is None:
            continue
        logs = name == "clarity_ft"
        off = (math.log(max(then, 0.2) / max(now, 0.2)) if logs else then - now) / unit
        squares.append(off * off)
        (alike if abs(off) < 0.6 else differs).append(SAID[name].format(f"{then:g}"))
    for name, cost in OTHER.items():
        was, is_ = _known(cast, name), c.cover.kind if name == "cover" else getattr(c, name)
        if was is None:
            continue
        squares.append(0.0 if was == is_ else cost * cost)
        (alike if was == is_ else differs).append(f"{name} {str(was).replace('-', ' ')}")
    known = len(squares) >= LEAST_KNOWN
    distance = math.sqrt(sum(squares) / len(squares)) if known else math.inf
    return distance, tuple(alike), tuple(differs)


@lru_cache(maxsize=4096)
def _setting(scenario: Scenario) -> Setting:
    return setting_of(catalogue.load(), scenario)


def _scenario(cast: MadeCast) -> Scenario | None:
    """A cast's water with its family; None where it is not known whole."""
    try:
        asked = {"conditions": cast.conditions, "families": [cast.family]}
        scenario = SizeRequest.model_validate(asked).scenario()
        check(scenario)
    except (ValidationError, BadInput):
        return None
    return scenario


def trials_of(made: Sequence[MadeCast], minutes: Sequence[float]) -> list[Trial]:
    """Every school that moves the weights or trailers of what was thrown, against its topic's default.

    Under a school a cast's rate is an unknown rate times how its numbers like the head and the trailer; bites
    are Poisson in the minutes. Each lure in each water temperature has a rate of its own, the best one for
    each school: what differs between lures or seasons speaks for no school, and an angler who always throws
    the same rig gives every school the same likelihood.
    """
    catalog, waters = catalogue.load(), [_scenario(c) for c in made]
    found = []
    for topic in catalog.topics.values():
        likely, groups = {}, [_alike(c, w) for c, w in zip(made, waters, strict=True) if w is not None]
        for school in topic.schools:
            rows: dict[tuple[str, int], list[tuple[float, bool]]] = {}
            for cast, minute, water in zip(made, minutes, waters, strict=True):
                if water is not None:
                    setting = _setting(replace(water, schools=((topic.id, school),)))
                    row = minute * _liked(setting, cast), bitten(cast)
                    rows.setdefault(_alike(cast, water), []).append(row)
            likely[school] = sum(_likelihood(some) for some in rows.values())
        bites = sum(bitten(c) for c, w in zip(made, waters, strict=True) if w is not None)
        base = likely[topic.default]
        if all(abs(v - base) < 1e-9 for v in likely.values()):
            continue
        for school, value in likely.items():
            if school != topic.default:
                found.append(Trial(topic.id, school, value - base, _words(value - base, bites), len(groups)))
    return found


def _alike(cast: MadeCast, water: Scenario) -> tuple[str, int]:
    """Casts that may be held against each other: of one lure, in water about as warm."""
    return cast.family, round(water.conditions.water_temp_f / WARM_F)


def _liked(setting: Setting, cast: MadeCast) -> float:
    """How a school's numbers like what was thrown: its weight, its trailer."""
    tail = setting.leaning.tail(setting.family.id, cast.trailer)
    liked = max(0.05, setting.weights.fit(cast.head_oz)) * max(0.05, min(1.0, tail))
    return float(liked**TEMPERED)


def shifts_of(made: Sequence[MadeCast], minutes: Sequence[float]) -> list[Shift]:
    """Heavier or lighter heads, quicker or slower paces than the tables have them, as one's own fish take
    them: posterior of a shift (log) whose prior stands about none. Each lure in water about as warm has a
    rate of its own, so that neither lures nor seasons speak. Too few bites teach nothing."""
    off: dict[str, list[tuple[tuple[str, int], float, float, bool]]] = {"head weight": [], "pace": []}
    for cast, minute in zip(made, minutes, strict=True):
        water = _scenario(cast)
        if water is None:
            continue
        setting = _setting(water)
        heavier = math.log(cast.head_oz / setting.weights.middle_oz)
        group = _alike(cast, water)
        off["head weight"].append((group, heavier, minute, bitten(cast)))
        if setting.family.work == "swim" and cast.pace_ft_s > 0.0:
            slow, fast = mood_paces(setting)
            quicker = math.log(cast.pace_ft_s / math.sqrt(slow * fast))
            off["pace"].append((group, quicker, minute, bitten(cast)))
    found = []
    for what, rows in off.items():
        if sum(row[3] for row in rows) >= LEAST_BITES:
            mean, low, high, doubt = _shift(rows)
            factor, bounds = math.exp(mean), (math.exp(low), math.exp(high))
            found.append(Shift(what, factor, *bounds, len(rows), doubt < DOUBT))
    return found


def _shift(rows: Sequence[tuple[tuple[str, int], float, float, bool]]) -> tuple[float, float, float, float]:
    """Mean, 80 % interval and chance of the other sign of a shift (log), from rows of group, offset, minutes,
    bite: fish take a cast as exp(−½((x − δ)/σ)²) of the unknown rate of its group, which is integrated out,
    δ about 0 by the prior."""
    x, minutes, bites = (np.array([r[k] for r in rows], dtype=float) for k in range(1, 4))
    grid = np.linspace(-GRID, GRID, 401)
    worth = -0.5 * ((x[None, :] - grid[:, None]) / TOLERANT) ** 2
    logs = worth @ bites - 0.5 * (grid / PRIOR) ** 2
    kinds = [r[0] for r in rows]
    for kind in set(kinds):
        mine = np.array([k == kind for k in kinds])
        logs -= bites[mine].sum() * np.log(np.exp(worth[:, mine]) @ minutes[mine])
    chance = np.exp(logs - logs.max())
    chance /= chance.sum()
    whole = np.cumsum(chance)
    low, high = (float(np.interp(p, whole, grid)) for p in (0.1, 0.9))
    below = float(np.interp(0.0, grid, whole))
    return float(chance @ grid), low, high, min(below, 1.0 - below)


def _likelihood(rows: Sequence[tuple[float, bool]]) -> float:
    """Log likelihood of the bites at the rate that fits them best."""
    whole, bites = sum(w for w, _ in rows), sum(b for _, b in rows)
    if not bites or whole <= 0.0:
        return 0.0
    rate = bites / whole
    return sum(math.log(rate * w) for w, bit in rows if bit) - bites


def _words(ratio: float, bites: int) -> str:
    """A ratio in words: too few, leans to it or against it, strongly."""
    if bites < LEAST_BITES or abs(ratio) < LEANS:
        return "too few"
    side = "for it" if ratio > 0.0 else "against it"
    return f"strongly {side}" if abs(ratio) >= STRONGLY else f"leans {side}"
