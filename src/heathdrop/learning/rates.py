"""Bites an hour by what was different, from a few hundred casts: shrunk together, with honest intervals.

Bites of a bin are Poisson in its hours, the rates of a category's bins Gamma about the whole log's rate, with
a spread found by moments from the bins themselves (empirical Bayes). A bin with little effort stays near the
whole; its 80 % interval says how little is known. Bites come in clumps (a day, a stop): what the stops vary
by beyond chance widens everything. Many looks at one log are many looks: a difference is
claimed only at a level divided by their number (Bonferroni).
"""

from collections.abc import Sequence
from dataclasses import dataclass

from scipy.special import gammainc, gammaincinv

#: The interval told, the chance of a false claim in a whole log, and how wide an interval may be that still
#: says something (high over low).
INTERVAL, FALSE_CLAIM, WIDE = 0.8, 0.05, 4.0
#: The least spread of a category's rates about the whole, as a share: nobody knows that they are all alike.
LEAST_SPREAD = 0.25
#: Fewer stops than this do not say how bites clump.
LEAST_STOPS = 3


@dataclass(frozen=True)
class Effort:
    """What was fished in a bin of a category: casts, hours, bites."""

    by: str
    bin: str
    casts: int
    hours: float
    bites: int


@dataclass(frozen=True)
class Rate:
    """Bites an hour of a bin: shrunk mean, 80 % interval, whether that says anything, and whether the bin
    differs from the whole log (1 better, −1 worse, 0 not told)."""

    effort: Effort
    per_hour: float
    low: float
    high: float
    enough: bool
    differs: int


def clumped(hours: Sequence[float], bites: Sequence[int]) -> float:
    """How much more the bites of a log's stops vary than chance alone would have it (Pearson's dispersion,
    1 at the least): a day on, a day off, a stop that holds nobody. A bite counts for so much less."""
    whole = sum(bites) / max(1e-9, sum(hours))
    expected = [(b, whole * h) for h, b in zip(hours, bites, strict=True) if whole * h > 0.0]
    if len(expected) < LEAST_STOPS:
        return 1.0
    return max(1.0, sum((b - e) ** 2 / max(e, 0.5) for b, e in expected) / (len(expected) - 1))


def rates_of(efforts: Sequence[Effort], dispersion: float = 1.0) -> list[Rate]:
    """The rates of every bin, category by category. Bins of no time are left out. ``dispersion``: see
    :func:`clumped`."""
    fished = [e for e in efforts if e.hours > 0.0]
    categories = dict.fromkeys(e.by for e in fished)
    looks = sum(1 for by in categories if sum(e.by == by for e in fished) > 1 for e in fished if e.by == by)
    rates = []
    for by in categories:
        rates += _category([e for e in fished if e.by == by], looks, dispersion)
    return rates


def _category(bins: Sequence[Effort], looks: int, dispersion: float) -> list[Rate]:
    hours, bites = sum(e.hours for e in bins), sum(e.bites for e in bins)
    whole = (bites + 0.5) / hours
    # Few bins say little of how they spread: their own word counts by their number, within the whole itself.
    trust = (len(bins) - 1) / (len(bins) + 3)
    spread = min(
        whole**2,
        max(trust * _spread(bins, whole, hours=hours, dispersion=dispersion), (LEAST_SPREAD * whole) ** 2),
    )
    several = len(bins) > 1
    return [
        _rate(e, whole, spread=spread, hours=hours / dispersion, looks=looks, several=several, d=dispersion)
        for e in bins
    ]


def _spread(bins: Sequence[Effort], whole: float, hours: float, dispersion: float) -> float:
    """Variance of the bins' own rates about the whole, by moments; what chance alone makes is taken off."""
    seen = sum(e.hours * (e.bites / e.hours - whole) ** 2 for e in bins)
    room = hours - sum(e.hours**2 for e in bins) / hours
    chance = (len(bins) - 1) * whole * dispersion
    return max(0.0, (seen - chance) / room) if room > 0.0 else 0.0


def _rate(e: Effort, whole: float, spread: float, hours: float, looks: int, several: bool, d: float) -> Rate:
    """A bin's posterior as the Gamma of its mean and variance: what the bin says, and as far as it leans on
    the whole also how well that is known."""
    shape, rate = whole**2 / spread + e.bites / d, whole / spread + e.hours / d
    leans = whole / spread / rate
    mean, variance = shape / rate, shape / rate**2 + leans**2 * whole / hours
    shape, rate = mean**2 / variance, mean / variance
    tail = 0.5 * (1.0 - INTERVAL)
    low, high = (float(gammaincinv(shape, p)) / rate for p in (tail, 1.0 - tail))
    below = float(gammainc(shape, rate * whole))
    level = FALSE_CLAIM / max(1, looks)
    differs = 0 if not several else 1 if below < level else -1 if 1.0 - below < level else 0
    return Rate(effort=e, per_hour=mean, low=low, high=high, enough=high <= WIDE * low, differs=differs)
