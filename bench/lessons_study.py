"""Simulated anglers with known truth: what a log claims, and how often that is right.

The fish are not the program's own: half of the stops of a day hold next to none, a stop's rate of the day is
log-normal, fish tire of the same cast, and a bite is drawn cast by cast. What they like is the truth of the
study: nothing at all, one school's numbers, weight, pace or fall of the tables shifted by a known factor; or
how readily they bite, in what mood, at how many stops, how they tire.

    python -m bench.lessons_study [anglers] [schools or fish: that part alone]
"""

import math
import sys
import uuid
from collections import Counter
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from functools import cache, partial
from typing import Any

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.answers.lessons import lessons_of
from heathdrop.answers.search import place_of
from heathdrop.answers.shifts import Shift
from heathdrop.answers.thrown import LEAST_S, Run, fishes_oz, hours_among, run_of
from heathdrop.answers.trials import setting_at, trials_of, water_of_cast
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.request import SizeRequest
from heathdrop.conditions.scenario import Scenario
from heathdrop.search.belief import bite_per_s
from heathdrop.sizing.setting import mood_paces

#: The waters that are fished, and what is thrown there: family, heads, trailers, counts, pace.
WATERS: tuple[dict[str, Any], ...] = tuple(
    {
        "water_temp_f": warm,
        "clarity_ft": clear,
        "wind_mph": 6.0,
        "light": light,
        "season": season,
        "trend": "steady",
        "bottom_depth_ft": deep,
        "fish_depth_ft": fish,
        "cover": cover,
        "forage": forage,
    }
    for warm, clear, light, season, deep, fish, cover, forage in (
        (46.0, 5.0, "overcast", "winter", 16.0, 14.0, {"kind": "rock", "detail": "chunk"}, "crawfish"),
        (52.0, 3.0, "mixed", "pre-spawn", 9.0, 5.0, {"kind": "open"}, "baitfish"),
        (
            58.0,
            4.0,
            "low",
            "pre-spawn",
            9.0,
            6.0,
            {"kind": "submerged-grass", "top_depth_ft": 7.0},
            "bluegill",
        ),
        (66.0, 2.0, "mixed", "post-spawn", 8.0, 4.0, {"kind": "open"}, "baitfish"),
        (74.0, 8.0, "bright", "summer", 20.0, 18.0, {"kind": "rock", "detail": "chunk"}, "crawfish"),
        (62.0, 3.0, "overcast", "fall", 10.0, 5.0, {"kind": "open"}, "baitfish"),
    )
)
RIGS = (
    ("swim-jig", (0.1875, 0.25, 0.375, 0.5, 0.625), ("craw", "paddle-tail", "twin-tail", "pin-tail")),
    ("football-jig", (0.25, 0.375, 0.5, 0.75, 1.0), ("craw", "twin-tail", "chunk", "beaver")),
    ("finesse-jig", (0.125, 0.1875, 0.25, 0.375, 0.5), ("small-craw", "chunk", "pin-tail", "beaver")),
    ("spinnerbait", (0.25, 0.375, 0.5, 0.625, 0.75), ("paddle-tail", "none", "twin-tail")),
)
#: Paces (ft/s) that are reeled by turns.
PACES = (1.5, 2.2, 3.0)
#: Casts at a stop, stops of a day; bites a cast where fish are home and like what they see.
AT_STOP, STOPS, BITES = 25, 3, 0.60
#: Of so many stops a day half are empty, at this share of the rate; spread (log) of a stop's rate.
EMPTY, SPREAD, TIRED = 0.1, 0.5, 0.93

BEGUN = datetime(2027, 2, 6, 7, 0, tzinfo=UTC)

Likes = Callable[[MadeCast], float]


def thrown_at(k: int, water: dict[str, Any], family: str, oz: float, tail: str) -> MadeCast:
    """The ``k``-th cast of a log, that nothing took yet."""
    return MadeCast.model_validate(
        {
            "id": str(uuid.UUID(int=k + 1)),
            "time": BEGUN,
            "trip": "season",
            "stop": f"{WATERS.index(water)}",
            "family": family,
            "head_oz": oz,
            "trailer": tail,
            "countdown_s": 2.0,
            "pace_ft_s": 2.2,
            "outcome": "nothing",
            "conditions": water,
        }
    )


@cache
def scenario_at(at: int) -> Scenario:
    """The scenario of a water."""
    family = RIGS[0][0]
    return SizeRequest.model_validate({"conditions": WATERS[at], "families": [family]}).scenario()


