"""The next cast on the water: the search over the rods as tied, the first change, what to take care of."""

from collections.abc import Hashable, Sequence
from dataclasses import dataclass, fields, replace
from functools import cached_property, lru_cache

from heathdrop import catalog as catalogue
from heathdrop.advice.cautions import cautions_for
from heathdrop.advice.change import AS_SIZED, Fished
from heathdrop.answers.change import first_change
from heathdrop.answers.own import Own
from heathdrop.answers.rods_to_hand import CastTold
from heathdrop.answers.search import Search, search_water
from heathdrop.answers.stop import Rod, Stop, worth_at
from heathdrop.answers.water import placed
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.search.hunt import Elsewhere
from heathdrop.sizing.size import Sizing, size

#: Questions of a deck that are remembered: a day of stops, each after its last casts (an LRU cache).
REMEMBERED = 64


@dataclass(frozen=True)
class OnRod:
    """A rod with the rig on it."""

    rod: Rod
    rig: Rig


@dataclass(frozen=True)
class Mend:
    """What went wrong on the last cast, and the smallest change that mends it."""

    symptom: str
    change: str
    effect: str


@dataclass(frozen=True)
class NextUp:
    """The search, the rods it was asked for, the change after a fault (None: nothing was wrong), cautions;
    why the first cast is on another rod than the one that fits this stop best (empty: it is on that one)."""

    search: Search
    rods: tuple[OnRod, ...]
    mend: Mend | None
    cautions: tuple[str, ...]
    left: str = ""

    def rod_of(self, rig: str) -> OnRod | None:
        """The rod that a rig (by its name) is on; None for one that is tied on no rod."""
        return next((r for r in self.rods if name_of(r.rig).text() == rig), None)


def next_up(
    scenario: Scenario,
    own: Own,
    rods: Sequence[OnRod],
    casts: Sequence[CastTold] = (),
    limit: int = 4,
    only: OnRod | None = None,
    elsewhere: Sequence[Elsewhere] = (),
) -> NextUp:
    """What to throw next in this water with these rods (the best few rigs where there are none), after the
    casts told; ``only``: with this rod alone; ``elsewhere``: what bit at the day's other stops. The same
    question is worked out once. Raises BadInput."""
    return _next_up(
        _Question(
            scenario=scenario,
            own=own,
            rods=tuple(rods),
            casts=tuple(casts),
            limit=limit,
            only=only,
            elsewhere=tuple(elsewhere),
        )
    )


@dataclass(frozen=True, eq=False)
class _Question:
    """What :func:`next_up` is asked, equal where every value is: rigs by their names."""

    scenario: Scenario
    own: Own
    rods: tuple[OnRod, ...]
    casts: tuple[CastTold, ...]
    limit: int
    only: OnRod | None
    elsewhere: tuple[Elsewhere, ...] = ()

    @cached_property
    def key(self) -> tuple[Hashable, ...]:
        rods = tuple((r.rod, name_of(r.rig)) for r in (*self.rods, *([self.only] if self.only else ())))
        cast_keys = tuple((name_of(t.rig), *[getattr(t, f.name) for f in fields(t)[1:]]) for t in self.casts)
        return self.scenario, self.own, rods, cast_keys, self.limit, self.only is None, self.elsewhere

    def __hash__(self) -> int:
        return hash(self.key)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Question) and self.key == other.key


@lru_cache(maxsize=REMEMBERED)
def _next_up(asked: _Question) -> NextUp:
    scenario, own, casts, limit, only = asked.scenario, asked.own, asked.casts, asked.limit, asked.only
    rods = [only] if only is not None else list(asked.rods)
    if casts and rods and only is None and name_of(casts[-1].rig) not in [name_of(r.rig) for r in rods]:
        # What was thrown last is in the hand, tied by the plan or not.
        rods = [OnRod(replace(rods[0].rod, name=""), casts[-1].rig), *rods]
    gears = {name_of(r.rig).text(): _gear(scenario, r.rod) for r in rods}
    best = _best_rod(scenario, own, rods) if only is None else None
    search = search_water(
        scenario,
        own,
        rods=[r.rig for r in rods],
        casts_told=casts,
        limit=limit,
        gears=gears,
        opens=name_of(best[1].rig).text() if best else "",
        each=True,
        elsewhere=asked.elsewhere,
    )
    first = search.steps[0].next.cast.rig
    tied = NextUp(search, tuple(rods), None, ()).rod_of(first)
    sizing = _sized(search.scenario, own, tied.rig, gears[first]) if tied else None
    rated = sizing.rigs[0] if sizing else None
    cautions = cautions_for(catalogue.load(), search.scenario, rated)
    mend = _mend(search.scenario, own, casts[-1], gears) if casts else None
    # Said once: when the cast that was just made was on the rod that is left, or none was made.
    stays = not casts or best is None or name_of(casts[-1].rig).text() == name_of(best[1].rig).text()
    left = _left(search, best) if best and stays else ""
    return NextUp(search, tuple(rods), mend, tuple(c.text for c in cautions), left)


def _best_rod(scenario: Scenario, own: Own, rods: Sequence[OnRod]) -> tuple[float, OnRod] | None:
    """The rod that fits a water best, and its worth there: the plan's own, so that plan and deck name one
    rod. None where no rod has a name."""
    stop = Stop("", placed(scenario))
    worths = [(worth_at(stop, r.rig, r.rod, own), r) for r in rods if r.rod.name]
    return max(worths, key=lambda row: row[0], default=None)


def _left(search: Search, fits: tuple[float, OnRod]) -> str:
    """Why the first cast leaves the rod that fits the stop best; nothing where it does not."""
    first, (worth, best) = search.steps[0], fits
    if name_of(best.rig).text() == first.next.cast.rig:
        return ""
    why = (
        "it covers more of the water where they may be"
        if search.scenario.conditions.fish_span_ft is not None
        else "nothing bit on it here so far"
        if search.tried > 0.0
        else "it brings more of a minute's cast among them"
    )
    fit = f"Rod {best.rod.name} fits this stop best ({100 * worth:.0f} of 100)"
    return f"{fit}; another one is first because {why}."


def _gear(scenario: Scenario, rod: Rod) -> Gear:
    return rod.on(scenario.gear)


def _sized(scenario: Scenario, own: Own, rig: Rig, gear: Gear) -> Sizing:
    alone = replace(scenario, families=(rig.family.id,), gear=gear)
    return size(catalogue.load(), alone, [rig], own.learned)


def _mend(scenario: Scenario, own: Own, last: CastTold, gears: dict[str, Gear]) -> Mend | None:
    """The change to make first after the last cast's fault, from how it was fished; None where there is no
    fault, or nothing to do."""
    row = OUTCOME[last.outcome]
    if not row.wrong:
        return None
    gear = gears.get(name_of(last.rig).text(), scenario.gear)
    swum = last.rig.family.work == "swim"
    hand = Fished(last.count_s, last.pace_ft_s) if swum and not last.cadence else AS_SIZED
    change = first_change(replace(scenario, gear=gear), last.rig, last.outcome, hand, own)
    return Mend(row.wrong, change.what, change.effect) if change is not None else None
