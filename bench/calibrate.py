"""`make calibrate`: fit the judgement's numbers to the worked waters, and say how they do on waters held out.

The form stays: parts between 0 and 1, a weighted geometric mean, log points of rules for families. A small
preference model is fitted: pairwise logistic losses ("an accepted rig of a family above the best one outside
the accepted", "a first family above a defensible, wrong or absurd one"), with squared pulls toward the
numbers as they stand in the catalogue. Every figure printed as held out comes from fits that have not seen
the water.
With ``--write`` the fit is written to ``fitted.toml``.
"""

from __future__ import annotations

import sys
import tomllib
from dataclasses import dataclass
from dataclasses import replace as changed
from pathlib import Path

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize

from bench.agree import LEAN, Water, worked
from heathdrop import catalog as catalogue
from heathdrop.advice.call import points_of
from heathdrop.answers.water import sizing_of
from heathdrop.catalog.vocabulary import PARTS
from heathdrop.conditions.facts import degree
from heathdrop.conditions.request import SizeRequest

Floats = NDArray[np.float64]
#: Softness of a preference (in log score), pulls toward the present numbers, what each kind of miss costs.
SOFT, PULL_WEIGHTS, PULL_POINTS = 0.08, 6.0, 12.0
COSTS = {"defensible": 0.5, "wrong": 1.0, "absurd": 2.0}
FOLDS = 10
FITTED = Path(catalogue.__file__).parent / "data" / "fitted.toml"


@dataclass(frozen=True)
class Asked:
    """A worked water sized in every family: log parts of its rigs (NaN: none), names, rules' degrees."""

    water: Water
    families: tuple[str, ...]
    parts: tuple[Floats, ...]
    rigs: tuple[tuple[tuple[float, str], ...], ...]
    points: Floats
    degrees: tuple[dict[str, float], ...]


def asked(water: Water) -> Asked:
    """Size a worked water in every family."""
    catalog = catalogue.load()
    body = {**water.body, "schools": LEAN[water.set]}
    scenario = SizeRequest.model_validate(body).scenario()
    parts, rigs, points, degrees = [], [], [], []
    for family in catalog.families.values():
        sizing = sizing_of(changed(scenario, families=(family.id,)))
        rows = [
            [np.log(max(r.fits.parts.get(k, np.nan), 1e-9)) if k in r.fits.parts else np.nan for k in PARTS]
            for r in sizing.rigs
        ]
        parts.append(np.array(rows))
        rigs.append(tuple((r.rig.head_oz, r.rig.trailer.id) for r in sizing.rigs))
        weighed, school = points_of(catalog, sizing.facts, scenario, family)
        how = {rule.id: degree(rule.when, sizing.facts) for rule, _ in weighed}
        fitted = sum(d * catalog.fitted.points.get(id_, {}).get(family.id, 0.0) for id_, d in how.items())
        points.append(sum(p for _, p in weighed) + school - fitted)
        degrees.append(how)
    return Asked(water, tuple(catalog.families), tuple(parts), tuple(rigs), np.array(points), tuple(degrees))


def scores(parts: Floats, weights: Floats) -> Floats:
    """Log scores of rigs from their log parts."""
    there = ~np.isnan(parts)
    return np.nansum(parts * weights, axis=1) / (there * weights).sum(axis=1)


def _loss(gaps: Floats) -> Floats:
    """Logistic loss of being above by these log scores."""
    return np.logaddexp(0.0, -gaps / SOFT)


def fit_weights(rows: list[Asked], start: Floats) -> Floats:
    """Exponents of the parts: the best accepted rig of a family above the best one that is not."""
    sets = []
    for row in rows:
        for k, family in enumerate(row.families):
            if family in row.water.rigs:
                good = np.array([row.water.accepts(family, oz, tail) for oz, tail in row.rigs[k]])
                if good.any() and not good.all():
                    sets.append((row.parts[k], good))

    def cost(log_weights: Floats) -> float:
        weights = np.exp(log_weights)
        gaps = []
        for parts, good in sets:
            s = scores(parts, weights)
            gaps.append(s[good].max() - s[~good].max())
        return float(_loss(np.array(gaps)).sum() + PULL_WEIGHTS * np.sum((log_weights - np.log(start)) ** 2))

    found = minimize(cost, np.log(start), method="Powell", options={"maxiter": 6, "xtol": 1e-2, "ftol": 1e-3})
    weights = np.exp(found.x)
    return np.asarray(weights * start.sum() / weights.sum())


def named_points(rows: list[Asked]) -> list[tuple[str, str]]:
    """(rule, family) of every number that the points have."""
    return sorted(
        {(rule, f) for row in rows for f, d in zip(row.families, row.degrees, strict=True) for rule in d}
    )


def fit_points(rows: list[Asked], weights: Floats, names: list[tuple[str, str]]) -> Floats:
    """Changes of the rules' points: a first family above those that are not, as far as their rules speak."""
    where = {name: i for i, name in enumerate(names)}
    left, base, cost_of = [], [], []
    for row in rows:
        standing = np.array([scores(p, weights).max() for p in row.parts]) + row.points
        features = np.zeros((len(row.families), len(names)))
        for k, family in enumerate(row.families):
            for rule, how in row.degrees[k].items():
                features[k, where[(rule, family)]] = how
        water = row.water
        for good in water.first:
            g = row.families.index(good)
            for k, family in enumerate(row.families):
                if family in water.first:
                    continue
                kind = (
                    "absurd"
                    if family in water.absurd
                    else "defensible"
                    if family in water.defensible
                    else "wrong"
                )
                left.append(features[g] - features[k])
                base.append(standing[g] - standing[k])
                cost_of.append(COSTS[kind] / len(water.first))
    a, b, c = np.array(left), np.array(base), np.array(cost_of)

    def cost(delta: Floats) -> tuple[float, Floats]:
        gaps = b + a @ delta
        slope = -c / (1.0 + np.exp(np.clip(gaps / SOFT, -50, 50))) / SOFT
        return float(
            (c * _loss(gaps)).sum() + PULL_POINTS * delta @ delta
        ), a.T @ slope + 2.0 * PULL_POINTS * delta

    return np.asarray(minimize(cost, np.zeros(len(names)), jac=True, method="L-BFGS-B").x)


