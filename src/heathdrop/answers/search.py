"""Where to cast next: the belief over this water, the casts that the rods to hand can make, their order."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.rods_to_hand import CastTold, RodsToHand
from heathdrop.answers.water import call_of, first_belief, placed, sizing_of
from heathdrop.catalog import Catalog
from heathdrop.conditions.gear import Gear
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.conditions.scenario import Scenario, check
from heathdrop.errors import BadInput, require_between
from heathdrop.physics.fall import depth_after_s
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.search.belief import Belief, bite_per_s
from heathdrop.search.coverage import Candidate
from heathdrop.search.hunt import Elsewhere, Hunt, Throw
from heathdrop.search.order import Answered, Next, Opening, Place, nobody_after, tried
from heathdrop.sizing.activity import judge
from heathdrop.sizing.knowledge import AS_TABLED, TRAIT, OwnFish
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import Sizing
from heathdrop.sizing.ways import WAY
from heathdrop.units import counted, feet, ounces_as_written

#: The water that a cast is for: the slices that hold this share of what it adds.
FOR_SHARE = 0.6
#: Casts given and answers told at most.
MOST_CASTS = 60


@dataclass(frozen=True)
class Step:
    """A cast of the order: the seconds that it spends in each slice, its reason, its middle depth (ft), the
    way that it goes to the cover, the lane it lies in (``the same`` as the one before, or ``another``), the
    rod it is on (empty: none is named)."""

    next: Next
    seconds: tuple[float, ...]
    turns_per_s: float
    why: str
    runs_ft: float
    way: str = "open"
    direction: str = "the same"
    rod: str = ""


@dataclass(frozen=True)
class Search:
    """The answer: where the fish are thought to be, the order of casts, how much was tried, what was learned
    about the water on the way, the chance a second that fish within reach bite (``per_s``), the chance that
    nobody is here, the bites to be had in ten minutes (``ten_min``), the word to move on (None: stay);
    ``each`` is the first cast of every rig to hand, for who picks another rod; ``fish`` what of one's own
    fish speaks in it."""

    scenario: Scenario
    belief: Belief
    steps: tuple[Step, ...]
    tried: float
    learned: tuple[str, ...]
    per_s: float
    nobody: float = 0.0
    ten_min: float = 0.0
    move_on: str | None = None
    each: tuple[Step, ...] = ()
    fish: tuple[str, ...] = ()


def search_water(
    scenario: Scenario,
    own: Own = STRANGER,
    rods: Sequence[Rig] = (),
    casts_told: Sequence[CastTold] = (),
    limit: int = 0,
    gears: Mapping[str, Gear] | None = None,
    opens: str = "",
    each: bool = False,
    elsewhere: Sequence[Elsewhere] = (),
) -> Search:
    """The next casts in this water. ``rods`` are the rigs to hand (the best few of the call when there are
    none), ``casts_told`` the casts made so far, in order; ``gears`` the line and reel that a rig (by name) is
    on, where it is not the scenario's, ``opens`` the rig that the plan opens the stop with (the called one
    where no rods are given), ``each`` asks for every rig's own first cast too, ``elsewhere`` what bit at the
    day's other stops. Raises BadInput."""
    catalog = catalogue.load()
    limit = limit or catalog.search.grid.casts
    require_between("limit", limit, 1, MOST_CASTS)
    check(scenario)
    scenario, learned = _corrected(placed(scenario), own, casts_told, gears)
    fish = own.learned.own_fish()
    per_s = fish.bites * bite_per_s(catalog, judge(catalog, scenario.conditions, fish).value)
    first = first_belief(scenario, own)
    called = [] if rods else _best_sized(scenario, own, catalog.search.grid.rods)
    bench = RodsToHand(scenario, own, first, gears, called)
    for one in casts_told:
        bench.shift(one)
    hand = list(rods) or [sizing.rigs[0].rig for sizing in called]
    opening = Opening(opens)
    if called and not opens:
        # With nothing tied on yet it is opened as the sheet calls it, while it is known how deep they are.
        share = None if scenario.conditions.fish_span_ft is not None else 0.0
        opening = Opening(called[0].rigs[0].key, share)
    if rods and not opens:
        opening = Opening(max((bench.sized(rig)[1] for rig in rods), key=lambda r: r.fits.score).key)
    if casts_told and not rods:
        hand = [casts_told[-1].rig, *(r for r in hand if name_of(r) != name_of(casts_told[-1].rig))]
    bench.learn(casts_told, hand)
    casts = [cast for rig in hand for cast in bench.casts(rig)]
    answered = [
        Answered(bench.cast(t.rig, t.count_s, t.pace_ft_s, t.cadence), t.outcome, t.at_s) for t in casts_told
    ]
    place = place_of(catalog, scenario, fish)
    keys = [bench.key(r) for r in hand]
    before = answered[-1].cast if answered else None
    # The same again is a choice only while its rig is to hand.
    again = [before] if before is not None and before.rig in keys else []
    hunt = Hunt(
        catalog, first, per_s, [*again, *casts], keys, place=place, opens=opening, elsewhere=elsewhere
    )
    opened = hunt.next()
    for one_answer in answered:
        hunt.tell(one_answer.cast, one_answer.outcome, one_answer.at_s)
    nobody = nobody_after(first, per_s, answered, place)
    # Two of its last three casts came back fouled: another rod first.
    fouls = before is not None and bench.fouls(before.rig) and any(c.rig != before.rig for c in casts)
    without = before.rig if before is not None and fouls else ""
    steps, last = [], before
    for k, one_next in enumerate(hunt.ahead(limit, nobody, without=without)):
        bitten = hunt.bitten and k == 0
        steps.append(_step(bench, one_next, _why(bench, one_next, last, bitten)))
        last = one_next.cast
    firsts = []
    for key in keys if each and len(keys) > 1 else ():
        one_next = hunt.ahead(1, nobody, only=key)[0]
        firsts.append(_step(bench, one_next, _why(bench, one_next, before, bitten=False)))
    seen = tried(first, per_s, answered, place)
    here = _bites_ahead(steps)
    leave = _move_on(catalog, place, here, opened) if answered and not hunt.bitten else None
    return Search(
        scenario=scenario,
        belief=hunt.belief,
        steps=tuple(steps),
        tried=seen,
        learned=tuple(learned),
        per_s=per_s,
        nobody=nobody,
        ten_min=here,
        move_on=leave,
        each=tuple(firsts),
        fish=_fish_said(catalog, fish),
    )


