"""One's own fish: how a log's bites and blanks speak for other weights, paces, falls, moods than the tables.

Two parts of a log speak for different things, and neither is used twice. Which casts of one lure at one stop
on one day were bitten says what fish like of its weight, pace and fall; how many bites a visit came to says
how readily they bite, in what mood, how often nobody is home and how they tire.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop import catalog as catalogue
from heathdrop.answers.search import place_of
from heathdrop.answers.thrown import LEAST_S, Run, bitten, fishes_oz, run_of
from heathdrop.answers.trials import LEAST_BITES, Held, held_of, setting_at, water_of_cast
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.scenario import fading
from heathdrop.learning.visits import Likely, Visit, bites_told
from heathdrop.search.belief import bite_per_s
from heathdrop.sizing.knowledge import COLD_F, TRAIT, WARM_F, Trait
from heathdrop.sizing.setting import mood_paces

Vector = NDArray[np.float64]

#: A liking's shift (log): how wide fish's taste may be, each as likely as the next (the last: they do not
#: mind), how far is looked and how finely, and how far the prior stands about none.
TASTES, GRID, POINTS = np.array([0.25, 0.35, 0.5, math.inf]), 1.0, 41
PRIOR = {"head": 0.2, "pace": 0.26, "fall": 0.25}
#: The chance that a shift has the other sign, below which it is said: several are looked at in every log.
DOUBT = 0.02
#: Visits that are looked at at most, the latest.
VISITS = 120
#: Where fish are as tabled, by what a trait is told in; a share's table is the catalogue's.
AS_TABLED = {"factor": 1.0, "steps": 0.0}


@dataclass(frozen=True)
class Shift:
    """How one's own fish differ from the tables: what (the name of a trait), its value with its 80 %
    interval, and on how many casts; ``told``: so sure that it may be said. A factor (1: as tabled), steps of
    the mood (0: as tabled), or a share (``table``: what the tables have)."""

    what: str
    value: float
    low: float
    high: float
    casts: int
    sure: bool = False
    unit: str = "factor"
    table: float = 1.0


def tabled(what: str) -> float:
    """What a trait (by its name) is in the tables."""
    trait = TRAIT[what]
    place = catalogue.load().search.place
    return AS_TABLED[trait.unit] if trait.unit in AS_TABLED else float(getattr(place, trait.field))


def shifts_of(
    made: Sequence[MadeCast], minutes: Sequence[float], runs: Sequence[Run | None], latest: int
) -> list[Shift]:
    """Every shift that the log says something of, told or not; too few bites teach nothing. ``runs`` are how
    the casts ran; only the ``latest`` so many are asked what fish like."""
    if sum(bitten(c) for c in made) < LEAST_BITES:
        return []
    held = held_of(made[-latest:], minutes[-latest:])
    liked = {} if held is None else _liked(held)
    visits, casts = visits_of(made, runs)
    place, per_s = catalogue.load().search.place, catalogue.load().search.bite.per_s
    for field, likely in bites_told(visits, per_s, place.absent, place.tires).items():
        liked[field] = likely, casts[field]
    return [
        _shift(trait, *liked[trait.field])
        for trait in TRAIT.values()
        if trait.field in liked and liked[trait.field][1]
    ]


def _shift(trait: Trait, likely: Likely, casts: int) -> Shift:
    """A posterior as it is told: factors were summed over as their logs."""
    table = tabled(trait.name)
    logs = trait.unit == "factor"
    below = likely.below(math.log(table) if logs else table)
    said = [likely.mean, likely.at(0.1), likely.at(0.9)]
    value, low, high = (math.exp(v) for v in said) if logs else said
    differs = min(below, 1.0 - below) < DOUBT
    return Shift(trait.name, value, low, high, casts=casts, sure=differs, unit=trait.unit, table=table)


def _liked(held: Held) -> dict[str, tuple[Likely, int]]:
    """What fish like of head, pace and fall: posteriors of shifts (log) that are looked for together, pace
    with the head of what swims, fall with the head of what is worked on the floor, for who throws heavy heads
    alone has thrown quick falls alone."""
    swims = np.array([catalogue.load().families[c.family].work == "swim" for c in held.casts])
    heads, grid = _heavier(held), np.linspace(-GRID, GRID, POINTS)
    prior = {field: -0.5 * (grid / sigma) ** 2 for field, sigma in PRIOR.items()}
    alone: list[Vector] = []
    likely: dict[str, tuple[Likely, int]] = {}
    parts = [("pace", swims, _quicker(held)), ("fall", ~swims, _sooner(held))]
    joint = [(name, held.part(which), heads[which], off[which]) for name, which, off in parts if which.any()]
    for _, part, head, off in joint:
        alone.append(_together(part, head, off, grid))
    summed = [
        np.logaddexp.reduce(j + prior[name], axis=2) for j, (name, *_) in zip(alone, joint, strict=True)
    ]
    whole = prior["head"][:, None] + sum(summed)
    for k, (name, part, _, _) in enumerate(joint):
        if part.bites.sum() >= LEAST_BITES:
            others = (whole - summed[k])[:, :, None] + alone[k]
            logs = np.logaddexp.reduce(others, axis=(0, 1)) + prior[name]
            likely[name] = _likely(grid, logs), len(part.casts)
    likely["head"] = _likely(grid, np.logaddexp.reduce(whole, axis=1)), len(held.casts)
    return likely


def _likely(grid: Vector, logs: Vector) -> Likely:
    chance = np.exp(logs - logs.max())
    return Likely(grid, chance / chance.sum())


def _together(held: Held, head: Vector, other: Vector, grid: Vector) -> NDArray[np.float64]:
    """Log likelihood (head's shift, its taste, the other's shift; the other's taste summed over): fish take a
    cast as exp(−½((x − δ)/σ)²) of the unknown rate of its group, for each of the two."""
    group = np.zeros((len(held.groups), int(held.groups.max()) + 1))
    group[np.arange(len(held.groups)), held.groups] = 1.0
    bites = held.bites @ group

    def worth(x: Vector) -> NDArray[np.float64]:
        """Log of a liking: (shifts, tastes, casts)."""
        return np.asarray(-0.5 * ((x - grid[:, None, None]) / TASTES[:, None]) ** 2)

    first, second = worth(head), worth(other)
    taken = np.exp(second) * held.minutes
    joint = np.empty((len(grid), len(TASTES), len(grid)))
    for i in range(len(grid)):
        for t in range(len(TASTES)):
            whole = (taken * np.exp(first[i, t])) @ group
            logs = first[i, t] @ held.bites + second @ held.bites - np.log(np.maximum(whole, 1e-300)) @ bites
            joint[i, t] = np.logaddexp.reduce(logs, axis=1)
    return joint


def _heavier(held: Held) -> Vector:
    """Log of each head over the middle of its table."""
    settings = [setting_at(water) for water in held.waters]
    middles = np.array([s.weights.middle_oz for s in settings])
    heads = np.array([fishes_oz(c, s) for c, s in zip(held.casts, settings, strict=True)])
    return np.asarray(np.log(heads / middles))


def _quicker(held: Held) -> Vector:
    """Log of each pace over the middle of its mood's band; none for what is not reeled."""
    bands = [mood_paces(setting_at(water)) for water in held.waters]
    middles = np.array([math.sqrt(a * b) for a, b in bands])
    paces = np.array([c.pace_ft_s for c in held.casts])
    return np.asarray(np.log(np.where(paces > 0.0, paces, middles) / middles))


def _sooner(held: Held) -> Vector:
    """Log of each fall rate over the middle of its mood's band; none where the rig is not known."""
    bands = [setting_at(water).targets.fall_ft_s for water in held.waters]
    middles = np.array([math.sqrt(a * b) for a, b in bands])
    falls = np.array([0.0 if run is None else run.fall_ft_s for run in map(run_of, held.casts)])
    return np.asarray(np.log(np.where(falls > 0.0, falls, middles) / middles))


def visits_of(made: Sequence[MadeCast], runs: Sequence[Run | None]) -> tuple[list[Visit], dict[str, int]]:
    """The visits of a log, the latest, of casts whose water is known; and by trait the casts that speak."""
    stops: dict[tuple[str, str], list[tuple[MadeCast, Run]]] = {}
    for cast, run in zip(made, runs, strict=True):
        if run is not None:
            stops.setdefault((cast.time.date().isoformat(), cast.stop), []).append((cast, run))
    visits, spoke = [], dict.fromkeys(("bites", "cold", "warm", "absent", "tires"), 0)
    for stop_casts in list(stops.values())[-VISITS:]:
        visit = _visit(stop_casts)
        if visit is not None:
            visits.append(visit)
            for field in ("bites", "absent", "tires", "cold" if visit.cold >= 0.5 else "warm"):
                spoke[field] += len(stop_casts)
    return visits, spoke


def _visit(stop_casts: Sequence[tuple[MadeCast, Run]]) -> Visit | None:
    """One visit, in the water of its first cast."""
    catalog, water = catalogue.load(), water_of_cast(stop_casts[0][0])
    if water is None:
        return None
    mood = setting_at(water).targets.activity.value
    place, per_s = place_of(catalog, water), bite_per_s(catalog, mood)
    seen: dict[tuple[str, float, str, int, int], int] = {}
    before = []
    for cast, _ in stop_casts:
        key = cast.family, cast.head_oz, cast.trailer, round(cast.countdown_s), round(5.0 * cast.pace_ft_s)
        before.append(float(seen.get(key, 0) // place.lanes))
        seen[key] = seen.get(key, 0) + 1
    return Visit(
        mood=mood,
        cold=fading(water.conditions.water_temp_f, COLD_F, WARM_F),
        expected=np.array(
            [place.share * per_s * run.suit * max(LEAST_S, run.among_s) for _, run in stop_casts]
        ),
        before=np.array(before),
        bites=np.array([float(bitten(cast)) for cast, _ in stop_casts]),
    )
