"""Timed drops to fall areas: a Bayesian update of log factors.

Unknowns are the logs of one factor for each trailer, each body (head shape,
family and skirt) and the friction of each line material, with the catalogue's
spreads as priors, a hand's constant lateness on the stopwatch, and the depth of each place where the bottom
was found in fishing. A timed second is log-normal about the closed-form time; its
error is estimated from the repeats, starting from the counting error of the
catalogue. The most probable factors come from Gauss–Newton steps, their
covariance from the curvature there (Laplace); a try far from the rest counts
less (Student weights, four degrees of freedom) and is named an outlier.

What may be wrong in all tests alike (a depth read too deep, a fast count, line dragged that nobody mentioned)
is not estimated: fishing is done by the same sounder and the same count. It widens the covariance as a
consider parameter does (Schmidt 1966; Tapley, Schutz, Born 2004, section 6): more tests do not wear it down.
"""

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
#: The name of the hand's constant lateness (s) among the unknowns.
LATE = "late"


@dataclass(frozen=True)
class Factors:
    """Learned log factors: means and covariance over ``names`` (``body:…``, ``trailer:…``, ``line:…``);
    ``shared`` is the part of the covariance that comes of what is wrong in all tests alike; ``lengths_alike``
    the correlation of a shape's lengths and ``prior`` a trailer's spread before any test."""

    names: tuple[str, ...] = ()
    mean: NDArray[np.float64] = field(default_factory=lambda: np.zeros(0))
    cov: NDArray[np.float64] = field(default_factory=lambda: np.zeros((0, 0)))
    error: float = 0.0
    outliers: tuple[tuple[bool, ...], ...] = ()
    shared: NDArray[np.float64] = field(default_factory=lambda: np.zeros((0, 0)))
    lengths_alike: float = 0.0
    prior: float = 0.0

    def nearest_length(self, trailer: str) -> str:
        """The timed trailer of the same shape (by its unknown's name) that is nearest in length to one that
        was not timed; empty where none was."""
        kin = [n for n in self.names if shape_of(n) and shape_of(n) == shape_of(trailer)]
        return min(kin, key=lambda n: abs(_length(n) - _length(trailer)), default="")

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
    """The three unknowns of a test that are its rig's and its line's."""
    return f"body:{body_key(test.rig)}", f"trailer:{trailer_key(test.rig)}", f"line:{test.line_material}"


def unknowns_of(test: DropTest) -> tuple[str, ...]:
    """Every unknown of a test: its rig's and line's, the hand's lateness, its place where it has one."""
    return (*names_of(test), LATE, *([f"at:{test.place}"] if test.place else []))


def priors_of(catalog: Catalog, test: DropTest) -> tuple[float, ...]:
    """One sigma of each of :func:`unknowns_of` before any test."""
    n = catalog.judgement.learning
    return (*prior_spreads(catalog, test), n.late_sigma_s, *([n.place_sigma] if test.place else []))


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
    names = (*dict.fromkeys(n for test in tests for n in unknowns_of(test) if n != LATE), LATE)
    where = {n: k for k, n in enumerate(names)}
    sigma = np.zeros(len(names))
    for test in tests:
        for n, s in zip(unknowns_of(test), priors_of(catalog, test), strict=True):
            sigma[where[n]] = max(sigma[where[n]], s, 1e-3)
    precision = np.linalg.inv(np.outer(sigma, sigma) * _alike(names, numbers.lengths_alike))
    mean: NDArray[np.float64] = np.zeros(len(names))
    start = error = catalog.model.count_error if hand is None else hand
    logs = [np.log(np.array(t.times_s)) for t in tests]
    weights = [np.ones(len(x)) for x in logs]
    falls = falls_of(catalog, tests)
    places = [[where[n] for n in unknowns_of(test)] for test in tests]
    curve, pull = precision, np.zeros((len(names), 2))
    for _ in range(STEPS):
        curve, push = precision.copy(), -precision @ mean
        pull = np.zeros((len(names), 2))
        rest: list[NDArray[np.float64]] = []
        bases, slopes = slopes_of(falls, [mean[at] for at in places])
        for k, (at, seen, w) in enumerate(zip(places, logs, weights, strict=True)):
            base, slope = bases[k], slopes[k][: len(at)]
            off = seen - base
            rest.append(off)
            # A depth misjudged is shared by a test's tries: more of them do not wear it down.
            weight = float(w.sum())
            strength = 1.0 / (error**2 / weight + numbers.test_depth_error**2)
            curve[np.ix_(at, at)] += strength * np.outer(slope, slope)
            push[at] += slope * strength * float((w * off).sum()) / weight
            pull[at] += strength * np.outer(slope, slopes[k][len(at) :])
        mean = np.asarray(mean + np.linalg.solve(curve, push), dtype=np.float64)
        error = _timing_error(catalog, rest, start)
        weights = [(numbers.freedom + 1.0) / (numbers.freedom + (off / error) ** 2) for off in rest]
    outliers = tuple(
        tuple(bool(abs(o) > numbers.outlier_sigma * error) for o in off - np.median(off)) for off in rest
    )
    covariance = np.asarray(np.linalg.inv(curve), dtype=np.float64)
    off = covariance @ pull * np.array([numbers.read_sigma, numbers.dragged_sigma_m])
    shared = np.asarray(off @ off.T, dtype=np.float64)
    prior = catalog.spread("trailers", "fall_drag_area_cm2")
    return Factors(
        names=names,
        mean=mean,
        cov=covariance + shared,
        error=error,
        outliers=outliers,
        shared=shared,
        lengths_alike=numbers.lengths_alike,
        prior=prior,
    )


