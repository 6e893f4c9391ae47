"""The evening before: which few rigs to tie on for a day's stops, and how each is fished at each of them."""

import time
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.change import likely, mended
from heathdrop.answers.day_table import Candidate, Table, Tell, rated_closely, table_of
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.search import Step, search_water
from heathdrop.answers.stop import Part, Rod, Stop, parts_of, rated_in
from heathdrop.answers.water import placed
from heathdrop.conditions.outcome import WENT
from heathdrop.conditions.scenario import Scenario
from heathdrop.errors import BadInput
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import USUAL, RigName, name_of
from heathdrop.search.choose import adds, bound, choose
from heathdrop.sizing.size import Rated, size
from heathdrop.units import inches_said, ounces_as_written

#: Casts of a stop's search order.
CASTS = 6
#: A rod that adds so much at a stop beside the one that opens it is named there.
WORTH_NAMING = 0.02


@dataclass(frozen=True)
class Tied:
    """A rod of the plan: the rig on it, and what is lost without it (share of the day)."""

    rod: Rod
    rig: Rig
    adds: float


@dataclass(frozen=True)
class Served:
    """How a stop is fished: the rod (by its place), what is changed on it, the rig rated there, its worth
    alone. ``adds`` is what it adds to the rod that opens the stop, ``for_ft`` the depths of the fish that it
    is the better one for (None: for none); where it is for some, it is rated for those."""

    rod: int
    change: str
    rated: Rated
    worth: float
    adds: float = 0.0
    for_ft: tuple[float, float] | None = None


@dataclass(frozen=True)
class StopPlan:
    """A stop's answer: how it is served, each rod there, its ideal, what all the rods are worth there, first
    changes, search order, cautions."""

    stop: Stop
    served: Served
    each: tuple[Served, ...]
    ideal: Rated
    ideal_worth: float
    worth: float
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
    table = table_of(stops, rods, own, tell)
    count = rods if isinstance(rods, int) else len(rods)
    weights = np.array([s.importance * s.minutes for s in stops])
    weights = weights / weights.sum()
    candidates = table.candidates
    groups = [c.group if c.group >= 0 else -1 - k for k, c in enumerate(candidates)]
    chosen = choose(table.over(weights), groups, count)
    chosen.sort(key=lambda k: (candidates[k].group, k))
    table = rated_closely(table, chosen, stops, own)
    weighed = table.over(weights)
    lost = adds(weighed, chosen)
    tied = [_tied(n, candidates[k], lost[n]) for n, k in enumerate(chosen)]
    tell(0.8, "the stops one by one")
    days = [
        _stop_plan(j, stop, table, chosen=chosen, own=own, closely=closely) for j, stop in enumerate(stops)
    ]
    return Plan(
        rods=tuple(tied),
        stops=tuple(days),
        bag=_bag(tied, days),
        buy=_buy(tied, days, own),
        total=float(sum(w * d.worth for w, d in zip(weights, days, strict=True))),
        bound=bound(weighed),
        seconds=time.perf_counter() - begun,
    )


def _tied(n: int, c: Candidate, lost: float) -> Tied:
    rod = c.rod if c.group >= 0 else replace(c.rod, name=chr(ord("A") + n % 26))
    return Tied(rod, c.rig, lost)


