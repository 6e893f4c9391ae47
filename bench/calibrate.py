"""`make calibrate`: fit the judgement's numbers to the worked waters and the pairs, and say how they do on
waters held out.

The form stays: parts between 0 and 1, a weighted geometric mean, log points of rules for families. A small
preference model is fitted: logistic losses ("an accepted rig of a family above the best one outside the
accepted", "a first family above a defensible, wrong or absurd one", "this figure moves so from one water of a
pair to the other"), with squared pulls toward the numbers as they stand in the catalogue. What is fitted: the
exponents of the parts, points added to rules, how the day's leans (:mod:`heathdrop.sizing.leans`) move the
liking of trailers and the usual weights, each family's own shift of weights and of trailers. Every figure
printed as held out comes from fits that have not seen the water.
With ``--write`` the fit is written to ``fitted.toml``; recheck ``make reach`` after it.
"""

import math
import sys
import tomllib
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from dataclasses import replace as changed
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize

from bench.agree import LEAN, Water, worked
from bench.pairs import LOUD, NEAR, Pair, directions, pairs
from heathdrop import catalog as catalogue
from heathdrop.advice.call import points_of
from heathdrop.answers.water import sizing_of
from heathdrop.catalog.judgement_records import Leans
from heathdrop.catalog.vocabulary import PARTS, PRICES
from heathdrop.conditions.facts import degree
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.fit import LEAST_BULK_CM2, within
from heathdrop.sizing.leans import features, weight_shift
from heathdrop.sizing.liking import bulks_of
from heathdrop.sizing.schools import leaning_of
from heathdrop.sizing.setting import setting_of
from heathdrop.units import feet

Floats = NDArray[np.float64]
#: Softness of a preference (in log score) and of a maximum; what each kind of miss costs.
SOFT, SOFT_MAX = 0.08, 0.01
COSTS = {"defensible": 0.5, "wrong": 1.0, "absurd": 2.0}
#: What a rig that is not accepted, and a direction that does not hold, cost beside a wrong family.
RIGS, DIRECTIONS = 1.0, 1.5
#: Squared pulls toward the numbers as they stand.
PULLS = {"weights": 15.0, "leans": 30.0, "heads": 50.0, "usual": 100.0, "suits": 30.0, "points": 30.0}
#: Least exponents: depth leads (a fit to worked waters alone would have it low, and miss the fish).
LEAST = {"depth": 0.30, "pace": 0.12, "tackle": 0.45}
#: How far a figure of an answer must move to count as moved, in its own unit, for the fit.
STEP = {"head_oz": 0.15, "trailer_bulk": 0.15, "trailer_action": 0.5, "pace": 0.1, "countdown_s": 0.15}
FOLDS = 10
FITTED = Path(catalogue.__file__).parent / "data" / "fitted.toml"
WORKS = ("swim", "bottom", "drop")


@dataclass(frozen=True)
class Block:
    """A water sized in one family: log parts of its rigs (NaN: none), what the fit moves of them apart."""

    family: str
    work: str
    parts: Floats
    head: Floats
    rides: Floats
    tail: tuple[str, ...]
    liked: Floats
    shown: Floats
    shown_tail: tuple[str, ...]
    figures: dict[str, Floats]
    leans: dict[str, float]
    middle: float
    width: float
    held: bool
    points: float
    degrees: dict[str, float]