Where = tuple[int, int]
EVERYWHERE: tuple[Where, ...] = tuple((w, r) for w in range(len(WATERS)) for r in range(len(RIGS)))


@dataclass(frozen=True)
class World:
    """How readily fish bite: as often as the tables say times ``bites`` in a mood so many steps livelier in
    cold or in warm water (None: at :data:`BITES`, whatever the tables say), at so many stops nobody, a cast
    left so fresh after it. A stop's rate of the day is log-normal, which the tables know nothing of."""

    bites: float | None = None
    cold: float = 0.0
    warm: float = 0.0
    absent: float = 0.5
    tires: float = TIRED

    def rate(self, thrown: MadeCast, run: Run | None) -> float:
        """Bites that a first cast earns where fish are home."""
        water = water_of_cast(thrown)
        if self.bites is None or run is None or water is None:
            return BITES * (1.0 if run is None else min(2.0, max(0.2, run.among_s / 12.0)))
        catalog, mood = catalogue.load(), setting_at(water).targets.activity.value
        mood += self.cold if water.conditions.water_temp_f < 55.0 else self.warm
        per_s = bite_per_s(catalog, min(4.0, max(0.0, mood)))
        return self.bites * place_of(catalog, water).share * per_s * run.suit * max(LEAST_S, run.among_s)


OTHER = World()


