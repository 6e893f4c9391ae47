"""`make days`: forty-five minutes at a stop, by fish that are not the program's own (`bench.worlds`).

    python -m bench.days [days a stop] [seed] [worlds, joined by commas]

Thirty stops (worked waters of Ashmoor Water and random ones): at ten the fish are about where they are said
to
be, at ten nobody says, at ten they are said to be somewhere and stand as the world has it. Rods as the plan
ties them, five for six stops. Every rig runs up to an eighth off what is simulated, another share each day;
whether
it gets in, fouls or hangs is thrown by dice. Four anglers fish the same fish: the deck (asked after each
cast), the plan's rod with its counts stepped, a guide (two casts a count, then the next rod), and one count.
All fan over the stop and throw again what bit until it is let pass twice. Days on which nobody is at a stop
are left out: no angler finds them. What it cannot show: how real fish stand.
"""

import math
import random
import sys
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from itertools import cycle
from typing import Protocol

import numpy as np

from bench.steady import random_water
from bench.worlds import LANES, Bite, Fish, Thrown, Water
from bench.worlds.drifting import Drifting
from bench.worlds.roaming import Roaming
from bench.worlds.scattered import Scattered
from heathdrop import catalog as catalogue
from heathdrop.answers.own import STRANGER
from heathdrop.answers.plan import plan_day
from heathdrop.answers.rods_to_hand import RodsToHand
from heathdrop.answers.search import place_of
from heathdrop.answers.stop import Rod, Stop
from heathdrop.answers.water import first_belief, placed
from heathdrop.conditions.request import SizeRequest
from heathdrop.demo import ashmoor
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.search.belief import bite_per_s
from heathdrop.search.coverage import Candidate
from heathdrop.search.hunt import Hunt
from heathdrop.search.order import Opening
from heathdrop.sizing.activity import judge
from heathdrop.sizing.size import Rated
from heathdrop.units import feet

WORLDS = {"drifting": Drifting, "scattered": Scattered, "roaming": Roaming}
RODS, STOPS, MINUTES = 5, 6, 45.0
#: Minutes that a fish takes to land and let go, and a missed one; how far a rig runs off (log, one sigma).
LAND_MIN, MISS_MIN, OFF = 1.5, 0.2, 0.12
#: Casts let pass after a bite before what bit is left.
LET_PASS = 2


class Angler(Protocol):
    """Who throws: what next, in which of the world's directions, and what it came to."""

    def throws(self, minute: float) -> tuple[Candidate, int]:
        """The next cast."""

    def sees(self, outcome: str, at_s: float | None, minute: float) -> None:
        """What it came to: nothing, fouled, bump or fish."""


class ByRule:
    """A list of casts gone round, fan-wise; what bit is thrown again until it is let pass twice."""

    def __init__(self, casts: Sequence[Candidate]) -> None:
        self.order: Iterator[Candidate] = cycle(casts)
        self.lane, self.again, self.left = -1, None, 0

    def throws(self, minute: float) -> tuple[Candidate, int]:
        if self.left:
            self.left -= 1
            return self.last
        self.lane = (self.lane + 1) % LANES
        self.last = next(self.order), self.lane
        return self.last

    def sees(self, outcome: str, at_s: float | None, minute: float) -> None:
        if outcome in ("bump", "fish"):
            self.left = LET_PASS


class OnDeck:
    """The deck: the program's hunt, asked after each cast."""

    def __init__(self, here: "Here") -> None:
        self.hunt = here.hunt()
        self.lanes = self.hunt.place.lanes

    def throws(self, minute: float) -> tuple[Candidate, int]:
        self.step = self.hunt.next()
        return self.step.cast, int((self.step.lane + 0.5) * LANES / self.lanes)

    def sees(self, outcome: str, at_s: float | None, minute: float) -> None:
        self.hunt.tell(self.step.cast, outcome, at_s, self.step.lane)


