"""Fish that are not the program's own: what `make days` throws at.

Three worlds, each with its own sources and numbers, written before the search that is tried on them and
frozen
since. None imports the program's belief, liking or detection: they know a stop's water and a cast's path.
"""

import random
from dataclasses import dataclass
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

#: Directions that a stop's casts lie in, as the fish have it.
LANES = 7


@dataclass(frozen=True)
class Water:
    """A stop as fish have it: °F, ft, ft of sight, words for cover and light; ``said_ft`` where they are said
    to be and are (None: they stand as such fish do)."""

    temp_f: float
    bottom_ft: float
    clarity_ft: float
    cover: str
    top_ft: float | None
    light: str
    said_ft: float | None


@dataclass(frozen=True)
class Thrown:
    """A cast as it ran: seconds and depths (ft), when its work begins (s), its pace (ft/s), what it is, the
    direction (0 to ``LANES``)."""

    t_s: NDArray[np.float64]
    depth_ft: NDArray[np.float64]
    work_s: float
    pace_ft_s: float
    family: str
    trailer: str
    swum: bool
    lane: int

    def spent(self, low_ft: float, high_ft: float, whole: bool = False) -> tuple[float, float]:
        """Seconds between two depths while it is worked (``whole``: from the splash on), and the middle
        second of them."""
        middles = 0.5 * (self.depth_ft[1:] + self.depth_ft[:-1])
        inside = (middles >= low_ft) & (middles <= high_ft)
        if not whole:
            inside &= self.t_s[1:] > self.work_s
        seconds = np.diff(self.t_s) * inside
        total = float(seconds.sum())
        return total, float((seconds * self.t_s[1:]).sum() / total) if total > 0.0 else 0.0


@dataclass(frozen=True)
class Bite:
    """A bite: whether the fish came in, and the second after the splash."""

    landed: bool
    at_s: float


class Fish(Protocol):
    """The fish of one stop on one day; ``home``: whether any are there that bite."""

    home: bool

    def meet(self, cast: Thrown, minute: float, dice: random.Random) -> Bite | None:
        """What becomes of a cast that is thrown so many minutes after the first."""
