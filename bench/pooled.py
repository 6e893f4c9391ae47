"""`python -m bench.pooled`: what a thousand anglers' drop tests would teach the catalogue, by simulation.

Each simulated angler times one rig of their own, three tests of three drops. What is not known of an area is
in part the table's (shared by all who throw that family or trailer) and in part the piece's own; the shared
part is drawn, the anglers' times are drawn, and a hierarchical Gaussian posterior over families and trailers
takes them together (`docs/scale.md`). Areas are in logs; a time goes with the square root of the area.
"""

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop import catalog as catalogue
from heathdrop.learning.drops import prior_spreads
from heathdrop.learning.observations import DropTest
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import areas_of, rig_by_name

Values = NDArray[np.float64]
#: How many anglers are pooled; how often each number is drawn.
ANGLERS, DRAWS = (1, 10, 100, 1000), 40
#: One sigma of a timed second (a share), drops of an angler, seconds of a drop; one sigma of a depth that is
#: read (a share). Assumptions, as in bench.learning_study.
SCATTER, DROPS, SECONDS, READ = 0.10, 9, 4.0, 0.05
#: One sigma of each side in the standard normal's 80 % band.
EIGHTY = 1.2816


@dataclass(frozen=True)
class Rigs:
    """What anglers may own: a row each of the design (families, then trailers) and the spread of each column
    before any test, one sigma of its log."""

    rows: Values
    prior: Values


def rigs() -> Rigs:
    """Every family with every standard trailer at its middle head, as shares of the fall area."""
    catalog = catalogue.load()
    families = list(catalog.families.values())
    trailers = [t for t in catalog.trailers.values() if t.standard]
    line = line_by_test(catalog, "fluorocarbon", 15)
    rows, spreads = [], []
    for k, family in enumerate(families):
        for n, trailer in enumerate(trailers):
            head = family.weights_oz[len(family.weights_oz) // 2]
            rig = rig_by_name(catalog, family.id, head, trailer.id)
            fall = areas_of(catalog, rig, 60.0).fall
            row = np.zeros(len(families) + len(trailers))
            row[k], row[len(families) + n] = sum(fall[:3]) / sum(fall), fall[3] / sum(fall)
            rows.append(row)
            body, tail, _ = prior_spreads(catalog, DropTest(rig, line, "fluorocarbon", 3.0, (1.0,)))
            spreads.append((k, body, tail))
    of_family = [float(np.median([b for at, b, _ in spreads if at == k])) for k in range(len(families))]
    of_trailer = [float(np.median([t for _, _, t in spreads]))] * len(trailers)
    return Rigs(np.array(rows), np.array(of_family + of_trailer))


def hand() -> float:
    """One sigma of the log area that an angler's own tests leave: scatter, a constant lateness, a depth read
    wrong by a constant share."""
    late = catalogue.load().judgement.learning.late_sigma_s / SECONDS
    return 2.0 * math.sqrt(SCATTER**2 / DROPS + late**2 + READ**2)


def pooled(
    some: Rigs, n: int, shared: float, rng: np.random.Generator, off: float = 0.0
) -> tuple[Values, Values, Values]:
    """Truth, posterior mean and posterior covariance of what is shared, from ``n`` anglers; ``shared`` is the
    part of the variance that is the table's own, ``off`` a share by which everybody reads the depth wrong."""
    table = some.prior * math.sqrt(shared)
    truth = rng.standard_normal(len(table)) * table
    design = some.rows[rng.integers(len(some.rows), size=n)]
    own = np.sqrt((design**2) @ (some.prior**2 * (1.0 - shared)))
    noise = np.hypot(own, hand())
    seen = design @ truth + noise * rng.standard_normal(n) + 2.0 * math.log1p(off)
    weighed = design / noise[:, None] ** 2
    covariance = np.linalg.inv(np.diag(table**-2.0) + weighed.T @ design)
    return truth, covariance @ (weighed.T @ seen), covariance


def spread_of(some: Rigs, covariance: Values, shared: float) -> float:
    """One sigma of a stranger's fall rate before any test of their own (a share): the median over rigs."""
    left = covariance + np.diag(some.prior**2 * (1.0 - shared))
    return 0.5 * float(np.median(np.sqrt(np.einsum("ij,jk,ik->i", some.rows, left, some.rows))))


def main() -> None:
    some = rigs()
    for shared in (0.3, 0.5, 0.7):
        start = spread_of(some, np.diag(some.prior**2 * shared), shared)
        print(f"{100 * shared:.0f} % of the variance the table's: a stranger's fall rate {100 * start:.1f} %")
        for n in ANGLERS:
            rng = np.random.default_rng(n)
            runs = [pooled(some, n, shared, rng) for _ in range(DRAWS)]
            held = np.mean([np.abs(m - t) <= EIGHTY * np.sqrt(np.diag(c)) for t, m, c in runs])
            left = np.mean([np.sqrt(np.diag(c)) / (some.prior * math.sqrt(shared)) for _, _, c in runs])
            after = np.mean([spread_of(some, c, shared) for _, _, c in runs])
            print(
                f"  {n:4d} anglers: {100 * after:.1f} %; of the tables' error {100 * left:.0f} % is left, "
                f"the 80 % bands hold {100 * held:.0f} %"
            )
    rng = np.random.default_rng(1)
    off = [
        float(np.mean(m - t)) for t, m, _ in (pooled(some, 1000, 0.5, rng, off=0.03) for _ in range(DRAWS))
    ]
    print(f"everybody reads the depth 3 % too deep: areas come out {100 * math.expm1(np.mean(off)):+.1f} %")


if __name__ == "__main__":
    main()
