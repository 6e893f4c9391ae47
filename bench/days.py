"""`make days`: a simulated day. Casts to the first bite by fish that are not the program's own detection.

    python -m bench.days [fish a stop] [seed]

Each stop's fish stand at a depth and take a rig as far as it suits: by the sheet's own fit without depth and
cover (T1), by its root (T2), or not at all (T0). They tire of the same cast, each in its own measure; they
stand in one to three of six lanes (stops that hold nobody are left out: no angler can find them). Whether a
rig gets in, fouls or hangs is thrown by dice. Five anglers fish: the search's order, the sheet's rig kept to
one count, the plan's rod with its counts stepped by turns, a guide (two casts a count, then the next rod),
and the search's order thrown in one direction. All but the second and the last throw fan-wise. What it cannot
show: whether suit is what bass go by, and how real fish stand in lanes."""

from __future__ import annotations

import math
import random
import sys
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from bench.steady import random_water
from heathdrop import catalog as catalogue
from heathdrop.answers.own import STRANGER
from heathdrop.answers.plan import plan_day
from heathdrop.answers.rods_to_hand import Bench
from heathdrop.answers.search import search_water
from heathdrop.answers.stop import Rod, Stop, rated_in
from heathdrop.answers.water import first_belief, placed
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.demo import ashmoor
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.search.belief import bite_per_s
from heathdrop.search.coverage import Candidate
from heathdrop.sizing.activity import judge
from heathdrop.sizing.fit import near_floor
from heathdrop.sizing.size import Rated

MOST_CASTS, LANES, ORDER = 80, 6, 60
#: How far a swum lure may be above and below fish that still come (ft, one sigma): the truth's own.
ABOVE_FT, BELOW_FT = 1.6, 0.6
#: Fish far off their pace take this much less (log pace, one sigma).
PACE_SIGMA = 0.5
RODS, STOPS = 5, 6


#: What the search said of the chance of a bite by each cast of its order, stop by stop.
SAID: list[list[float]] = []


@dataclass(frozen=True)
class Throw:
    """A cast as an angler makes it: the candidate, its rated rig, the direction (None: the same as ever)."""

    cast: Candidate
    rated: Rated
    lane: int


@dataclass(frozen=True)
class Fish:
    """A fish: depth (ft), pace it likes (ft/s), its lanes, how it tires (0 to 1)."""

    depth_ft: float
    pace_ft_s: float
    lanes: frozenset[int]
    patience: float


def suit(rated: Rated, behind: float, choosy: float) -> float:
    """What fish make of a rig by the truth: its fits without depth, pace and cover, its family's points."""
    weights = catalogue.load().judgement.fit.weights
    asked = [k for k in rated.fits.parts if k not in ("depth", "pace", "cover", "tackle")]
    mean = sum(weights[k] * math.log(rated.fits.parts[k]) for k in asked) / sum(weights[k] for k in asked)
    return math.exp(choosy * (mean + behind))


def seconds_near(throw: Throw, fish: Fish, c: Any) -> float:
    """Seconds that this fish is near a cast, by a bell about the path and not by the program's reach."""
    cast, work = throw.cast, throw.rated.rig.family.work
    if work != "swim":
        near = near_floor(c.bottom_depth_ft - fish.depth_ft, c.floor_reach_ft)
        if work == "drop" and c.cover.kind == "matted-grass":
            near = max(near, 0.5)
        worked = 12.0 if work == "drop" else 30.0
        past = 2.0 / max(throw.rated.fall_ft_s, 0.3) if work == "drop" else 0.0
        return worked * near + past
    t, z = cast.path_s, cast.path_ft
    fished = (t[1:] > cast.count_s) & (t[1:] < 0.9 * t[-1])
    off = fish.depth_ft - 0.5 * (z[1:] + z[:-1])
    bell = np.exp(
        -0.5 * (np.maximum(0.0, np.abs(off - 0.7) - 0.7) / np.where(off > 0, ABOVE_FT, BELOW_FT)) ** 2
    )
    pace = math.exp(-0.5 * (math.log(cast.pace_ft_s / fish.pace_ft_s) / PACE_SIGMA) ** 2)
    return float((np.diff(t) * fished * bell).sum()) * pace