def block_of(scenario: Scenario, family: str) -> Block:
    """Size a scenario in one family and take apart what the fit moves."""
    catalog = catalogue.load()
    alone = changed(scenario, families=(family,))
    sizing, setting = sizing_of(alone), setting_of(catalog, alone)
    fam, numbers, fitted = setting.family, catalog.judgement.fit, catalog.fitted
    rows, liked = [], []
    own = fitted.suits.get(family, {})

    def base(trailer: str) -> float:
        return math.log(setting.liking.factors[trailer]) - own.get(trailer, 0.0)

    for r in sizing.rigs:
        row = {k: math.log(max(v, 1e-9)) for k, v in r.fits.parts.items()}
        row["profile"] = math.log(
            within(max(r.rig.bulk_cm2, LEAST_BULK_CM2), setting.targets.bulk_cm2, numbers.profile_edge)
        )
        row["weight"] = 0.0
        rows.append([row.get(k, np.nan) for k in PARTS])
        liked.append([base(r.rig.trailer.id), *features(r.rig.trailer.action, r.rig.bulk_cm2)])
    bare = fam.bare_too or setting.leaning.bare
    shown = [
        (t.id, [base(t.id), *features(t.action, bulk)])
        for t in catalog.trailers.values()
        if t.standard or (t.bare and bare)
        for bulk in bulks_of(fam, t)
    ]
    held = setting.leaning.band(family) != leaning_of(catalog, (), setting.facts).band(family)
    shift = 0.0 if held else weight_shift(catalog, fam, setting.leans)
    weighed, school = points_of(catalog, sizing.facts, scenario, fam)
    how = {rule.id: degree(rule.when, setting.facts) for rule, _ in weighed}
    more = sum(d * fitted.points.get(id_, {}).get(family, 0.0) for id_, d in how.items())
    figures = {
        "head_oz": [math.log(r.rig.head_oz) for r in sizing.rigs],
        "trailer_bulk": [math.log(max(r.rig.bulk_cm2, 0.3)) for r in sizing.rigs],
        "trailer_action": [float(LOUD[r.rig.trailer.id]) for r in sizing.rigs],
        "pace": [math.log(feet(r.tuned.pace_m_s)) for r in sizing.rigs],
        "countdown_s": [math.log(max(r.countdown_s, 0.2)) for r in sizing.rigs],
    }
    return Block(
        family,
        fam.work,
        np.array(rows),
        np.log([r.rig.head_oz for r in sizing.rigs]),
        np.log([setting.as_it_fishes_oz(r.rig) for r in sizing.rigs]),
        tuple(r.rig.trailer.id for r in sizing.rigs),
        np.array(liked),
        np.array([row for _, row in shown]),
        tuple(t for t, _ in shown),
        {k: np.array(v) for k, v in figures.items()},
        dict(setting.leans),
        math.log(setting.weights.middle_oz) - shift,
        setting.weights.half * setting.weights.edge,
        held,
        sum(p for _, p in weighed) + school - more,
        how,
    )


@dataclass(frozen=True)
class Asked:
    """A worked water sized in every family."""

    water: Water
    blocks: tuple[Block, ...]


@dataclass(frozen=True)
class AskedPair:
    """A pair sized: a block each for its family, or one for every family."""

    pair: Pair
    before: tuple[Block, ...]
    after: tuple[Block, ...]


def asked(water: Water) -> Asked:
    """Size a worked water in every family."""
    body = {**water.body, "schools": LEAN[water.set]}
    scenario = SizeRequest.model_validate(body).scenario()
    return Asked(water, tuple(block_of(scenario, f) for f in catalogue.load().families))


def asked_pair(pair: Pair) -> AskedPair:
    """Size both waters of a pair."""
    families = [pair.family] if pair.family else list(catalogue.load().families)
    a, b = (tuple(block_of(s, f) for f in families) for s in pair.scenarios())
    return AskedPair(pair, a, b)