def _length(name: str) -> float:
    """The length (in) of a trailer's unknown."""
    return float(name.rpartition("/")[2])


def shape_of(name: str) -> str:
    """The shape of a trailer's unknown; empty for any other unknown."""
    return name.rpartition("/")[0] if name.startswith("trailer:") else ""


def _alike(names: Sequence[str], lengths: float) -> NDArray[np.float64]:
    """Correlation of the unknowns before any test: one shape's lengths are poured of one mould's kind."""
    shapes = [shape_of(name) for name in names]
    same = [[lengths if a and a == b else 0.0 for b in shapes] for a in shapes]
    factors: NDArray[np.float64] = np.array(same)
    np.fill_diagonal(factors, 1.0)
    return factors


def slopes_of(
    falls: Falls, unknowns: Sequence[NDArray[np.float64]]
) -> tuple[NDArray[np.float64], list[NDArray[np.float64]]]:
    """Log of each test's predicted time at its own unknowns (in the order of :func:`unknowns_of`), and its
    derivatives by them; then by the log of the depth, and by metres of line dragged besides."""
    step = 1e-4
    x = np.array([[*u[:4], u[4:].sum(), 0.0] for u in unknowns]).T

    def times(x: NDArray[np.float64]) -> NDArray[np.float64]:
        there = replace(falls, depth=falls.depth * np.exp(x[4]), surface=falls.surface + x[5])
        return times_of(there, *np.exp(x[:3]))

    bare, late = times(x), x[3]
    seen = np.maximum(bare + late, 0.1 * bare)
    by = [(times(x + step * e) - bare) / (step * seen) for e in np.eye(6)[:, :, None]]
    by[3] = 1.0 / seen
    rows = [
        [*row[:4], *[row[4]] * (len(u) - 4), *row[4:]]
        for row, u in zip(np.array(by).T, unknowns, strict=True)
    ]
    return np.log(seen), [np.array(row) for row in rows]


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
    kin = t if factors.index(t) is not None else factors.nearest_length(t)
    share = 1.0 if kin == t else factors.lengths_alike
    spread = factors.spread(kin) if kin else None
    if spread is not None and kin != t:
        # Gauss: what one length tells of another, by how alike they are before any test.
        spread = math.sqrt((share * spread) ** 2 + (1.0 - share**2) * factors.prior**2)
    return replace(
        own,
        body_fall=factors.factor(b),
        trailer_fall=factors.factor(kin) ** share,
        body_fall_spread=factors.spread(b),
        trailer_fall_spread=spread,
        timed=factors.index(b) is not None or factors.index(t) is not None,
        fall_joint=share * factors.joint(b, kin),
    )