def judged(row: Asked, weights: Floats, delta: Floats, names: list[tuple[str, str]]) -> str:
    """The verdict on a water under numbers: strict, family, defensible, wrong or absurd; ``+2`` is appended
    when the notes' first choice is among the first two."""
    where = {name: i for i, name in enumerate(names)}
    found = [scores(p, weights) for p in row.parts]
    more = np.array(
        [
            sum(how * delta[where[(rule, f)]] for rule, how in d.items())
            for f, d in zip(row.families, row.degrees, strict=True)
        ]
    )
    standing = np.array([s.max() for s in found]) + row.points + more
    order = np.argsort(-standing)
    family = row.families[order[0]]
    water = row.water
    two = "+2" if water.first[0] in [row.families[k] for k in order[:2]] else ""
    if family in water.absurd:
        return "absurd" + two
    if family in water.first:
        oz, tail = row.rigs[order[0]][int(found[order[0]].argmax())]
        good = family in water.rigs and water.accepts(family, oz, tail)
        return ("strict" if good else "family") + two
    return ("defensible" if family in water.defensible else "wrong") + two


def told(verdicts: list[str], rows: list[Asked], words: str) -> None:
    """Print shares of verdicts, whole and per set."""
    for name, chosen in (("both", ("A", "B")), ("A", ("A",)), ("B", ("B",))):
        mine = [v for v, row in zip(verdicts, rows, strict=True) if row.water.set in chosen]
        shares = {
            k: round(100 * sum(v.startswith(k) for v in mine) / len(mine), 1)
            for k in ("strict", "family", "defensible", "wrong", "absurd")
        }
        two = 100 * sum(v.endswith("+2") for v in mine) / len(mine)
        print(f"  {words}, set {name} ({len(mine)}): {shares}, first choice in the first two {two:.0f} %")


def rigs_right(rows: list[Asked], weights: Floats) -> tuple[int, int]:
    """(right, all) of the rigs sized for a named family."""
    right = whole = 0
    for row in rows:
        for k, family in enumerate(row.families):
            if family in row.water.rigs:
                oz, tail = row.rigs[k][int(scores(row.parts[k], weights).argmax())]
                right += row.water.accepts(family, oz, tail)
                whole += 1
    return right, whole


def main() -> None:
    rows = [asked(water) for water in worked()]
    names = named_points(rows)
    prior = tomllib.loads((FITTED.parent / "judgement.toml").read_text("utf-8"))["fit"]["weights"]
    start = np.array([prior[k] for k in PARTS])
    zero = np.zeros(len(names))
    told([judged(r, start, zero, names) for r in rows], rows, "as the catalogue stands")
    print("  named families:", "{}/{}".format(*rigs_right(rows, start)))
    held: list[str] = [""] * len(rows)
    right = whole = 0
    order = np.random.default_rng(5).permutation(len(rows))
    for fold in range(FOLDS):
        out = set(order[fold::FOLDS].tolist())
        seen = [r for i, r in enumerate(rows) if i not in out]
        weights = fit_weights(seen, start)
        delta = fit_points(seen, weights, names)
        for i in out:
            held[i] = judged(rows[i], weights, delta, names)
        more, of = rigs_right([rows[i] for i in out], weights)
        right, whole = right + more, whole + of
    told(held, rows, f"held out, {FOLDS} folds")
    print(f"  named families, held out: {right}/{whole}")
    weights = fit_weights(rows, start)
    delta = fit_points(rows, weights, names)
    told([judged(r, weights, delta, names) for r in rows], rows, "fitted (seen)")
    print("  weights:", dict(zip(PARTS, np.round(weights, 3).tolist(), strict=True)))
    if "--write" in sys.argv:
        write(weights, delta, names)


def write(weights: Floats, delta: Floats, names: list[tuple[str, str]]) -> None:
    """Write the fitted table: exponents of the parts, and what the fit adds to the rules' points."""
    lines = [
        "# Written by `make calibrate`, not by hand: what worked waters add to the numbers of rules.toml.",
        "[provenance]",
        'weights = { origin = "fitted", spread = 0.20, note = "exponents of the parts" }',
        'points = { origin = "fitted", spread = 0.10, note = "added to a rule\'s points" }',
        "",
        "[weights]",
        *(f"{k} = {v:.3f}" for k, v in zip(PARTS, weights, strict=True)),
        "",
        "[points]",
    ]
    for rule in dict.fromkeys(rule for rule, _ in names):
        mine = [(f, delta[i]) for i, (r, f) in enumerate(names) if r == rule and abs(delta[i]) >= 0.01]
        if mine:
            lines.append(f"{rule} = {{ " + ", ".join(f"{f} = {v:.2f}" for f, v in mine) + " }")
    FITTED.write_text("\n".join(lines) + "\n", "utf-8")


if __name__ == "__main__":
    main()
