"""What a setting remembers of the rigs that it was asked about, so that each is worked out once."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Generic, NamedTuple, TypeVar

from heathdrop.physics.cast import Cast
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Areas, Lure, Rig, Spread
from heathdrop.physics.touch import Touch
from heathdrop.sizing.tackle import TackleFit

V = TypeVar("V")
#: Rigs kept as they were worked out.
MOST = 4000


class ByRig(Generic[V]):
    """A value for each rig, by its identity: to hash a rig would cost more than what is kept. Each entry
    holds its rig, so that no other one has its identity meanwhile; a full table begins anew."""

    def __init__(self) -> None:
        self._kept: dict[int, tuple[Rig, V]] = {}

    def of(self, rig: Rig, find: Callable[[Rig], V]) -> V:
        """The value of a rig, worked out by ``find`` where it is not kept."""
        entry = self._kept.get(id(rig))
        if entry is None or entry[0] is not rig:
            if len(self._kept) >= MOST:
                self._kept.clear()
            entry = self._kept[id(rig)] = rig, find(rig)
        return entry[1]


class RigInWater(NamedTuple):
    """A rig as it was worked out in water of one temperature."""

    areas: Areas
    lure: Lure
    spread: Spread


class TrailerPart(NamedTuple):
    """What a trailer makes of a rig whatever its head: its action (level, and how it fits), how it is liked,
    how its profile fits."""

    level: float
    action: float
    liking: float
    profile: float


class Closed(NamedTuple):
    """What no cast of a rig changes: its trailer's part, its head as it fishes (oz) and how usual that is,
    how line and rod suit it, how well it is felt."""

    tail: TrailerPart
    fishes_oz: float
    weight: float
    held: TackleFit
    felt: float


@dataclass(frozen=True)
class Remembered:
    """What one setting remembers: the casts of rigs, what no cast changes of them, their trailers' parts by
    what tells trailers apart, and what is felt on each line."""

    casts: ByRig[Cast] = field(default_factory=ByRig)
    closed: ByRig[Closed] = field(default_factory=ByRig)
    tails: dict[tuple[str, float, float, str], TrailerPart] = field(default_factory=dict)
    touch: dict[Line, Touch] = field(default_factory=dict)


def tail_key(rig: Rig) -> tuple[str, float, float, str]:
    """What tells one trailer on a rig from another: its shape, action, bulk and softness."""
    return rig.trailer.id, rig.trailer.action, rig.bulk_cm2, rig.softness.id
