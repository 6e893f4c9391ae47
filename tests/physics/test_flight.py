"""Flight, line, leader and water against published values and closed forms."""

import math
from dataclasses import replace

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.flight import (
    Launch,
    Measured,
    Thrown,
    air_drag_kg_m,
    flown_m,
    launch_of,
    usual_cast,
    wind_along_m_s,
)
from heathdrop.physics.kernels.flight import GRAVITY, distance_flown
from heathdrop.physics.line import Line, normal_drag_coefficient
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import density_kg_m3, viscosity_pa_s, water_at
from heathdrop.units import KG_PER_OZ, feet, metres

#: 15 lb fluorocarbon, 2 m up, no wind, an all-round rod.
RATED = (0.25 * KG_PER_OZ, 2.0 * KG_PER_OZ)


CALM = Thrown(1.9e-4, 2.0, 0.0, RATED)


@pytest.mark.parametrize("angle", [0.2, 0.5, 0.8])
@pytest.mark.parametrize("speed", [12.0, 25.0])
def test_without_drag_it_is_the_parabola(speed: float, angle: float) -> None:
    u, w = speed * math.cos(angle), speed * math.sin(angle)
    seconds = (w + math.sqrt(w * w + 2.0 * GRAVITY * 2.0)) / GRAVITY
    assert distance_flown(0.014, 0.0, 0.0, speed, angle, 2.0, 0.0) == pytest.approx(u * seconds, rel=1e-3)


def test_a_level_throw_slows_by_the_closed_form() -> None:
    """Level and quick, gravity hardly bends it at first: x = ln(1 + K v t) / K with K = drag / mass."""
    mass, drag, speed = 0.014, 1e-4, 60.0
    seconds = math.sqrt(2.0 * 0.05 / GRAVITY)
    k = drag / mass
    closed = math.log(1.0 + k * speed * seconds) / k
    assert distance_flown(mass, drag, 0.0, speed, 0.0, 0.05, 0.0) == pytest.approx(closed, rel=0.01)


@pytest.mark.parametrize("mass_oz", [0.2, 0.5, 1.2])
@pytest.mark.parametrize("wind", [-6.0, 0.0, 6.0])
@pytest.mark.parametrize("speed", [15.0, 30.0])
def test_against_an_independent_integration(mass_oz: float, wind: float, speed: float) -> None:
    mass, drag, line, angle = mass_oz * KG_PER_OZ, 4.5e-4, 2.9e-4, math.radians(30.0)

    def slope(_: float, s: np.ndarray) -> list[float]:
        _, _, u, w = s
        past, along = math.hypot(u - wind, w), math.hypot(u, w)
        return [
            u,
            w,
            -(drag * past * (u - wind) + line * along * u) / mass,
            -GRAVITY - (drag * past * w + line * along * w) / mass,
        ]

    def water(_: float, s: np.ndarray) -> float:
        return float(s[1])

    water.terminal, water.direction = True, -1.0  # type: ignore[attr-defined]
    start = [0.0, 2.0, speed * math.cos(angle), speed * math.sin(angle)]
    found = solve_ivp(slope, (0.0, 20.0), start, events=water, rtol=1e-9, atol=1e-9, max_step=0.05)
    flown = distance_flown(mass, drag, line, speed, angle, 2.0, wind)
    assert flown == pytest.approx(float(found.y_events[0][0][0]), rel=0.01)


def test_the_usual_cast_comes_out_as_it_was_said(cat: Catalog) -> None:
    for cast_ft, oz in ((60.0, 0.25), (80.0, 0.5), (110.0, 0.75)):
        usual = usual_cast(cat, cast_ft, oz)
        launch = launch_of(cat, CALM, usual)
        assert feet(flown_m(launch, CALM, usual.mass_kg, usual.drag_kg_m)) == pytest.approx(cast_ft, abs=0.1)
        assert launch.line_factor == cat.flight.line_factor


