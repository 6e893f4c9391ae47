"""What the angler's own measurements know of a rig, a line, a mat; sizing takes it as given."""

from dataclasses import dataclass
from typing import Protocol

from heathdrop.conditions.scenario import fading
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Rig

#: Cold water up to the first, warm from the second on (°F), a ramp between.
COLD_F, WARM_F = 52.0, 58.0


@dataclass(frozen=True)
class OwnFish:
    """How the angler's own fish differ from the tables, as the log told and the angler agreed.

    Factors on the usual weight of a head, on the pace and the fall rate that a mood asks for, on how readily
    they bite; steps of the mood in cold and in warm water; the share of stops that hold nobody and what is
    left of a cast the next time it is thrown (None: the catalogue's). ``casts``: by trait, the casts that
    each rests on.
    """

    head: float = 1.0
    pace: float = 1.0
    fall: float = 1.0
    bites: float = 1.0
    cold: float = 0.0
    warm: float = 0.0
    absent: float | None = None
    tires: float | None = None
    casts: tuple[tuple[str, int], ...] = ()

    def casts_of(self, trait: str) -> int:
        """The casts that a trait (by its field) rests on; none where it is as tabled."""
        return dict(self.casts).get(trait, 0)

    def mood_at(self, water_temp_f: float) -> float:
        """Steps by which the mood differs at this temperature (°F)."""
        cold = fading(water_temp_f, COLD_F, WARM_F)
        return cold * self.cold + (1.0 - cold) * self.warm


AS_TABLED = OwnFish()


@dataclass(frozen=True)
class Trait:
    """Something that one's own fish may want otherwise: its name, its field of :class:`OwnFish`, what it is
    told in (a ``factor``, ``steps`` of the mood, a ``share``), between which values it may lie, what it is
    called above the table's value and below it."""

    name: str
    field: str
    unit: str
    low: float
    high: float
    more: str
    less: str

    def said(self, value: float, table: float) -> str:
        """How far a value is off the table's, in words: ``14 % slower``."""
        side = self.more if value > table else self.less
        if self.unit == "steps":
            return f"{abs(value - table):.1f} steps {side}"
        if self.unit == "share":
            return f"{100.0 * value:.0f} % instead of {100.0 * table:.0f} %, {side}"
        return f"{100.0 * abs(value / table - 1.0):.0f} % {side}"

    def against(self, value: float, table: float) -> str:
        """The same with what it is held against."""
        return self.said(value, table) + ("" if self.unit == "share" else " than assumed")


TRAITS = (
    Trait("head weight", "head", "factor", 0.3, 3.0, "heavier", "lighter"),
    Trait("pace", "pace", "factor", 0.3, 3.0, "quicker", "slower"),
    Trait("fall rate", "fall", "factor", 0.3, 3.0, "quicker", "slower"),
    Trait("bite rate", "bites", "factor", 0.1, 10.0, "higher", "lower"),
    Trait("mood in cold water", "cold", "steps", -2.0, 2.0, "livelier", "lazier"),
    Trait("mood in warm water", "warm", "steps", -2.0, 2.0, "livelier", "lazier"),
    Trait("empty stops", "absent", "share", 0.02, 0.98, "more of them", "fewer of them"),
    Trait("the same cast again", "tires", "share", 0.3, 1.0, "they tire less", "they tire sooner"),
)
TRAIT = {trait.name: trait for trait in TRAITS}


@dataclass(frozen=True)
class Handle:
    """How the angler's own hand turns the handle: how much ``quicker`` than told (log), and one sigma of a
    cast's pace about that (log), what is not known of the first within it; the rounds they rest on."""

    quicker: float
    error: float
    rounds: int = 0


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

    def handle(self) -> Handle | None:
        """How the angler turns the handle; None: as assumed."""

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

    def handle(self) -> Handle | None:
        return None

    def own_fish(self) -> OwnFish:
        return AS_TABLED


UNTAUGHT = Untaught()
