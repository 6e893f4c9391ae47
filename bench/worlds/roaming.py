"""Groups that come through, feed and go.

Bait moves through a stop and fish with it: a group every fifteen minutes on average (on a third of the days
none in an hour), there for some eight, across two or three directions at a depth of its own. While they feed
several are taken in a row by what comes past at their depth and speed; a lure's kind matters little, its
speed and depth much.
"""

import math
import random

from bench.worlds import LANES, Bite, Fish, Thrown, Water

DULL, EVERY_MIN, STAYS_MIN, LANDED = 0.33, 15.0, 8.0, 0.8


class Roaming(Fish):
    def __init__(self, water: Water, rng: random.Random) -> None:
        self.groups = []
        at = rng.uniform(-STAYS_MIN, EVERY_MIN)
        dull = rng.random() < DULL
        level = water.said_ft
        if level is None:
            level = water.bottom_ft * (0.35 if water.light in ("low", "overcast") else 0.55)
            level = 0.75 * water.bottom_ft if water.temp_f < 50 else level
        while at < 60.0 and not dull:
            self.groups.append(
                {
                    "from": at,
                    "until": at + rng.expovariate(1.0 / STAYS_MIN),
                    "depth": min(water.bottom_ft, max(0.5, rng.gauss(level, 0.1 * water.bottom_ft + 0.4))),
                    "lane": rng.randrange(LANES),
                    "goes": rng.choice((-0.25, 0.0, 0.25)),
                    "fish": rng.randint(2, 6),
                    "pace": math.exp(rng.gauss(math.log(1.1 + 0.022 * (water.temp_f - 42.0)), 0.25)),
                }
            )
            at += rng.expovariate(1.0 / EVERY_MIN)
        self.reach_ft = 0.8 + 0.25 * min(water.clarity_ft, 8.0)
        self.home = bool(self.groups)

    def meet(self, cast: Thrown, minute: float, dice: random.Random) -> Bite | None:
        for group in self.groups:
            if not group["from"] <= minute <= group["until"] or not group["fish"]:
                continue
            lane = (group["lane"] + group["goes"] * (minute - group["from"])) % LANES
            if min(abs(lane - cast.lane), LANES - abs(lane - cast.lane)) > 1.0:
                continue
            depth = group["depth"]
            seconds, at = cast.spent(depth - self.reach_ft, depth + 0.4 * self.reach_ft, whole=True)
            speed = (
                math.exp(-0.5 * (math.log(max(cast.pace_ft_s, 0.2) / group["pace"]) / 0.3) ** 2)
                if cast.swum
                else 0.35
            )
            if dice.random() < 1.0 - math.exp(-0.11 * speed * seconds):
                landed = dice.random() < LANDED
                group["fish"] -= landed
                return Bite(landed, at)
        return None
