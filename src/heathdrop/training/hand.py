"""The hand's own error: how fast an angler counts and turns, and how unevenly, from blind taps.

A count of n seconds is tapped at its splash and at its end; both taps pass through the same phone, so that
what the phone is late by cancels out. The error of a count grows with its length (scalar timing: Gibbon,
Psychological Review 84, 1977), so it is told as a share of it. Short, middle and long counts have a bias of
their own, shrunk toward one common bias (hierarchical normal model); a missed tap weighs little (errors of
Student's t, by iteratively reweighted least squares: Lange, Little and Taylor, JASA 84, 1989).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from heathdrop.errors import BadInput, require_between
from heathdrop.sizing.knowledge import Handle

#: Shortest and longest count asked for (s), and the ends of short and of middle ones.
SHORTEST_S, LONGEST_S = 2.0, 20.0
CLASSES: tuple[tuple[str, float], ...] = (("short", 5.0), ("middle", 10.0), ("long", LONGEST_S))
#: Rounds from which a hand is told, and may be used.
LEAST_ROUNDS = 10
#: Prior of the common bias and of how far a class stands from it (log, one sigma); the scatter of a hand that
#: is not known (log, one sigma) and the rounds that it counts for; degrees of freedom of the errors.
BIAS_PRIOR, CLASS_PRIOR, SCATTER_PRIOR, PRIOR_ROUNDS, FREEDOM = 0.15, 0.04, 0.10, 4.0, 4.0
#: The scale that these weights find in normal errors, as a share of their one sigma: the root c of
#: E[(ν + 1) z² / (ν c² + z²)] = 1 for a standard normal z. A slip moves it little; what is told is one sigma.
OF_SIGMA = 0.8310
#: Normal quantile of an 80 % band.
EIGHTY = 1.2816
#: A tap further off than this factor is a slip of the thumb and teaches nothing.
SLIP = 2.5
#: Days after which a hand has grown stale, and the rounds that bring it up to date.
STALE_DAYS = 120


@dataclass(frozen=True)
class Tapped:
    """One blind round: seconds (or turns' seconds) asked for, and those that passed between the taps."""

    asked_s: float
    tapped_s: float

    @property
    def off(self) -> float:
        """Log of what passed over what was asked: above 0 the hand is slow."""
        return math.log(self.tapped_s / self.asked_s)


@dataclass(frozen=True)
class Band:
    """A bias as a share of the count (0.05: five hundredths of a second late each second), with its 80 %
    interval, and the rounds it rests on."""

    bias: float
    low: float
    high: float
    rounds: int


@dataclass(frozen=True)
class HandError:
    """A hand: its bias over short, middle and long counts alike, its bias by length of count, the scatter of
    one count (one sigma, a share of it)."""

    whole: Band
    by_length: tuple[tuple[str, Band], ...]
    scatter: float

    @property
    def enough(self) -> bool:
        """Whether so many rounds may be used."""
        return self.whole.rounds >= LEAST_ROUNDS

    @property
    def error(self) -> float:
        """One sigma of a counted second, as the bands of a cast take it: scatter, and what is not known of
        the bias."""
        unsure = (self.whole.high - self.whole.low) / (2.0 * EIGHTY)
        return math.hypot(self.scatter, unsure)

    @property
    def turns(self) -> Band:
        """The bias of a hand whose rounds are of turns: they are all of one length, and its own is meant."""
        return max((band for _, band in self.by_length), key=lambda b: b.rounds)

    @property
    def turning(self) -> Handle:
        """The hand as it turns the handle: turns that took longer than told were slower by that."""
        band = self.turns
        unsure = math.log((1.0 + band.high) / (1.0 + band.low)) / (2.0 * EIGHTY)
        error = math.hypot(math.log1p(self.scatter), unsure)
        return Handle(round(-math.log1p(band.bias), 4), round(error, 4), self.whole.rounds)


def tapped(asked_s: float, tapped_s: float) -> Tapped:
    """A round that can be. Raises BadInput naming what cannot."""
    asked = require_between("asked_s", asked_s, SHORTEST_S, LONGEST_S, "s")
    passed = require_between("tapped_s", tapped_s, 0.2, SLIP * LONGEST_S, "s")
    if not 1.0 / SLIP <= passed / asked <= SLIP:
        raise BadInput(
            "tapped_s", passed, f"{asked / SLIP:.1f} to {asked * SLIP:.1f} s for {asked:g} s asked"
        )
    return Tapped(asked, passed)


def class_of(asked_s: float) -> str:
    """Whether a count is short, middle or long."""
    return next(name for name, most in CLASSES if asked_s <= most)


def hand_of(rounds: Sequence[Tapped]) -> HandError | None:
    """The hand that made these rounds; None without any."""
    if not rounds:
        return None
    off = np.array([r.off for r in rounds])
    names = [name for name, _ in CLASSES]
    at = np.array([names.index(class_of(r.asked_s)) for r in rounds])
    scatter, weight = OF_SIGMA * SCATTER_PRIOR, np.ones(len(rounds))
    mean, cov = np.zeros(len(CLASSES) + 1), np.eye(len(CLASSES) + 1)
    for _ in range(30):
        mean, cov = _solved(off, at, weight, scatter)
        left = off - mean[0] - mean[1 + at]
        # E-step: errors far out are given little weight. M-step: the scatter that is left, with its prior.
        weight = (FREEDOM + 1.0) / (FREEDOM + (left / scatter) ** 2)
        summed = float((weight * left**2).sum()) + PRIOR_ROUNDS * (OF_SIGMA * SCATTER_PRIOR) ** 2
        scatter = math.sqrt(summed / (len(rounds) + PRIOR_ROUNDS))
    count = len(CLASSES)
    every = np.concatenate([[1.0], np.full(count, 1.0 / count)])
    bands = []
    for k, name in enumerate(names):
        one = np.zeros(count + 1)
        one[0] = one[1 + k] = 1.0
        bands.append((name, _band(one, mean, cov, int((at == k).sum()))))
    return HandError(_band(every, mean, cov, len(rounds)), tuple(bands), math.expm1(scatter / OF_SIGMA))


def _solved(
    off: np.ndarray, at: np.ndarray, weight: np.ndarray, scatter: float
) -> tuple[np.ndarray, np.ndarray]:
    """Posterior mean and covariance of the common bias and of each class's distance from it (log)."""
    design = np.zeros((off.size, len(CLASSES) + 1))
    design[:, 0] = 1.0
    design[np.arange(off.size), 1 + at] = 1.0
    # Errors of Student's t inform by (ν + 1) / (ν + 3) of what normal ones of this scatter do.
    precise = weight / scatter**2 * (FREEDOM + 1.0) / (FREEDOM + 3.0)
    prior = np.diag([BIAS_PRIOR**-2.0] + [CLASS_PRIOR**-2.0] * len(CLASSES))
    cov = np.linalg.inv(prior + (design * precise[:, None]).T @ design)
    return cov @ (design * precise[:, None]).T @ off, cov


def _band(which: np.ndarray, mean: np.ndarray, cov: np.ndarray, rounds: int) -> Band:
    """The bias that a combination of the unknowns says, with its band."""
    middle, off = float(which @ mean), EIGHTY * math.sqrt(float(which @ cov @ which))
    return Band(math.expm1(middle), math.expm1(middle - off), math.expm1(middle + off), rounds)
