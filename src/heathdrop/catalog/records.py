"""Records of tackle and line: what each of these tables of the data files may hold, and nothing else.

Masses are in grams and areas in cm² here, as people read them; :mod:`heathdrop.physics.rig` turns
them into SI. An unknown column, a missing one or a wrong type is refused when the files are read.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from pydantic import ConfigDict

STRICT = ConfigDict(extra="forbid", arbitrary_types_allowed=True)
Pair = tuple[float, float]
Work = Literal["swim", "bottom", "drop"]
DressPart = Literal["orientation", "skirt", "plastic", "blades", "head_material"]


@dataclass(frozen=True)
class Provenance:
    """Where a column of numbers comes from and how far it may be off (one sigma, log)."""

    __pydantic_config__ = STRICT
    origin: Literal["textbook", "practice", "assumption", "fitted"]
    spread: float
    note: str


@dataclass(frozen=True)
class Material:
    __pydantic_config__ = STRICT
    id: str
    name: str
    density_g_cm3: float
    head: bool


@dataclass(frozen=True)
class HeadShape:
    """A head's shape: how it falls and slips through, and its outline in a unit box for the drawing."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    fall_factor: float
    slenderness: float
    mat_width: float
    wedges: bool
    long: float
    tall: float
    wide: float
    outline: str


@dataclass(frozen=True)
class Skirt:
    __pydantic_config__ = STRICT
    id: str
    name: str
    fall_drag_area_cm2: float
    mass_g: float

    @property
    def bare(self) -> bool:
        """No skirt at all."""
        return self.mass_g == 0.0


@dataclass(frozen=True)
class Family:
    """A lure family: its base, what it is made of, how it is worked and drawn."""

    __pydantic_config__ = STRICT
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
    work: Work
    pace_factor: float
    least_pace_ft_s: float
    lift_kept: float
    usual_trailer: str
    blades: str
    line: str
    lines: tuple[tuple[str, float, float], ...]
    suits: dict[str, float]
    guarded: bool
    blade: Literal["", "front", "arm", "under"]
    pegged: bool
    slow_rolled: bool
    bottom_way: Literal["", "shake", "drag"]
    drop_way: Literal["pitch", "punch"]
    takes_trailer_hook: bool
    two_right: float
    hook_in: Pair
    front_in: float
    aliases: tuple[str, ...]
    weights_oz: tuple[float, ...]
    plastic_in: tuple[float, ...]
    bare_too: bool


@dataclass(frozen=True)
class Blades:
    """A blade set of a spinnerbait's arm or under a swimbait's head: areas in place of the family's base,
    and the pace (ft/s) below which it does not turn."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    hangs: Literal["arm", "under"]
    least_pace_ft_s: float
    fall_drag_area_cm2: float
    run_drag_area_cm2: float
    run_lift_area_cm2: float


@dataclass(frozen=True)
class Softness:
    """How much of a trailer's drag and action the cold takes, at its coldest."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    drag_lost: float
    action_lost: float


@dataclass(frozen=True)
class Orientation:
    """How a trailer is turned, as factors on its run drag and lift."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    run_factor: float
    lift_factor: float


@dataclass(frozen=True)
class Plastic:
    """What a trailer is poured of: its density and how readily it glides."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    material: str
    glide_factor: float


@dataclass(frozen=True)
class Trailer:
    """A trailer's shape at its listed length, and the lengths that people own it in."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    length_in: float
    lengths_in: tuple[float, ...]
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
    aliases: tuple[str, ...]
    deep: float
    outline: str

    @property
    def bare(self) -> bool:
        """No trailer at all."""
        return self.length_in == 0.0


@dataclass(frozen=True)
class LineSpec:
    """A line material: kg/m³, stiffness (GPa), the test (lb) it is usually fished in, (pound test, mm) by
    rising test, what else it is called."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    density_kg_m3: float
    modulus_gpa: float
    usual_lb: float
    diameters_mm: tuple[Pair, ...]
    aliases: tuple[str, ...] = ()


@dataclass(frozen=True)
class Model:
    __pydantic_config__ = STRICT
    line_friction: float
    head_run_factor: float
    bottom_grip: float
    count_error: float
    pace_error: float
    cast_error: float
    tip_error_ft: float
    drift_share: Pair


@dataclass(frozen=True)
class FlightNumbers:
    """How lures are thrown: launch angle (degrees) and height (m), drag in the air, what the line costs, the
    lure that the usual cast is said with, the lures (oz, whole) that an all-round rod launches alike."""

    __pydantic_config__ = STRICT
    angle_deg: float
    air_share: float
    air_density_kg_m3: float
    line_factor: float
    dressed_g: float
    dressed_cm2: float
    height_m: float
    wind_share: float
    rated_oz: Pair


@dataclass(frozen=True)
class Cold:
    """Between which temperatures (°F) plastic stiffens."""

    __pydantic_config__ = STRICT
    stiffens_below_f: float
    coldest_f: float


@dataclass(frozen=True)
class Fused:
    """What appendages left joined make of a trailer: its glide, and shares of action and catching kept."""

    __pydantic_config__ = STRICT
    glide: float
    action_kept: float
    catching_kept: float


@dataclass(frozen=True)
class Words:
    """Words of the shop and the boat: for colours, weather, numbers, amounts, weights before "ounce",
    plastics, rods, hours and what came of a cast; lists are by what they mean. And the cautions by what they
    are of, the gravest first."""

    __pydantic_config__ = STRICT
    colours: tuple[str, ...]
    weather: tuple[str, ...]
    numbers: dict[str, int]
    amounts: dict[str, int]
    ounces: dict[str, str]
    powers: dict[str, tuple[str, ...]]
    plastics: dict[str, tuple[str, ...]]
    styles: dict[str, tuple[str, ...]]
    kinds: dict[str, tuple[str, ...]]
    came: dict[str, tuple[str, ...]]
    hours: dict[str, int]
    cautions: dict[str, str]


def meant_by(lists: Mapping[str, tuple[str, ...]]) -> dict[str, str]:
    """Each word of a table of lists, and what it means."""
    return {word: means for means, words in lists.items() for word in words}
