"""Schools that drift in lane and depth.

Numbers are practice as guides tell it: two stops of five hold nobody that bites; a school is one to five
fish; it moves a foot in ten minutes and a lane in twenty; what is liked today is a matter of the day, by kind
of lure (one sigma of half, in logs) and by trailer (a quarter). Attention is won in the first seconds.
"""

import math
import random

from bench.worlds import LANES, Bite, Fish, Thrown, Water

EMPTY, DRIFT_FT, LANE_MIN = 0.4, 0.32, 20.0
KIND, TRAILER, LANDED = 0.5, 0.25, 0.7


class Drifting(Fish):
    def __init__(self, water: Water, rng: random.Random) -> None:
        self.water, self.rng, self.minute = water, rng, 0.0
        self.likes: dict[str, float] = {}
        schools = 0 if rng.random() < EMPTY else rng.choice((1, 1, 2, 2, 3))
        self.schools = [
            {
                "depth": stands(water, rng),
                "lane": float(rng.randrange(LANES)),
                "fish": rng.choice((1, 2, 2, 3, 4, 5)),
                "bold": math.exp(rng.gauss(0.0, 0.4)),
                "seen": {},
            }
            for _ in range(schools)
        ]
        self.home = bool(self.schools)

    def liking(self, cast: Thrown) -> float:
        for name, sigma in ((cast.family, KIND), (cast.trailer, TRAILER)):
            self.likes.setdefault(name, math.exp(self.rng.gauss(0.0, sigma)))
        return self.likes[cast.family] * self.likes[cast.trailer]

    def meet(self, cast: Thrown, minute: float, dice: random.Random) -> Bite | None:
        passed, self.minute = max(0.0, minute - self.minute), minute
        above = 1.0 + 0.35 * min(self.water.clarity_ft, 9.0)
        wanted = 0.9 + 0.03 * (self.water.temp_f - 45.0)
        for school in self.schools:
            school["depth"] += self.rng.gauss(0.0, DRIFT_FT * math.sqrt(passed))
            school["depth"] = min(self.water.bottom_ft, max(0.5, school["depth"]))
            if self.rng.random() < passed / LANE_MIN:
                school["lane"] = min(LANES - 1.0, max(0.0, school["lane"] + self.rng.choice((-1.0, 1.0))))
            if abs(school["lane"] - cast.lane) > 0.5 or not school["fish"]:
                continue
            seconds, at = cast.spent(school["depth"] - above, school["depth"] + 0.6)
            pace = (
                math.exp(-0.5 * (math.log(max(cast.pace_ft_s, 0.2) / wanted) / 0.45) ** 2)
                if cast.swum
                else 0.7
            )
            key = cast.family, cast.trailer, round(cast.pace_ft_s)
            tired = 0.8 ** school["seen"].get(key, 0)
            school["seen"][key] = school["seen"].get(key, 0) + (seconds > 0.0)
            rate = 0.16 * school["bold"] * self.liking(cast) * pace * tired * school["fish"] ** 0.5
            if dice.random() < 1.0 - math.exp(-rate * seconds / (1.0 + seconds / 8.0)):
                landed = dice.random() < LANDED
                school["fish"] -= landed
                return Bite(landed, at)
        return None


def stands(water: Water, rng: random.Random) -> float:
    """A depth (ft): about what was said, else by cold, heat, light and cover."""
    if water.said_ft is not None:
        depth = rng.gauss(water.said_ft, 1.0)
    elif water.top_ft is not None and rng.random() < 0.6:
        depth = rng.gauss(water.top_ft + 0.3, 1.2)
    else:
        share = 0.8 if water.temp_f < 50 else 0.65 if water.temp_f > 78 else 0.5
        share -= 0.2 if water.light in ("low", "overcast") else 0.0
        share += 0.2 if water.cover == "rock" else 0.0
        depth = rng.gauss(share * water.bottom_ft, 0.18 * water.bottom_ft)
    return min(water.bottom_ft, max(0.5, depth))
