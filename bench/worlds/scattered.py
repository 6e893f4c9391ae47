"""Single fish, each at its own place in the cover.

An occupancy by cover and light: so many fish to a stop by its cover, each in a direction and at a depth of
its
own, in shade where it is bright. A fish decides once a pass, by how near the lure comes and not by how long
it stays; after it let a kind of lure pass three times it hardly looks at it. No fish tells of another.
"""

import math
import random

from bench.worlds import LANES, Bite, Fish, Thrown, Water

#: Fish to a stop on average, where any bite; how often none does.
MANY = {
    "open": 1.6,
    "rock": 2.4,
    "wood": 3.0,
    "docks": 3.2,
    "submerged-grass": 3.6,
    "pads": 3.0,
    "reeds": 2.6,
}
EMPTY, LANDED, WILL = 0.35, 0.75, 0.45


class Scattered(Fish):
    def __init__(self, water: Water, rng: random.Random) -> None:
        self.water = water
        mean = MANY.get(water.cover, 2.5)
        count = 0 if rng.random() < EMPTY else max(1, round(rng.expovariate(1.0 / mean)))
        self.fish = [self._one(rng) for _ in range(min(count, 9))]
        self.home = bool(self.fish)

    def _one(self, rng: random.Random) -> dict[str, object]:
        w = self.water
        if w.said_ft is not None:
            depth = w.said_ft + rng.uniform(-1.5, 1.5)
        else:
            low, high = {"open": (0.3, 1.0), "rock": (0.6, 1.0), "docks": (0.2, 0.8), "wood": (0.3, 0.9)}.get(
                w.cover, (0.25, 0.75)
            )
            if w.light == "sunny":
                low = 0.5 * (low + high)
            if w.temp_f < 48:
                low, high = max(low, 0.7), 1.0
            depth = w.bottom_ft * rng.uniform(low, high)
        return {
            "depth": min(w.bottom_ft, max(0.5, depth)),
            "lane": rng.randrange(LANES),
            "pace": math.exp(rng.gauss(math.log(1.0 + 0.02 * (w.temp_f - 40.0)), 0.35)),
            "likes": {},
            "passed": {},
            "own": random.Random(rng.random()),
        }

    def meet(self, cast: Thrown, minute: float, dice: random.Random) -> Bite | None:
        sees = min(4.0, 0.8 + 0.4 * self.water.clarity_ft)
        for fish in self.fish:
            if fish["lane"] != cast.lane:
                continue
            near = min(
                (abs(d - fish["depth"]) * (1.0 if d < fish["depth"] else 2.5), t)
                for d, t in zip(cast.depth_ft, cast.t_s, strict=True)
            )
            gap, at = near
            if cast.family not in fish["likes"]:
                fish["likes"][cast.family] = min(1.3, fish["own"].expovariate(1.2))
            fit = (
                math.exp(-0.5 * (math.log(max(cast.pace_ft_s, 0.2) / fish["pace"]) / 0.6) ** 2)
                if cast.swum
                else 0.8
            )
            times = fish["passed"].get(cast.family, 0)
            will = (
                WILL
                * fish["likes"][cast.family]
                * fit
                * math.exp(-((gap / sees) ** 2))
                * (0.35 if times >= 3 else 1.0)
            )
            if gap < sees:
                fish["passed"][cast.family] = times + 1
            if dice.random() < will:
                landed = dice.random() < LANDED
                if landed:
                    self.fish.remove(fish)
                else:
                    fish["passed"][cast.family] = times + 2
                return Bite(landed, float(at))
        return None