class Numbers:
    """The numbers that are fitted, as one vector with names."""

    def __init__(self, blocks: Sequence[Block], start: dict[str, float]) -> None:
        self.leans = list(blocks[0].leans)
        self.tails = sorted({t for b in blocks for t in b.shown_tail})
        self.families = sorted({b.family for b in blocks})
        rules = sorted({(rule, b.family) for b in blocks for rule in b.degrees})
        self.names: list[tuple[str, ...]] = [("weights", k) for k in PARTS]
        self.names += [
            ("leans", w, n, what) for w in WORKS for n in self.leans for what in ("action", "bulk")
        ]
        self.names += [("heads", w, n) for w in WORKS for n in self.leans]
        self.names += [("usual", f) for f in self.families]
        self.names += [("suits", f, t) for f in self.families for t in self.tails]
        self.names += [("points", f, r) for r, f in rules]
        self.where = {name: i for i, name in enumerate(self.names)}
        self.zero = np.zeros(len(self.names))
        for k in PARTS:
            self.zero[self.where["weights", k]] = math.log(start[k])
        practice = leaning()
        for name in self.names:
            if name[0] == "leans":
                self.zero[self.where[name]] = (
                    practice.leans.get(name[1], {}).get(name[2], {}).get(name[3], 0.0)
                )
            elif name[0] == "heads":
                self.zero[self.where[name]] = practice.heads.get(name[1], {}).get(name[2], 0.0)
        self.pull = np.array([PULLS[name[0]] for name in self.names])
        self.least = np.full(len(self.names), -np.inf)
        for k, v in LEAST.items():
            self.least[self.where["weights", k]] = math.log(v)

    def table(self, x: Floats, kind: str) -> Iterator[tuple[tuple[str, ...], float]]:
        """The numbers of one kind with the rest of their names."""
        return ((name[1:], float(v)) for name, v in zip(self.names, x, strict=True) if name[0] == kind)


