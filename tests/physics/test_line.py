"""Lines: the published drag of a cylinder, the table and between its rows."""

from __future__ import annotations

import numpy as np
import pytest

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.line import line_by_test, normal_drag_coefficient


def test_cylinder_drag_published_fit() -> None:
    """White's fit: Re 10³ gives 1.1, and the coefficient tends to 1."""
    assert normal_drag_coefficient(np.array([1e3, 1e9])) == pytest.approx([1.1, 1.0], abs=1e-4)


def test_line_table_and_between(cat: Catalog) -> None:
    assert line_by_test(cat, "fluorocarbon", 15).diameter_m == pytest.approx(0.37e-3)
    assert 0.31e-3 < line_by_test(cat, "fluorocarbon", 13).diameter_m < 0.37e-3
    ratio = line_by_test(cat, "nylon", 15).diameter_m / line_by_test(cat, "fluorocarbon", 15).diameter_m
    assert ratio == pytest.approx(1.08, abs=0.005)
    with pytest.raises(BadInput, match=r"line.test_lb was 0; it must be from 4 to 25 lb for fluorocarbon\."):
        line_by_test(cat, "fluorocarbon", 0)
