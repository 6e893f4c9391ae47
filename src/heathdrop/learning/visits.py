"""How readily one's own fish bite, by the visits of a log: bite rate, mood, empty stops, tiring.

A visit is a stop on a day. With some chance it holds nobody; else its bites are Poisson in what its casts are
expected to earn, times a rate of the visit's own that is Gamma about one (a day on, a day off), which
integrates out in closed form (negative multinomial). The casts' expectation carries a factor on the bite
rate, a shift of the mood, and how fish tire of the same cast; all of it is summed over a grid (Bayes), the
table's values in the middle of the prior.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaln, logsumexp

Vector = NDArray[np.float64]

#: The grid: bite rate (log of a factor), steps of the mood, and the variance of a visit's own rate. Nobody
#: knows how moody days are: each variance is as likely as the next.
RATE, STEPS = np.linspace(-2.4, 2.4, 25), np.linspace(-2.0, 2.0, 17)
VARIANCES = np.array([0.1, 0.3, 0.8])
#: Shares of stops that hold nobody, and what is left of a cast the next time in the same lane.
ABSENT, TIRES = np.linspace(0.05, 0.95, 10), np.array([0.45, 0.55, 0.65, 0.75, 0.85, 0.95])
#: One sigma of the prior about the table: log of the rate, steps, shares.
RATE_SIGMA, STEPS_SIGMA, ABSENT_SIGMA, TIRES_SIGMA = 0.55, 0.7, 0.2, 0.12


@dataclass(frozen=True)
class Visit:
    """A stop on a day: its mood (0 to 4) and how far its water is cold (0 to 1), and of each cast what it is
    expected to earn by the tables were it the first of its kind, how often the same was thrown in the same
    lane before, and whether it was bitten (1 or 0)."""

    mood: float
    cold: float
    expected: Vector
    before: Vector
    bites: Vector


@dataclass(frozen=True)
class Likely:
    """A posterior on a grid: its values and their chances, which sum to 1."""

    values: Vector
    chance: Vector = field(repr=False)

    @property
    def mean(self) -> float:
        """The mean value."""
        return float(self.chance @ self.values)

    def at(self, share: float) -> float:
        """The value below which this share of the chance lies; chances are spread over their cells."""
        edges = np.concatenate([[0.0], np.cumsum(self.chance)])
        half = 0.5 * np.diff(self.values)
        ends = np.concatenate([self.values[:1], self.values[:-1] + half, self.values[-1:]])
        return float(np.interp(share, edges, ends))

    def below(self, value: float) -> float:
        """The chance of values below this one."""
        half = 0.5 * np.diff(self.values)
        ends = np.concatenate([self.values[:1], self.values[:-1] + half, self.values[-1:]])
        return float(np.interp(value, ends, np.concatenate([[0.0], np.cumsum(self.chance)])))


def bites_told(
    visits: Sequence[Visit], per_s: Sequence[float], absent: float, tires: float
) -> dict[str, Likely]:
    """Posteriors of ``bites`` (log of a factor), ``cold`` and ``warm`` (steps of the mood), ``absent`` and
    ``tires`` (shares), over the visits; ``per_s`` is the tables' bite rate by mood, ``absent`` and ``tires``
    what the tables have. A posterior of a temperature nobody fished at is its prior."""
    if not visits:
        return {}
    cold = _together([v for v in visits if v.cold >= 0.5], per_s)
    warm = _together([v for v in visits if v.cold < 0.5], per_s)
    steps = -0.5 * (STEPS / STEPS_SIGMA) ** 2
    # Each is (rate, steps, absent, tires, variance); what both share is summed over together.
    cold, warm = (side + steps[None, :, None, None, None] for side in (cold, warm))
    of_cold, of_warm = (logsumexp(side, axis=1, keepdims=True) for side in (cold, warm))
    shared = (
        _bell(RATE / RATE_SIGMA)[:, None, None, None, None]
        + _bell((ABSENT - absent) / ABSENT_SIGMA)[None, None, :, None, None]
        + _bell((TIRES - tires) / TIRES_SIGMA)[None, None, None, :, None]
    )
    return {
        "bites": _likely(RATE, shared + of_cold + of_warm, 0),
        "absent": _likely(ABSENT, shared + of_cold + of_warm, 2),
        "tires": _likely(TIRES, shared + of_cold + of_warm, 3),
        "cold": _likely(STEPS, shared + cold + of_warm, 1),
        "warm": _likely(STEPS, shared + warm + of_cold, 1),
    }


def _bell(off: Vector) -> Vector:
    return np.asarray(-0.5 * off**2)


def _likely(values: Vector, logs: Vector, axis: int) -> Likely:
    """The posterior along one axis of joint logs."""
    others = tuple(k for k in range(logs.ndim) if k != axis)
    alone = logsumexp(logs, axis=others)
    chance = np.exp(alone - alone.max())
    return Likely(values, chance / chance.sum())


def _together(visits: Sequence[Visit], per_s: Sequence[float]) -> Vector:
    """Log likelihood of visits for each (rate, steps, absent, tires, variance)."""
    whole = np.zeros((len(RATE), len(STEPS), len(ABSENT), len(TIRES), len(VARIANCES)))
    for visit in visits:
        whole += _visit(visit, per_s)
    return whole


def _visit(visit: Visit, per_s: Sequence[float]) -> Vector:
    """Log likelihood of a visit for each (rate, steps, absent, tires, variance)."""
    moods = np.arange(len(per_s), dtype=np.float64)
    usual = float(np.interp(visit.mood, moods, per_s))
    livelier = np.log(np.interp(np.clip(visit.mood + STEPS, 0.0, moods[-1]), moods, per_s) / usual)
    fresh = TIRES[:, None] ** visit.before[None, :] * visit.expected[None, :]
    bites = float(visit.bites.sum())
    expected = (RATE[:, None, None] + livelier[None, :, None] + np.log(fresh.sum(axis=1)))[..., None]
    shape = 1.0 / VARIANCES
    bitten = np.log(np.maximum(fresh, 1e-12)) @ visit.bites
    home = (
        gammaln(bites + shape)
        - gammaln(shape)
        + shape * np.log(shape)
        - (bites + shape) * np.log(np.exp(expected) + shape)
        + bites * (RATE[:, None, None, None] + livelier[None, :, None, None])
        + bitten[None, None, :, None]
    )[:, :, None]
    here = np.log(1.0 - ABSENT)[:, None, None] + home
    nobody = np.log(ABSENT)[:, None, None] if bites == 0.0 else -np.inf
    return np.asarray(np.logaddexp(here, nobody))
