"""Timed drops to fall areas: a Bayesian update of log factors.

Unknowns are the logs of one factor for each trailer, each body (head shape,
family and skirt) and the friction of each line material, with the catalogue's
spreads as priors, and a hand's constant lateness on the stopwatch. A timed second is log-normal about the
closed-form time; its
error is estimated from the repeats, starting from the counting error of the
catalogue. The most probable factors come from Gauss–Newton steps, their
covariance from the curvature there (Laplace); a try far from the rest counts
less (Student weights, four degrees of freedom) and is named an outlier.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from heathdrop.catalog import Catalog
from heathdrop.learning.observations import DropTest, body_key, trailer_key
from heathdrop.physics.fall import glide_factor
from heathdrop.physics.rig import Measured, areas_of, lure_of
from heathdrop.physics.water import water_at
from heathdrop.units import M_PER_FT, square_metres

STEPS = 12
#: The name of the hand's constant lateness among the unknowns.
LATE = "late"


@dataclass(frozen=True)
class Factors:
    """Learned log factors: means and covariance over ``names`` (``body:…``, ``trailer:…``, ``line:…``)."""

    names: tuple[str, ...] = ()
    mean: NDArray[np.float64] = field(default_factory=lambda: np.zeros(0))
    cov: NDArray[np.float64] = field(default_factory=lambda: np.zeros((0, 0)))
    error: float = 0.0
    outliers: tuple[tuple[bool, ...], ...] = ()

    def index(self, name: str) -> int | None:
        """Where a name stands, None when nothing was learned of it."""
        return self.names.index(name) if name in self.names else None

    def factor(self, name: str) -> float:
        """The factor itself, 1 when nothing was learned."""
        k = self.index(name)
        return 1.0 if k is None else math.exp(float(self.mean[k]))

    def spread(self, name: str) -> float | None:
        """One sigma of the factor's log, None when nothing was learned."""
        k = self.index(name)
        return None if k is None else math.sqrt(float(self.cov[k, k]))

    def joint(self, a: str, b: str) -> float:
        """Covariance of two factors' logs."""
        i, j = self.index(a), self.index(b)
        return 0.0 if i is None or j is None else float(self.cov[i, j])


def names_of(test: DropTest) -> tuple[str, str, str]:
    """The three unknowns of a test."""
    return f"body:{body_key(test.rig)}", f"trailer:{trailer_key(test.rig)}", f"line:{test.line_material}"


def prior_spreads(catalog: Catalog, test: DropTest) -> tuple[float, float, float]:
    """One sigma of the log of each unknown before any test: body, trailer, line friction."""
    fall = areas_of(catalog, test.rig, test.temperature_f).fall
    columns = (("heads", "fall_factor"), ("families", "fall_drag_area_cm2"), ("skirts", "fall_drag_area_cm2"))
    spreads = [catalog.spread(*column) for column in columns]
    body = sum(fall[:3])
    of_body = (
        math.sqrt(sum((a * s) ** 2 for a, s in zip(fall[:3], spreads, strict=True))) / body
        if body > 0.0
        else 0.3
    )
    return of_body, catalog.spread("trailers", "fall_drag_area_cm2"), catalog.spread("model", "line_friction")


Factor = float | NDArray[np.float64]


@dataclass(frozen=True)
class Falls:
    """Tests as arrays, one entry each: what their times hang on. SI; ``body`` and ``tail`` are fall areas
    (m²) as the catalogue has them, ``glide`` the trailer's own."""

    weight: NDArray[np.float64]
    body: NDArray[np.float64]
    tail: NDArray[np.float64]
    glide: NDArray[np.float64]
    skin: NDArray[np.float64]
    depth: NDArray[np.float64]
    surface: NDArray[np.float64]
    density: NDArray[np.float64]


def falls_of(catalog: Catalog, tests: Sequence[DropTest]) -> Falls:
    """Tests packed, so that all of their times are reckoned at once."""
    rows = []
    for test in tests:
        rig = replace(test.rig, measured=replace(test.rig.measured, body_fall=1.0, trailer_fall=1.0))
        density = water_at(test.temperature_f).density_kg_m3
        fall = areas_of(catalog, rig, test.temperature_f).fall
        weight = lure_of(catalog, rig, density, test.temperature_f).net_weight_n
        glide = rig.trailer.glide * rig.plastic.glide_factor
        drawn = test.depth_m + test.surface_line_m
        skin = float(test.line.skin_area_m2(drawn)) / drawn
        areas = square_metres(sum(fall[:3])), square_metres(fall[3])
        rows.append((weight, *areas, glide, skin, test.depth_m, test.surface_line_m, density))
    return Falls(*np.array(rows, dtype=np.float64).T)


def times_of(falls: Falls, body: Factor, trailer: Factor, friction: Factor) -> NDArray[np.float64]:
    """Seconds the model gives for tests with these factors, one of each a test (see ``physics.fall``)."""
    tail = falls.tail * trailer
    area = falls.body * body + tail
    skin = falls.skin * friction
    p = np.sqrt(area + skin * falls.surface)
    q = np.sqrt(p * p + skin * falls.depth)
    mean = falls.depth * (q * q + q * p + p * p) / (q + p) * (2.0 / 3.0)
    with np.errstate(divide="ignore", invalid="ignore"):
        straight = np.where(falls.weight > 0.0, np.sqrt(falls.density / (2.0 * falls.weight)) * mean, np.inf)
        ratio = np.where(area > 0.0, falls.glide * tail / area, 0.0)
    return np.asarray(straight / glide_factor(ratio))


def predicted_s(catalog: Catalog, test: DropTest, body: float, trailer: float, friction: float) -> float:
    """Seconds the model gives for a test with these factors."""
    return float(times_of(falls_of(catalog, [test]), body, trailer, friction)[0])