@dataclass
class Here:
    """A stop with its rods: what can be thrown, and what the plan has there."""

    stop: Stop
    water: Water
    kind: str
    bench: RodsToHand
    casts: list[Candidate]
    rated: dict[str, Rated]
    served: Rig
    hand: list[Rig]

    def hunt(self) -> Hunt:
        """The program's hunt at this stop, nothing thrown yet."""
        scenario, catalog = self.stop.scenario, catalogue.load()
        per_s = bite_per_s(catalog, judge(catalog, scenario.conditions).value)
        return Hunt(
            catalog,
            first_belief(scenario),
            per_s,
            self.casts,
            to_hand=[self.bench.key(r) for r in self.hand],
            place=place_of(catalog, scenario),
            opens=Opening(name_of(self.served).text()),
        )

    def anglers(self) -> dict[str, Angler]:
        """Who fishes here."""
        own = [self.served, *(r for r in self.hand if name_of(r) != name_of(self.served))]
        usual = [_by_count(self.bench, r) for r in own]
        rated = self.rated[self.bench.key(self.served)]
        way = rated.cadence.way if rated.cadence is not None else ""
        one = self.bench.cast(self.served, rated.countdown_s, feet(rated.tuned.pace_m_s), way)
        guide = [cast for casts in usual for cast in casts for _ in (0, 1)]
        return {
            "deck": OnDeck(self),
            "stepped": ByRule(usual[0]),
            "guide": ByRule(guide),
            "one count": ByRule([one]),
        }


def _by_count(bench: RodsToHand, rig: Rig) -> list[Candidate]:
    """A rig's casts at its own pace, shallow to deep."""
    _, rated = bench.sized(rig)
    own = feet(rated.tuned.pace_m_s)
    way = rated.cadence.way if rated.cadence is not None and rated.rig.family.work != "swim" else ""
    counts = sorted({c.count_s for c in bench.casts(rig)})
    return [bench.cast(rig, count, own, way) for count in counts]


def fished(
    here: Here, angler: Angler, fish: Fish, off: dict[str, float], dice: random.Random
) -> tuple[int, int, bool]:
    """Bites in the time, casts to the first of them, and whether there was one."""
    catalog, minute, bites, casts, first = catalogue.load(), 0.0, 0, 0, 0
    before: Candidate | None = None
    m = catalog.search.minutes
    while True:
        cast, lane = angler.throws(minute)
        if before is not None and before.rig != cast.rig:
            minute += m.rod_min
        minute += cast.minutes
        if minute > MINUTES:
            return bites, first or casts + 1, bites > 0
        casts, before, rated = casts + 1, cast, here.rated[cast.rig]
        odds = rated.cover
        met: Bite | None = None
        outcome = "nothing"
        if dice.random() <= odds.passes:
            swum = rated.work == "swim"
            deep = cast.path_ft * (off[cast.rig] if swum else 1.0)
            ends = len(cast.path_s)
            if dice.random() < 1.0 - (1.0 - odds.fouls) * (1.0 - odds.hangs):
                outcome, ends = "fouled", max(2, int(dice.random() * ends))
            thrown = Thrown(
                t_s=cast.path_s[:ends],
                depth_ft=np.minimum(deep, here.water.bottom_ft)[:ends],
                work_s=cast.count_s,
                pace_ft_s=cast.pace_ft_s,
                family=cast.family,
                trailer=cast.trailer[0],
                swum=swum,
                lane=lane,
            )
            met = fish.meet(thrown, minute, dice)
        if met is not None:
            outcome = "fish" if met.landed else "bump"
            minute += LAND_MIN if met.landed else MISS_MIN
            bites += 1
            first = first or casts
        angler.sees(outcome, None if met is None else met.at_s, minute)


def the_stops(seed: int) -> list[tuple[Stop, str, float]]:
    """Thirty stops with how well their fish are known; "wrong" ones are said to be at any depth."""
    rng = random.Random(seed)
    bodies = [row["body"] for row in ashmoor.worked()][:12] + [random_water(rng) for _ in range(18)]
    rng.shuffle(bodies)
    found = []
    for k, body in enumerate(bodies):
        c = {**body["conditions"]}
        kind = ("known", "unknown", "wrong")[k % 3]
        if kind == "unknown":
            c["fish_depth_ft"] = None
        if kind == "wrong":
            c["fish_depth_ft"] = round(c["bottom_depth_ft"] * rng.uniform(0.15, 0.95), 1)
            c.pop("posture", None)
        scenario = placed(SizeRequest.model_validate({**body, "conditions": c, "families": None}).scenario())
        found.append((Stop(f"stop {k + 1}", scenario), kind, c["fish_depth_ft"] or 0.0))
    return found


