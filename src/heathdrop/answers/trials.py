"""Schools on trial, and one's own fish: how a log's bites and blanks speak for other numbers."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.answers.thrown import bitten
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput
from heathdrop.sizing.setting import Setting, mood_paces, setting_of

#: Water within a step of so much (°F) is about as warm.
WARM_F = 10.0
#: A school's liking is no bite rate: it counts to this power, so that no log is made to speak too loudly.
TEMPERED = 0.6
#: A shift of one's own fish (log): how tolerant they are of another weight or pace, how far the prior stands
#: about none, how far is looked.
TOLERANT, PRIOR, GRID = 0.35, 0.2, 0.9
#: The chance that a shift has the other sign, below which it is said: two are looked at in every log.
DOUBT = 0.0125
#: Log likelihood apart (natural) from which a log leans, and speaks strongly; fewer bites say nothing.
LEANS, STRONGLY, LEAST_BITES = 1.6, 3.5, 5


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
