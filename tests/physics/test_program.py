"""Every way of working a lure: its phases as legs, and that it does what its name says."""

from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast, CastResult, fly
from heathdrop.physics.kernels.records import FAR, Leg
from heathdrop.physics.line import line_by_test
from heathdrop.physics.program import KINDS, LONGEST_CAST_S, MOST_LEGS, Phase, Scene, legs_of
from heathdrop.physics.rig import lure_of, rig_by_name
from heathdrop.physics.water import water_at
from tests.golden_file import holds_to
from tests.said import said_of

SCENE = Scene(distance_m=20.0, deepest_m=4.0, fall_m_s=0.8, tip_m=0.6)


NEEDED = {"retrieve": {"speed_m_s": 0.7}, "slow-roll": {"speed_m_s": 0.5}}


TIMED = ("pause", "kill", "swing")


FULL = {"speed_m_s": 0.45, "lift_m": 0.31, "times": 2, "wait_s": 1.7}


def phase(do: str, **more: object) -> Phase:
    seconds = {"for_s": 2.0} if do in TIMED else {}
    return Phase(do, **{**NEEDED.get(do, {}), **seconds, **more})  # type: ignore[arg-type]


def what_counts(leg: Leg) -> dict[str, float]:
    """The fields of a leg that end it or move something."""
    return {k: v for k, v in leg._asdict().items() if v != 0.0 and abs(v) < FAR}


def test_every_kind_leg_by_leg() -> None:
    found = {}
    for do in KINDS:
        found[do] = legs_of([phase(do)], 0, SCENE)[:3]
        found[f"{do}, told"] = legs_of([phase(do, **FULL, for_s=2.4)], 0, SCENE)[:3]
        moved = legs_of([phase(do, take_up=True, tip_m=1.5, times=1)], 0, SCENE)
        assert (moved[0].time, moved[0].tip_z) == (1.0, pytest.approx(-0.9))
        if do in ("retrieve", "hop", "lift-and-drop"):
            found[f"{do}, taken up, tip moved"] = moved[:3]
    found["a slack fall"] = legs_of([Phase("fall", slack=True)], 0, SCENE)
    found["a fall to a depth"] = legs_of([Phase("fall", to_depth_m=2.5)], 0, SCENE)
    found["from the second on"] = legs_of([phase("hop"), phase("retrieve"), phase("pause")], 1, SCENE)
    found["the tip moved twice"] = legs_of([phase("pause", tip_m=1.5), phase("pause", tip_m=1.5)], 0, SCENE)
    holds_to("physics.program", {name: [what_counts(leg) for leg in legs] for name, legs in found.items()})


BOUNDS = {
    "speed_ft_s": ("retrieve", "speed_m_s", 0.03, 4.6, "m/s"),
    "lift": ("hop", "lift_m", 0.002, 3.1, "m"),
    "wait_s": ("hop", "wait_s", 0.0, 60.0, "s"),
    "for_s": ("pause", "for_s", 0.0, 600.0, "s"),
    "rod_tip_height_ft": ("pause", "tip_m", 0.0, 4.0, "m"),
}


@pytest.mark.parametrize("name", BOUNDS)
def test_numbers_out_of_bounds_are_named(name: str) -> None:
    do, field, low, high, unit = BOUNDS[name]
    for outside in (low - 0.001, high + 0.001):
        with pytest.raises(BadInput) as refusal:
            legs_of([phase("fall", slack=True), phase(do, **{field: outside})], 1, SCENE)
        assert str(refusal.value).startswith(f"program[1].{name} was {outside:g}")
        assert f"from {low:g} to {high:g} {unit}" in str(refusal.value)
    for inside in (low, high if name != "lift" else 3.0):
        more = {"times": 1} if do == "hop" else {}
        near = replace(SCENE, distance_m=10.0)
        assert legs_of([phase(do, **{field: inside}, **more)], 0, near)


@pytest.mark.parametrize("do", [d for d in KINDS if d not in ("fall", "retrieve", "pause", "kill", "swing")])
def test_times_and_waits_have_bounds(do: str) -> None:
    said = [said_of(lambda k=k: len(legs_of([phase(do, times=k)], 0, SCENE))) for k in (1, 2, 0, 101)]
    if do in ("shake", "slow-roll"):
        assert said[0] == said[2]
        return
    assert said[1] > said[0] > 0
    assert all("program[0].times was " in s and "from 1 to 100 times" in s for s in said[2:])


def test_what_cannot_be_played() -> None:
    given = {
        "unknown": [Phase("splash")],
        "no speed": [Phase("retrieve")],
        "no seconds": [Phase("pause")],
        "too long": [phase("pause", for_s=301.0), phase("pause", for_s=300.0)],
        "too many": [phase("shake", for_s=340.0)],
        "home before": [phase("retrieve", speed_m_s=0.03)] * 2,
    }
    holds_to(
        "physics.program.refused",
        {k: said_of(lambda p=p: len(legs_of(p, 0, SCENE))) for k, p in given.items()},
    )
    assert (
        sum(leg.time for leg in legs_of([phase("pause", for_s=LONGEST_CAST_S)], 0, SCENE)) == LONGEST_CAST_S
    )
    assert len(legs_of([phase("shake", for_s=330.0)], 0, SCENE)) <= MOST_LEGS


WATER = water_at(58.0)


FLAT = Cast(22.0, 1.0, ((0.0, 3.0), (200.0, 3.0)))


STEPS = Cast(22.0, 1.0, ((0.0, 2.0), (8.0, 2.0), (8.2, 2.7), (15.0, 2.7), (15.2, 3.4), (200.0, 3.4)))


def played(cat: Catalog, *then: Phase, cast: Cast = FLAT, oz: float = 0.5) -> CastResult:
    """Down on slack line, then the phases asked for."""
    lure = lure_of(cat, rig_by_name(cat, "casting-jig", oz, "craw"), WATER.density_kg_m3, 60.0)
    return fly(lure, line_by_test(cat, "fluorocarbon", 15), WATER, cast, [Phase("fall", slack=True), *then])


def test_a_lure_is_lifted_over_ledges_and_never_through_them(cat: Catalog) -> None:
    lifted = played(cat, Phase("lift-and-drop", lift_m=1.5, times=14), cast=STEPS)
    floor = np.array([STEPS.bottom_at(x) for x in lifted.distance_m])
    assert lifted.distance_m[0] > 15.2
    assert lifted.distance_m[-1] < 15.0
    assert (lifted.depth_m <= floor + 0.06).all()
    assert lifted.on_bottom[lifted.distance_m < 14.5].any()  # comes to rest on the higher step
