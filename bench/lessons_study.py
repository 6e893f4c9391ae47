"""Simulated anglers with known truth: what a log claims, and how often that is right.

The fish are not the program's own: half of the stops of a day hold next to none, a stop's rate of the day is
log-normal, fish tire of the same cast, and a bite is drawn cast by cast. What they like is the truth of the
study: nothing at all, one school's numbers, or the tables' weight shifted by a known factor.

    python -m bench.lessons_study [anglers]
"""

from __future__ import annotations

import math
import sys
import uuid
from collections import Counter
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from functools import partial
from typing import Any

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.answers.lessons import lessons_of
from heathdrop.answers.thrown import hours_among, run_of
from heathdrop.answers.trials import setting_at, trials_of, water_of_cast
from heathdrop.conditions.made import MadeCast

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


Where = tuple[int, int]
EVERYWHERE: tuple[Where, ...] = tuple((w, r) for w in range(len(WATERS)) for r in range(len(RIGS)))


def log_of(
    rng: np.random.Generator,
    casts: int,
    likes: Likes,
    where: Sequence[Where] = EVERYWHERE,
    same: bool = False,
) -> list[MadeCast]:
    """A log of so many casts at fish that like what ``likes`` says, at these waters with these lures;
    ``same`` always throws one rig."""
    made: list[MadeCast] = []
    while len(made) < casts:
        day = BEGUN + timedelta(days=len(made) // (AT_STOP * STOPS) * 9)
        at, lure = where[int(rng.integers(len(where)))]
        water, (family, heads, tails) = WATERS[at], RIGS[0 if same else lure]
        rate = BITES * math.exp(SPREAD * rng.standard_normal()) * (EMPTY if rng.random() < 0.5 else 1.0)
        seen: Counter[tuple[float, str]] = Counter()
        for k in range(min(AT_STOP, casts - len(made))):
            oz, tail = (heads[2], tails[0]) if same else (float(rng.choice(heads)), str(rng.choice(tails)))
            thrown = thrown_at(len(made), water, family, oz, tail)
            at_min = 60.0 * (len(made) // AT_STOP % STOPS) + 1.6 * k
            thrown = thrown.model_copy(update={"time": day + timedelta(minutes=at_min)})
            run = run_of(thrown)
            among = 1.0 if run is None else min(2.0, max(0.2, run.among_s / 12.0))
            chance = rate * among * likes(thrown) * TIRED ** seen[oz, tail]
            seen[oz, tail] += 1
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
    return max(0.03, setting.weights.fit(cast.head_oz)) * max(0.03, min(1.0, tail))


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


def shifted(factor: float, cast: MadeCast) -> float:
    """Fish that like the tables' weight times a factor, a third of a log wide."""
    water = water_of_cast(cast)
    if water is None:
        return 1.0
    off = math.log(cast.head_oz / setting_at(water).weights.middle_oz / factor)
    return math.exp(-0.5 * (off / 0.33) ** 2)


@dataclass(frozen=True)
class Claimed:
    """What a log of an indifferent angler's claimed: a difference of rates, a shift; which words were
    said."""

    differs: bool
    shift: bool
    words: tuple[str, ...]


def nothing_there(casts: int, seed: int) -> Claimed:
    """A log in which nothing makes a difference."""
    found = lessons_of(log_of(np.random.default_rng(seed), casts, indifferent))
    return Claimed(
        differs=any(r.differs for r in found.rates),
        shift=any(s.told for s in found.own),
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


def own_shift(job: tuple[float, int]) -> tuple[bool, bool]:
    """A log of 200 casts at fish with a known shift of weight: whether the band holds it, whether it is
    told."""
    factor, seed = job
    found = lessons_of(log_of(np.random.default_rng(seed), 200, partial(shifted, factor))).own
    heads = [s for s in found if s.what == "head weight"]
    return any(s.low <= factor <= s.high for s in heads) or not heads, any(s.told for s in heads)


def share(flags: Sequence[bool]) -> str:
    """A share in words: ``12 of 200 (6.0 %)``."""
    return f"{sum(flags)} of {len(flags)} ({100.0 * sum(flags) / max(1, len(flags)):.1f} %)"


def main() -> None:
    anglers = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    topics = catalogue.load().topics
    moving = [(t.id, s) for t in topics.values() for s in t.schools if s != t.default and speaks(t.id, s)]
    with ProcessPoolExecutor() as pool:
        none = list(pool.map(partial(nothing_there, 250), range(anglers)))
        print(f"nothing makes a difference, 250 casts: a rate differs in {share([c.differs for c in none])}")
        print(f"  a shift of one's own fish is said in {share([c.shift for c in none])}")
        for word in ("leans", "strongly"):
            print(f"  a school {word} in {share([any(word in w for w in c.words) for c in none])}")
        jobs = [(*moving[k % len(moving)], k) for k in range(anglers)]
        found = list(pool.map(one_school, jobs, chunksize=4))
        print(f"fish follow one school, 150 casts: it is ahead in {share([f[2] > 0.0 for f in found])}")
        print(f"  it is said so in {share(['for it' in f[3] for f in found])}")
        print(
            f"  it is said to be strongly against in {share([f[3] == 'strongly against it' for f in found])}"
        )
        by: dict[str, list[bool]] = {}
        for topic, school, ratio, _ in found:
            by.setdefault(f"{topic}: {school}", []).append(ratio > 0.0)
        for name, ahead in by.items():
            print(f"    {name:44s} {share(ahead)}")
        same = [log_of(np.random.default_rng(k), 400, indifferent, same=True) for k in range(20)]
        words = [t.words for made in same for t in trials_of(made, [1.0] * len(made))]
        spoken = share([w != "too few" for w in words])
        print(f"always the same rig, 400 casts: a school is spoken for in {spoken}")
        for factor in (0.7, 1.0, 1.4):
            held = list(pool.map(own_shift, [(factor, k) for k in range(anglers)], chunksize=4))
            print(
                f"fish like {factor:g} of the tables' weight, 200 casts: the 80 % band holds it in "
                f"{share([h for h, _ in held])}, said in {share([t for _, t in held])}"
            )


if __name__ == "__main__":
    main()