class Packed:
    """Blocks side by side in flat arrays, so that one step of the fit is a few array operations."""

    def __init__(self, blocks: Sequence[Block], numbers: Numbers) -> None:
        at = numbers.where
        self.count = len(blocks)
        sizes = [len(b.head) for b in blocks]
        self.first = np.concatenate([[0], np.cumsum(sizes)[:-1]]).astype(int)
        self.last = self.first + np.array(sizes)
        self.of = np.repeat(np.arange(len(blocks)), sizes)
        parts = np.concatenate([b.parts for b in blocks])
        self.there = ~np.isnan(parts)
        self.parts = np.where(self.there, parts, 0.0)
        self.shares = self.there & np.array([k not in PRICES for k in PARTS])
        self.rides = np.concatenate([b.rides for b in blocks])
        self.liked = np.concatenate([b.liked for b in blocks])
        self.tail = np.array([at["suits", b.family, t] for b in blocks for t in b.tail])
        self.shown_of = np.repeat(np.arange(len(blocks)), [len(b.shown) for b in blocks])
        self.shown_first = np.concatenate([[0], np.cumsum([len(b.shown) for b in blocks])[:-1]]).astype(int)
        self.shown = np.concatenate([b.shown for b in blocks])
        self.shown_tail = np.array([at["suits", b.family, t] for b in blocks for t in b.shown_tail])
        self.middle = np.array([b.middle for b in blocks])
        self.width = np.array([b.width for b in blocks])
        self.free = np.array([0.0 if b.held else 1.0 for b in blocks])
        self.points = np.array([b.points for b in blocks])
        n = len(numbers.names)
        self.act, self.bulk, self.shift, self.rules = np.zeros((4, len(blocks), n))
        for i, b in enumerate(blocks):
            for name, v in b.leans.items():
                self.act[i, at["leans", b.work, name, "action"]] = v
                self.bulk[i, at["leans", b.work, name, "bulk"]] = v
                self.shift[i, at["heads", b.work, name]] = v
            self.shift[i, at["usual", b.family]] = 1.0
            for rule, how in b.degrees.items():
                self.rules[i, at["points", b.family, rule]] = how
        self.profile, self.weight = PARTS.index("profile"), PARTS.index("weight")
        self.exponents = np.array([at["weights", k] for k in PARTS])
        self.floor = math.log(catalogue.load().judgement.schools.least_liking)

    def forward(self, x: Floats) -> dict[str, Floats]:
        """Scores of every rig and standings of every block under numbers ``x``, with what the way back
        needs."""
        w = np.exp(x[self.exponents])
        act, bulk = self.act @ x, self.bulk @ x
        shown = self.shown[:, 0] + x[self.shown_tail]
        shown += act[self.shown_of] * self.shown[:, 1] + bulk[self.shown_of] * self.shown[:, 2]
        top = np.maximum.reduceat(shown, self.shown_first)
        soft = np.exp((shown - top[self.shown_of]) / SOFT_MAX)
        whole = np.add.reduceat(soft, self.shown_first)
        best = top + SOFT_MAX * np.log(whole)
        liked = self.liked[:, 0] + x[self.tail]
        liked += act[self.of] * self.liked[:, 1] + bulk[self.of] * self.liked[:, 2] - best[self.of]
        open_ = (liked > self.floor) & (liked < 0.05)
        liked = np.clip(liked, self.floor, 0.0)
        middle = self.middle + self.free * (self.shift @ x)
        off = (self.rides - middle[self.of]) / self.width[self.of]
        parts = self.parts.copy()
        parts[:, self.profile] += liked
        parts[:, self.weight] = -np.log1p(off * off)
        total = self.shares @ w
        score = (parts * self.there) @ w / total
        high = np.maximum.reduceat(score, self.first)
        share = np.exp((score - high[self.of]) / SOFT_MAX)
        sums = np.add.reduceat(share, self.first)
        share /= sums[self.of]
        standing = high + SOFT_MAX * np.log(sums) - SOFT_MAX * math.log(5.0) + self.points + self.rules @ x
        return {
            "w": w,
            "parts": parts,
            "total": total,
            "score": score,
            "share": share,
            "standing": standing,
            "open": open_.astype(float),
            "off": off,
            "soft": soft / whole[self.shown_of],
        }

    def back(self, f: dict[str, Floats], by_score: Floats, by_standing: Floats) -> Floats:
        """The slope of a loss by the numbers, from its slopes by scores and by standings."""
        slope = np.zeros(self.act.shape[1])
        ds = by_score + f["share"] * by_standing[self.of]
        slope += self.rules.T @ by_standing
        each = ds / f["total"]
        for k, i in enumerate(self.exponents):
            part = f["parts"][:, k] * self.there[:, k] - f["score"] * self.shares[:, k]
            slope[i] += float((each * part).sum()) * f["w"][k]
        like = each * f["w"][self.profile] * f["open"]
        whole = np.add.reduceat(like, self.first)
        back = f["soft"] * whole[self.shown_of]
        by_act = np.add.reduceat(like * self.liked[:, 1], self.first)
        by_act -= np.add.reduceat(back * self.shown[:, 1], self.shown_first)
        by_bulk = np.add.reduceat(like * self.liked[:, 2], self.first)
        by_bulk -= np.add.reduceat(back * self.shown[:, 2], self.shown_first)
        slope += self.act.T @ by_act + self.bulk.T @ by_bulk
        np.add.at(slope, self.tail, like)
        np.add.at(slope, self.shown_tail, -back)
        heavy = each * f["w"][self.weight] * 2.0 * f["off"] / (1.0 + f["off"] ** 2) / self.width[self.of]
        slope += self.shift.T @ (np.add.reduceat(heavy, self.first) * self.free)
        return slope


def _lost(gap: float, soft: float = SOFT) -> tuple[float, float]:
    """Logistic loss of being above by ``gap``, and its slope."""
    return float(np.logaddexp(0.0, -gap / soft)), float(
        -1.0 / (1.0 + np.exp(np.clip(gap / soft, -50, 50))) / soft
    )