def caught(
    throws: Callable[[int], Throw],
    fish: Fish,
    c: Any,
    per_s: float,
    suits: dict[str, float],
    rng: random.Random,
) -> tuple[int, float]:
    """Casts and minutes until this fish bites; ``MOST_CASTS`` when it never does."""
    seen: dict[tuple[Any, ...], int] = {}
    minutes = 0.0
    for k in range(MOST_CASTS):
        throw = throws(k)
        cast, odds = throw.cast, throw.rated.cover
        minutes += cast.minutes
        if rng.random() > odds.passes:
            continue
        share = 0.5 if rng.random() < 1.0 - (1.0 - odds.fouls) * (1.0 - odds.hangs) else 1.0
        if throw.lane not in fish.lanes:
            continue
        key = (*cast.setting, throw.lane)
        tired = fish.patience ** seen.get(key, 0)
        seen[key] = seen.get(key, 0) + 1
        rate = per_s * suits[cast.rig] * tired * share
        if rng.random() < 1.0 - math.exp(-rate * seconds_near(throw, fish, c)):
            return k + 1, minutes
    return MOST_CASTS, minutes


def drawn(scenario: Scenario, rng: random.Random) -> Fish:
    """A fish of this water: its depth from the belief, its pace from the mood, one to three lanes."""
    catalog, belief = catalogue.load(), first_belief(scenario)
    at = rng.choices(range(len(belief.by_depth)), belief.by_depth.tolist())[0]
    depth = rng.uniform(float(belief.edges_ft[at]), float(belief.edges_ft[at + 1]))
    depth = min(scenario.conditions.bottom_depth_ft, max(0.2, depth + rng.gauss(0.0, 0.5)))
    mood = judge(catalog, scenario.conditions).value
    pace = math.exp(rng.gauss(math.log(1.2 + 0.55 * mood), 0.25))
    lanes = frozenset(rng.sample(range(LANES), rng.choice([1, 2, 3])))
    return Fish(depth, pace, lanes, rng.uniform(0.5, 1.0))


def anglers(stop: Stop, rods: Sequence[tuple[Rod, Rig]], served: Rig) -> dict[str, list[Throw]]:
    """What each angler throws at a stop while nothing bites."""
    scenario = stop.scenario
    gears = {name_of(rig).text(): _geared(scenario, rod) for rod, rig in rods}
    hand = [rig for _, rig in rods]
    found = search_water(scenario, STRANGER, hand, (), ORDER, gears, name_of(served).text())
    SAID.append([step.next.so_far for step in found.steps])
    bench = Bench(scenario, STRANGER, first_belief(scenario), gears)
    rated = {bench.key(rig): bench.sized(rig)[1] for rig in hand}
    order = [
        Throw(step.next.cast, rated[step.next.cast.rig], n % LANES) for n, step in enumerate(found.steps)
    ]
    own = [served, *(r for r in hand if name_of(r) != name_of(served))]
    usual = {bench.key(r): _by_count(bench, r) for r in own}
    key = bench.key(served)
    one = bench.cast(served, rated[key].countdown_s, rated[key].tuned.pace_m_s / 0.3048)
    stepped = [Throw(cast, rated[key], n % LANES) for n, cast in enumerate(usual[key] * MOST_CASTS)]
    guide = [
        Throw(cast, rated[k], (2 * n + again) % LANES)
        for k in usual
        for n, cast in enumerate(usual[k])
        for again in (0, 1)
    ]
    same = [Throw(t.cast, t.rated, 0) for t in order]
    habit = random.Random(17)

    def by_habit(throws: Sequence[Throw]) -> list[Throw]:
        """The same casts where the arm throws by itself: one way, or a lane beside it."""
        return [Throw(t.cast, t.rated, habit.choice((0, 1, 2))) for t in throws]

    return {
        "plan's rod stepped, by habit": by_habit(stepped),
        "guide, by habit": by_habit(guide),
        "search": order,
        "one count": [Throw(one, rated[key], 0)],
        "plan's rod stepped": stepped,
        "guide": guide,
        "search, one direction": same,
    }


def _geared(scenario: Scenario, rod: Rod) -> Any:
    from dataclasses import replace

    return replace(scenario.gear, line=rod.line, reel=rod.reel)


def _by_count(bench: Bench, rig: Rig) -> list[Candidate]:
    """A rig's casts at its own pace, shallow to deep."""
    _, rated = bench.sized(rig)
    own = rated.tuned.pace_m_s / 0.3048
    counts = sorted({c.count_s for c in bench.casts(rig)})
    return [bench.cast(rig, count, own) for count in counts]


