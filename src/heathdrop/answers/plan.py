"""The evening before: which few rigs to tie on for a day's stops, and how each is fished at each of them."""

from __future__ import annotations

import math
import time
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.advice.call import points_of
from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.change import COMPLAINTS, changes_for, likely
from heathdrop.advice.linesay import offered
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.search import Step, search_water
from heathdrop.answers.water import call_of, placed, sizing_of
from heathdrop.conditions.gear import Gear, Reel
from heathdrop.conditions.gear import Line as LineSet
from heathdrop.conditions.gear import Rod as GearRod
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import USUAL, RigName, name_of
from heathdrop.search.choose import adds, bound, choose
from heathdrop.sizing.memory import Memory
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import Rated, rate, size
from heathdrop.units import ounces_as_written

#: Families asked at each stop, and rigs taken of each.
FAMILIES, RIGS = 4, 3
#: A family that the rules put under this share of the best one is not rated, but taken to fit half.
HOPELESS, HALF_FIT = 0.45, 0.5
#: From so many rigs on rods on, a rig that is worth less than this share of the best at a stop, on the
#: stop's own line, is not rated there on every rod.
MANY_CANDIDATES, SCREENED = 100, 0.65
#: For more stops than these each family gives one rig a stop: there are enough to choose from.
MANY_STOPS = 12
#: So few rods for more stops want rigs that are a compromise between them.
FEW_RODS = 2
#: Casts of a stop's search order.
CASTS = 6
#: Ratings remembered, so that a changed stop asks only for itself.
RATED: Memory[list[Rated]] = Memory(16384)
#: The reel where none is named.
DEFAULT_REEL = Reel()
#: Told how far the work is (0 to 1) and what is being done.
Tell = Callable[[float, str], None]


@dataclass(frozen=True)
class Stop:
    """A stop of the day: its water (line and reel are the rods'), minutes, how much it matters."""

    name: str
    scenario: Scenario
    minutes: float = 60.0
    importance: float = 1.0
    position: tuple[float, float] | None = None


@dataclass(frozen=True)
class Rod:
    """A rod to hand: its name, line and reel, and what is written on it where that is known."""

    name: str
    line: LineSet
    reel: Reel = DEFAULT_REEL
    rated: GearRod | None = None

    def on(self, gear: Gear) -> Gear:
        """The gear at a stop with this rod in hand."""
        return replace(gear, line=self.line, reel=self.reel, rod=self.rated)


@dataclass(frozen=True)
class Tied:
    """A rod of the plan: the rig on it, and what is lost without it (share of the day)."""

    rod: Rod
    rig: Rig
    adds: float


@dataclass(frozen=True)
class Served:
    """How a stop is fished: the rod (by its place), what is changed on it, the rig rated there."""

    rod: int
    change: str
    rated: Rated
    worth: float


@dataclass(frozen=True)
class StopPlan:
    """A stop's answer: how it is served, each rod there, its ideal, first changes, search order, cautions."""

    stop: Stop
    served: Served
    each: tuple[Served, ...]
    ideal: Rated
    ideal_worth: float
    well: bool
    troubles: tuple[tuple[str, str, str], ...]
    search: tuple[Step, ...]
    cautions: tuple[str, ...]


@dataclass(frozen=True)
class Plan:
    """The day: rods as tied, stops in order, what goes in the bag, what is worth buying; ``total`` and
    ``bound`` are shares of a day on which every stop is fished at its very best."""

    rods: tuple[Tied, ...]
    stops: tuple[StopPlan, ...]
    bag: tuple[str, ...]
    buy: tuple[str, ...]
    total: float
    bound: float
    seconds: float


@dataclass(frozen=True)
class _Candidate:
    """A rig on a rod's line; ``group`` is the rod it needs (-1: any, the rod is rigged for it)."""

    rig: Rig
    rod: Rod
    group: int


