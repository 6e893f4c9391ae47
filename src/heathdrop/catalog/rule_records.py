"""Records of the trade's rules and schools: when they speak, what they say and what they change."""

from dataclasses import dataclass, field
from typing import Literal

from heathdrop.catalog.records import STRICT, DressPart, Pair
from heathdrop.conditions.facts import When


@dataclass(frozen=True)
class Rule:
    """A rule of the trade: when it speaks, what it says, what it favours (log points for families and for
    trailers), how it dresses a rig and what it settles."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    about: Literal["fall", "temperature", "light", "cover", "rigging", "tackle", "answer"]
    says: str
    when: When
    strength: Literal[1, 2, 3]
    favours: dict[str, float] = field(default_factory=dict)
    trailers: dict[str, float] = field(default_factory=dict)
    finish: dict[str, str] = field(default_factory=dict)
    dress: dict[DressPart, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Cadence:
    """A way of working besides the family's usual one: what the hands do, the water and mood it is for,
    whether it begins on the ``floor``, lift of the rod (ft), pause (s), and a factor on the lure's action.
    ``work`` is what it makes of a family that is dropped: swum out, or hung at a depth; ``holes``: it falls
    in the holes of the cover and nowhere else; ``glide_ft``: so far a trailer should glide on its pause."""

    __pydantic_config__ = STRICT
    id: str
    says: str
    when: When
    floor: bool
    lift_ft: float
    pause_s: float
    action: float
    work: Literal["", "swim", "hang"] = ""
    holes: bool = False
    glide_ft: float = 0.0


@dataclass(frozen=True)
class ByClarity:
    """A word for water under and over 4 ft of visibility."""

    __pydantic_config__ = STRICT
    under_4: str
    over_4: str


@dataclass(frozen=True)
class Effect:
    """What holding to a school changes. Weights oz by family or ``*``, bulk cm², factors without unit.

    ``ladder`` gives a family's weight by fish depth: the first row not shallower than the fish; ``below`` its
    trailers for fish deeper than ``below_ft``.
    """

    __pydantic_config__ = STRICT
    ladder: dict[str, tuple[Pair, ...]] = field(default_factory=dict)
    heads: dict[str, Pair] = field(default_factory=dict)
    bulk: Pair | None = None
    bulk_factor: float = 1.0
    trailers: dict[str, dict[str, float]] = field(default_factory=dict)
    below_ft: float | None = None
    below: dict[str, dict[str, float]] = field(default_factory=dict)
    favours: dict[str, float] = field(default_factory=dict)
    fall_ft_s: Pair | None = None
    pace_factor: float = 1.0
    lean: float = 1.0
    lobbed: bool = False
    bare: bool = False
    dress: dict[DressPart, str] = field(default_factory=dict)
    finish: dict[str, str] = field(default_factory=dict)
    by_clarity: ByClarity | None = None


@dataclass(frozen=True)
class School:
    """One side of a disagreement, and what holding to it changes."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    says: str
    effect: Effect


@dataclass(frozen=True)
class Topic:
    """A disagreement: when it matters, its schools, the default and the reason for it."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    applies: When
    default: str
    because: str
    schools: dict[str, School]


@dataclass(frozen=True)
class ChangeOrder:
    """What is changed first when a cast ``went`` so: ids of changes, in the order in which practice makes
    them."""

    __pydantic_config__ = STRICT
    went: tuple[str, ...]
    when: When
    changes: tuple[str, ...]


@dataclass(frozen=True)
class SpokenChange:
    """A change that no figure speaks for: what to do, and what it is for."""

    __pydantic_config__ = STRICT
    id: str
    what: str
    effect: str