def _step(bench: RodsToHand, one: Next, why: str) -> Step:
    """A cast of the order with what is said of it."""
    cast = one.cast
    return Step(
        next=one,
        seconds=tuple(float(v) for v in bench.passed(cast)),
        turns_per_s=bench.gear_of(cast.rig).turns_per_s(cast.pace_ft_s),
        why=why,
        runs_ft=bench.runs_ft(cast),
        way=bench.rated(cast.rig).way,
        direction="another" if one.turned else "the same",
    )


def place_of(catalog: Catalog, scenario: Scenario, fish: OwnFish = AS_TABLED) -> Place:
    """The lanes that casts lie in at a stop, from how far the cast goes and how far a lure is seen; how fish
    tire and how often nobody is home, by one's own log where that was agreed to."""
    numbers, c = catalog.search.place, scenario.conditions
    low, high = numbers.half_lane_ft
    half = min(high, max(low, numbers.half_lane * c.clarity_ft))
    lanes = round(numbers.arc_rad * numbers.middle * scenario.gear.cast_ft / (2.0 * half))
    return Place(
        lanes=min(numbers.most_lanes, max(1, lanes)),
        tires=numbers.tires if fish.tires is None else fish.tires,
        holds=numbers.holds,
        absent=numbers.absent if fish.absent is None else fish.absent,
    )