def plan_day(
    stops: Sequence[Stop],
    rods: Sequence[Rod] | int,
    own: Own = STRANGER,
    tell: Tell = lambda _share, _what: None,
    *,
    closely: bool = True,
) -> Plan:
    """Choose rigs for the rods and say how each stop is fished. ``rods`` may be a number: then each rig gets
    the line that suits it. ``closely`` adds first changes and search order of each stop. Raises BadInput."""
    begun = time.perf_counter()
    if not stops:
        raise BadInput("stops", "empty", "a list of at least one stop")
    stops = [replace(s, scenario=placed(s.scenario)) for s in stops]
    candidates = _candidates(stops, rods, own, tell)
    count = rods if isinstance(rods, int) else len(rods)
    weights = np.array([s.importance * s.minutes for s in stops])
    weights = weights / weights.sum()
    table, changed = _worths(candidates, stops, own, tell)
    weighed = table * weights
    groups = [c.group if c.group >= 0 else -1 - k for k, c in enumerate(candidates)]
    chosen = sorted(choose(weighed, groups, count), key=lambda k: (candidates[k].group, k))
    for k in chosen:  # what was taken for hopeless is rated now, so that no stop is told a guess
        for j, stop in enumerate(stops):
            if (k, j) not in changed:
                table[k, j] = worth_at(stop, candidates[k].rig, candidates[k].rod, own)
    weighed = table * weights
    lost = adds(weighed, chosen)
    tied = [_tied(n, candidates[k], lost[n]) for n, k in enumerate(chosen)]
    tell(0.8, "the stops one by one")
    days = [
        _stop_plan(
            j,
            stop,
            chosen=chosen,
            candidates=candidates,
            table=table,
            changed=changed,
            own=own,
            closely=closely,
        )
        for j, stop in enumerate(stops)
    ]
    return Plan(
        rods=tuple(tied),
        stops=tuple(days),
        bag=_bag(tied, days),
        buy=_buy(tied, days, own),
        total=float(sum(w * d.served.worth for w, d in zip(weights, days, strict=True))),
        bound=bound(weighed),
        seconds=time.perf_counter() - begun,
    )


def _tied(n: int, c: _Candidate, lost: float) -> Tied:
    rod = c.rod if c.group >= 0 else replace(c.rod, name=chr(ord("A") + n % 26))
    return Tied(rod, c.rig, lost)


def _candidates(stops: Sequence[Stop], rods: Sequence[Rod] | int, own: Own, tell: Tell) -> list[_Candidate]:
    """The best rigs of the best families of every stop, on every rod's line, or on the line that suits."""
    found: dict[str, Rig] = {}
    each = RIGS if len(stops) <= MANY_STOPS else 1
    for k, stop in enumerate(stops):
        tell(0.5 * k / len(stops), f"the best rigs for {stop.name}")
        for standing in call_of(replace(stop.scenario, families=()), own, places=FAMILIES).standings:
            for rated in standing.sizing.rigs[:each]:
                found.setdefault(name_of(rated.rig).text(), rated.rig)
    if (rods if isinstance(rods, int) else len(rods)) <= FEW_RODS < len(stops):
        for rig in _compromises(stops, {rig.family.id for rig in found.values()}, own):
            found.setdefault(name_of(rig).text(), rig)
    if not isinstance(rods, int):
        return [_Candidate(rig, rod, n) for n, rod in enumerate(rods) for rig in found.values()]
    reel = stops[0].scenario.gear.reel
    return [_Candidate(rig, _suited(rig, reel), -1) for rig in found.values()]


def _suited(rig: Rig, reel: Reel) -> Rod:
    """A rod with the line that suits a rig's family."""
    material, test_lb = offered(rig.family)
    return Rod("", LineSet(material=material, test_lb=float(test_lb)), reel)


def _compromises(stops: Sequence[Stop], families: set[str], own: Own) -> list[Rig]:
    """For each family the rig that fits all the stops best together: nobody's best, what one rod wants."""
    found = []
    for family in sorted(families):
        fits: dict[str, float] = {}
        rigs: dict[str, Rig] = {}
        for stop in stops:
            for rated in sizing_of(replace(stop.scenario, families=(family,)), own).rigs:
                name = name_of(rated.rig).text()
                rigs[name] = rated.rig
                fits[name] = fits.get(name, 0.0) + stop.importance * stop.minutes * rated.fits.score
        found.append(rigs[max(fits, key=lambda name: round(fits[name], 9))])
    return found


