"""From feet to drawing units: the angler left, depth downward, sky for the rod."""

from __future__ import annotations

import numpy as np
import pytest

from heathdrop.web.shell.frame import FLOOR, LEAST_SKY, LEFT, LOW, NARROW, NARROW_LOW, RIGHT, WIDE, Scale


@pytest.mark.parametrize("frame", [WIDE, NARROW, LOW, NARROW_LOW])
@pytest.mark.parametrize(
    ("cast_ft", "bottom_ft", "tip_ft"), [(80.0, 9.0, 2.0), (20.0, 60.0, 0.0), (120.0, 1.0, 12.0)]
)
def test_everything_is_in_the_frame(frame, cast_ft: float, bottom_ft: float, tip_ft: float) -> None:  # type: ignore[no-untyped-def]
    s = Scale(frame, cast_ft, bottom_ft, tip_ft)
    assert s.x(0.0) == LEFT
    assert s.x(1.04 * cast_ft) == pytest.approx(frame.width - RIGHT, abs=0.1)
    assert s.y(bottom_ft) == pytest.approx(frame.height - FLOOR, abs=0.1)
    assert s.y(0.0) >= LEAST_SKY
    assert s.y(-tip_ft) >= 0.0 or tip_ft * s.per_ft_y > s.y(0.0)


def test_points_are_those_of_single_places() -> None:
    s = Scale(WIDE, 80.0, 9.0, 2.0)
    x, z = np.array([24.384, 12.192]), np.array([0.0, 1.8288])
    assert s.points(x, z) == f"{s.x(80.0)},{s.y(0.0)} {s.x(40.0)},{s.y(6.0)}"
