"""`make reach`: does the first rig come near the fish? Its cast is played again and looked at from outside.

Random waters are sized as JSON; the first rig's count and pace are played through the simulate door, and the
path itself is held against the band that was told (never the answer's own ``in_band``). A rig that is worked
on the floor is near fish that stand near the floor. What misses the fish must say so (``doubt``).
"""

import random
import sys
from collections import Counter
from dataclasses import dataclass
from typing import Any

import numpy as np

from bench.steady import random_water
from heathdrop.api.answers import simulate_answer, size_answer
from heathdrop.api.schemas import SimulateRequest
from heathdrop.catalog import load
from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.physics.kernels.records import USEFUL_FAR, USEFUL_NEAR

#: Near the band (ft); share of the useful retrieve that must be near it; how far above the floor fish may
#: stand and be met by work on it (ft, share of the water's depth).
NEAR_FT, SHARE, FLOOR_FT, FLOOR_SHARE = 0.6, 0.5, 2.0, 0.2


@dataclass(frozen=True)
class Reached:
    """What became of a water: the answer, the share of the useful retrieve near the band (1 or 0 for work on
    the floor), whether that misses the fish."""

    body: dict[str, Any]
    answer: dict[str, Any]
    share: float

    @property
    def missed(self) -> bool:
        """Whether the first rig does not come near the fish."""
        return self.share < SHARE

    @property
    def silent(self) -> bool:
        """Whether it misses them without a word."""
        return self.missed and not self.answer["doubt"]


def share_near(body: dict[str, Any], rig: dict[str, Any], band: dict[str, Any]) -> float:
    """Share of the first rig's useful time near the told band, by a cast of its own."""
    c, gear = body["conditions"], body["gear"]
    swum_out = (rig["cadence"] or {}).get("way") == "swim-out"
    if load().families[rig["family"]].work != "swim" and not swum_out:
        above = c["bottom_depth_ft"] - c["fish_depth_ft"]
        return float(above <= max(FLOOR_FT, FLOOR_SHARE * c["bottom_depth_ft"]))
    lure = {
        k: rig[k] for k in ("family", "head_oz", "trailer", "head_material", "skirt", "plastic", "blades")
    }
    if rig["trailer"] != "none":
        lure |= {"trailer_length_in": rig["trailer_length_in"], "orientation": rig["orientation"]}
    away = rig["cast_ft"]
    request = {
        "water": {"temperature_f": c["water_temp_f"]},
        "lure": lure,
        "line": gear["line"],
        "cast": {
            "distance_ft": away,
            "rod_tip_height_ft": gear.get("rod_tip_height_ft", 2.0),
            "bottom_depth_ft": c["bottom_depth_ft"],
        },
        "program": [
            {"do": "fall", "for_s": rig["countdown_s"]},
            {"do": "retrieve", "speed_ft_s": rig["pace_ft_s"]},
        ],
    }
    samples = simulate_answer(SimulateRequest.model_validate(request)).samples
    depths = np.array(
        [
            s.depth_ft
            for s in samples
            if s.t_s >= rig["countdown_s"] and USEFUL_NEAR * away <= s.distance_ft <= USEFUL_FAR * away
        ]
    )
    return float(np.mean((depths >= band["top"] - NEAR_FT) & (depths <= band["low"] + NEAR_FT)))


def reached(body: dict[str, Any]) -> Reached:
    """Size a water and look at its first rig from outside."""
    answer = size_answer(SizeRequest.model_validate(body)).model_dump()
    return Reached(body, answer, share_near(body, answer["rigs"][0], answer["targets"]["depth_ft"]))


def told(found: Reached) -> str:
    """A miss in one line."""
    c, rig = found.body["conditions"], found.answer["rigs"][0]
    band = found.answer["targets"]["depth_ft"]
    return (
        f"  {'SILENT' if found.silent else 'said  '} {c['water_temp_f']} F {c['season']}, {c['forage']}, "
        f"{c['cover']}, fish {c['fish_depth_ft']:g} of {c['bottom_depth_ft']:g} ft, cast "
        f"{found.body['gear']['cast_ft']}: {rig['family']} {rig['head_oz']:g} {rig['trailer']} {rig['work']} "
        f"at {rig['pace_ft_s']:.1f} ft/s, {rig['depth_ft']['mean']:.1f} ft for {band['top']:.1f} to "
        f"{band['low']:.1f}, near {found.share:.2f}, score {rig['score']:.2f}"
    )


def main(count: int = 200, seed: int = 23, show: bool = True) -> tuple[float, float]:
    """Print and return the shares of misses: all, and those without a word."""
    rng, missed, silent, first = random.Random(seed), 0, 0, Counter[str]()
    for _ in range(count):
        try:
            found = reached(random_water(rng))
        except BadInput as refusal:
            raise SystemExit(f"a random water was refused: {refusal}") from refusal
        first[found.answer["rigs"][0]["family"]] += 1
        missed += found.missed
        silent += found.silent
        if show and found.missed:
            print(told(found))
    print(
        f"{count} random waters (seed {seed}): the first rig misses the fish in "
        f"{100 * missed / count:.1f} %, "
        f"without a word in {100 * silent / count:.1f} %; first: {dict(first.most_common())}"
    )
    return missed / count, silent / count


if __name__ == "__main__":
    given = [int(word) for word in sys.argv[1:]]
    main(*given)
