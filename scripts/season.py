"""Make the demo's season on Ashmoor Water. Usage: python scripts/season.py

An angler fishes made-up days over made-up fish, and every cast is the simulation's: a cast's chance of a bite is that
of its seconds among the fish times how they like its head. What is true of these fish, and not of the tables, stands
in ``demo/season.py``: they want a lighter head while it is cold, and bite more readily in low light.
"""

import json
import math
from pathlib import Path
from typing import Any

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.answers.water import at_setting, sizing_of, with_rig
from heathdrop.conditions.request import SizeRequest
from heathdrop.demo.season import COLD_F, LIGHTER, LOW_LIGHT, PER_S, SEED
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.hour import among_s
from heathdrop.sizing.setting import setting_of

OUT = Path(__file__).parent.parent / "src" / "heathdrop" / "demo" / "season.json"
GRASS = {"kind": "submerged-grass", "top_depth_ft": 6.5, "density": "moderate"}
OPEN = {"kind": "open"}
WOOD = {"kind": "wood", "detail": "brush", "density": "moderate"}
ROCK = {"kind": "rock", "detail": "chunk"}
REEDS = {"kind": "reeds", "density": "moderate"}
PADS = {"kind": "pads", "density": "moderate"}
#: A day at a stop: when it begins, where, °F, visibility and wind (ft, mph), light, season, trend, bottom and fish
#: (ft), cover, forage, the rigs that are thrown in turn.
STOPS = """
2026-03-14T08:10 | Quarry wall | 45 5 6 overcast winter steady 20 19 ROCK crawfish | football-jig:0.5:twin-tail football-jig:0.375:chunk finesse-jig:0.25:chunk
2026-03-14T10:30 | North drain | 46 3 8 mixed pre-spawn rising 8 6 OPEN baitfish | spinnerbait:0.5:paddle-tail spinnerbait:0.375:paddle-tail
2026-03-28T07:40 | North drain | 51 3 5 low pre-spawn rising 8 5 OPEN baitfish | spinnerbait:0.5:paddle-tail spinnerbait:0.375:paddle-tail bladed-jig:0.375:paddle-tail
2026-03-28T10:20 | Quarry wall | 50 6 7 mixed pre-spawn rising 18 17 ROCK crawfish | football-jig:0.5:craw football-jig:0.375:craw finesse-jig:0.25:chunk
2026-04-11T06:50 | Mill bay | 57 3 4 low pre-spawn rising 9 6 GRASS bluegill | bladed-jig:0.5:small-craw bladed-jig:0.375:small-craw swim-jig:0.375:craw
2026-04-11T09:30 | Drowned oak | 57 4 6 sunny pre-spawn rising 7 6 WOOD crawfish | flipping-jig:0.5:craw flipping-jig:0.375:craw
2026-04-25T06:40 | Reed bed | 63 3 5 low spawn steady 4 3 REEDS bluegill | grass-jig:0.375:beaver swim-jig:0.25:craw weighted-plastic:0.25:creature
2026-04-25T09:00 | Mill bay | 64 3 8 mixed spawn steady 9 4 GRASS bluegill | swim-jig:0.375:craw swim-jig:0.25:craw bladed-jig:0.375:small-craw
2026-05-23T05:50 | Mill bay | 70 4 4 low post-spawn rising 9 5 GRASS bluegill | swim-jig:0.375:craw bladed-jig:0.5:small-craw
2026-05-23T08:30 | Lower pads | 71 2.5 6 sunny post-spawn rising 4 2 PADS bluegill | swim-jig:0.375:none swim-jig:0.25:craw
2026-07-04T05:10 | Sunken lane | 78 6 3 low summer steady 16 12 OPEN baitfish | underspin:0.5:paddle-tail underspin:0.375:paddle-tail spinnerbait:0.75:paddle-tail
2026-07-04T07:50 | Quarry wall | 79 7 5 sunny summer steady 20 19 ROCK crawfish | football-jig:0.75:craw football-jig:0.5:craw
2026-08-15T05:30 | Sunken lane | 80 6 4 low summer steady 16 13 OPEN baitfish | underspin:0.5:paddle-tail spinnerbait:0.75:paddle-tail
2026-09-26T06:30 | Mill bay | 66 4 6 low fall falling 9 6 GRASS bluegill | bladed-jig:0.5:small-craw bladed-jig:0.375:small-craw swim-jig:0.375:craw
2026-09-26T09:10 | Sunken lane | 66 6 9 overcast fall falling 15 8 OPEN baitfish | spinnerbait:0.5:paddle-tail underspin:0.375:paddle-tail
2026-10-17T07:20 | Quarry wall | 58 7 10 overcast fall falling 18 17 ROCK crawfish | football-jig:0.5:craw football-jig:0.375:craw
2026-10-17T10:00 | North drain | 58 4 10 mixed fall falling 8 5 OPEN baitfish | spinnerbait:0.5:paddle-tail spinnerbait:0.375:paddle-tail
2026-11-14T08:00 | Quarry wall | 49 7 7 overcast fall falling 20 19 ROCK crawfish | football-jig:0.5:twin-tail football-jig:0.375:chunk finesse-jig:0.25:chunk
"""
COVERS = {"ROCK": ROCK, "OPEN": OPEN, "WOOD": WOOD, "GRASS": GRASS, "REEDS": REEDS, "PADS": PADS}
NUMBERS = ("water_temp_f", "clarity_ft", "wind_mph")
DEPTHS = ("bottom_depth_ft", "fish_depth_ft")
#: Casts at a stop, and those of one rig before it is changed.
CASTS, EACH = 26, 6


