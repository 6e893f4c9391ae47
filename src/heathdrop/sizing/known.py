"""What the angler's own measurements know of a rig, a line, a mat; sizing takes it as given."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from heathdrop.physics.line import Line
from heathdrop.physics.rig import Rig

__all__ = ["AS_TABLED", "UNTAUGHT", "Knowledge", "OwnFish"]


@dataclass(frozen=True)
class OwnFish:
    """How the angler's own fish differ from the tables, as the log told and the angler agreed: factors on the
    usual weight of a head and on the pace of a mood, and the casts that each rests on."""

    head: float = 1.0
    pace: float = 1.0
    head_casts: int = 0
    pace_casts: int = 0


AS_TABLED = OwnFish()


class Knowledge(Protocol):
    """Puts what was learned in place of what the catalogue assumes."""

    def applied(self, rig: Rig) -> Rig:
        """The rig with everything learned of its parts."""

    def line(self, line: Line, material: str) -> Line:
        """The line with the friction learned of its material."""

    def mat_factor(self, texture: str) -> float:
        """Factor on the half-way weight of a mat of this texture."""

    def count_error(self) -> float | None:
        """One sigma of a counted second (a share); None: the one assumed."""

    def own_fish(self) -> OwnFish:
        """What the angler's own fish want otherwise than the tables."""


class Untaught:
    """Nothing learned yet: the catalogue stands."""

    def applied(self, rig: Rig) -> Rig:
        return rig

    def line(self, line: Line, material: str) -> Line:
        return line

    def mat_factor(self, texture: str) -> float:
        return 1.0

    def count_error(self) -> float | None:
        return None

    def own_fish(self) -> OwnFish:
        return AS_TABLED


UNTAUGHT = Untaught()