def _worths(
    candidates: Sequence[_Candidate], stops: Sequence[Stop], own: Own, tell: Tell
) -> tuple[np.ndarray, dict[tuple[int, int], tuple[str, int]]]:
    """What each candidate is worth at each stop, a change of trailer or knot taken where it pays its minutes
    of the stop and that it is put off; and for each place the change and the candidate it becomes."""
    numbers, minutes = catalogue.load().search.plan, catalogue.load().search.minutes
    at_stop = np.array([s.minutes for s in stops])
    straight = np.zeros((len(candidates), len(stops)))
    for j, stop in enumerate(stops):
        tell(0.5 + 0.3 * j / len(stops), f"every rig at {stop.name}")
        straight[:, j] = _straight(stop, candidates, own)
    table, changed = straight.copy(), {}
    lines = [(c.group, c.rod.line, c.rod.reel, c.rod.rated) for c in candidates]
    heads = [(c.rig.family.id, c.rig.head_oz) for c in candidates]
    for k in range(len(candidates)):
        for put_off, takes_min, change, like in (
            (
                numbers.trailer_put_off,
                minutes.trailer_min,
                "trailer",
                [n for n in range(len(candidates)) if heads[n] == heads[k]],
            ),
            (numbers.retie_put_off, minutes.retie_min, "retie", list(range(len(candidates)))),
        ):
            same = [n for n in like if lines[n] == lines[k]]
            spent = np.minimum(1.0, takes_min / at_stop)
            best = straight[same].max(axis=0) * (1.0 - spent) - put_off
            for j in np.flatnonzero(best > table[k] + 1e-9).tolist():
                table[k, j] = best[j]
                changed[k, j] = change, same[int(np.argmax(straight[same, j]))]
    return table, changed


def _straight(stop: Stop, candidates: Sequence[_Candidate], own: Own) -> list[float]:
    """What each candidate is worth at a stop as it is tied. Where there are many, a rig that on the
    line that suits it is worth less than :data:`SCREENED` of the best there is taken to be so on every
    rod's."""
    plain: dict[str, float] = {}
    many = len(candidates) > MANY_CANDIDATES
    if many:
        rigs = {name_of(c.rig).text(): c.rig for c in candidates}
        for name, rig in rigs.items():
            guess = _hopeless(stop, rig, own)
            plain[name] = (
                worth_at(stop, rig, _suited(rig, stop.scenario.gear.reel), own) if guess is None else guess
            )
    least = SCREENED * max(plain.values(), default=0.0)
    found = []
    for c in candidates:
        guess = plain[name_of(c.rig).text()] if many else 0.0
        if many and guess < least:
            found.append(guess)
            continue
        hopeless = _hopeless(stop, c.rig, own)
        found.append(worth_at(stop, c.rig, c.rod, own) if hopeless is None else hopeless)
    return found


def _hopeless(stop: Stop, rig: Rig, own: Own) -> float | None:
    """What a rig is taken to be worth, unrated, where the rules put its family so far behind that it hardly
    serves this stop; None where it is to be rated."""
    most = math.exp(_behind(stop.scenario, rig.family.id, own))
    return HALF_FIT * most if most < HOPELESS else None


def rated_there(stop: Stop, rig: Rig, rod: Rod, own: Own) -> Rated:
    """A rig on a rod's line rated at a stop (remembered)."""
    scenario = replace(stop.scenario, gear=rod.on(stop.scenario.gear), families=(rig.family.id,))

    def find(_: list[int]) -> list[list[Rated]]:
        return [rate(setting_of(catalogue.load(), scenario, own.learned), [own.learned.applied(rig)])]

    return RATED.all_of([(scenario, name_of(rig), own.learned)], find)[0][0]


def worth_at(stop: Stop, rig: Rig, rod: Rod, own: Own) -> float:
    """The fit of a rig at a stop, less where the rules put its family behind the best one (0 to 1), next to
    nothing on a rod or a line that cannot bear it."""
    rated = rated_there(stop, rig, rod, own)
    borne = 1.0 if rated.borne else catalogue.load().search.plan.unborne
    return borne * rated.fits.score * math.exp(_behind(stop.scenario, rig.family.id, own))


@lru_cache(maxsize=2048)
def _behind(water: Scenario, family: str, own: Own) -> float:
    """How far (log) the rules put a family behind the one that stands first in this water (remembered)."""
    setting = setting_of(catalogue.load(), replace(water, families=(family,)), own.learned)
    weighed, school = points_of(catalogue.load(), setting.facts, setting.scenario, setting.family)
    most = call_of(replace(water, families=()), own, places=FAMILIES).standings[0].points
    return min(0.0, sum(p for _, p in weighed) + school - most)


