"""The closed-form fall at its ends: nothing, a leader, a line that pulls no friction."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, fly, surface_line_m
from heathdrop.physics.fall import depth_after_s, fall_speed_m_s, fall_time_s, glide_factor, time_to_depth_s
from heathdrop.physics.line import line_by_size, line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.touch import line_pull_n
from heathdrop.physics.water import water_at
from tests.golden_file import holds_to

WATER = water_at(58.0)
LURE = Lure(0.0145, 0.115, 0.0008, 0.001, 0.00026, 0.4)


def test_falls_to_the_digit(cat: Catalog) -> None:
    plain = line_by_test(cat, "braid", 30)
    lines = {
        "plain": plain,
        "leader": replace(plain, leader=line_by_test(cat, "fluorocarbon", 12), leader_m=2.5),
    }
    depths = np.array([0.5, 2.0, 2.5, 4.0, 12.0])
    holds_to(
        "physics.fall",
        {
            name: {
                f"{drawn:g} m drawn": {
                    "speed": fall_speed_m_s(0.115, 0.0008, depths, line, WATER, drawn),
                    "time": fall_time_s(0.115, 0.0008, depths, line, WATER, drawn),
                    "to": [time_to_depth_s(LURE, float(z), line, WATER, drawn) for z in depths],
                    "after": [depth_after_s(LURE, t, line, WATER, drawn) for t in (0.5, 2.0, 4.0, 9.0)],
                }
                for drawn in (0.0, 1.5, 4.0)
            }
            | {
                "mean": [line.mean_diameter_m(length) for length in (0.0, 1.0, 5.0)],
                "pull": line_pull_n(cat, line, WATER, 6.0, 15.0, 8.0),
                "weight": [line.net_weight_n_m(1000.0), line.thicker(0.1).net_weight_n_m(1000.0)],
            }
            for name, line in lines.items()
        },
    )


def test_nothing_falls_nowhere(cat: Catalog) -> None:
    line = line_by_test(cat, "nylon", 12)
    floats = replace(LURE, net_weight_n=-0.01)
    for seconds in (0.0, -1.0):
        assert depth_after_s(LURE, seconds, line, WATER) == 0.0
    assert depth_after_s(floats, 5.0, line, WATER) == depth_after_s(
        replace(LURE, net_weight_n=0.0), 5, line, WATER
    )
    assert depth_after_s(floats, 5.0, line, WATER) == 0.0
    assert time_to_depth_s(floats, 1.0, line, WATER) == np.inf
    assert float(fall_speed_m_s(-0.1, 0.001, 1.0, line, WATER)) == 0.0
    assert float(glide_factor(0.0)) == 1.0
    assert float(glide_factor(1.0)) == pytest.approx(2.0**-0.75)


def test_without_friction_depth_is_speed_times_time(cat: Catalog) -> None:
    slick = replace(line_by_size(cat, 0.3, 1780), friction=0.0)
    speed = float(fall_speed_m_s(LURE.net_weight_n, LURE.fall_drag_area_m2, 3.0, slick, WATER))
    sunk = speed * float(glide_factor(LURE.glide_ratio)) * 4.0
    assert depth_after_s(LURE, 4.0, slick, WATER) == pytest.approx(sunk)
    assert (slick.diameter_m, slick.density_kg_m3) == pytest.approx((0.0003, 1780))


def test_a_metre_of_line_weighs_what_its_volume_does(cat: Catalog) -> None:
    """0.37 mm of 1780 kg/m³ in 1000: π/4 · 0.37² mm² · 780 kg/m³ · 9.80665."""
    line = line_by_size(cat, 0.37, 1780)
    assert line.net_weight_n_m(1000.0) == pytest.approx(8.2245e-4, rel=1e-4)


def test_the_first_samples_are_the_fall(cat: Catalog) -> None:
    line, cast = line_by_test(cat, "fluorocarbon", 15), Cast(20.0, 0.6, ((0.0, 1.5), (300.0, 1.5)))
    lure = lure_of(cat, rig_by_name(cat, "swim-jig", 0.5, "craw"), WATER.density_kg_m3, 58.0)
    program = [Phase("fall", slack=True), Phase("retrieve", speed_m_s=0.7)]
    thrown = fly(lure, line, WATER, cast, program, shapes=True)
    pulled = fly(lure, line, WATER, cast, [replace(program[0], pulled_off_reel=True), program[1]])
    assert thrown.start_depth_m == pulled.start_depth_m == 1.5
    assert thrown.fall_s == pytest.approx(time_to_depth_s(lure, 1.5, line, WATER))
    assert pulled.fall_s == pytest.approx(time_to_depth_s(lure, 1.5, line, WATER, 0.5 * surface_line_m(cast)))
    fell = thrown.time_s < thrown.fall_s
    assert fell.sum() == int(np.ceil(thrown.fall_s / 0.1))
    assert thrown.depth_m[fell] == pytest.approx(
        [depth_after_s(lure, t, line, WATER) for t in thrown.time_s[fell]]
    )
    assert not thrown.on_bottom[fell].any()
    shape = thrown.shapes[int(fell.sum()) - 1]
    assert shape[0] == pytest.approx([0.0, -0.6])
    assert shape[-1] == pytest.approx([20.0, thrown.depth_m[fell][-1]])
    on_top = shape[(shape[:, 0] > 4.0) & (shape[:, 0] < 19.9)]
    assert on_top[:, 1] == pytest.approx(np.zeros(len(on_top)), abs=1e-9)
    assert np.isclose(np.diff(shape[:, 0]), np.diff(shape[:, 0])[5], atol=0.6).sum() > 15


def test_useful_is_from_eight_tenths_to_two_and_to_the_line(cat: Catalog) -> None:
    cast = Cast(10.0, 0.6, ((0.0, 5.0), (300.0, 5.0)))
    lure = lure_of(cat, rig_by_name(cat, "swim-jig", 0.5, "craw"), WATER.density_kg_m3, 58.0)
    found = fly(lure, line_by_test(cat, "nylon", 12), WATER, cast, [Phase("fall", slack=True, for_s=1.0)])
    s = found.samples
    rows = s._replace(
        t=np.array([0.0, 1.0, 2.0, 3.0, 4.0]),
        x=np.array([8.0, 8.0, 5.0, 2.0, 1.9]),
        z=np.array([1.0, 2.0, 3.0, 4.0, 5.0]),
    )
    made = replace(found, samples=rows, fall_s=1.0)
    assert made.useful().tolist() == [2.0, 3.0, 4.0]
    assert made.worked().tolist() == [2.0, 3.0, 4.0]
    far = replace(made, samples=rows._replace(x=np.full(5, 9.0)))
    assert far.useful().size == 0
    assert far.worked().tolist() == [2.0, 3.0, 4.0, 5.0]
