"""The catalogue: every number of the product, with its origin and spread.

Data lives in the TOML files beside this module; :func:`load` reads them once
into frozen records. Masses are in grams and areas in cm² here, as people read
them; :mod:`heathdrop.physics.rig` turns them into SI.
"""

from __future__ import annotations

import tomllib
from dataclasses import dataclass, field
from functools import cache
from importlib import resources
from typing import Any, TypeVar

from heathdrop.errors import BadInput


@dataclass(frozen=True)
class Provenance:
    """Where a column of numbers comes from and how far it may be off (one sigma, log)."""

    origin: str
    spread: float
    note: str


@dataclass(frozen=True)
class Material:
    id: str
    name: str
    density_g_cm3: float
    head: bool


@dataclass(frozen=True)
class HeadShape:
    id: str
    name: str
    fall_factor: float
    slenderness: float


@dataclass(frozen=True)
class Skirt:
    id: str
    name: str
    fall_drag_area_cm2: float
    mass_g: float


@dataclass(frozen=True)
class Family:
    id: str
    name: str
    head_shape: str
    skirt: str
    fall_drag_area_cm2: float
    run_drag_area_cm2: float
    run_lift_area_cm2: float
    hardware_g: float
    weed_meeting: float
    wood_hang: float
    rock_hang: float
    open_hook: bool
    action: float
    work: str
    pace_factor: float
    lift_kept: float
    usual_trailer: str
    blades: str
    line: str
    suits: dict[str, float]
    weights_oz: tuple[float, ...]


@dataclass(frozen=True)
class Blades:
    """A spinnerbait's blade set: areas in place of the family's base."""

    id: str
    name: str
    fall_drag_area_cm2: float
    run_drag_area_cm2: float
    run_lift_area_cm2: float


@dataclass(frozen=True)
class Softness:
    """How much of a trailer's drag and action the cold takes, at its coldest."""

    id: str
    name: str
    drag_lost: float
    action_lost: float


@dataclass(frozen=True)
class Orientation:
    """How a trailer is turned, as factors on its run drag and lift."""

    id: str
    name: str
    run_factor: float
    lift_factor: float


@dataclass(frozen=True)
class Plastic:
    """What a trailer is poured of: its density and how readily it glides."""

    id: str
    name: str
    material: str
    glide_factor: float


@dataclass(frozen=True)
class Trailer:
    id: str
    name: str
    length_in: float
    width_share: float
    fall_drag_area_cm2: float
    run_drag_area_cm2: float
    run_lift_area_cm2: float
    mass_g: float
    action: float
    appendages: int
    catching: float
    punching: float
    glide: float
    standard: bool


@dataclass(frozen=True)
class LineSpec:
    id: str
    name: str
    density_kg_m3: float
    diameters: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Model:
    line_friction: float
    head_run_factor: float
    bottom_grip: float
    count_error: float


@dataclass(frozen=True)
class ActivityTarget:
    """What a lure should do for fish of one activity: bands in ft/s and cm²."""

    activity: float
    fall_ft_s: tuple[float, float]
    pace_ft_s: tuple[float, float]
    action: float
    action_name: str
    bulk_cm2: tuple[float, float]
    profile: str


When = dict[str, Any]


@dataclass(frozen=True)
class Rule:
    """A rule of the trade: when it speaks, what it says, what it favours (log points) and settles."""

    id: str
    name: str
    about: str
    says: str
    when: When
    strength: int
    favours: dict[str, float] = field(default_factory=dict)
    finish: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class School:
    """One side of a disagreement, and what holding to it changes."""

    id: str
    name: str
    says: str
    effect: dict[str, Any]


@dataclass(frozen=True)
class Topic:
    """A disagreement: when it matters, its schools, the default and the reason for it."""

    id: str
    name: str
    applies: When
    default: str
    because: str
    schools: dict[str, School]