class Fit:
    """The loss of waters and pairs under numbers, with its slope."""

    def __init__(self, rows: Sequence[Asked], twos: Sequence[AskedPair], numbers: Numbers) -> None:
        self.numbers, self.rows, self.twos = numbers, rows, twos
        blocks = [b for row in rows for b in row.blocks]
        self.pair_at: list[tuple[int, int, int]] = []
        for two in twos:
            self.pair_at.append((len(blocks), len(blocks) + len(two.before), len(two.before)))
            blocks += [*two.before, *two.after]
        self.packed = Packed(blocks, numbers)
        self.blocks = blocks
        self.good = [
            None
            if b.family not in row.water.rigs
            else np.array(
                [row.water.accepts(b.family, math.exp(h), t) for h, t in zip(b.head, b.tail, strict=True)]
            )
            for row in rows
            for b in row.blocks
        ]

    def loss(self, x: Floats) -> tuple[float, Floats]:
        """The whole loss and its slope."""
        p, n = self.packed, self.numbers
        f = p.forward(x)
        by_score, by_standing = np.zeros(len(p.of)), np.zeros(p.count)
        lost = self._rigs(f, by_score) + self._families(f, by_standing)
        lost += self._pairs(f, by_score, by_standing)
        away = x - n.zero
        return lost + float((n.pull * away * away).sum()), p.back(
            f, by_score, by_standing
        ) + 2.0 * n.pull * away

    def _rigs(self, f: dict[str, Floats], by_score: Floats) -> float:
        lost = 0.0
        for i, good in enumerate(self.good):
            if good is None or good.all() or not good.any():
                continue
            here = slice(self.packed.first[i], self.packed.last[i])
            s = f["score"][here]
            tops = []
            for mask in (good, ~good):
                e = np.where(mask, np.exp((s - s.max()) / SOFT_MAX), 0.0)
                tops.append((s.max() + SOFT_MAX * math.log(e.sum() + 1e-300), e / (e.sum() + 1e-300)))
            one, slope = _lost(tops[0][0] - tops[1][0], 0.5 * SOFT)
            lost += RIGS * one
            by_score[here] += RIGS * slope * (tops[0][1] - tops[1][1])
        return lost

    def _families(self, f: dict[str, Floats], by_standing: Floats) -> float:
        lost, at = 0.0, 0
        for row in self.rows:
            water, names = row.water, [b.family for b in row.blocks]
            for k, family in enumerate(names):
                if family in water.first:
                    continue
                kind = "absurd" if family in water.absurd else "wrong"
                kind = "defensible" if family in water.defensible else kind
                for good in water.first:
                    g = names.index(good)
                    one, slope = _lost(f["standing"][at + g] - f["standing"][at + k])
                    cost = COSTS[kind] / len(water.first)
                    lost += cost * one
                    by_standing[at + g] += cost * slope
                    by_standing[at + k] -= cost * slope
            at += len(names)
        return lost

    def _pairs(self, f: dict[str, Floats], by_score: Floats, by_standing: Floats) -> float:
        lost = 0.0
        for two, (a, b, size) in zip(self.twos, self.pair_at, strict=True):
            for what, asked_for in two.pair.moves.items():
                if what == "family_rank":
                    names = [x.family for x in two.before]
                    for family, way in asked_for.items():
                        lost += self._ranked(f, by_standing, (a, b, size), names.index(family), way)
                else:
                    # Where every family was asked, the figures are those of the one that leads.
                    lead = [i + int(np.argmax(f["standing"][i : i + size])) for i in (a, b)]
                    lost += self._moved(f, by_score, (lead[0], lead[1]), what, asked_for)
        return lost

    def _moved(
        self, f: dict[str, Floats], by_score: Floats, at: tuple[int, int], what: str, way: str
    ) -> float:
        means, sides = [], []
        for i in at:
            here = slice(self.packed.first[i], self.packed.last[i])
            s, v = f["score"][here], self.blocks[i].figures[what]
            e = np.exp((s - s.max()) / (0.5 * NEAR))
            e /= e.sum()
            mean = float(e @ v)
            means.append(mean)
            sides.append((here, e * (v - mean) / (0.5 * NEAR)))
        sign = 1.0 if way in ("up", "not down") else -1.0
        step = STEP[what]
        gap = sign * (means[1] - means[0]) / step - (0.5 if way in ("up", "down") else -0.2)
        one, slope = _lost(gap, 0.3)
        by_score[sides[1][0]] += DIRECTIONS * slope * sign * sides[1][1] / step
        by_score[sides[0][0]] -= DIRECTIONS * slope * sign * sides[0][1] / step
        return DIRECTIONS * one

    def _ranked(
        self, f: dict[str, Floats], by_standing: Floats, at: tuple[int, int, int], k: int, way: str
    ) -> float:
        a, b, size = at
        gaps = []
        for i in (a, b):
            s = f["standing"][i : i + size]
            others = np.delete(np.arange(size), k)
            near = np.exp(-(((s[others] - s[k]) / 0.5) ** 2)) + 1e-3
            near /= near.sum()
            gaps.append((s[k] - float(near @ s[others]), others, near))
        first = int(np.argmax(f["standing"][a : a + size])) == k
        sign = 1.0 if way in ("up", "not down") else -1.0
        if first and way in ("up", "not down"):
            # First already: it has to stay so.
            s = f["standing"][b : b + size].copy()
            s[k] = -np.inf
            j = int(np.argmax(s))
            one, slope = _lost(float(f["standing"][b + k] - s[j]))
            by_standing[b + k] += DIRECTIONS * slope
            by_standing[b + j] -= DIRECTIONS * slope
            return DIRECTIONS * one
        gap = sign * (gaps[1][0] - gaps[0][0]) - (0.15 if way in ("up", "down") else -0.05)
        one, slope = _lost(gap)
        for (_, others, near), i, side in ((gaps[1], b, 1.0), (gaps[0], a, -1.0)):
            by_standing[i + k] += DIRECTIONS * slope * sign * side
            by_standing[i + others] -= DIRECTIONS * slope * sign * side * near
        return DIRECTIONS * one

    def solve(self, steps: int = 120) -> Floats:
        """The numbers that lose least."""
        n = self.numbers
        bounds = [(low if np.isfinite(low) else None, None) for low in n.least]
        start = np.maximum(n.zero, n.least)
        found = minimize(
            self.loss, start, jac=True, method="L-BFGS-B", bounds=bounds, options={"maxiter": steps}
        )
        return np.asarray(found.x)


