"""Timed drops to log factors: the times reckoned, the posterior to its digits, the questions asked."""

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.learning.drops import (
    Factors,
    falls_of,
    learn_drops,
    predicted_s,
    prior_spreads,
    times_of,
)
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.rig import lure_of
from heathdrop.physics.water import water_at
from tests.golden_file import holds_to
from tests.learning.seen import drops


def test_the_times_are_those_of_the_closed_form_fall(cat: Catalog) -> None:
    """Packed for all tests at once, or one by one through the physics: the same seconds."""
    for test in drops(cat):
        water = water_at(test.temperature_f)
        lure = lure_of(cat, test.rig, water.density_kg_m3, test.temperature_f)
        alone = time_to_depth_s(lure, test.depth_m, test.line, water, test.surface_line_m)
        assert predicted_s(cat, test, 1.0, 1.0, 1.0) == pytest.approx(alone, rel=1e-9)


def told(known: Factors, shared: np.ndarray) -> dict[str, object]:
    """A posterior without the catalogue's own numbers, which stand in its table."""
    said = ("names", "mean", "cov", "error", "outliers")
    return {name: getattr(known, name) for name in said} | {"shared": shared}


def test_what_is_reckoned_and_learned_to_the_digit(cat: Catalog) -> None:
    seen = drops(cat)
    falls, learned = falls_of(cat, seen), learn_drops(cat, seen)
    odd = np.linspace(0.6, 1.5, len(seen))
    holds_to(
        "learning.drops",
        {
            "falls": falls,
            "times": times_of(falls, odd, odd[::-1], 1.3),
            "priors": [prior_spreads(cat, t) for t in seen],
            "posterior": told(learned, learned.shared[:1]),
            "one": told(learn_drops(cat, seen[:1]), np.zeros(0)),
        },
    )
