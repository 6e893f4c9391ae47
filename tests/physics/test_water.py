"""Fresh water against published values."""

from __future__ import annotations

import math

import numpy as np
import pytest

from heathdrop.errors import BadInput
from heathdrop.physics.water import density_kg_m3, viscosity_pa_s, water_at


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