def _stop_plan(
    j: int,
    stop: Stop,
    chosen: Sequence[int],
    candidates: Sequence[_Candidate],
    table: np.ndarray,
    changed: dict[tuple[int, int], tuple[str, int]],
    own: Own,
    closely: bool,
) -> StopPlan:
    each = []
    for n, k in enumerate(chosen):
        change, to = changed.get((k, j), ("none", k))
        rated = rated_there(stop, candidates[to].rig, candidates[k].rod, own)
        each.append(Served(n, change, rated, float(table[k, j])))
    served = max(each, key=lambda s: (round(s.worth, 9), s.change == "none"))
    best = int(np.argmax(table[:, j]))
    ideal = rated_there(
        stop, candidates[changed.get((best, j), ("", best))[1]].rig, candidates[best].rod, own
    )
    rod = candidates[chosen[served.rod]].rod
    water = replace(stop.scenario, gear=rod.on(stop.scenario.gear), families=(served.rated.rig.family.id,))
    troubles: tuple[tuple[str, str, str], ...] = ()
    steps: tuple[Step, ...] = ()
    if closely:
        troubles = _troubles(water, name_of(served.rated.rig), own)
        hand = [e.rated.rig for e in sorted(each, key=lambda e: -e.worth)[:2]]
        steps = _order(water, tuple(name_of(r) for r in hand), own)  # the first in hand opens
    served_well = served.worth >= catalogue.load().search.plan.well * float(table[best, j])
    return StopPlan(
        stop=stop,
        served=served,
        each=tuple(each),
        ideal=ideal,
        ideal_worth=float(table[best, j]),
        well=served_well,
        troubles=troubles,
        search=steps,
        cautions=tuple(c.text for c in cautions_for(catalogue.load(), water, served.rated)),
    )


@lru_cache(maxsize=256)
def _order(water: Scenario, hand: tuple[RigName, ...], own: Own) -> tuple[Step, ...]:
    """The stop's search order with the rigs to hand (remembered)."""
    rigs = [name.rig(catalogue.load()) for name in hand]
    return search_water(water, own, rigs, limit=CASTS, opens=hand[0].text()).steps


@lru_cache(maxsize=256)
def _troubles(water: Scenario, rig: RigName, own: Own) -> tuple[tuple[str, str, str], ...]:
    """For each trouble the first change and what it does (remembered)."""
    catalog = catalogue.load()
    sizing = size(catalog, water, [rig.rig(catalog)], own.learned)
    found = []
    for trouble in likely(rig.rig(catalog).family.work, water.conditions.cover.kind):
        changes = changes_for(catalog, sizing, sizing.rigs[0], trouble)
        if changes:
            found.append((COMPLAINTS[trouble], changes[0].what, changes[0].effect))
    return tuple(found)


def _bag(tied: Sequence[Tied], days: Sequence[StopPlan]) -> tuple[str, ...]:
    """What goes along: the rigs tied on, the trailers and heads that the stops change to."""
    found = [tail_said(t.rig) for t in tied] + [tail_said(d.served.rated.rig) for d in days]
    found += [head_said(t.rig) for t in tied] + [head_said(d.served.rated.rig) for d in days]
    return tuple(dict.fromkeys(f for f in found if f))


def _buy(tied: Sequence[Tied], days: Sequence[StopPlan], own: Own) -> tuple[str, ...]:
    """What the plan ties on and the box does not hold, most useful first; nothing while the box is empty."""
    if not own.tackle.heads and not own.tackle.trailers:
        return ()
    rigs = [t.rig for t in sorted(tied, key=lambda t: -t.adds)] + [d.served.rated.rig for d in days]
    missing = [r for r in rigs if not own.tackle.owns(r)]
    return tuple(dict.fromkeys(f"{head_said(r)} with {tail_said(r)}" for r in missing))


def rig_said(rig: Rig) -> str:
    """A rig in words: ``3/8 oz swim jig, craw 4 in``."""
    return ", ".join(part for part in (head_said(rig), tail_said(rig)) if part)


def head_said(rig: Rig) -> str:
    """A head in words: ``3/8 oz swim jig``, ``1 oz tungsten punch rig``."""
    cast_of = "" if rig.head_material.id == USUAL["head_material"] else f"{rig.head_material.name} "
    return f"{ounces_as_written(rig.head_oz)} oz {cast_of}{rig.family.name}"


def tail_said(rig: Rig) -> str:
    """A trailer in words; nothing for a bare skirt."""
    return "" if rig.trailer.bare else f"{rig.trailer.name} {rig.trailer_length_in:g} in"
