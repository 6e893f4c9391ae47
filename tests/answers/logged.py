"""Casts on record for the tests of what a log teaches."""

import math
import random
import uuid
from datetime import UTC, datetime, timedelta

from heathdrop.conditions.made import MadeCast

WATER = {
    "water_temp_f": 58,
    "bottom_depth_ft": 9,
    "fish_depth_ft": 6,
    "clarity_ft": 4,
    "wind_mph": 5,
    "light": "mixed",
    "season": "fall",
    "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
}
BEGUN = datetime(2027, 4, 3, 6, 0, tzinfo=UTC)


def cast(k: int, outcome: str = "nothing", **more: object) -> MadeCast:
    body = {
        "id": str(uuid.UUID(int=k + 1)),
        "time": (BEGUN + timedelta(minutes=k)).isoformat(),
        "trip": "day",
        "stop": "Bay",
        "family": "swim-jig",
        "head_oz": 0.375,
        "trailer": "craw",
        "trailer_length_in": 4.0,
        "countdown_s": 2.0,
        "pace_ft_s": 2.2,
        "outcome": outcome,
        "conditions": WATER,
    }
    return MadeCast.model_validate(body | more)


def fished(rng: random.Random, count: int, likes_oz: float, heads: tuple[float, ...]) -> list[MadeCast]:
    """An angler who throws these heads by turns at fish that like one of them (log, 0.3)."""
    found = []
    for k in range(count):
        oz = rng.choice(heads)
        likes = math.exp(-0.5 * (math.log(oz / likes_oz) / 0.3) ** 2)
        found.append(cast(k, "fish" if rng.random() < 0.25 * likes else "nothing", head_oz=oz))
    return found


HEADS = (0.1875, 0.25, 0.375, 0.5, 0.75)