@dataclass(frozen=True)
class Catalog:
    """Everything the core knows before it is told about today's water."""

    materials: dict[str, Material]
    heads: dict[str, HeadShape]
    skirts: dict[str, Skirt]
    families: dict[str, Family]
    blades: dict[str, Blades]
    trailers: dict[str, Trailer]
    softness: dict[str, Softness]
    orientation: dict[str, Orientation]
    plastic: dict[str, Plastic]
    cold: dict[str, float]
    fused: dict[str, float]
    lines: dict[str, LineSpec]
    model: Model
    activity: dict[str, Any]
    targets: tuple[ActivityTarget, ...]
    cover: dict[str, Any]
    rules: dict[str, Rule]
    topics: dict[str, Topic]
    provenance: dict[str, dict[str, Provenance]]

    def pick(self, table: str, field: str, id_: str) -> Any:
        """The record ``id_`` of ``table``; BadInput names ``field`` and the choices."""
        rows: dict[str, Any] = getattr(self, table)
        if id_ not in rows:
            raise BadInput(field, id_, "one of " + ", ".join(rows))
        return rows[id_]


R = TypeVar("R")


def _read(name: str) -> dict[str, Any]:
    return tomllib.loads(resources.files(__name__).joinpath(f"{name}.toml").read_text("utf-8"))


def _records(kind: type[R], rows: dict[str, dict[str, Any]]) -> dict[str, R]:
    def one(id_: str, row: dict[str, Any]) -> R:
        return kind(id=id_, **{k: tuple(v) if isinstance(v, list) else v for k, v in row.items()})  # type: ignore[call-arg]

    return {id_: one(id_, row) for id_, row in rows.items()}


def _line_spec(id_: str, row: dict[str, Any]) -> LineSpec:
    pairs = tuple((float(lb), float(mm)) for lb, mm in row["diameters_mm"])
    return LineSpec(id_, row["name"], row["density_kg_m3"], pairs)


def _topic(id_: str, row: dict[str, Any]) -> Topic:
    return Topic(id_, row["name"], row["applies"], row["default"], row["because"], _records(School, row["schools"]))


def _target(row: dict[str, Any]) -> ActivityTarget:
    pairs: dict[str, Any] = {k: tuple(v) if isinstance(v, list) else v for k, v in row.items()}
    return ActivityTarget(**pairs)


@cache
def load() -> Catalog:
    """Read the shipped catalogue (cached: the same object each time)."""
    names = (
        "model",
        "materials",
        "heads",
        "skirts",
        "families",
        "trailers",
        "plastics",
        "lines",
        "activity",
        "cover",
        "rules",
        "schools",
    )
    files = {name: _read(name) for name in names}
    provenance = {
        name: {column: Provenance(**p) for column, p in data.get("provenance", {}).items()} for name, data in files.items()
    }
    return Catalog(
        materials=_records(Material, files["materials"]["materials"]),
        heads=_records(HeadShape, files["heads"]["shapes"]),
        skirts=_records(Skirt, files["skirts"]["skirts"]),
        families=_records(Family, files["families"]["families"]),
        blades=_records(Blades, files["families"]["blades"]),
        softness=_records(Softness, files["plastics"]["softness"]),
        orientation=_records(Orientation, files["plastics"]["orientation"]),
        plastic=_records(Plastic, files["plastics"]["plastic"]),
        cold=files["plastics"]["cold"],
        fused=files["plastics"]["fused"],
        trailers=_records(Trailer, files["trailers"]["trailers"]),
        lines={id_: _line_spec(id_, row) for id_, row in files["lines"]["lines"].items()},
        model=Model(**files["model"]["numbers"]),
        activity=files["activity"]["activity"],
        targets=tuple(_target(row) for row in files["activity"]["targets"]),
        cover=files["cover"],
        rules=_records(Rule, files["rules"]["rules"]),
        topics={id_: _topic(id_, row) for id_, row in files["schools"]["topics"].items()},
        provenance=provenance,
    )