def verdicts(rows: Sequence[Asked], x: Floats, numbers: Numbers) -> list[str]:
    """What the first rig of each water is under numbers: strict, family, defensible, wrong or absurd; ``+2``
    is appended when the notes' first choice is among the first two."""
    if not rows:
        return []
    fit = Fit(rows, (), numbers)
    f, p = fit.packed.forward(x), fit.packed
    high = np.maximum.reduceat(f["score"], p.first) + p.points + p.rules @ x
    said, at = [], 0
    for row in rows:
        water, names = row.water, [b.family for b in row.blocks]
        standing = high[at : at + len(names)]
        order = np.argsort(-standing)
        k = int(order[0])
        two = "+2" if water.first[0] in [names[j] for j in order[:2]] else ""
        family = names[k]
        if family in water.absurd:
            verdict = "absurd"
        elif family in water.first:
            i = at + k
            s = f["score"][p.first[i] : p.last[i]]
            j, b = int(s.argmax()), row.blocks[k]
            good = family in water.rigs and water.accepts(family, math.exp(b.head[j]), b.tail[j])
            verdict = "strict" if good else "family"
        else:
            verdict = "defensible" if family in water.defensible else "wrong"
        said.append(verdict + two)
        at += len(names)
    return said


def rigs_right(rows: Sequence[Asked], x: Floats, numbers: Numbers) -> tuple[int, int]:
    """(right, all) of the rigs sized for a named family."""
    fit = Fit(rows, (), numbers)
    f, p, right, whole = fit.packed.forward(x), fit.packed, 0, 0
    for i, good in enumerate(fit.good):
        if good is not None:
            whole += 1
            right += bool(good[int(f["score"][p.first[i] : p.last[i]].argmax())])
    return right, whole


