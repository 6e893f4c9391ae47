"""Simulated anglers with known truth: how fast drop tests teach, and what spoils them."""

import math
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from heathdrop.catalog import Catalog
from heathdrop.learning.drops import far_tries, predicted_s, prior_spreads, suspicion
from heathdrop.learning.learned import NINETY, fall_area_cm2, learn
from heathdrop.learning.observations import DropTest
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import rig_by_name, spread_of
from heathdrop.sizing.bands import EIGHTY

TRIES = 3


@dataclass(frozen=True)
class Angler:
    """How somebody times a drop: scatter (relative), a constant lateness (s), a slip of unit, a depth off by
    so much from test to test, an odd try (a factor on one in nine), heavy tails (degrees of freedom)."""

    name: str
    scatter: float
    late_s: float = 0.0
    depth_factor: float = 1.0
    depth_off: float = 0.0
    odd: float = 1.0
    freedom: float | None = None
    read: float = 1.0
    dragged_m: float = 0.0
    tempo: float = 1.0
    tests: int = 3
    depths_m: tuple[float, float] = (2.0, 4.0)


ANGLERS = (
    Angler("careful", 0.05),
    Angler("ordinary", 0.10),
    Angler("noisy", 0.25),
    Angler("late by 0.3 s", 0.08, late_s=0.3),
    Angler("early by 0.2 s", 0.08, late_s=-0.2),
    Angler("depth off by a tenth", 0.08, depth_off=0.10),
    Angler("one try doubled", 0.08, odd=2.0),
    Angler("heavy tails", 0.08, freedom=2.0),
    Angler("metres for feet", 0.08, depth_factor=3.2808),
    Angler("ten tests", 0.10, tests=10, depths_m=(1.5, 7.0)),
    Angler("10 m of line dragged", 0.10, dragged_m=10.0),
    Angler("10 m dragged, ten tests", 0.10, dragged_m=10.0, tests=10, depths_m=(1.5, 7.0)),
    Angler("depth read 15 % too deep", 0.10, read=1.0 / 1.15),
    Angler("15 % too deep, ten tests", 0.10, read=1.0 / 1.15, tests=10, depths_m=(1.5, 7.0)),
    Angler("counts 8 % slow", 0.10, tempo=0.92),
)


def scrapped(catalog: Catalog, test: DropTest) -> DropTest:
    """A test as an angler keeps it who scraps the drops that are asked about, one at a time."""
    times = list(test.times_s)
    while len(times) > 2 and (far := far_tries(catalog, times)):
        middle = float(np.median(times))
        times.remove(max(far, key=lambda t: abs(math.log(t / middle))))
    return replace(test, times_s=tuple(times))


def study(catalog: Catalog, angler: Angler, people: int = 200, seed: int = 1) -> dict[str, Any]:
    """Median relative fall error before and after, and how often the 80 and the 90 % band hold the truth.

    Each of ``people`` has a rig of their own whose true factors are drawn from the prior.
    """
    rng = np.random.default_rng(seed)
    before, after, sure, asked = [], [], [], 0
    for _ in range(people):
        family = str(rng.choice(["swim-jig", "casting-jig", "flipping-jig", "bladed-jig", "football-jig"]))
        trailer = str(rng.choice(["craw", "chunk", "paddle-tail", "twin-tail", "beaver", "creature"]))
        rig = rig_by_name(catalog, family, float(rng.choice([0.25, 0.375, 0.5, 0.75])), trailer)
        line = line_by_test(catalog, "fluorocarbon", 15)
        base = DropTest(rig, line, "fluorocarbon", 3.0, (1.0,))
        truth = np.exp(rng.standard_normal(3) * np.array(prior_spreads(catalog, base)))
        seen = []
        for depth in np.linspace(*angler.depths_m, angler.tests).tolist():
            there = depth * math.exp(angler.depth_off * rng.standard_normal()) if angler.depth_off else depth
            drop = replace(base, depth_m=there * angler.read, surface_line_m=angler.dragged_m)
            real = angler.tempo * predicted_s(catalog, drop, *(float(v) for v in truth))
            noise = rng.standard_normal(TRIES)
            if angler.freedom is not None:
                noise = rng.standard_t(angler.freedom, TRIES)
            times = np.clip(real * np.exp(angler.scatter * noise) + angler.late_s, 0.3, 120.0)
            if angler.odd != 1.0 and not seen:
                times[0] *= angler.odd
            seen.append(
                replace(base, depth_m=depth / angler.depth_factor, times_s=tuple(float(t) for t in times))
            )
        kept = [scrapped(catalog, t) for t in seen]
        trusted = [t for t in kept if suspicion(catalog, t) is None]
        asked += len(seen) - len(trusted)
        own = learn(catalog, trusted).applied(rig)
        real_rig = replace(
            rig, measured=replace(rig.measured, body_fall=float(truth[0]), trailer_fall=float(truth[1]))
        )
        areas = [fall_area_cm2(catalog, r, 60.0) for r in (real_rig, rig, own)]
        off = 0.5 * math.log(areas[0] / areas[2])
        before.append(abs(0.5 * math.log(areas[0] / areas[1])))
        after.append(abs(off))
        sure.append(abs(off) / (0.5 * spread_of(catalog, own, 60.0).fall))
    return {
        "angler": angler.name,
        "before": float(np.median(before)),
        "after": float(np.median(after)),
        "held_80": float(np.mean(np.array(sure) <= EIGHTY)),
        "held": float(np.mean(np.array(sure) <= NINETY)),
        "asked": asked / (people * angler.tests),
    }
