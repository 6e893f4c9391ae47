"""`make bands`: do the told 80 % bands hold for hands, boats and gear that are not the program's own priors?

Every water is asked at the JSON door; every told band is then held against casts of strangers. A stranger's
pace is their own bias and an uneven handle about it (a mixture with long tails, one sigma 8 % together),
counts are gamma, casts fall short more often than long, tips are anywhere within a foot and a half, heads are
poured up to 7 % off, friction is anywhere from 0.4 to 1.6 of the table's, parts scatter as the catalogue
states them, the drag on the move half alike with the fall's. Ways on the floor are held by their seconds too.
"""

import math
import sys
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from heathdrop import catalog as catalogue
from heathdrop.answers.own import STRANGER, Own
from heathdrop.api.answers import simulate_answer, size_answer
from heathdrop.api.schemas import SimulateRequest
from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.learning.learned import Learned
from heathdrop.physics.cast import CastResult, fly
from heathdrop.physics.rig import Lure, Rig, areas_of, lure_of
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.ways import programme
from heathdrop.training.hand import Tapped, hand_of
from heathdrop.units import feet, metres, square_metres

#: Swum waters: family, °F, bottom and fish (ft).
STEADY = (
    ("swim-jig", 63, 12, 4), ("swim-jig", 70, 16, 9), ("swim-jig", 60, 20, 14), ("swim-jig", 75, 6, 1.5),
    ("bladed-jig", 61, 8, 5), ("bladed-jig", 67, 7, 4), ("bladed-jig", 72, 10, 3),
    ("spinnerbait", 57, 12, 9), ("spinnerbait", 66, 9, 3), ("spinnerbait", 50, 20, 13),
    ("underspin", 60, 26, 15), ("underspin", 52, 18, 10), ("underspin", 64, 14, 7), ("underspin", 55, 35, 25),
)  # fmt: skip
#: Rigs by name, pace (ft/s), count (s) and bottom (ft) that are worked in other ways.
WORKED = (
    ("swim-jig:0.375:craw", 2.2, 2.0, 12.0),
    ("swim-jig:0.5:paddle-tail", 2.0, 3.5, 14.0),
    ("spinnerbait:0.5:twin-tail", 1.9, 4.0, 16.0),
    ("underspin:0.375:paddle-tail", 1.7, 5.0, 18.0),
)
IN_WATER = ("slow-roll", "stop-and-go", "twitch", "burn-and-drop", "swing")
ON_FLOOR = ("drag", "hop")
LINE = {"material": "fluorocarbon", "test_lb": 15}
CAST_FT, TIP_FT, PER_TURN_IN = 80.0, 2.0, 29.0


#: Figures are told to a tenth (ft, s).
ROUNDED = 0.05


@dataclass
class Held:
    """Casts of a kind: how many, inside, shallower (or sooner) and deeper (or later) than the told band."""

    casts: int = 0
    inside: int = 0
    low: int = 0
    high: int = 0

    def put(self, value: float, band: tuple[float, float]) -> None:
        """One cast against the band that was told of it."""
        self.casts += 1
        self.low += value < band[0] - ROUNDED
        self.high += value > band[1] + ROUNDED
        self.inside = self.casts - self.low - self.high

    def said(self) -> str:
        """Shares in hundredths."""
        inside, low, high = (100.0 * n / max(1, self.casts) for n in (self.inside, self.low, self.high))
        return f"{inside:5.1f} %   under {low:4.1f}, over {high:4.1f}   ({self.casts} casts)"