#: Minutes that staying is held against leaving for.
LOOK_MIN = 10.0


def _bites_ahead(steps: Sequence[Step]) -> float:
    """The bites that the order brings in so many minutes; one that ends sooner goes on as it went."""
    minutes, bites = 0.0, 0.0
    for step in steps:
        share = min(1.0, (LOOK_MIN - minutes) / step.next.minutes)
        bites, minutes = bites + share * step.next.adds, minutes + step.next.minutes
        if minutes >= LOOK_MIN:
            break
    return bites * LOOK_MIN / min(minutes, LOOK_MIN)


def _move_on(catalog: Catalog, place: Place, here: float, opened: Throw) -> str | None:
    """The word to leave: what is to be had here in the next minutes, against a stop like this one that is
    fresh (marginal value, Charnov 1976)."""
    fresh = (1.0 - place.absent) * min(1.0, LOOK_MIN * opened.adds / opened.minutes)
    if here >= catalog.search.place.move_on * fresh:
        return None
    return (
        f"Move on: ten more minutes here bring {here:.2f} bites, ten at a fresh stop like this {fresh:.2f}."
    )


def best_few(scenario: Scenario, own: Own, count: int) -> list[Rig]:
    """The best rig of each of the families that stand first."""
    return [sizing.rigs[0].rig for sizing in _best_sized(scenario, own, count)]


def _best_sized(scenario: Scenario, own: Own, count: int) -> list[Sizing]:
    """The sizings of the families that stand first, or of those that are named."""
    if scenario.families:
        return [sizing_of(replace(scenario, families=(f,)), own) for f in scenario.families[:count]]
    return [s.sizing for s in call_of(scenario, own, places=count).standings[:count]]


def _corrected(
    scenario: Scenario, own: Own, casts: Sequence[CastTold], gears: Mapping[str, Gear] | None
) -> tuple[Scenario, list[str]]:
    """The water as the answers show it: the bottom found at a count, the top of the cover that was ticked."""
    said = []
    for k, one in enumerate(casts):
        if one.outcome not in OUTCOME:
            raise BadInput(f"casts[{k}].outcome", one.outcome, "one of " + ", ".join(OUTCOME))
        require_between(f"casts[{k}].countdown_s", one.count_s, 0.0, 120.0, "s")
        require_between(f"casts[{k}].pace_ft_s", one.pace_ft_s, 0.1, 15.0, "ft/s")
        if one.at_s is None or not OUTCOME[one.outcome].shows:
            continue
        if OUTCOME[one.outcome].shows == "bottom" and scenario.conditions.bottom_ft is not None:
            continue  # it is known better, as it was driven
        require_between(f"casts[{k}].at_s", one.at_s, 0.0, 600.0, "s")
        gear = (gears or {}).get(name_of(one.rig).text(), scenario.gear)
        alone = replace(scenario, families=(one.rig.family.id,), gear=gear)
        setting = setting_of(catalogue.load(), alone, own.learned)
        lure, c = setting.lure(own.learned.applied(one.rig)), scenario.conditions
        if OUTCOME[one.outcome].shows == "bottom":
            deep = feet(depth_after_s(lure, min(one.at_s, one.count_s), setting.line, setting.water))
            bottom = round(2.0 * min(max(deep, 1.0), 60.0)) / 2.0
            if abs(bottom - c.bottom_depth_ft) >= 0.5:
                said.append(f"The bottom is at {bottom:g} ft: it was found at {one.at_s:g} s.")
                scenario = replace(scenario, conditions=_on_bottom(c, bottom))
        elif c.cover.top_depth_ft is not None:
            bench = RodsToHand(scenario, own, first_belief(scenario, own), gears)
            top = round(2.0 * bench.cast(one.rig, one.count_s, one.pace_ft_s).depth_at(one.at_s)) / 2.0
            top = min(max(top, 0.0), c.bottom_depth_ft)
            said.append(f"The cover comes up to {top:g} ft: its top was ticked at {one.at_s:g} s.")
            scenario = replace(scenario, conditions=replace(c, cover=replace(c.cover, top_depth_ft=top)))
    return scenario, said


