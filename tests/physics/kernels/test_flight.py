"""The compiled flight at its own step against finer ones, and where it ends."""

from __future__ import annotations

import math

import pytest

from heathdrop.physics.kernels import flight


def test_the_step_is_fine_enough() -> None:
    """The same rule with a quarter of the step, written out in plain Python."""
    mass, drag, line, speed, angle = 0.012, 5e-4, 3e-4, 26.0, math.radians(30.0)
    dt, x, z = flight.STEP_S / 4.0, 0.0, 2.0
    u, w = speed * math.cos(angle), speed * math.sin(angle)
    while True:
        v = math.hypot(u, w)
        ax, az = -(drag + line) * v * u / mass, -9.80665 - (drag + line) * v * w / mass
        um, wm = u + 0.5 * dt * ax, w + 0.5 * dt * az
        vm = math.hypot(um, wm)
        ax, az = -(drag + line) * vm * um / mass, -9.80665 - (drag + line) * vm * wm / mass
        if z + dt * wm <= 0.0 and wm < 0.0:
            x += dt * um * z / -(dt * wm)
            break
        x, z, u, w = x + dt * um, z + dt * wm, u + dt * ax, w + dt * az
    found = flight.distance_flown(mass, drag, line, speed, angle, 2.0, 0.0)
    assert found == pytest.approx(x, rel=1e-3)


def test_a_throw_downward_ends_at_the_water() -> None:
    assert flight.distance_flown(0.014, 0.0, 0.0, 10.0, -math.pi / 4, 2.0, 0.0) < 2.0


def test_nothing_flies_for_ever() -> None:
    """A feather in a gale is let go after the longest flight."""
    found = flight.distance_flown(0.01, 0.01, 0.0, 5.0, 0.5, 1e9, 8.0)
    assert found == pytest.approx(8.0 * flight.LONGEST_S, rel=0.05)
