"""The fall against published drag, its own integral and its limits; parts that add up."""

from __future__ import annotations

import math

import numpy as np
import pytest
from fluids import drag
from hypothesis import given
from hypothesis import strategies as st

from heathdrop.catalog import Catalog
from heathdrop.physics.fall import depth_after_s, fall_speed_m_s, fall_time_s, time_to_depth_s
from heathdrop.physics.line import Line, line_by_test
from heathdrop.physics.rig import Lure, disc_area_m2, lure_of, rig_by_name
from heathdrop.physics.water import water_at

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


def test_fall_limits() -> None:
    water = water_at(60.0)
    assert fall_time_s(-0.1, 1e-3, 2.0, FLUORO, water) == math.inf
    assert fall_speed_m_s(np.array([0.0, 0.1]), 1e-3, 1.0, FLUORO, water)[0] == 0.0
    glider = Lure(0.014, 0.1, 8e-4, 1e-3, 3e-4, 1.0)
    straight = Lure(0.014, 0.1, 8e-4, 1e-3, 3e-4, 0.0)
    assert time_to_depth_s(glider, 2, FLUORO, water) == pytest.approx(
        time_to_depth_s(straight, 2, FLUORO, water) * 2**0.75
    )


def test_temperature_moves_the_fall_only_by_a_few_per_cent(cat: Catalog) -> None:
    """Viscosity nearly doubles between 80 and 40 °F; a jig's fall hardly notices."""
    times = []
    for f in (40.0, 80.0):
        water = water_at(f)
        lure = lure_of(cat, rig_by_name(cat, "swim-jig", 0.375, "craw"), water.density_kg_m3, 60.0)
        times.append(time_to_depth_s(lure, 3.0, line_by_test(cat, "fluorocarbon", 15), water))
    assert times[0] == pytest.approx(times[1], rel=0.03)


def test_parts_add_up(cat: Catalog) -> None:
    """A 3/8 oz lead head: 10.63 g, disc from its volume; trailers scale with length² and length³."""
    rig = rig_by_name(cat, "swim-jig", 0.375, "craw")
    lure = lure_of(cat, rig, 999.0, 60.0)
    disc = disc_area_m2(0.0106311, 11000.0) * 1e4
    assert lure.mass_kg * 1e3 == pytest.approx(10.631 + 2.5 + 2.0 + 10.0, abs=1e-2)
    assert lure.run_drag_area_m2 * 1e4 == pytest.approx(0.4 * disc + 6.5 + 5.0)
    assert lure.fall_drag_area_m2 * 1e4 == pytest.approx(0.4 * disc + 2.2 + 3.1)
    short = lure_of(cat, rig_by_name(cat, "swim-jig", 0.375, "craw", trailer_length_in=2.0), 999.0, 60.0)
    assert (lure.run_lift_area_m2 - short.run_lift_area_m2) * 1e4 == pytest.approx(2.3 * 0.75)
    assert (lure.mass_kg - short.mass_kg) * 1e3 == pytest.approx(10.0 * 7 / 8)
    heavy = lure_of(cat, rig_by_name(cat, "swim-jig", 0.375, "craw", head_material="tungsten"), 999.0, 60.0)
    assert heavy.net_weight_n > lure.net_weight_n
    assert heavy.fall_drag_area_m2 < lure.fall_drag_area_m2


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