def _fish_said(catalog: Catalog, fish: OwnFish) -> tuple[str, ...]:
    """What the log told of how readily one's own fish bite, as far as it was agreed to."""
    place, said = catalog.search.place, []
    for name, table in (
        ("bite rate", 1.0),
        ("empty stops", place.absent),
        ("the same cast again", place.tires),
    ):
        trait = TRAIT[name]
        value = getattr(fish, trait.field)
        if value is not None and value != table:
            casts = fish.casts_of(trait.field)
            said.append(f"Your own fish, {name}: {trait.said(value, table)} ({casts} casts of your log).")
    return tuple(said)


def _on_bottom(c, bottom_ft: float):  # type: ignore[no-untyped-def]
    """Conditions over another bottom; what was deeper comes up with it."""
    span = c.fish_span_ft
    top = c.cover.top_depth_ft
    return replace(
        c,
        bottom_depth_ft=bottom_ft,
        fish_depth_ft=min(c.fish_depth_ft, bottom_ft),
        fish_span_ft=None if span is None else (min(span[0], bottom_ft), min(span[1], bottom_ft)),
        cover=replace(c.cover, top_depth_ft=None if top is None else min(top, bottom_ft)),
    )


def water_of(step: Next, per_s: float) -> tuple[float, float, float]:
    """The water that a cast is for: its top and low edge (ft) and the chance that lies there."""
    adds = (step.belief.cells * step.cast.taken(per_s)).sum(axis=1)
    best = int(np.argmax(adds))
    low = high = best
    while adds[low : high + 1].sum() < FOR_SHARE * adds.sum():
        up = adds[low - 1] if low > 0 else -1.0
        down = adds[high + 1] if high + 1 < len(adds) else -1.0
        if up >= down:
            low -= 1
        else:
            high += 1
    edges = step.belief.edges_ft
    return float(edges[low]), float(edges[high + 1]), float(step.belief.by_depth[low : high + 1].sum())


#: A run that is so much deeper or higher than the one before is said, ft.
DEEPER_FT = 0.5


def _why(bench: RodsToHand, step: Next, before: Candidate | None, bitten: bool) -> str:
    """What to do next in one line, as one angler says it to another."""
    cast, count = step.cast, counted(step.cast.count_s)
    if bitten and step.change in ("none", "direction"):
        same = "in the same direction" if step.change == "none" else "in another direction"
        return f"The same again {same}: a fish took it there."
    head = f"{ounces_as_written(cast.head[1])} oz {cast.family.replace('-', ' ')}"
    quicker = "Faster" if before and cast.pace_ft_s > before.pace_ft_s else "Slower"
    return {
        "none": f"Start with {count}." if before is None else f"The same again, {count}.",
        "direction": f"The same again in another direction, {count}.",
        "count": f"{_deeper(bench, cast, before)}, {count}.",
        "pace": f"{quicker}, {cast.pace_ft_s:.1f} ft/s, {count}.",
        "way": f"{WAY[cast.cadence or 'steady'].name.capitalize()}, {count}.",
        "trailer": f"Change the trailer to {cast.trailer[0].replace('-', ' ')}, {count}.",
        "rod": f"Pick up the {head}, {count}.",
        "retie": f"Tie on the {head}, {count}.",
    }[step.change]


def _deeper(bench: RodsToHand, cast: Candidate, before: Candidate | None) -> str:
    """How much deeper or higher a cast runs than the one before it."""
    off = 0.0 if before is None else bench.runs_ft(cast) - bench.runs_ft(before)
    if abs(off) < DEEPER_FT:
        return "Another count"
    feet_off = "A foot" if abs(off) < 1.5 else f"{abs(off):.0f} ft"
    return f"{feet_off} {'deeper' if off > 0.0 else 'higher'}"