def the_stops(seed: int) -> list[Stop]:
    """Eighteen stops: worked waters of Ashmoor Water and random ones, six with fish of unknown depth."""
    rng = random.Random(seed)
    bodies = [row["body"] for row in ashmoor.worked()][:9] + [random_water(rng) for _ in range(9)]
    for k in range(0, 18, 3):
        bodies[k] = {**bodies[k], "conditions": {**bodies[k]["conditions"], "fish_depth_ft": None}}
    found = []
    for k, body in enumerate(bodies):
        scenario = placed(SizeRequest.model_validate({**body, "families": None}).scenario())
        found.append(Stop(f"stop {k + 1}", scenario))
    return found


def _calibration(took: Sequence[tuple[int, int]]) -> list[str]:
    """By tenths of what was said: how often a bite had come by then, somebody being home in half of the
    stops."""
    home = 1.0 - catalogue.load().search.place.absent
    stops: dict[int, list[int]] = {}
    for at, n in took:
        stops.setdefault(at, []).append(n)
    rows: dict[int, list[tuple[float, float]]] = {}
    for at, casts in stops.items():
        for k, said in enumerate(SAID[at]):
            came = home * sum(n <= k + 1 for n in casts) / len(casts)
            rows.setdefault(int(10.0 * said), []).append((said, came))
    return [
        f"{100 * np.mean([s for s, _ in some]):.0f}: {100 * np.mean([c for _, c in some]):.0f} %"
        for _, some in sorted(rows.items())
    ]


def main(fish: int = 100, seed: int = 3) -> None:
    catalog = catalogue.load()
    rng = random.Random(seed)
    truths = {"T1 choosy": 1.0, "T2 half as choosy": 0.5, "T0 not choosy": 0.0}
    casts: dict[tuple[str, str], list[int]] = {}
    by_then: dict[str, list[tuple[int, int]]] = {}
    first_low = first_other = first_count = 0
    stops = the_stops(seed)
    for at in range(0, len(stops), STOPS):
        day = stops[at : at + STOPS]
        plan = plan_day(day, RODS, closely=False)
        rods = [(t.rod, t.rig) for t in plan.rods]
        for stop, planned in zip(day, plan.stops, strict=True):
            tied = rods[planned.served.rod][1]
            thrown = anglers(stop, rods, tied)
            opened = thrown["search"][0]
            first_low += opened.rated.fits.score < 0.3
            other = name_of(opened.rated.rig) != name_of(tied)
            first_other += other and planned.served.worth >= 0.7
            first_count += not other and abs(opened.cast.count_s - planned.served.rated.countdown_s) > 0.1
            mood = judge(catalog, stop.scenario.conditions).value
            per_s = bite_per_s(catalog, mood)
            bench = Bench(stop.scenario, STRANGER, first_belief(stop.scenario))
            bench.learn((), [rig for _, rig in rods])
            for words, choosy in truths.items():
                suits = {}
                for rod, rig in rods:
                    rated = rated_in(stop.scenario, rig, rod, STRANGER)
                    behind = min(0.0, bench.points(rig) - bench._best_points)
                    suits[rated.key] = suit(rated, behind, choosy)
                some = [drawn(stop.scenario, rng) for _ in range(fish)]
                for name, order in thrown.items():
                    for one in some:
                        took, _ = caught(
                            lambda k, order=order: order[k % len(order)],
                            one,
                            stop.scenario.conditions,
                            per_s,
                            suits,
                            rng,
                        )
                        casts.setdefault((words, name), []).append(took)
                        if name == "search":
                            by_then.setdefault(words, []).append((len(SAID) - 1, took))
    for words in truths:
        print(words)
        for (truth, name), took in casts.items():
            if truth == words:
                never = 100 * sum(n >= MOST_CASTS for n in took) / len(took)
                print(
                    f"  {name:24} mean {np.mean(took):5.1f}  median {np.median(took):4.0f}  "
                    f"never {never:3.0f} %"
                )
        for how in ("", ", by habit"):
            best = min(np.mean(casts[words, f"{name}{how}"]) for name in ("plan's rod stepped", "guide"))
            print(
                f"  search against the better of the plan's rod stepped and the guide{how}: "
                f"{np.mean(casts[words, 'search']) / best:.2f}"
            )
        print("  said of a bite by then, and how often it came (nobody home in half):")
        print("   " + "  ".join(_calibration(by_then[words])))
    print(
        f"{len(stops)} stops: first cast at a fit under 30 at {first_low}, with another rod than the plan's "
        f"where the plan serves the stop well at {first_other}, at another count than its at {first_count}"
    )


if __name__ == "__main__":
    main(*(int(word) for word in sys.argv[1:]))
