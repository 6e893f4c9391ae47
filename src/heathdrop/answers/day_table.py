"""The table that a day's rods are chosen from: every rig that may be tied on, and its worth at every stop."""

from collections.abc import Callable, Hashable, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from heathdrop import catalog as catalogue
from heathdrop.answers.own import Own
from heathdrop.answers.stop import (
    FAMILIES,
    Rod,
    Stop,
    hopeless_at,
    parts_of,
    shares_of,
    suited,
    worths_of,
)
from heathdrop.answers.water import call_of, sizing_of
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of

#: Rigs taken of each family at a stop; families, and rigs of each, at its parts where it has several.
RIGS, PART_FAMILIES, PART_RIGS = 3, 2, 1
#: From so many rigs on rods on, a rig that is worth less than this share of the best at a stop, on the
#: line that suits it, is not rated there on every rod.
MANY_CANDIDATES, SCREENED = 100, 0.65
#: For more stops than these each family gives one rig a stop: there are enough to choose from.
MANY_STOPS = 12
#: So few rods for more stops want rigs that are a compromise between them.
FEW_RODS = 2
#: A change that brings less than this is none.
LEAST_GAIN = 1e-9
#: CastTold how far the work is (0 to 1) and what is being done.
Tell = Callable[[float, str], None]
Values = NDArray[np.float64]


@dataclass(frozen=True)
class Candidate:
    """A rig, by its name, on a rod's line; ``group`` is the rod it needs (-1: any, the rod is rigged for
    it)."""

    name: str
    rig: Rig
    rod: Rod
    group: int


@dataclass(frozen=True)
class Table:
    """What each candidate (row) is worth to each part of each stop's fish (column), 0 to 1. ``columns`` are a
    stop's, ``shares`` the share of the stop's fish in each column; ``changed`` names by row and stop the
    change on the water that the worth takes, and the row that the candidate becomes by it."""

    candidates: tuple[Candidate, ...]
    values: Values
    columns: tuple[slice, ...]
    shares: Values
    changed: dict[tuple[int, int], tuple[str, int]]

    def at(self, j: int) -> Values:
        """What each candidate is worth to all the fish of a stop, alone."""
        worth: Values = self.values[:, self.columns[j]] @ self.shares[self.columns[j]]
        return worth

    def together(self, rows: Sequence[int], j: int) -> float:
        """What several candidates are worth at a stop: each part of its fish is for the best of them."""
        best = self.values[list(rows), self.columns[j]].max(axis=0)
        return float(best @ self.shares[self.columns[j]])

    def over(self, weights: Values) -> Values:
        """The values, each in its share of a day in which stops have these weights."""
        of_column = np.concatenate(
            [np.full(c.stop - c.start, w) for c, w in zip(self.columns, weights, strict=True)]
        )
        worth: Values = self.values * self.shares * of_column
        return worth

    def becomes(self, row: int, j: int) -> tuple[str, int]:
        """What is changed on a candidate at a stop, and the row that it becomes."""
        return self.changed.get((row, j), ("none", row))


def table_of(stops: Sequence[Stop], rods: Sequence[Rod] | int, own: Own, tell: Tell) -> Table:
    """Every candidate of a day at every stop. ``rods`` may be a number: then each rig gets the line that
    suits it. Raises BadInput."""
    candidates = _candidates(stops, rods, own, tell)
    ends = np.cumsum([0, *(len(parts_of(s.scenario)) for s in stops)]).tolist()
    columns = tuple(slice(a, b) for a, b in zip(ends, ends[1:], strict=False))
    shares = np.concatenate([shares_of(s.scenario) for s in stops])
    values = np.zeros((len(candidates), ends[-1]))
    for j, stop in enumerate(stops):
        tell(0.5 + 0.3 * j / len(stops), f"every rig at {stop.name}")
        values[:, columns[j]] = _as_tied(stop, candidates, own)
    straight = Table(tuple(candidates), values, columns, shares, {})
    return _with_changes(straight, stops)


def _candidates(stops: Sequence[Stop], rods: Sequence[Rod] | int, own: Own, tell: Tell) -> list[Candidate]:
    """The best rigs of the best families of every stop, on every rod's line, or on the line that suits."""
    by_name: dict[str, Rig] = {}
    each = RIGS if len(stops) <= MANY_STOPS else 1
    for k, stop in enumerate(stops):
        tell(0.5 * k / len(stops), f"the best rigs for {stop.name}")
        asked = [(stop.scenario, FAMILIES, each)]
        parts = parts_of(stop.scenario)
        asked += [(part.scenario, PART_FAMILIES, PART_RIGS) for part in parts if len(parts) > 1]
        for water, families, rigs in asked:
            called = call_of(replace(water, families=()), own, places=FAMILIES)
            for standing in called.standings[:families]:
                for rated in standing.sizing.rigs[:rigs]:
                    by_name.setdefault(name_of(rated.rig).text(), rated.rig)
    if (rods if isinstance(rods, int) else len(rods)) <= FEW_RODS < len(stops):
        for rig in _compromises(stops, {rig.family.id for rig in by_name.values()}, own):
            by_name.setdefault(name_of(rig).text(), rig)
    if not isinstance(rods, int):
        return [Candidate(name, rig, rod, n) for n, rod in enumerate(rods) for name, rig in by_name.items()]
    reel = stops[0].scenario.gear.reel
    return [Candidate(name, rig, suited(rig, reel), -1) for name, rig in by_name.items()]