class Stranger:
    """Draws of hand, boat and gear that owe nothing to the program's priors but the stated spreads of
    parts; ``trained`` gives a hand that is 6 % slow and even to 4 %."""

    def __init__(self, seed: int, trained: bool = False) -> None:
        self.rng, self.trained = np.random.default_rng(seed), trained
        self.bias = 0.0

    def pace(self) -> float:
        """What the handle does, as a factor."""
        if self.trained:
            return math.exp(-0.06 + 0.04 * self.rng.standard_normal())
        return math.exp(self.rng.laplace(0.0, 0.04) + self.rng.uniform(-0.098, 0.098))

    def count(self) -> float:
        return float(self.rng.gamma(100.0, 0.01))

    def cast(self) -> float:
        """Short more often than long, one sigma 6 %."""
        return float(np.clip(1.02 - self.rng.gamma(1.6, 0.045) + 0.052, 0.7, 1.1))

    def tip_ft(self) -> float:
        return float(self.rng.uniform(-1.5, 1.5))

    def lure(self, rig: Rig, temperature_f: float, density: float) -> Lure:
        """The rig as it was made: parts at the catalogue's spreads, its head up to 7 % off."""
        catalog, g = catalogue.load(), self.rng.standard_normal
        areas = areas_of(catalog, rig, temperature_f)
        own = replace(
            rig, measured=replace(rig.measured, head_g=1e3 * rig.head_kg * self.rng.uniform(0.93, 1.07))
        )
        plain = lure_of(catalog, own, density, temperature_f)
        head = catalog.spread("heads", "fall_factor"), catalog.spread("model", "head_run_factor"), 0.0
        columns = ("fall_drag_area_cm2", "run_drag_area_cm2", "run_lift_area_cm2")
        shared, found = g(4), []
        for k, (column, parts) in enumerate(zip(columns, (areas.fall, areas.run, areas.lift), strict=True)):
            of = (
                head[k],
                catalog.spread("families", column),
                catalog.spread("skirts", "fall_drag_area_cm2"),
                catalog.spread("trailers", column),
            )
            z = shared if k == 0 else math.sqrt(0.5) * shared + math.sqrt(0.5) * g(4) if k == 1 else g(4)
            found.append(sum(a * math.exp(s * x) for a, s, x in zip(parts, of, z, strict=True)))
        return replace(
            plain,
            fall_drag_area_m2=square_metres(found[0]),
            run_drag_area_m2=square_metres(found[1]),
            run_lift_area_m2=square_metres(found[2]),
        )


@dataclass(frozen=True)
class CastTold:
    """A stranger's cast of a steady rig: its family, the share in the band that was told and that came, its
    mean depth (ft) and the told band (ft)."""

    family: str
    share: float
    came: float
    depth: float
    band: tuple[float, float]


def steady(stranger: Stranger, draws: int, own: Own = STRANGER) -> Iterator[CastTold]:
    """Rigs reeled steadily as the size door sizes them, cast by strangers."""
    for family, temp, bottom, fish in STEADY:
        body = {
            "conditions": {"water_temp_f": temp, "bottom_depth_ft": bottom, "fish_depth_ft": fish},
            "gear": {
                "line": LINE,
                "reel": {"inches_per_turn": PER_TURN_IN},
                "cast_ft": CAST_FT,
                "rod_tip_height_ft": TIP_FT,
            },
            "families": [family],
            "limit": 40,
        }
        answer = size_answer(SizeRequest.model_validate(body), own)
        told, wanted = next(r for r in answer.rigs if r.cadence is None), answer.targets.depth_ft
        band, away = (told.depth_band_ft.low, told.depth_band_ft.high), told.cast_ft
        program = programme("steady", metres(told.pace_ft_s), told.countdown_s, metres(away))
        for made in played(stranger, told.name, temp, bottom, away, program, draws):
            depths = np.array([feet(z) for z in made.worked()])
            came = float(((depths >= wanted.top) & (depths <= wanted.low)).mean())
            yield CastTold(family, told.depth_ft.in_band, came, float(depths.mean()), band)


def played(
    stranger: Stranger, name: str, temp: float, bottom: float, away_ft: float, program: Any, draws: int
) -> Iterator[CastResult]:
    """Strangers' casts of a rig in a programme."""
    catalog = catalogue.load()
    body = {
        "water": {"temperature_f": temp}, "lure": {"family": "swim-jig", "head_oz": 0.25, "trailer": "craw"},
        "line": LINE, "program": [{"do": "fall"}],
        "cast": {"distance_ft": away_ft, "rod_tip_height_ft": TIP_FT, "bottom_depth_ft": bottom},
    }  # fmt: skip
    asked = SimulateRequest.model_validate(body)
    rig, water, line, cast = (
        RigName.parse(name).rig(catalog),
        asked.water_record(),
        asked.line_record(),
        asked.cast_record(),
    )
    for _ in range(draws):
        lure = stranger.lure(rig, temp, water.density_kg_m3)
        own = replace(
            line,
            diameter_m=line.diameter_m * stranger.rng.uniform(0.9, 1.1),
            friction=line.friction * stranger.rng.uniform(0.4, 1.6),
        )
        quicker, longer = stranger.pace(), stranger.count()
        phases = [p if p.speed_m_s is None else replace(p, speed_m_s=p.speed_m_s * quicker) for p in program]
        if phases[0].for_s is not None:
            phases[0] = replace(phases[0], for_s=phases[0].for_s * longer)
        tip = max(0.0, cast.rod_tip_m + metres(stranger.tip_ft()))
        there = replace(cast, distance_m=cast.distance_m * stranger.cast(), rod_tip_m=tip)
        try:
            made = fly(lure, own, water, there, phases)
        except BadInput:
            continue
        if made.worked().size:
            yield made


