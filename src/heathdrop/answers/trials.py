"""Schools on trial: how a log's bites and blanks speak for other numbers than the usual ones."""

import json
import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray
from pydantic import ValidationError

from heathdrop import catalog as catalogue
from heathdrop.answers.thrown import bitten, fishes_oz
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput
from heathdrop.sizing.remembered import ByRig
from heathdrop.sizing.schools import leaning_of
from heathdrop.sizing.setting import Setting, setting_of

Vector = NDArray[np.float64]

#: A liking is no bite rate, and fish may not mind at all: it counts to a power that nobody knows, each of
#: these as likely as the next.
POWERS = np.array([0.0, 0.25, 0.5, 0.75, 1.0])
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


@lru_cache(maxsize=2048)
def setting_at(scenario: Scenario) -> Setting:
    """A water's setting, remembered without the rigs that were worked out for it: a log has many waters."""
    return replace(setting_of(catalogue.load(), scenario), worked=ByRig())


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
class Held:
    """Casts that are held against each other, those of one lure at one stop on one day: their waters, the
    casts, minutes, bites (1 or 0), and which group each is of."""

    waters: tuple[Scenario, ...]
    casts: tuple[MadeCast, ...]
    minutes: Vector
    bites: Vector
    groups: NDArray[np.intp]

    def part(self, which: NDArray[np.bool_]) -> "Held":
        """Those of the casts that a mask says; groups left out leave no gap that counts."""
        return Held(
            waters=tuple(w for w, one in zip(self.waters, which, strict=True) if one),
            casts=tuple(c for c, one in zip(self.casts, which, strict=True) if one),
            minutes=self.minutes[which],
            bites=self.bites[which],
            groups=np.unique(self.groups[which], return_inverse=True)[1].reshape(-1),
        )

    def likelihood(self, worth: NDArray[np.float64]) -> Vector:
        """Log likelihood of where the bites came, given how many came in each group, for each row of
        ``worth`` (log of what fish make of a cast): the rate of a group is its own and drops out."""
        count = int(self.groups.max()) + 1
        rate = np.exp(worth) * self.minutes
        whole = np.stack([np.bincount(self.groups, row, count) for row in rate])
        bitten_ = np.bincount(self.groups, self.bites, count)
        return np.asarray(worth @ self.bites - np.log(np.maximum(whole, 1e-300)) @ bitten_)


def held_of(made: Sequence[MadeCast], minutes: Sequence[float]) -> Held | None:
    """The casts whose water is known; None where there are none."""
    keys: dict[tuple[str, str, str], int] = {}
    rows = []
    for cast, minute in zip(made, minutes, strict=True):
        water = water_of_cast(cast)
        if water is None:
            continue
        key = cast.time.date().isoformat(), cast.stop, cast.family
        rows.append((water, cast, minute, float(bitten(cast)), keys.setdefault(key, len(keys))))
    if not rows:
        return None
    waters, casts, some, bites, groups = zip(*rows, strict=True)
    return Held(waters, casts, np.array(some), np.array(bites), np.array(groups, dtype=np.intp))


def trials_of(made: Sequence[MadeCast], minutes: Sequence[float]) -> list[Trial]:
    """Every school that moves the weights or trailers of what was thrown, against its topic's default.

    Casts of one lure at one stop on one day are held against each other, and nothing else: a day's mood, a
    stop that holds nobody, a season, a lure speak for no school, and an angler who always throws the same rig
    gives every school the same likelihood. How much fish mind is an unknown (:data:`POWERS`) that is summed
    over.
    """
    catalog, held, trials = catalogue.load(), held_of(made, minutes), []
    if held is None:
        return []
    for topic in catalog.topics.values():
        liked = {school: _liked(held, topic.id, school) for school in topic.schools}
        plain = liked[topic.default]
        base = _marginal(held.likelihood(POWERS[:, None] * plain))
        for school, some in liked.items():
            if school != topic.default and not np.allclose(some, plain, atol=1e-9):
                ratio = _marginal(held.likelihood(POWERS[:, None] * some)) - base
                verdict = _words(ratio, int(held.bites.sum()))
                trials.append(Trial(topic.id, school, ratio, verdict, len(held.casts)))
    return trials


def _marginal(logs: Vector) -> float:
    """Log of the mean of likelihoods whose logs these are."""
    most = float(logs.max())
    return most + math.log(float(np.exp(logs - most).mean()))


def _liked(held: Held, topic: str, school: str) -> Vector:
    """Log of how a school's numbers like what was thrown: its weight, its trailer."""
    waters = {id(water): water for water in held.waters}
    liking, settings = [], {key: _held_to(water, topic, school) for key, water in waters.items()}
    for cast, water in zip(held.casts, held.waters, strict=True):
        setting = settings[id(water)]
        tail = setting.leaning.tail(setting.family.id, cast.trailer)
        liking.append(max(0.05, setting.weights.fit(fishes_oz(cast, setting))) * max(0.05, min(1.0, tail)))
    return np.asarray(np.log(np.array(liking)))


def _held_to(water: Scenario, topic: str, school: str) -> Setting:
    """A water's setting under a school: the plain one where the school says nothing of it."""
    plain, picks = setting_at(water), ((topic, school),)
    if leaning_of(catalogue.load(), picks, plain.facts) == plain.leaning:
        return plain
    return setting_at(replace(water, schools=picks))


def _words(ratio: float, bites: int) -> str:
    """A ratio in words: too few, leans to it or against it, strongly."""
    if bites < LEAST_BITES or abs(ratio) < LEANS:
        return "too few"
    side = "for it" if ratio > 0.0 else "against it"
    return f"strongly {side}" if abs(ratio) >= STRONGLY else f"leans {side}"