def prepared(seed: int, at: int) -> list[Here]:
    """One day's stops with the rods that the plan ties for them."""
    day = the_stops(seed)[at : at + STOPS]
    plan = plan_day([stop for stop, _, _ in day], RODS, closely=False)
    rods: list[tuple[Rod, Rig]] = [(t.rod, t.rig) for t in plan.rods]
    hand = [rig for _, rig in rods]
    found = []
    for (stop, kind, said), planned in zip(day, plan.stops, strict=True):
        gears = {
            name_of(rig).text(): replace(stop.scenario.gear, line=r.line, reel=r.reel) for r, rig in rods
        }
        bench = RodsToHand(stop.scenario, STRANGER, first_belief(stop.scenario), gears)
        bench.learn((), hand)
        c = stop.scenario.conditions
        found.append(
            Here(
                stop=stop,
                water=Water(
                    temp_f=c.water_temp_f,
                    bottom_ft=c.bottom_depth_ft,
                    clarity_ft=c.clarity_ft,
                    cover=c.cover.kind,
                    top_ft=c.cover.top_depth_ft,
                    light=c.light,
                    said_ft=said if kind == "known" else None,
                ),
                kind=kind,
                bench=bench,
                casts=[cast for rig in hand for cast in bench.casts(rig)],
                rated={bench.key(rig): bench.sized(rig)[1] for rig in hand},
                served=hand[planned.served.rod],
                hand=hand,
            )
        )
    return found


Row = tuple[str, str, int, str, int, int, bool]


def one_day(seed: int, at: int, days: int, worlds: Sequence[str]) -> list[Row]:
    """Every angler at the stops of one day of the plan, on so many days of each world."""
    rows = []
    for n, here in enumerate(prepared(seed, at)):
        for world in worlds:
            for day in range(days):
                for name, angler in here.anglers().items():
                    rng = random.Random(f"{seed} {at + n} {world} {day}")
                    fish = WORLDS[world](here.water, rng)
                    while not fish.home:
                        fish = WORLDS[world](here.water, rng)
                    off = {key: math.exp(rng.gauss(0.0, OFF)) for key in sorted(here.rated)}
                    dice = random.Random(f"{seed} {at + n} {world} {day} dice")
                    rows.append((world, here.kind, at + n, name, *fished(here, angler, fish, off, dice)))
    return rows


def told(rows: Sequence[Row], what: str) -> str:
    """A line of the table: bites (standard error), casts to the first, blanks, for each angler."""
    names = dict.fromkeys(r[3] for r in rows)
    parts = []
    for name in names:
        mine = [r for r in rows if r[3] == name]
        bites = np.array([r[4] for r in mine], dtype=float)
        parts.append(
            f"{name} {bites.mean():.2f} ({bites.std() / math.sqrt(len(bites)):.2f}), first "
            f"{np.mean([r[5] for r in mine]):.1f}, blank {100 * np.mean([not r[6] for r in mine]):.0f} %"
        )
    mean = {name: np.mean([r[4] for r in rows if r[3] == name]) for name in names}
    best = max(mean["stepped"], mean["guide"])
    return f"{what:22} {'; '.join(parts)}; deck / better rule {mean['deck'] / max(best, 1e-9):.3f}"


def main(days: int = 40, seed: int = 5, worlds: str = "drifting,scattered,roaming") -> None:
    """Run and print the tables."""
    some = worlds.split(",")
    with ProcessPoolExecutor(2) as pool:
        jobs = [pool.submit(one_day, seed, at, days, some) for at in range(0, 30, STOPS)]
        rows = [row for job in jobs for row in job.result()]
    for world in some:
        mine = [r for r in rows if r[0] == world]
        for kind in ("known", "unknown", "wrong"):
            print(told([r for r in mine if r[1] == kind], f"{world}, {kind}"))
        print(told(mine, f"{world}, all"))
    for kind in ("known", "unknown", "wrong"):
        print(told([r for r in rows if r[1] == kind], f"all worlds, {kind}"))
    print(told(rows, "all worlds"))
    worse = []
    for at in sorted({r[2] for r in rows}):
        mean = {
            name: float(np.mean([r[4] for r in rows if r[2] == at and r[3] == name]))
            for name in ("deck", "stepped", "guide")
        }
        if mean["deck"] < max(mean["stepped"], mean["guide"]) - 0.25:
            worse.append(f"stop {at + 1}: {mean['deck']:.2f} for {max(mean['stepped'], mean['guide']):.2f}")
    print(f"worse by a quarter bite at {len(worse)} of 30 stops {worse}")


if __name__ == "__main__":
    argv = sys.argv[1:]
    main(*(int(word) for word in argv[:2]), *argv[2:3])
