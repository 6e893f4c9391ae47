"""Records of cover: grass, stems, mats, wood and rock, by kind."""

from dataclasses import dataclass

from heathdrop.catalog.records import STRICT, Pair


@dataclass(frozen=True)
class Grass:
    __pydantic_config__ = STRICT
    catching_base: float
    bluntness: float
    gathers: float
    stems_per_ft2: dict[str, float]
    width_ft: float
    stop_scale: float
    uneven_ft: float


@dataclass(frozen=True)
class Stems:
    """Standing stems of each kind against grass of the same density; factors for hooks and tails by kind."""

    __pydantic_config__ = STRICT
    share: dict[str, float]
    open_hook: dict[str, float]
    two_tails: dict[str, float]
    hole_ft: Pair


@dataclass(frozen=True)
class Texture:
    """A mat's half-way weight: oz at no thickness, and oz per inch."""

    __pydantic_config__ = STRICT
    base_oz: float
    per_in_oz: float


@dataclass(frozen=True)
class Mats:
    __pydantic_config__ = STRICT
    steepness: float
    lobbed: float
    usual_thickness_in: float
    usual_texture: str
    reeled_stems_per_ft: float
    textures: dict[str, Texture]


@dataclass(frozen=True)
class Wood:
    __pydantic_config__ = STRICT
    usual: str
    kinds: dict[str, float]
    density: dict[str, float]
    rises: dict[str, float]
    beside: float
    right_way: str


@dataclass(frozen=True)
class Rock:
    __pydantic_config__ = STRICT
    wedge_oz: float
    wedge_of: str
    wedge_power: float
    rocks_over_power: float
    usual: str
    kinds: dict[str, float]
    height_ft: dict[str, float]


@dataclass(frozen=True)
class CoverNumbers:
    """Cover indices, by kind."""

    __pydantic_config__ = STRICT
    grass: Grass
    stems: Stems
    mats: Mats
    wood: Wood
    rock: Rock