def directions_held(twos: Sequence[AskedPair], x: Floats, numbers: Numbers) -> tuple[int, int]:
    """(held, all) of the directions of pairs."""
    if not twos:
        return 0, 0
    fit = Fit((), twos, numbers)
    f, p = fit.packed.forward(x), fit.packed
    high = np.maximum.reduceat(f["score"], p.first) + p.points + p.rules @ x
    right = whole = 0
    for two, (a, b, size) in zip(twos, fit.pair_at, strict=True):
        sides: list[dict[str, float]] = []
        for first in (a, b):
            i = first + int(np.argmax(high[first : first + size]))
            s = np.exp(f["score"][p.first[i] : p.last[i]])
            near = s >= s.max() - NEAR
            v = fit.blocks[i].figures
            logs = ("head_oz", "trailer_bulk", "pace", "countdown_s")
            sides.append({k: float((np.exp(v[k]) if k in logs else v[k])[near].mean()) for k in v})
        names = [x.family for x in two.before]
        order = [[names[j] for j in np.argsort(-high[i : i + size])] for i in (a, b)]
        found = directions(two.pair.moves, sides[0], sides[1], (order[0], order[1]))
        right += sum(good for _, good in found)
        whole += len(found)
    return right, whole


def told(said: list[str], rows: Sequence[Asked], words: str) -> None:
    """Print shares of verdicts, whole and per set."""
    for name in ("all", *LEAN):
        mine = [v for v, row in zip(said, rows, strict=True) if name in ("all", row.water.set)]
        shares = {
            k: round(100 * sum(v.startswith(k) for v in mine) / len(mine), 1)
            for k in ("strict", "family", "defensible", "wrong", "absurd")
        }
        two = 100 * sum(v.endswith("+2") for v in mine) / len(mine)
        print(f"  {words}, set {name} ({len(mine)}): {shares}, first choice in the first two {two:.0f} %")


def sized() -> tuple[list[Asked], list[AskedPair]]:
    """Every worked water and pair, sized on two processes."""
    with ProcessPoolExecutor(2) as pool:
        return list(pool.map(asked, worked(), chunksize=4)), list(pool.map(asked_pair, pairs(), chunksize=4))


def prior() -> dict[str, float]:
    """The exponents of the parts as they stand before any fit."""
    found: dict[str, float] = tomllib.loads((FITTED.parent / "judgement.toml").read_text("utf-8"))["fit"][
        "weights"
    ]
    return found


def held_out(rows: list[Asked], twos: list[AskedPair], numbers: Numbers) -> None:
    """Print how fits do on the waters and pairs that they have not seen."""
    said: list[str] = [""] * len(rows)
    right = whole = held = of = 0
    rng = np.random.default_rng(5)
    order, pair_order = rng.permutation(len(rows)), rng.permutation(len(twos))
    for fold in range(FOLDS):
        out, pair_out = set(order[fold::FOLDS].tolist()), set(pair_order[fold::FOLDS].tolist())
        seen = [r for i, r in enumerate(rows) if i not in out]
        x = Fit(seen, [t for i, t in enumerate(twos) if i not in pair_out], numbers).solve()
        mine = [rows[i] for i in sorted(out)]
        for i, v in zip(sorted(out), verdicts(mine, x, numbers), strict=True):
            said[i] = v
        a, b = rigs_right(mine, x, numbers)
        c, d = directions_held([twos[i] for i in sorted(pair_out)], x, numbers)
        right, whole, held, of = right + a, whole + b, held + c, of + d
    told(said, rows, f"held out, {FOLDS} folds")
    print(f"  named families, held out: {right}/{whole} = {100 * right / whole:.1f} %")
    print(f"  directions, held out: {held}/{of} = {100 * held / of:.1f} %")