def in_ways(stranger: Stranger, draws: int) -> Iterator[tuple[str, float, tuple[float, float]]]:
    """Rigs worked in other ways, as the simulate door tells their bands; those on the floor by seconds."""
    for name, pace, count, bottom in WORKED:
        rig = RigName.parse(name)
        for way in IN_WATER + ON_FLOOR:
            program = programme(way, metres(pace), count, metres(CAST_FT))
            told = simulate_answer(SimulateRequest.model_validate({
                "water": {"temperature_f": 60},
                "lure": {"family": rig.family, "head_oz": rig.head_oz, "trailer": rig.trailer},
                "line": LINE,
                "cast": {"distance_ft": CAST_FT, "rod_tip_height_ft": TIP_FT, "bottom_depth_ft": bottom},
                "program": [written(p) for p in program],
            })).summary  # fmt: skip
            for made in played(stranger, name, 60, bottom, CAST_FT, program, draws):
                depth, fell = feet(float(made.worked().mean())), made.fall_s
                if told.mean_depth_band_ft is not None:
                    yield way, depth, (told.mean_depth_band_ft.low, told.mean_depth_band_ft.high)
                if way in (*ON_FLOOR, "slow-roll") and told.fall_band_s is not None:
                    yield f"{way}, seconds down", fell, (told.fall_band_s.low, told.fall_band_s.high)


def written(phase: Any) -> dict[str, Any]:
    """A phase as the simulate door reads it."""
    found: dict[str, Any] = {"do": phase.do}
    if phase.do == "fall":
        found["line"] = "slack" if phase.slack else "tight"
    for name, value, per in (
        ("to_depth_ft", phase.to_depth_m, 0.3048), ("for_s", phase.for_s, 1.0), ("wait_s", phase.wait_s, 1.0),
        ("speed_ft_s", phase.speed_m_s, 0.3048), ("lift_in", phase.lift_m, 0.0254), ("times", phase.times, 1),
    ):  # fmt: skip
        if value is not None:
            found[name] = value if name == "times" else value / per
    if phase.take_up:
        found["take_up"] = True
    return found


def drilled(seed: int) -> Own:
    """What the trainer makes of thirty rounds of turns by a hand that is 6 % slow and even to 4 %."""
    rng = np.random.default_rng(seed)
    rounds = [Tapped(10.0, 10.0 * math.exp(0.06 + 0.04 * rng.standard_normal())) for _ in range(30)]
    hand = hand_of(rounds)
    assert hand is not None
    return Own(learned=Learned(turned=hand.turning))


def main() -> None:
    """Print how often the told bands hold. ``python -m bench.bands [draws] [seed]``."""
    draws = int(sys.argv[1]) if len(sys.argv) > 1 else 100
    seed = int(sys.argv[2]) if len(sys.argv) > 2 else 11
    held: dict[str, Held] = {}
    shares: dict[tuple[str, float], list[float]] = {}
    for told in steady(Stranger(seed), draws):
        for name in (f"steady, {told.family}", "steady"):
            held.setdefault(name, Held()).put(told.depth, told.band)
        shares.setdefault((told.family, told.share), []).append(told.came)
    for told in steady(Stranger(seed + 2, trained=True), draws, drilled(seed)):
        held.setdefault("steady, trained hand", Held()).put(told.depth, told.band)
    for way, value, band in in_ways(Stranger(seed + 1), max(10, draws // 3)):
        held.setdefault(way, Held()).put(value, band)
    for name in sorted(held):
        print(f"{name:32s} {held[name].said()}")
    off = [told - float(np.mean(came)) for (_, told), came in shares.items()]
    print(
        f"shares among the fish: told less came {np.mean(off):+.3f} in the mean of {len(off)} rigs, "
        f"{np.median(np.abs(off)):.3f} either way (median), {np.max(np.abs(off)):.3f} at most"
    )


if __name__ == "__main__":
    main()
