"""Waters to practise on: made up, and such as could be."""

import random
from collections.abc import Sequence
from typing import Any

#: Rounds that say as much as a trait's own beforehand.
SELDOM = 2.0
#: What a water may be, by a condition and where it begins: what somebody who misreads waters may misread.
TRAITS: tuple[tuple[str, str, float, float], ...] = (
    ("cold", "water_temp_f", 0.0, 52.0),
    ("warm", "water_temp_f", 74.0, 200.0),
    ("murky", "clarity_ft", 0.0, 2.0),
    ("clear", "clarity_ft", 6.0, 99.0),
    ("windy", "wind_mph", 10.0, 99.0),
    ("shallow fish", "fish_depth_ft", 0.0, 4.0),
    ("deep fish", "fish_depth_ft", 12.0, 99.0),
)
#: Words of a water that are traits as they stand.
WORDS = ("trend", "light", "forage")


def traits_of(conditions: Any) -> frozenset[str]:
    """What a water is, in traits: of conditions by their names (attributes)."""
    traits = {name for name, field, low, high in TRAITS if low <= float(getattr(conditions, field)) <= high}
    return frozenset(traits | {f"{word} {getattr(conditions, word)}" for word in WORDS})


def missing_of(rounds: Sequence[tuple[frozenset[str], float]]) -> dict[str, float]:
    """How much more is missed of waters with a trait than of all: marks (0 to 1) of rounds by their traits, a
    trait that was met seldom near none."""
    if not rounds:
        return {}
    usual = sum(1.0 - mark for _, mark in rounds) / len(rounds)
    missed = {}
    for trait in sorted({t for traits, _ in rounds for t in traits}):
        losses = [1.0 - mark for traits, mark in rounds if trait in traits]
        missed[trait] = (sum(losses) - usual * len(losses)) / (len(losses) + SELDOM)
    return missed


def random_water(rng: random.Random) -> dict[str, Any]:
    """A water that could be: a body of a size request without families."""
    bottom = round(rng.uniform(3, 30) * 2) / 2
    on_floor = rng.random() < 0.35
    fish = bottom if on_floor else round(rng.uniform(1, bottom) * 2) / 2
    season, low, high = rng.choice(
        [
            ("winter", 38, 50),
            ("pre-spawn", 48, 62),
            ("spawn", 62, 72),
            ("post-spawn", 66, 78),
            ("summer", 74, 88),
            ("fall", 50, 70),
        ]
    )
    kind = rng.choice(
        [
            "open",
            "open",
            "submerged-grass",
            "submerged-grass",
            "pads",
            "reeds",
            "wood",
            "rock",
            "rock",
            "docks",
            "matted-grass",
        ]
    )
    cover: dict[str, Any] = {"kind": kind}
    if kind == "submerged-grass":
        cover |= {
            "top_depth_ft": max(0.5, round(rng.uniform(0.3, 0.9) * bottom * 2) / 2),
            "density": rng.choice(["sparse", "moderate", "thick"]),
        }
    if kind in ("pads", "reeds", "matted-grass"):
        bottom = min(bottom, 8.0)
        fish = min(fish, bottom)
    if kind == "matted-grass":
        cover |= {
            "thickness_in": rng.randint(1, 10),
            "texture": rng.choice(["duckweed", "milfoil", "hydrilla", "hyacinth"]),
        }
    if kind == "wood":
        cover["detail"] = rng.choice(["laydown", "brush", "standing-timber"])
    if kind == "rock":
        cover["detail"] = rng.choice(["gravel", "chunk", "riprap", "bluff"])
    return {
        "conditions": {
            "water_temp_f": rng.randint(low, high),
            "trend": rng.choice(["rising", "steady", "falling"]),
            "season": season,
            "clarity_ft": round(rng.uniform(0.5, 12) * 2) / 2,
            "light": rng.choice(["sunny", "mixed", "overcast", "low"]),
            "wind_mph": rng.randint(0, 18),
            "forage": rng.choice(["crawfish", "bluegill", "baitfish"]),
            "bottom_depth_ft": bottom,
            "fish_depth_ft": fish,
            "cover": cover,
        },
        "gear": {
            "line": {"material": "fluorocarbon", "test_lb": rng.choice([8, 10, 12, 15, 17, 20])},
            "cast_ft": rng.choice([40, 60, 80, 100]),
        },
    }