def test_light_bulky_and_into_the_wind_fly_less_far(cat: Catalog) -> None:
    usual = usual_cast(cat, 80.0, 0.5)
    launch = launch_of(cat, CALM, usual)

    def at(mass_oz: float, cm2: float, thrown: Thrown = CALM) -> float:
        return flown_m(launch, thrown, mass_oz * KG_PER_OZ, air_drag_kg_m(cat, cm2 * 1e-4))

    by_mass = [at(oz, 11.0) for oz in (0.1, 0.3, 0.6, 1.0, 1.5)]
    assert by_mass == sorted(by_mass)
    assert by_mass[0] < 0.7 * by_mass[-1]
    assert at(0.6, 6.0) > at(0.6, 11.0) > at(0.6, 25.0)
    ahead, behind = (replace(CALM, wind_m_s=wind_along_m_s(cat, 12.0, w)) for w in ("ahead", "behind"))
    assert at(0.6, 11.0, ahead) < at(0.6, 11.0) < at(0.6, 11.0, behind)
    assert at(0.3, 25.0, ahead) / at(0.3, 25.0) < at(1.0, 8.0, ahead) / at(1.0, 8.0)
    assert wind_along_m_s(cat, 12.0, "across") == 0.0
    thick = replace(CALM, line_kg_m=4.0 * CALM.line_kg_m)
    assert at(0.6, 11.0, thick) < at(0.6, 11.0)


@pytest.mark.parametrize("factor", [0.5, 1.5, 4.0])
def test_a_second_cast_teaches_what_the_line_costs(cat: Catalog, factor: float) -> None:
    """Two casts of a hand whose line costs this much give the factor back, and so a third cast."""
    angle = math.radians(cat.flight.angle_deg)
    truth = Launch(24.0, factor, angle)

    def cast(oz: float) -> Measured:
        m = usual_cast(cat, 80.0, oz)
        return replace(m, distance_m=flown_m(truth, CALM, m.mass_kg, m.drag_kg_m))

    learned = launch_of(cat, CALM, cast(0.5), cast(0.125))
    assert learned.line_factor == pytest.approx(factor, abs=0.05)
    third = cast(1.0)
    assert flown_m(learned, CALM, third.mass_kg, third.drag_kg_m) == pytest.approx(third.distance_m, rel=0.01)


def test_two_casts_that_no_line_explains_take_the_nearest(cat: Catalog) -> None:
    far = replace(usual_cast(cat, 80.0, 0.125), distance_m=metres(140.0))
    assert launch_of(cat, CALM, usual_cast(cat, 80.0, 0.5), far).line_factor == 0.0


def test_cylinder_drag_published_fit() -> None:
    """White's fit: Re 10³ gives 1.1, and the coefficient tends to 1."""
    assert normal_drag_coefficient(np.array([1e3, 1e9])) == pytest.approx([1.1, 1.0], abs=1e-4)


WATER = water_at(58.0)


THIN, THICK = Line(0.15e-3, 970.0, 0.010), Line(0.43e-3, 1780.0, 0.010)


LURE = Lure(0.010, 0.08, 8e-4, 8e-4, 2e-4)


def test_water_published_values() -> None:
    """Tanaka 2001 and IAPWS 2008 at 5, 15, 25 °C, to the digits printed there."""
    t = np.array([5.0, 15.0, 25.0])
    assert density_kg_m3(t) == pytest.approx([999.967, 999.103, 997.047], abs=5e-4)
    assert viscosity_pa_s(t) * 1e3 == pytest.approx([1.5182, 1.1375, 0.8900], abs=5e-5)


def test_water_takes_scalars_arrays_empty_and_nan() -> None:
    assert density_kg_m3(15.0).shape == ()
    assert density_kg_m3(np.empty(0)).shape == (0,)
    assert np.isnan(viscosity_pa_s(np.array([math.nan]))).all()
    with pytest.raises(BadInput, match=r"water.temperature_f was 400; it must be from 32 to 100 °F\."):
        water_at(400.0)
