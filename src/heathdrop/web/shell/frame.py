"""The drawing's frame: sizes, margins and the way from feet to drawing units."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from heathdrop.units import feet

LEFT, RIGHT, HEADROOM, FLOOR = 46.0, 14.0, 16.0, 34.0
LEAST_SKY = 30.0


@dataclass(frozen=True)
class Frame:
    """A drawing's size: wide for the table at home, narrow for the phone on deck."""

    name: str
    width: float
    height: float


WIDE, NARROW = Frame("wide", 900.0, 276.0), Frame("narrow", 380.0, 216.0)
#: Where the section shares the screen with much else.
LOW, NARROW_LOW = Frame("wide", 900.0, 184.0), Frame("narrow", 380.0, 190.0)


class Scale:
    """From feet to drawing units: the angler at the left, depth downward."""

    def __init__(self, frame: Frame, cast_ft: float, bottom_ft: float, tip_ft: float) -> None:
        self.per_ft_x = (frame.width - LEFT - RIGHT) / (cast_ft * 1.04)
        self.per_ft_y = (frame.height - HEADROOM - FLOOR) / (bottom_ft + tip_ft)
        self.top = HEADROOM + tip_ft * self.per_ft_y
        if self.top < LEAST_SKY:
            self.top = LEAST_SKY
            self.per_ft_y = (frame.height - LEAST_SKY - FLOOR) / bottom_ft

    def x(self, distance_ft: float) -> float:
        return round(LEFT + distance_ft * self.per_ft_x, 1)

    def y(self, depth_ft: float) -> float:
        return round(self.top + depth_ft * self.per_ft_y, 1)

    def points(self, distance_m: NDArray[np.float64], depth_m: NDArray[np.float64]) -> str:
        """A polyline's points from metres."""
        x = np.round(LEFT + feet(1.0) * distance_m * self.per_ft_x, 1).tolist()
        y = np.round(self.top + feet(1.0) * depth_m * self.per_ft_y, 1).tolist()
        return " ".join([f"{a},{b}" for a, b in zip(x, y, strict=True)])
