"""Schools on trial, and one's own fish: how a log's bites and blanks speak for other numbers."""

from __future__ import annotations

import json
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.answers.thrown import bitten
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput
from heathdrop.sizing.setting import Setting, mood_paces, setting_of

__all__ = ["Shift", "Trial"]

Vector = NDArray[np.float64]

#: A liking is no bite rate, and fish may not mind at all: it counts to a power that nobody knows, each of
#: these as likely as the next.
POWERS = np.array([0.0, 0.25, 0.5, 0.75, 1.0])
#: A shift of one's own fish (log): how wide their taste may be, each as likely as the next (the last: they
#: do not mind), how far the prior stands about none, how far is looked.
TASTES, PRIOR, GRID = np.array([0.25, 0.35, 0.5, math.inf]), 0.225, 1.0
#: The chance that a shift has the other sign, below which it is said: two are looked at in every log.
DOUBT = 0.0125
#: Bayes factors (natural log) from which a log leans, and speaks strongly: 3 and 20 to one (Kass and Raftery
#: 1995); fewer bites say nothing.
LEANS, STRONGLY, LEAST_BITES = math.log(3.0), math.log(20.0), 5


@dataclass(frozen=True)
class Trial:
    """A school held against the log: how much more likely the bites are under its numbers than under the
    default's (Bayes factor, natural log), in words, and on how many casts."""

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
def setting_at(scenario: Scenario) -> Setting:
    """A water's setting, remembered."""
    return setting_of(catalogue.load(), scenario)


def water_of_cast(cast: MadeCast) -> Scenario | None:
    """A cast's water with its family; None where it is not known whole."""
    return _water(json.dumps(cast.conditions or {}, sort_keys=True), cast.family)


@lru_cache(maxsize=4096)
def _water(conditions: str, family: str) -> Scenario | None:
    try:
        asked = {"conditions": json.loads(conditions), "families": [family]}
        scenario = SizeRequest.model_validate(asked).scenario()
        check(scenario)
    except (ValidationError, BadInput):
        return None
    return scenario


@dataclass(frozen=True)
class _Held:
    """Casts that are held against each other, those of one lure at one stop on one day: their waters, the
    casts, minutes, bites (1 or 0), and which group each is of."""

    waters: tuple[Scenario, ...]
    casts: tuple[MadeCast, ...]
    minutes: Vector
    bites: Vector
    groups: NDArray[np.intp]

    def likelihood(self, worth: NDArray[np.float64]) -> Vector:
        """Log likelihood of where the bites came, given how many came in each group, for each row of
        ``worth`` (log of what fish make of a cast): the rate of a group is its own and drops out."""
        count = int(self.groups.max()) + 1
        rate = np.exp(worth) * self.minutes
        whole = np.stack([np.bincount(self.groups, row, count) for row in rate])
        bitten_ = np.bincount(self.groups, self.bites, count)
        return np.asarray(worth @ self.bites - np.log(np.maximum(whole, 1e-300)) @ bitten_)


def _held(made: Sequence[MadeCast], minutes: Sequence[float], swum: bool = False) -> _Held | None:
    """The casts whose water is known, of swum lures alone where asked; None where there are none."""
    keys: dict[tuple[str, str, str], int] = {}
    rows = []
    for cast, minute in zip(made, minutes, strict=True):
        water = water_of_cast(cast)
        if water is None or (swum and not (_swims(cast) and cast.pace_ft_s > 0.0)):
            continue
        key = cast.time.date().isoformat(), cast.stop, cast.family
        rows.append((water, cast, minute, float(bitten(cast)), keys.setdefault(key, len(keys))))
    if not rows:
        return None
    waters, casts, some, bites, groups = zip(*rows, strict=True)
    return _Held(waters, casts, np.array(some), np.array(bites), np.array(groups, dtype=np.intp))


def _swims(cast: MadeCast) -> bool:
    return catalogue.load().families[cast.family].work == "swim"


