"""What an angler should know of the tests: whether one contradicts the others, what another is worth."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.learning.checks import learn_lift, ran_at_m
from heathdrop.learning.drops import (
    LATE,
    Factors,
    falls_of,
    learn_drops,
    measured_fall,
    names_of,
    predicted_s,
    priors_of,
    slopes_of,
    unknowns_of,
)
from heathdrop.learning.observations import DepthCheck, DropTest, body_key, lift_key, trailer_key
from heathdrop.physics.rig import UNMEASURED, Rig, spread_of

#: Normal quantile of a two-sided 90 % band.
NINETY = 1.645
#: Tests of one rig compared with one another at most: the latest.
COMPARED = 24
#: Tries of the test that is imagined.
TRIES = 3
#: Another depth to try is this much deeper than the deepest timed, or this share of it (practice).
DEEPER, SHALLOWER = 2.0, 0.4
#: No drop is asked for outside these depths, m: a stopwatch allows no less, a dock no more (15 ft).
LEAST_M, MOST_M = 1.0, 4.572
#: A test worth less than this share of the band is not asked for.
WORTH_ASKING = 0.08


@dataclass(frozen=True)
class Odd:
    """A test that the others contradict: what they expect (low and high, s or m), what was seen, the listed
    head (oz) that would explain it where there is one."""

    low: float
    high: float
    seen: float
    head_oz: float | None = None


def odd_drops(catalog: Catalog, tests: Sequence[DropTest]) -> list[Odd | None]:
    """For each test, what the others of its trailer or body expect where it lies outside, or where another
    head than the one that was typed explains it far better; None where it agrees or stands alone. Of tests
    that contradict each other only for their heads the one furthest off is asked about."""
    akin = [_akin(tests, k) for k in range(len(tests))]
    found = [
        _odd_drop(catalog, test, [tests[n] for n in some]) for test, some in zip(tests, akin, strict=True)
    ]
    odds: list[Odd | None] = []
    for k, (odd, off) in enumerate(found):
        alone = all(found[n][1] < off for n in akin[k] if found[n][0] is not None)
        odds.append(odd if off > catalog.judgement.learning.outlier_sigma or alone else None)
    return odds


def _akin(tests: Sequence[DropTest], k: int) -> list[int]:
    """The places of the other tests that share an unknown of the rig with test ``k``."""
    test = tests[k]
    return [
        n
        for n, t in enumerate(tests)
        if n != k and (trailer_key(t.rig) == trailer_key(test.rig) or body_key(t.rig) == body_key(test.rig))
    ][-COMPARED:]


def _odd_drop(catalog: Catalog, test: DropTest, others: Sequence[DropTest]) -> tuple[Odd | None, float]:
    """What the others expect of a test where they contradict it, and how far off it is (sigmas)."""
    if not others:
        return None, 0.0
    numbers, factors = catalog.judgement.learning, learn_drops(catalog, others)
    names, priors = unknowns_of(test), priors_of(catalog, test)
    places = [factors.index(n) for n in names]
    mean = np.array([0.0 if k is None else factors.mean[k] for k in places])
    cov = np.diag(np.square(priors))
    for i, a in enumerate(places):
        for j, b in enumerate(places):
            if a is not None and b is not None:
                # What is wrong in all tests alike is wrong in this one too: it contradicts none.
                cov[i, j] = factors.cov[a, b] - factors.shared[a, b]
    logs, slopes = slopes_of(falls_of(catalog, [test]), [mean])
    own = factors.error**2 / len(test.times_s) + numbers.test_depth_error**2
    slope = slopes[0][: len(names)]
    sigma = math.sqrt(float(slope @ cov @ slope) + own)
    expected, seen = float(np.exp(logs[0])), float(np.median(test.times_s))
    off = abs(math.log(seen / expected)) / sigma
    head, better = _other_head(catalog, test, mean, seen=seen, sigma=sigma, off=off)
    if off <= numbers.outlier_sigma and better <= math.log(numbers.other_head):
        return None, off
    wide = math.exp(NINETY * sigma)
    return Odd(expected / wide, expected * wide, seen, head if better > 0.0 else None), off


def _other_head(
    catalog: Catalog, test: DropTest, mean: NDArray[np.float64], seen: float, sigma: float, off: float
) -> tuple[float, float]:
    """The family's listed head that explains a time best, and by how much better than the one that was typed
    (log of the likelihoods' ratio)."""
    heads = [oz for oz in test.rig.family.weights_oz if oz != test.rig.head_oz]
    # What the typed head weighed says nothing of another one.
    bare = replace(test.rig, measured=replace(test.rig.measured, head_g=None))
    others = [replace(test, rig=replace(bare, head_oz=oz)) for oz in heads]
    logs, _ = slopes_of(falls_of(catalog, others), [mean] * len(others))
    offs = np.abs(math.log(seen) - logs) / sigma
    best = int(np.argmin(offs))
    return heads[best], 0.5 * (off**2 - float(offs[best]) ** 2)


def odd_depths(catalog: Catalog, checks: Sequence[DepthCheck]) -> list[Odd | None]:
    """The same for depth checks of one family and trailer: what the others expect it to have run at, m."""
    odds: list[Odd | None] = []
    numbers = catalog.judgement.learning
    for k, check in enumerate(checks):
        key = lift_key(check.rig)
        others = [c for n, c in enumerate(checks) if n != k and lift_key(c.rig) == key][-COMPARED:]
        if not others:
            odds.append(None)
            continue
        factor = learn_lift(catalog, others)[key]
        expected = ran_at_m(catalog, check, factor.factor)
        high, low = (
            ran_at_m(catalog, check, factor.factor * math.exp(s * factor.spread)) for s in (1.0, -1.0)
        )
        seen_sigma = max(numbers.depth_least_m, numbers.depth_share * check.depth_m)
        sigma = math.hypot(0.5 * (low - high), seen_sigma)
        off = abs(check.depth_m - expected) > numbers.outlier_sigma * sigma
        wide = NINETY * sigma
        odds.append(Odd(max(0.0, expected - wide), expected + wide, check.depth_m) if off else None)
    return odds


@dataclass(frozen=True)
class Worth:
    """How well a rig's fall is known (half of its 90 % band, a share) and would be after one more test, at
    the depth (m) that teaches most."""

    now: float
    then: float
    depth_m: float

    @property
    def asked(self) -> bool:
        """Whether another test is worth the angler's time."""
        return self.now - self.then >= WORTH_ASKING * self.now


def another_worth(
    catalog: Catalog,
    tests: Sequence[DropTest],
    like: DropTest,
    shares: Sequence[float] = (1.0, DEEPER, SHALLOWER),
) -> Worth:
    """What one more test of ``like``'s rig would be worth: the expected narrowing of its fall.

    The imagined test comes out as expected, so the posterior keeps its middle and only narrows. It is
    imagined at ``shares`` of the depth of ``like``: there, well below and well above.
    """
    akin = [
        t
        for t in tests
        if trailer_key(t.rig) == trailer_key(like.rig) or body_key(t.rig) == body_key(like.rig)
    ]
    akin = akin[-COMPARED:]
    posterior = learn_drops(catalog, akin)
    now = _half_band(catalog, posterior, like)
    best = Worth(now, now, like.depth_m)
    for share in shares:
        imagined = replace(like, depth_m=min(MOST_M, max(LEAST_M, share * like.depth_m)))
        own = measured_fall(posterior, body_key(like.rig), trailer_key(like.rig), UNMEASURED)
        factors = own.body_fall, own.trailer_fall, posterior.factor(names_of(like)[2])
        at = posterior.index(LATE)
        late = 0.0 if at is None else float(posterior.mean[at])
        seconds = predicted_s(catalog, imagined, *factors) + late
        # As scattered as the hand is known to be: repeats without any would teach too much.
        error = posterior.error or catalog.model.count_error
        spread = np.exp(error * np.linspace(-1.2, 1.2, TRIES))
        times = tuple(float(seconds * s) for s in spread)
        then = _half_band(catalog, learn_drops(catalog, [*akin, replace(imagined, times_s=times)]), like)
        if then < best.then:
            best = Worth(now, then, imagined.depth_m)
    return best


def _half_band(catalog: Catalog, factors: Factors, test: DropTest) -> float:
    """Half of the 90 % band of a rig's fall rate, as a share."""
    own = measured_fall(factors, body_key(test.rig), trailer_key(test.rig), UNMEASURED)
    return half_band(catalog, replace(test.rig, measured=own), test.temperature_f)


def half_band(catalog: Catalog, rig: Rig, temperature_f: float) -> float:
    """Half of the 90 % band of a rig's fall rate as it is known, as a share."""
    return math.exp(NINETY * 0.5 * spread_of(catalog, rig, temperature_f).fall) - 1.0
