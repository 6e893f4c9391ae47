"""What the angler's own measurements know of a rig, a line, a mat; sizing takes it as given."""

from __future__ import annotations

from typing import Protocol

from heathdrop.physics.line import Line
from heathdrop.physics.rig import Rig


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


UNTAUGHT = Untaught()
