"""The line simulation against the converged reference and against textbook curves."""

import math

import numpy as np
import pytest

from bench.studies import SHARES, draws, errors_of, one_against_reference, sampled_bands
from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, Fidelity, fly
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure
from heathdrop.physics.water import water_at

WATER = water_at(58.0)


@pytest.mark.slow
@pytest.mark.long
def test_random_casts_agree_with_the_reference(cat: Catalog) -> None:
    """Six of the seeded casts of docs/model.md: display within 0.15 m or 7 % everywhere, 3 % in the
    median."""
    depths = np.array([one_against_reference(d) for d in draws(cat, 6, seed=3)])
    found = errors_of(depths)
    assert depths.shape == (6, 4, len(SHARES))
    assert found["worst_over_allowed"] <= 1.0
    assert found["median_share"] <= 0.03


@pytest.mark.slow
def test_bands_hold_eight_of_ten_sampled_casts(cat: Catalog) -> None:
    """Quadrature against 150 draws from the same spreads: 80 % inside, within what 150 draws can tell."""
    for k, draw in enumerate(draws(cat, 3, seed=7)):
        found = sampled_bands(cat, draw, 150, seed=k)
        assert found["fall"] == pytest.approx(0.80, abs=0.10)
        assert found["mean"] == pytest.approx(0.80, abs=0.10)
        assert 0.8 < found["fall_ratio"] < 1.25


def test_a_line_at_rest_hangs_in_a_catenary() -> None:
    """Tip at the surface, lure held on a ledge, still water: the curve of a hanging chain of that length."""
    line = Line(0.6e-3, 3000.0, 0.010)
    anchor = Lure(10.0, 60.0, 1e-3, 1e-3, 0.0)
    ledge = ((0.0, 40.0), (9.4, 40.0), (9.5, 5.0), (60.0, 5.0))
    program = [
        Phase("fall", slack=True),
        Phase("retrieve", speed_m_s=0.5, for_s=6.6),
        Phase("pause", for_s=240.0),
    ]
    cast = fly(
        anchor,
        line,
        WATER,
        Cast(10.0, 0.0, ledge),
        program,
        fidelity=Fidelity(60, 1.0, 0.02, 0.02),
        shapes=True,
    )
    shape, length = cast.shapes[-1], cast.samples.line[-1]
    x1, z1 = shape[-1]
    assert math.hypot(x1, z1) < length < 1.1 * math.hypot(x1, z1)
    # Textbook catenary through (0, 0) and (x1, z1) with this length: sqrt(L² − z²) = 2a sinh(x / 2a).
    low, high = 0.5, 500.0
    for _ in range(200):
        a = 0.5 * (low + high)
        if 2 * a * math.sinh(x1 / (2 * a)) > math.sqrt(length**2 - z1**2):
            low = a
        else:
            high = a
    middle = 0.5 * x1 + a * math.atanh(z1 / length)
    crown = a * math.cosh(middle / a)
    expected = crown - a * np.cosh((shape[:, 0] - middle) / a)
    assert shape[:, 1] == pytest.approx(expected, abs=0.06)


def test_a_lure_on_a_tight_line_is_a_pendulum() -> None:
    """No drag to speak of: the period is 2π √(L m / W), W the weight in water."""
    line = Line(2e-5, 1000.0, 0.0)
    lure = Lure(0.1, 0.5, 1e-9, 1e-9, 0.0)
    cast = Cast(0.5, 0.0, ((-50.0, 60.0), (50.0, 60.0)))
    program = [Phase("fall", slack=True, to_depth_m=8.0), Phase("pause", for_s=60.0)]
    r = fly(lure, line, WATER, cast, program, fidelity=Fidelity(6, 1.0, 0.001, 0.002), sample_s=0.02)
    after = r.time_s > r.fall_s + 2.0
    t, x, length = r.time_s[after], r.distance_m[after], r.samples.line[-1]
    crossings = t[:-1][(x[:-1] > 0) & (x[1:] <= 0)]
    period = float(np.diff(crossings).mean())
    assert period == pytest.approx(
        2 * math.pi * math.sqrt(length * lure.mass_kg / lure.net_weight_n), rel=0.03
    )


@pytest.mark.slow
def test_the_reference_itself_is_converged(cat: Catalog) -> None:
    """Half the segments and twice the step move the reference by less than 2 cm."""
    from bench.reference import depth_at, reference_cast

    d = draws(cat, 1, seed=11)[0]
    fine, coarse = (
        reference_cast(d.lure, d.line, d.water, 20.0, 0.6, 2.0, 0.7, segments=n, step_s=dt)
        for n, dt in ((100, 2e-4), (50, 4e-4))
    )
    for at in (16.0, 12.0, 8.0, 5.0):
        assert depth_at(coarse, at) == pytest.approx(depth_at(fine, at), abs=0.02)