def log_of(
    rng: np.random.Generator,
    casts: int,
    likes: Likes,
    where: Sequence[Where] = EVERYWHERE,
    same: bool = False,
    world: World = OTHER,
) -> list[MadeCast]:
    """A log of so many casts at fish that like what ``likes`` says, at these waters with these lures;
    ``same`` always throws one rig."""
    made: list[MadeCast] = []
    while len(made) < casts:
        day = BEGUN + timedelta(days=len(made) // (AT_STOP * STOPS) * 9)
        at, lure = where[int(rng.integers(len(where)))]
        water, (family, heads, tails) = WATERS[at], RIGS[0 if same else lure]
        empty = EMPTY if world is OTHER else 0.0
        rate = math.exp(SPREAD * rng.standard_normal()) * (empty if rng.random() < world.absent else 1.0)
        seen: Counter[tuple[float, str, float]] = Counter()
        lanes = place_of(catalogue.load(), scenario_at(at)).lanes
        for k in range(min(AT_STOP, casts - len(made))):
            oz, tail = (heads[2], tails[0]) if same else (float(rng.choice(heads)), str(rng.choice(tails)))
            thrown = thrown_at(len(made), water, family, oz, tail)
            at_min = 60.0 * (len(made) // AT_STOP % STOPS) + 1.6 * k
            thrown = thrown.model_copy(update={"time": day + timedelta(minutes=at_min)})
            thrown = thrown.model_copy(update={"pace_ft_s": float(rng.choice(PACES))})
            key = oz, tail, thrown.pace_ft_s
            fresh = world.tires ** (seen[key] // (1 if world is OTHER else lanes))
            chance = rate * world.rate(thrown, run_of(thrown)) * likes(thrown) * fresh
            seen[key] += 1
            bit = rng.random() < min(0.9, chance)
            made.append(thrown.model_copy(update={"outcome": "fish"}) if bit else thrown)
    return made


def indifferent(_: MadeCast) -> float:
    """Fish that take whatever passes."""
    return 1.0


def of_school(topic: str, school: str, cast: MadeCast) -> float:
    """How fish like a cast that follow one school's numbers, as they stand."""
    water = water_of_cast(cast)
    if water is None:
        return 1.0
    setting = setting_at(replace(water, schools=((topic, school),)))
    tail = setting.leaning.tail(setting.family.id, cast.trailer)
    return max(0.03, setting.weights.fit(fishes_oz(cast, setting))) * max(0.03, min(1.0, tail))


def speaks(topic: str, school: str) -> list[Where]:
    """Where a school's numbers differ from the default's by a tenth for something that is thrown."""
    default, found = catalogue.load().topics[topic].default, []
    for at, lure in EVERYWHERE:
        family, heads, tails = RIGS[lure]
        some = [thrown_at(0, WATERS[at], family, oz, tail) for oz in heads for tail in tails]
        ratios = [of_school(topic, school, c) / of_school(topic, default, c) for c in some]
        if max(ratios) > 1.1 * min(ratios):
            found.append((at, lure))
    return found


def taste(value: float, middle: float, factor: float) -> float:
    """How fish like a value that like a table's middle times a factor, a third of a log wide."""
    return math.exp(-0.5 * (math.log(value / middle / factor) / 0.33) ** 2)


def heads(factor: float, cast: MadeCast) -> float:
    """Fish that like the tables' weight times a factor."""
    water = water_of_cast(cast)
    if water is None:
        return 1.0
    setting = setting_at(water)
    return taste(fishes_oz(cast, setting), setting.weights.middle_oz, factor)


def paces(factor: float, cast: MadeCast) -> float:
    """Fish that like their mood's pace times a factor, of what swims."""
    water = water_of_cast(cast)
    if water is None or setting_at(water).family.work != "swim":
        return 1.0
    return taste(cast.pace_ft_s, math.sqrt(math.prod(mood_paces(setting_at(water)))), factor)


def falls(factor: float, cast: MadeCast) -> float:
    """Fish that like their mood's fall rate times a factor, of what is worked on the floor."""
    water, run = water_of_cast(cast), run_of(cast)
    if water is None or run is None or setting_at(water).family.work == "swim":
        return 1.0
    return taste(run.fall_ft_s, math.sqrt(math.prod(setting_at(water).targets.fall_ft_s)), factor)


@dataclass(frozen=True)
class Claimed:
    """What a log of an indifferent angler's claimed: a difference of rates, another liking; which words were
    said."""

    differs: bool
    shift: bool
    words: tuple[str, ...]


def nothing_there(casts: int, seed: int) -> Claimed:
    """A log in which nothing makes a difference."""
    found = lessons_of(log_of(np.random.default_rng(seed), casts, indifferent))
    return Claimed(
        differs=any(r.differs for r in found.rates),
        shift=any(s.sure for s in found.own if s.what in LIKED),
        words=tuple(t.words for t in found.schools),
    )


def one_school(job: tuple[str, str, int]) -> tuple[str, str, float, str]:
    """A log of 150 casts at fish that follow a school: topic, school, its ratio and words."""
    topic, school, seed = job
    likes = partial(of_school, topic, school)
    made = log_of(np.random.default_rng(seed), 150, likes, speaks(topic, school))
    hours = hours_among([run_of(c) for c in made]) or [1.0] * len(made)
    found = [t for t in trials_of(made, hours) if (t.topic, t.school) == (topic, school)]
    return (topic, school, found[0].ratio, found[0].words) if found else (topic, school, 0.0, "")


#: What fish may like otherwise, and how.
LIKED: dict[str, Callable[[float, MadeCast], float]] = {
    "head weight": heads,
    "pace": paces,
    "fall rate": falls,
}
#: A liking's factor lies so far (log) either way, each as likely as the next.
FACTOR_OFF = 0.5
#: How fish may bite otherwise: by the trait, the field of a world, and between which values it is drawn.
BITING: dict[str, tuple[str, float, float]] = {
    "bite rate": ("bites", 0.37, 2.7),
    "mood in cold water": ("cold", -1.2, 1.2),
    "mood in warm water": ("warm", -1.2, 1.2),
    "empty stops": ("absent", 0.2, 0.8),
    "the same cast again": ("tires", 0.55, 0.95),
}
TABLED = World(bites=1.0, tires=0.75)


@dataclass(frozen=True)
class Shifted:
    """What a log with a known shift said: the band holds it (None: too few bites for a band), it is told,
    anything else is."""

    held: bool | None
    told: bool
    others: bool


def held_by(found: Sequence[Shift], what: str, truth: float) -> Shifted:
    """What shifts that were found say of a truth; of likings only likings are others."""
    mine = [s for s in found if s.what == what]
    others = any(s.sure for s in found if s.what != what and (s.what in LIKED or what not in LIKED))
    held = any(s.low <= truth <= s.high for s in mine) if mine else None
    return Shifted(held, told=any(s.sure for s in mine), others=others)


def own_shift(job: tuple[str, float | None, int]) -> Shifted:
    """A log of 400 casts at fish that like something times a factor (None: drawn)."""
    what, factor, seed = job
    rng = np.random.default_rng(seed)
    drawn = math.exp(rng.uniform(-FACTOR_OFF, FACTOR_OFF)) if factor is None else factor
    return held_by(lessons_of(log_of(rng, 400, partial(LIKED[what], drawn))).own, what, drawn)


def own_world(job: tuple[str, int]) -> Shifted:
    """A log of 1,000 casts, forty stops, at fish that bite otherwise than tabled in one way."""
    what, seed = job
    rng = np.random.default_rng(seed)
    field, low, high = BITING[what]
    drawn = float(rng.uniform(low, high))
    if field == "bites":
        drawn = math.exp(rng.uniform(math.log(low), math.log(high)))
    made = log_of(rng, 1000, indifferent, world=replace(TABLED, **{field: drawn}))
    return held_by(lessons_of(made).own, what, drawn)


def as_tabled(seed: int) -> tuple[str, ...]:
    """The shifts that a log of 1,000 casts claims whose fish are in all as tabled."""
    found = lessons_of(log_of(np.random.default_rng(seed), 1000, indifferent, world=TABLED)).own
    return tuple(s.what for s in found if s.sure)


def told_of(name: str, found: Sequence[Shifted]) -> None:
    """Print how often the band of a known shift held it, and what was said."""
    held = [f.held for f in found if f.held is not None]
    print(f"{name}: the 80 % band holds it in {share(held)}", end=", ")
    print(f"said in {share([f.told for f in found])}, another shift in {share([f.others for f in found])}")


def share(flags: Sequence[bool]) -> str:
    """A share in words: ``12 of 200 (6.0 %)``."""
    return f"{sum(flags)} of {len(flags)} ({100.0 * sum(flags) / max(1, len(flags)):.1f} %)"


def of_schools(pool: ProcessPoolExecutor, anglers: int) -> None:
    """Print what logs claim in which nothing differs, and how schools are told."""
    topics = catalogue.load().topics
    moving = [(t.id, s) for t in topics.values() for s in t.schools if s != t.default and speaks(t.id, s)]
    none = list(pool.map(partial(nothing_there, 250), range(anglers)))
    print(f"nothing makes a difference, 250 casts: a rate differs in {share([c.differs for c in none])}")
    print(f"  another liking is said in {share([c.shift for c in none])}")
    for word in ("leans", "strongly"):
        print(f"  a school {word} in {share([any(word in w for w in c.words) for c in none])}")
    jobs = [(*moving[k % len(moving)], k) for k in range(anglers)]
    found = list(pool.map(one_school, jobs, chunksize=4))
    print(f"fish follow one school, 150 casts: it is ahead in {share([f[2] > 0.0 for f in found])}")
    print(f"  it is said so in {share(['for it' in f[3] for f in found])}")
    print(f"  it is said to be strongly against in {share([f[3] == 'strongly against it' for f in found])}")
    by: dict[str, list[bool]] = {}
    for topic, school, ratio, _ in found:
        by.setdefault(f"{topic}: {school}", []).append(ratio > 0.0)
    for name, ahead in by.items():
        print(f"    {name:44s} {share(ahead)}")
    same = [log_of(np.random.default_rng(k), 400, indifferent, same=True) for k in range(20)]
    words = [t.words for made in same for t in trials_of(made, [1.0] * len(made))]
    spoken = share([w != "too few" for w in words])
    print(f"always the same rig, 400 casts: a school is spoken for in {spoken}")


def of_fish(pool: ProcessPoolExecutor, anglers: int) -> None:
    """Print how known shifts of one's own fish are told."""
    for what in LIKED:
        for factor in (None, 0.7, 1.0, 1.4):
            jobs = [(what, factor, k) for k in range(anglers)]
            found = list(pool.map(own_shift, jobs, chunksize=4))
            told_of(f"{what}, {'drawn' if factor is None else format(factor, 'g')}", found)
    plain = list(pool.map(as_tabled, range(anglers), chunksize=2))
    print(f"fish bite as tabled, 1,000 casts: a shift is said in {share([bool(p) for p in plain])}")
    print("  " + ", ".join(f"{what} {n}" for what, n in Counter(w for p in plain for w in p).items()))
    for what in BITING:
        worlds = list(pool.map(own_world, [(what, k) for k in range(anglers)], chunksize=2))
        told_of(f"{what}, drawn", worlds)


def main() -> None:
    anglers = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    with ProcessPoolExecutor() as pool:
        if "fish" not in sys.argv[2:]:
            of_schools(pool, anglers)
        if "schools" not in sys.argv[2:]:
            of_fish(pool, max(1, anglers // 2))


if __name__ == "__main__":
    main()