def trials_of(made: Sequence[MadeCast], minutes: Sequence[float]) -> list[Trial]:
    """Every school that moves the weights or trailers of what was thrown, against its topic's default.

    Casts of one lure at one stop on one day are held against each other, and nothing else: a day's mood, a
    stop that holds nobody, a season, a lure speak for no school, and an angler who always throws the same rig
    gives every school the same likelihood. How much fish mind is an unknown (:data:`POWERS`) that is summed
    over.
    """
    catalog, held, found = catalogue.load(), _held(made, minutes), []
    if held is None:
        return []
    for topic in catalog.topics.values():
        liked = {school: _liked(held, topic.id, school) for school in topic.schools}
        plain = liked[topic.default]
        base = _marginal(held.likelihood(POWERS[:, None] * plain))
        for school, some in liked.items():
            if school != topic.default and not np.allclose(some, plain, atol=1e-9):
                ratio = _marginal(held.likelihood(POWERS[:, None] * some)) - base
                words = _words(ratio, int(held.bites.sum()))
                found.append(Trial(topic.id, school, ratio, words, len(held.casts)))
    return found


def _marginal(logs: Vector) -> float:
    """Log of the mean of likelihoods whose logs these are."""
    most = float(logs.max())
    return most + math.log(float(np.exp(logs - most).mean()))


def _liked(held: _Held, topic: str, school: str) -> Vector:
    """Log of how a school's numbers like what was thrown: its weight, its trailer."""
    found = []
    for cast, water in zip(held.casts, held.waters, strict=True):
        setting = setting_at(replace(water, schools=((topic, school),)))
        tail = setting.leaning.tail(setting.family.id, cast.trailer)
        found.append(max(0.05, setting.weights.fit(cast.head_oz)) * max(0.05, min(1.0, tail)))
    return np.asarray(np.log(np.array(found)))


def shifts_of(made: Sequence[MadeCast], minutes: Sequence[float]) -> list[Shift]:
    """Heavier or lighter heads, quicker or slower paces than the tables have them, as one's own fish take
    them: posterior of a shift (log) whose prior stands about none; how wide their taste is, is summed over.
    Casts are held against each other as in :func:`trials_of`. Too few bites teach nothing."""
    found = []
    for what, swum in (("head weight", False), ("pace", True)):
        held = _held(made, minutes, swum)
        if held is not None and held.bites.sum() >= LEAST_BITES:
            off = _quicker(held) if swum else _heavier(held)
            mean, low, high, doubt = _shift(held, off)
            factor, bounds = math.exp(mean), (math.exp(low), math.exp(high))
            found.append(Shift(what, factor, *bounds, len(held.casts), doubt < DOUBT))
    return found


def _heavier(held: _Held) -> Vector:
    """Log of each head over the middle of its table."""
    middles = [setting_at(water).weights.middle_oz for water in held.waters]
    heads = np.array([c.head_oz for c in held.casts])
    return np.asarray(np.log(heads / np.array(middles)))


def _quicker(held: _Held) -> Vector:
    """Log of each pace over the middle of its mood's band."""
    bands = [mood_paces(setting_at(water)) for water in held.waters]
    paces = np.array([c.pace_ft_s for c in held.casts])
    return np.asarray(np.log(paces / np.array([math.sqrt(a * b) for a, b in bands])))


def _shift(held: _Held, off: Vector) -> tuple[float, float, float, float]:
    """Mean, 80 % interval and chance of the other sign of a shift δ (log): fish take a cast as
    exp(−½((x − δ)/σ)²) of the unknown rate of its group, σ one of :data:`TASTES`, δ about 0 by the prior."""
    grid = np.linspace(-GRID, GRID, 161)
    logs = np.stack(
        [held.likelihood(-0.5 * ((off[None, :] - grid[:, None]) / taste) ** 2) for taste in TASTES]
    )
    logs = logs - 0.5 * (grid / PRIOR) ** 2
    chance = np.exp(logs - logs.max()).sum(axis=0)
    chance /= chance.sum()
    whole = np.cumsum(chance)
    low, high = (float(np.interp(p, whole, grid)) for p in (0.1, 0.9))
    below = float(np.interp(0.0, grid, whole))
    return float(chance @ grid), low, high, min(below, 1.0 - below)


def _words(ratio: float, bites: int) -> str:
    """A ratio in words: too few, leans to it or against it, strongly."""
    if bites < LEAST_BITES or abs(ratio) < LEANS:
        return "too few"
    side = "for it" if ratio > 0.0 else "against it"
    return f"strongly {side}" if abs(ratio) >= STRONGLY else f"leans {side}"