def main() -> None:
    rows, twos = sized()
    blocks = [b for row in rows for b in row.blocks] + [b for t in twos for b in (*t.before, *t.after)]
    numbers = Numbers(blocks, prior())
    told(verdicts(rows, numbers.zero, numbers), rows, "before any fit")
    print("  named families:", "{}/{}".format(*rigs_right(rows, numbers.zero, numbers)))
    print("  directions:", "{}/{}".format(*directions_held(twos, numbers.zero, numbers)))
    held_out(rows, twos, numbers)
    x = Fit(rows, twos, numbers).solve()
    told(verdicts(rows, x, numbers), rows, "fitted (seen)")
    print("  named families, seen:", "{}/{}".format(*rigs_right(rows, x, numbers)))
    print("  directions, seen:", "{}/{}".format(*directions_held(twos, x, numbers)))
    print("  weights:", {name[0]: round(math.exp(v), 3) for name, v in numbers.table(x, "weights")})
    if "--write" in sys.argv:
        FITTED.write_text(written(x, numbers), "utf-8")


def leaning() -> Leans:
    """The leans as practice has them, before any fit."""
    data = tomllib.loads((FITTED.parent / "leans.toml").read_text("utf-8"))
    return Leans(data["leans"], data["heads"])


#: Numbers smaller than these are not written.
LEAST_WRITTEN = {"leans": 0.02, "heads": 0.01, "usual": 0.01, "suits": 0.02, "points": 0.01}


def written(x: Floats, numbers: Numbers) -> str:
    """The fitted table."""

    def nested(kind: str) -> dict[Any, Any]:
        found: dict[Any, Any] = {}
        for name, v in numbers.table(x - numbers.zero, kind):
            if abs(v) >= LEAST_WRITTEN[kind]:
                at = found
                for key in name[:-1]:
                    at = at.setdefault(key, {})
                at[name[-1]] = v
        return found

    def row(values: dict[str, float]) -> str:
        return "{ " + ", ".join(f"{k} = {v:.2f}" for k, v in values.items()) + " }"

    by_rule: dict[str, dict[str, float]] = {}
    for family, rules in nested("points").items():
        for rule, v in rules.items():
            by_rule.setdefault(rule, {})[family] = v
    lines = [
        "# Written by `make calibrate`, not by hand: what worked waters and pairs add to the other files.",
        "[provenance]",
        'weights = { origin = "fitted", spread = 0.20, note = "exponents of the parts" }',
        'points = { origin = "fitted", spread = 0.10, note = "added to a rule\'s points" }',
        'leans = { origin = "fitted", spread = 0.30, note = "log liking of a trailer, by work and '
        'lean: for a level of action, for a log of bulk" }',
        'heads = { origin = "fitted", spread = 0.30, note = "log of the usual weight, by work and lean" }',
        'usual = { origin = "fitted", spread = 0.10, note = "log of a family\'s usual weights" }',
        'suits = { origin = "fitted", spread = 0.20, note = "added (log) to how a trailer suits a family" }',
        "",
        "[weights]",
        *(f"{name[0]} = {math.exp(v):.3f}" for name, v in numbers.table(x, "weights")),
    ]
    for work, rows in nested("leans").items():
        lines += ["", f"[leans.{work}]", *(f"{name} = {row(values)}" for name, values in rows.items())]
    if not nested("leans"):
        lines += ["", "[leans]"]
    lines += ["", "[heads]", *(f"{work} = {row(values)}" for work, values in nested("heads").items())]
    lines += ["", "[usual]", *(f"{family} = {v:.2f}" for family, v in nested("usual").items())]
    lines += ["", "[suits]", *(f"{family} = {row(values)}" for family, values in nested("suits").items())]
    lines += ["", "[points]", *(f"{rule} = {row(by_rule[rule])}" for rule in sorted(by_rule))]
    return "\n".join(lines) + "\n"


if __name__ == "__main__":
    main()
