"""The search as it is shared out: by itself, in a forked process, from what was found before."""

from __future__ import annotations

import os

import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, line_params, lure_params
from heathdrop.physics.kernels.records import Limits, Scene
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.water import water_at
from heathdrop.sizing.tune import TUNED, replayed, scene_of, tune, tuned_at

WATER = water_at(58)
LIMITS = Limits(0.4, 1.2, 2.6, 0.3, 0.5, 0.9, 0.45, 0.35, 24.0)


@pytest.fixture
def scene(cat: Catalog) -> Scene:
    flat = Cast(24.0, 0.6, ((0.0, 4.0), (300.0, 4.0)))
    return scene_of(line_by_test(cat, "fluorocarbon", 15), WATER, flat, (1.2, 1.8), 1e6)


def lures(cat: Catalog) -> list[Lure]:
    rigs = [rig_by_name(cat, "swim-jig", oz, "craw") for oz in (0.25, 0.5, 1.0)]
    return [lure_of(cat, rig, WATER.density_kg_m3, 58.0) for rig in rigs]


def test_lures_do_not_influence_one_another(cat: Catalog, scene: Scene) -> None:
    some = lures(cat)
    TUNED.clear()
    together = tune(some, [LIMITS] * 3, scene)
    TUNED.clear()
    alone = [tune([lure], [LIMITS], scene)[0] for lure in some]
    assert together == alone
    assert tune([], [], scene) == []
    for found in together:
        assert LIMITS.slowest_m_s <= found.pace_m_s <= LIMITS.fastest_m_s
        assert 0.0 < found.start_depth_m <= LIMITS.deepest_start_m
        assert 0.0 <= found.soft_share <= 1.0
        assert found.shallowest_m <= found.mean_m <= found.deepest_m


def test_the_rounds_go_on_from_what_was_found(cat: Catalog, scene: Scene) -> None:
    some = lures(cat)
    TUNED.clear()
    begun = tune(some, [LIMITS] * 3, scene, refine=False, rounds=0)
    TUNED.clear()
    assert tune(some, [LIMITS] * 3, scene, True, 3, begun) == tune(some, [LIMITS] * 3, scene)
    once = tune(some, [LIMITS] * 3, scene, refine=False, rounds=-1)
    assert all(
        o.soft_share * o.comfort <= b.soft_share * b.comfort + 1e-3 for o, b in zip(once, begun, strict=True)
    )


def test_a_setting_that_is_given_is_what_is_played(cat: Catalog, scene: Scene) -> None:
    lure = lures(cat)[1]
    found = tuned_at(lure, LIMITS, scene, 0.7, 1.5)
    assert (found.pace_m_s, found.start_depth_m) == (0.7, 1.5)
    line = line_params(line_by_test(cat, "fluorocarbon", 15), WATER)
    again = replayed([(lure_params(lure), line, 0.7, 1.5, 24.0)], scene)[0]
    assert again.mean_m == pytest.approx(found.mean_m, abs=0.15)


def test_a_forked_process_searches_too(cat: Catalog, scene: Scene) -> None:
    some = lures(cat)
    TUNED.clear()
    here = tune(some, [LIMITS] * 3, scene)
    TUNED.clear()
    child = os.fork()
    if child == 0:
        os._exit(0 if tune(some, [LIMITS] * 3, scene) == here else 1)
    _, status = os.waitpid(child, 0)
    assert os.waitstatus_to_exitcode(status) == 0