def _stop_plan(j: int, stop: Stop, table: Table, chosen: Sequence[int], own: Own, closely: bool) -> StopPlan:
    """How a stop is fished with the rods chosen: the one that serves it best alone opens it."""
    alone = table.at(j)

    def there(row: int, on: int, water: Scenario = stop.scenario) -> Rated:
        return rated_in(water, table.candidates[row].rig, table.candidates[on].rod, own)

    opens = max(chosen, key=lambda k: (round(float(alone[k]), 9), table.becomes(k, j)[0] == "none"))
    each = []
    for n, k in enumerate(chosen):
        change, to = table.becomes(k, j)
        more = [] if k == opens else _for_parts(stop, table, opens, k, j)
        each.append(
            Served(
                rod=n,
                change=change,
                rated=there(to, k, *(part.scenario for part in more[:1])),
                worth=float(alone[k]),
                adds=table.together([opens, k], j) - float(alone[opens]),
                for_ft=(min(p.top_ft for p in more), max(p.low_ft for p in more)) if more else None,
            )
        )
    served = each[list(chosen).index(opens)]
    best = int(np.argmax(alone))
    worth = table.together(chosen, j)
    rod = table.candidates[opens].rod
    water = replace(stop.scenario, gear=rod.on(stop.scenario.gear), families=(served.rated.rig.family.id,))
    troubles: tuple[tuple[str, str, str], ...] = ()
    steps: tuple[Step, ...] = ()
    if closely:
        troubles = _troubles(water, name_of(served.rated.rig), own)
        # The one that opens, and the one that brings most beside it.
        beside = max((e for e in each if e is not served), key=lambda e: (e.adds, e.worth), default=None)
        hand = [e.rated.rig for e in (served, beside) if e is not None]
        steps = _order(water, tuple(name_of(r) for r in hand), own)  # the first in hand opens
    return StopPlan(
        stop=stop,
        served=served,
        each=tuple(each),
        ideal=there(table.becomes(best, j)[1], best),
        ideal_worth=float(alone[best]),
        worth=worth,
        well=worth >= catalogue.load().search.plan.well * float(alone[best]),
        troubles=troubles,
        search=steps,
        cautions=tuple(c.text for c in cautions_for(catalogue.load(), water, served.rated)),
    )


def _for_parts(stop: Stop, table: Table, opens: int, row: int, j: int) -> list[Part]:
    """The parts of a stop's fish that a rod is clearly better for than the one that opens the stop, the one
    that gains most first."""
    gains = table.values[row, table.columns[j]] - table.values[opens, table.columns[j]]
    parts = parts_of(stop.scenario)
    return [parts[n] for n in np.argsort(-gains) if gains[n] > WORTH_NAMING]


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
    troubles = []
    for trouble in likely(rig.rig(catalog).family.work, water.conditions.cover.kind):
        changes = mended(catalog, sizing, sizing.rigs[0], trouble).changes
        if changes:
            troubles.append((WENT[trouble], changes[0].what, changes[0].effect))
    return tuple(troubles)


def _bag(tied: Sequence[Tied], days: Sequence[StopPlan]) -> tuple[str, ...]:
    """What goes along: the rigs tied on, the trailers and heads that the stops change to."""
    trailers = [_tail_said(t.rig) for t in tied] + [_tail_said(d.served.rated.rig) for d in days]
    trailers += [_head_said(t.rig) for t in tied] + [_head_said(d.served.rated.rig) for d in days]
    return tuple(dict.fromkeys(f for f in trailers if f))


def _buy(tied: Sequence[Tied], days: Sequence[StopPlan], own: Own) -> tuple[str, ...]:
    """What the plan ties on and the box does not hold, most useful first; nothing while the box is empty."""
    if not own.tackle.heads and not own.tackle.trailers:
        return ()
    rigs = [t.rig for t in sorted(tied, key=lambda t: -t.adds)] + [d.served.rated.rig for d in days]
    missing = [r for r in rigs if not own.tackle.owns(r)]
    return tuple(dict.fromkeys(f"{_head_said(r)} with {_tail_said(r)}" for r in missing))


def rig_said(rig: Rig) -> str:
    """A rig in words: ``3/8 oz swim jig, craw 4 in``."""
    return ", ".join(part for part in (_head_said(rig), _tail_said(rig)) if part)


def _head_said(rig: Rig) -> str:
    """A head in words: ``3/8 oz swim jig``, ``1 oz tungsten punch rig``."""
    cast_of = "" if rig.head_material.id == USUAL["head_material"] else f"{rig.head_material.name} "
    return f"{ounces_as_written(rig.head_oz)} oz {cast_of}{rig.family.name}"


def _tail_said(rig: Rig) -> str:
    """A trailer in words; nothing for a bare skirt."""
    return "" if rig.trailer.bare else f"{rig.trailer.name} {inches_said(rig.trailer_length_in)} in"