def _compromises(stops: Sequence[Stop], families: set[str], own: Own) -> list[Rig]:
    """For each family the rig that fits all the stops best together: nobody's best, what one rod wants."""
    compromises = []
    for family in sorted(families):
        fits: dict[str, float] = {}
        rigs: dict[str, Rig] = {}
        for stop in stops:
            for rated in sizing_of(replace(stop.scenario, families=(family,)), own).rigs:
                name = name_of(rated.rig).text()
                rigs[name] = rated.rig
                fits[name] = fits.get(name, 0.0) + stop.importance * stop.minutes * rated.fits.score
        compromises.append(rigs[max(fits, key=lambda name: round(fits[name], 9))])
    return compromises


def _as_tied(stop: Stop, candidates: Sequence[Candidate], own: Own) -> Values:
    """What each candidate is worth to each part of a stop's fish as it is tied. Where there are many, a rig
    that on the line that suits it is worth less than :data:`SCREENED` of the best there is taken to be so on
    every rod's."""
    families = {c.rig.family.id for c in candidates}
    hopeless = {family: hopeless_at(stop, family, own) for family in families}
    guesses: dict[str, Values] = {}
    for c in candidates:
        guess = hopeless[c.rig.family.id]
        if guess is not None:
            guesses[c.name] = guess
    if len(candidates) > MANY_CANDIDATES:
        rigs = {c.name: c.rig for c in candidates if c.name not in guesses}
        plain = _on_suited_lines(stop, rigs, own)
        shares = shares_of(stop.scenario)
        alone = {name: float(shares @ worths) for name, worths in (guesses | plain).items()}
        least = SCREENED * max(alone.values(), default=0.0)
        guesses |= {name: worths for name, worths in plain.items() if alone[name] < least}
    worth = np.zeros((len(candidates), len(parts_of(stop.scenario))))
    asked: dict[Rod, list[int]] = {}
    for k, c in enumerate(candidates):
        if c.name in guesses:
            worth[k] = guesses[c.name]
        else:
            asked.setdefault(c.rod, []).append(k)
    for rod, rows in asked.items():
        worth[rows] = worths_of(stop, [candidates[k].rig for k in rows], rod, own)
    return worth


def _on_suited_lines(stop: Stop, rigs: Mapping[str, Rig], own: Own) -> dict[str, Values]:
    """What rigs (by name) are worth to each part of a stop's fish, each on the line that suits it."""
    rods: dict[Rod, list[str]] = {}
    for name, rig in rigs.items():
        rods.setdefault(suited(rig, stop.scenario.gear.reel), []).append(name)
    by_line: dict[str, Values] = {}
    for rod, names in rods.items():
        worths = worths_of(stop, [rigs[name] for name in names], rod, own)
        by_line |= dict(zip(names, worths, strict=True))
    return by_line


def _with_changes(straight: Table, stops: Sequence[Stop]) -> Table:
    """The table with a change of trailer or a knot taken where it pays its minutes of the stop, and that it
    is put off."""
    numbers, minutes = catalogue.load().search.plan, catalogue.load().search.minutes
    at_stop = np.array([stop.minutes for stop in stops])
    alone = np.column_stack([straight.at(j) for j in range(len(stops))])
    best, values = alone.copy(), straight.values.copy()
    changed: dict[tuple[int, int], tuple[str, int]] = {}
    rods = _numbered([(c.group, c.rod.line, c.rod.reel, c.rod.rated) for c in straight.candidates])
    heads = _numbered(
        [(rod, c.rig.family.id, c.rig.head_oz) for rod, c in zip(rods, straight.candidates, strict=True)]
    )
    for change, takes_min, put_off, same in (
        ("trailer", minutes.trailer_min, numbers.trailer_put_off, heads),
        ("retie", minutes.retie_min, numbers.retie_put_off, rods),
    ):
        left = 1.0 - np.minimum(1.0, takes_min / at_stop)
        others = _best_of_each(alone, same)
        worth = np.take_along_axis(alone, others, axis=0) * left - put_off
        for k, j in np.argwhere(worth > best + LEAST_GAIN).tolist():
            at, to = straight.columns[j], int(others[k, j])
            best[k, j], changed[k, j] = worth[k, j], (change, to)
            values[k, at] = straight.values[to, at] * left[j] - put_off
    return replace(straight, values=values, changed=changed)


def _best_of_each(alone: Values, group: Sequence[int]) -> NDArray[np.intp]:
    """For each row and column the row of its group that is worth most there."""
    best = np.empty(alone.shape, dtype=np.intp)
    for number in set(group):
        rows = np.flatnonzero(np.asarray(group) == number)
        best[rows] = rows[alone[rows].argmax(axis=0)]
    return best


def _numbered(values: Sequence[Hashable]) -> list[int]:
    """Equal values by the same number."""
    numbers: dict[Hashable, int] = {}
    return [numbers.setdefault(value, len(numbers)) for value in values]


def rated_closely(table: Table, rows: Sequence[int], stops: Sequence[Stop], own: Own) -> Table:
    """The table with these rows rated where they were only taken for hopeless, so that no stop is told a
    guess."""
    values = table.values.copy()
    for k in rows:
        one = table.candidates[k]
        for j, stop in enumerate(stops):
            if (k, j) not in table.changed:
                values[k, table.columns[j]] = worths_of(stop, [one.rig], one.rod, own)[0]
    return replace(table, values=values)