def liked(water: Any, rig: Any) -> float:
    """How the made-up fish like a head: as the tables say, about a lighter one while it is cold."""
    setting = setting_of(catalogue.load(), water)
    heavy = LIGHTER if water.conditions.water_temp_f < COLD_F else 1.0
    return float(setting.weights.fit(rig.head_oz / heavy))


def conditions_of(text: str) -> dict[str, Any]:
    """The conditions of a line of the table."""
    parts = text.split()
    found: dict[str, Any] = dict(zip(NUMBERS, map(float, parts[:3]), strict=True))
    found |= dict(zip(("light", "season", "trend"), parts[3:6], strict=True))
    found |= dict(zip(DEPTHS, map(float, parts[6:8]), strict=True))
    return found | {"cover": COVERS[parts[8]], "forage": parts[9]}


def at_stop(line: str, chance: np.random.Generator) -> dict[str, Any]:
    """A day at a stop, cast by cast: minute, rig, count, outcome, second of the bite, length of the fish."""
    begun, stop, water_said, rigs_said = (part.strip() for part in line.split("|"))
    conditions, rigs = conditions_of(water_said), rigs_said.split()
    catalog, made = catalogue.load(), []
    shown, at = [], 0.0
    for name in rigs:
        family = name.split(":")[0]
        water = SizeRequest.model_validate({"conditions": conditions, "families": [family]}).scenario()
        sizing, best = with_rig(sizing_of(water), RigName.parse(name))
        counts = sorted({max(0.0, round(2 * best.countdown_s + step) / 2) for step in (-2, 0, 2)})
        swum = best.rig.family.work == "swim"
        shown.append(
            {
                "rig": best.name.text(),
                "pace_ft_s": round(best.tuned.pace_m_s / 0.3048, 1) if swum else 0.0,
                "work": best.cadence.cadence.id if best.cadence else best.rig.family.work,
                "counts": counts if swum else [round(best.countdown_s, 1)],
                "among_s": [
                    round(
                        among_s(catalog, sizing.targets, at_setting(sizing, best, c, None) if swum else best),
                        1,
                    )
                    for c in (counts if swum else [best.countdown_s])
                ],
                "fouls": round(float(best.cover.fouls), 3),
                "liked": round(liked(water, best.rig), 3),
            }
        )
    quick = LOW_LIGHT if conditions["light"] == "low" else 1.0
    for k in range(CASTS):
        r = (k // EACH) % len(shown)
        rig = shown[r]
        n = int(chance.integers(len(rig["counts"])))
        at += float(chance.uniform(1.2, 2.1))
        if chance.random() < rig["fouls"]:
            made.append([round(at, 1), r, n, "fouled", 0, 0])
            continue
        hazard = PER_S * rig["among_s"][n] * rig["liked"] * quick
        if chance.random() < 1.0 - math.exp(-hazard):
            kind = str(chance.choice(["fish", "fish", "fish", "bump", "short"]))
            length = round(float(chance.normal(14.0, 2.2)), 1) if kind == "fish" else 0
            made.append([round(at, 1), r, n, kind, round(float(chance.uniform(4.0, 14.0)), 1), length])
        else:
            made.append([round(at, 1), r, n, "nothing", 0, 0])
    return {
        "begun": begun,
        "stop": stop,
        "conditions": conditions,
        "rigs": shown,
        "casts": made,
    }


def main() -> None:
    """Write the season."""
    chance = np.random.default_rng(SEED)
    days = [at_stop(line, chance) for line in STOPS.strip().splitlines()]
    lines = [json.dumps(day, separators=(",", ":")) for day in days]
    OUT.write_text("[\n" + ",\n".join(lines) + "\n]\n", "utf-8")
    bites = sum(c[3] in ("fish", "bump", "short") for day in days for c in day["casts"])
    print(f"{len(days)} stops, {sum(len(d['casts']) for d in days)} casts, {bites} bites")


if __name__ == "__main__":
    main()