def learn_drops(catalog: Catalog, tests: Sequence[DropTest], hand: float | None = None) -> Factors:
    """Every factor the tests speak of, with its covariance, the timing error and the outliers; ``hand`` is
    the scatter (one sigma, a share) that the angler's hand is known by, in place of the one assumed."""
    if not tests:
        return Factors()
    numbers = catalog.judgement.learning
    names = (*dict.fromkeys(n for test in tests for n in names_of(test)), LATE)
    where = {n: k for k, n in enumerate(names)}
    sigma = np.zeros(len(names))
    sigma[-1] = numbers.late_sigma_s
    for test in tests:
        for n, s in zip(names_of(test), prior_spreads(catalog, test), strict=True):
            sigma[where[n]] = max(sigma[where[n]], s, 1e-3)
    precision = np.diag(1.0 / sigma**2)
    mean: NDArray[np.float64] = np.zeros(len(names))
    start = error = catalog.model.count_error if hand is None else hand
    logs = [np.log(np.array(t.times_s)) for t in tests]
    weights = [np.ones(len(x)) for x in logs]
    falls = falls_of(catalog, tests)
    places = np.array([[where[n] for n in names_of(test)] for test in tests])
    curve = precision
    for _ in range(STEPS):
        curve, push = precision.copy(), -precision @ mean
        rest: list[NDArray[np.float64]] = []
        bases, slopes = slopes_of(falls, mean[places], float(mean[-1]))
        for k, (seen, w) in enumerate(zip(logs, weights, strict=True)):
            at, slope = [*places[k], where[LATE]], slopes[k]
            off = seen - bases[k]
            rest.append(off)
            # A depth misjudged is shared by a test's tries: more of them do not wear it down.
            told = float(w.sum())
            strength = 1.0 / (error**2 / told + numbers.test_depth_error**2)
            curve[np.ix_(at, at)] += strength * np.outer(slope, slope)
            push[at] += slope * strength * float((w * off).sum()) / told
        mean = np.asarray(mean + np.linalg.solve(curve, push), dtype=np.float64)
        error = _timing_error(catalog, rest, start)
        weights = [(numbers.freedom + 1.0) / (numbers.freedom + (off / error) ** 2) for off in rest]
    outliers = tuple(
        tuple(bool(abs(o) > numbers.outlier_sigma * error) for o in off - np.median(off)) for off in rest
    )
    return Factors(names, mean, np.asarray(np.linalg.inv(curve), dtype=np.float64), error, outliers)


def slopes_of(
    falls: Falls, logs: NDArray[np.float64], late: float
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Log of each test's predicted time at these unknowns (three log factors a test, and one lateness in s),
    and its derivatives by the four."""
    step = 1e-4

    def times(x: NDArray[np.float64]) -> NDArray[np.float64]:
        return times_of(falls, *np.exp(x).T)

    bare = times(logs)
    seen = np.maximum(bare + late, 0.1 * bare)
    by = [(times(logs + step * e) - times(logs - step * e)) / (2.0 * step * seen) for e in np.eye(3)]
    return np.log(seen), np.stack([*by, 1.0 / seen], axis=1)


def far_tries(catalog: Catalog, times_s: Sequence[float]) -> list[float]:
    """The times (s) so far from the middle of their test that the drop was likely spoilt; of two that are far
    apart both."""
    most = catalog.judgement.learning.spoilt
    if len(times_s) == 2:
        return list(times_s) if max(times_s) >= most * min(times_s) else []
    middle = float(np.median(times_s))
    return [t for t in times_s if not 1.0 / most < t / middle < most]


def suspicion(catalog: Catalog, test: DropTest) -> str | None:
    """A question when a time is far from the others, or all are so far off that something was mistyped; None
    when they are not."""
    far = far_tries(catalog, test.times_s)
    if far:
        said = " and ".join(f"{t:.2f} s" for t in far)
        rest = ", ".join(f"{t:.2f}" for t in test.times_s if t not in far)
        beside = f" beside {rest}" if rest else ", one far from the other"
        return f"Was a drop spoilt? {said}{beside}. Scrap it, or keep it if it is right."
    most = catalog.judgement.learning.suspect
    ratio = float(np.median(test.times_s)) / predicted_s(catalog, test, 1.0, 1.0, 1.0)
    if 1.0 / most < ratio < most:
        return None
    way = f"{ratio:.1f} times as long as" if ratio > 1.0 else f"only {ratio:.1f} of what"
    unit = " Was the depth in metres?" if 2.4 < ratio < 4.4 else ""
    return (
        f"The times are {way} the model gives for {test.depth_m / M_PER_FT:.1f} ft.{unit} Check "
        "depth, rig and seconds."
    )


def _timing_error(catalog: Catalog, rest: Sequence[NDArray[np.float64]], start: float) -> float:
    """One sigma of a timed second, from the scatter within repeats and the error at the ``start``."""
    squares = sum(float(((off - off.mean()) ** 2).sum()) for off in rest)
    spare = sum(max(0, len(off) - 1) for off in rest)
    numbers = catalog.judgement.learning
    tries = numbers.starting_tries
    return max(numbers.least_error, math.sqrt((tries * start**2 + squares) / (tries + spare)))


def measured_fall(factors: Factors, body: str, trailer: str, own: Measured) -> Measured:
    """``own`` with what was learned of a body and a trailer."""
    b, t = f"body:{body}", f"trailer:{trailer}"
    return replace(
        own,
        body_fall=factors.factor(b),
        trailer_fall=factors.factor(t),
        body_fall_spread=factors.spread(b),
        trailer_fall_spread=factors.spread(t),
        fall_joint=factors.joint(b, t),
    )
