"""The fall against published drag and its limits, and what is felt of a lure."""

import math
from dataclasses import replace

import numpy as np
import pytest
from fluids import drag
from hypothesis import given
from hypothesis import strategies as st

from heathdrop.catalog import Catalog
from heathdrop.physics.fall import depth_after_s, fall_speed_m_s, fall_time_s, time_to_depth_s
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Lure
from heathdrop.physics.touch import line_pull_n, touch_of
from heathdrop.physics.water import water_at
from heathdrop.units import KG_PER_OZ, metres
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


BARE = Line(0.37e-3, 1780.0, 0.0)


FLUORO = Line(0.37e-3, 1780.0, 0.010)


def test_sphere_terminal_speed_against_published_drag() -> None:
    """10 mm of lead at 15 °C sinks at 1.776 m/s: with the sphere's own Cd our closed form says the same."""
    water = water_at(59.0)
    mu = water.viscosity_m2_s * water.density_kg_m3
    published = drag.v_terminal(D=0.01, rhop=11340.0, rho=water.density_kg_m3, mu=mu)
    assert published == pytest.approx(1.776, abs=0.02)
    cd = drag.drag_sphere(0.01 * published / water.viscosity_m2_s)
    volume = math.pi * 0.01**3 / 6
    weight = volume * (11340.0 - water.density_kg_m3) * 9.80665
    area = cd * math.pi * 0.01**2 / 4
    assert fall_speed_m_s(weight, area, 0.0, BARE, water) == pytest.approx(published, rel=2e-3)


@given(z=st.floats(0.01, 20), area=st.floats(1e-4, 2e-2), surface=st.floats(0, 30))
def test_fall_time_is_the_integral_of_one_over_speed(z: float, area: float, surface: float) -> None:
    water = water_at(60.0)
    depth = np.linspace(0.0, z, 4001)
    steps = 1.0 / fall_speed_m_s(0.1, area, depth, FLUORO, water, surface)
    assert fall_time_s(0.1, area, z, FLUORO, water, surface) == pytest.approx(
        np.trapezoid(steps, depth), rel=1e-6
    )


@given(seconds=st.floats(0.05, 60), glide=st.floats(0, 2))
def test_depth_after_undoes_time_to_depth(seconds: float, glide: float) -> None:
    lure, water = Lure(0.014, 0.1, 8e-4, 1e-3, 3e-4, glide), water_at(60.0)
    depth = depth_after_s(lure, seconds, FLUORO, water)
    assert time_to_depth_s(lure, depth, FLUORO, water) == pytest.approx(seconds, rel=1e-9)


def test_every_catalogue_number_has_origin_and_spread(cat: Catalog) -> None:
    for table in ("materials", "heads", "skirts", "families", "trailers", "lines"):
        rows = getattr(cat, table)
        columns = {
            name
            for row in rows.values()
            for name, value in vars(row).items()
            if isinstance(value, float) or (isinstance(value, tuple) and name == "diameters_mm")
        }
        named = set(cat.provenance[table]) | {"long", "tall", "wide"}
        assert columns <= named, f"{table}: no provenance for {columns - named}"
    kinds = {p.origin for table in cat.provenance.values() for p in table.values()}
    assert kinds <= {"textbook", "practice", "assumption", "fitted"}


WATER_TOUCH = water_at(50.0)


#: A lead head's net weight, N per oz.
NET_N_OZ = KG_PER_OZ * 9.80665 * (1.0 - 1.0 / 11.0)


def test_the_step_is_the_tick_over_what_gives(cat: Catalog) -> None:
    """Bow, stretch and tip in series, by hand."""
    line, n = line_by_test(cat, "fluorocarbon", 12), cat.judgement.touch
    weight, depth, away, wind = 0.12, 5.0, 15.0, 4.0
    length = math.hypot(depth, away)
    pull = line_pull_n(cat, line, WATER_TOUCH, depth, away, wind)
    load = math.hypot(pull / length, line.net_weight_n_m(WATER_TOUCH.density_kg_m3))
    bow = load**2 * length**3 / (12.0 * (weight + pull) ** 3)
    stretch = length / (2.2e9 * math.pi * (0.31e-3) ** 2 / 4.0)
    assert line.stretch_m_n(length) == pytest.approx(stretch)
    wanted = n.tick_m / (bow + stretch + n.tip_m_n)
    assert touch_of(cat, line, WATER_TOUCH, depth, away, wind).step_n(weight) == pytest.approx(wanted)
    felt = 0.5 * (1.0 + math.erf(math.log(wanted / n.threshold_n) / n.scatter / math.sqrt(2.0)))
    assert touch_of(cat, line, WATER_TOUCH, depth, away, wind).felt(weight) == pytest.approx(felt)


def test_no_step_is_more_than_the_lure(cat: Catalog) -> None:
    line = line_by_test(cat, "braid", 15)
    assert touch_of(cat, line, WATER_TOUCH, 1.0, 2.0, 0.0).step_n(0.01) <= 0.01
    assert touch_of(cat, line, WATER_TOUCH, 1.0, 2.0, 0.0).felt(0.0) == 0.0
    assert touch_of(cat, line, WATER_TOUCH, 1.0, 2.0, 0.0).felt(-0.1) == 0.0


def felt(cat: Catalog, oz: float, material: str, test: float, depth_ft: float, mph: float) -> float:
    line = line_by_test(cat, material, test)
    return touch_of(cat, line, WATER_TOUCH, metres(depth_ft), metres(55.0), mph).felt(oz * NET_N_OZ)
