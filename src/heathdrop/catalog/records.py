"""The catalogue's records: what each table of the data files may hold, and nothing else.

Masses are in grams and areas in cm² here, as people read them; :mod:`heathdrop.physics.rig` turns
them into SI. An unknown column, a missing one or a wrong type is refused when the files are read.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from pydantic import ConfigDict

from heathdrop.conditions.facts import When

STRICT = ConfigDict(extra="forbid", arbitrary_types_allowed=True)
Pair = tuple[float, float]
Work = Literal["swim", "bottom", "drop"]


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
    """A spinnerbait's blade set: areas in place of the family's base."""

    __pydantic_config__ = STRICT
    id: str
    name: str
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
    """A line material: kg/m³, the test (lb) it is usually fished in, and (pound test, mm) by rising test."""

    __pydantic_config__ = STRICT
    id: str
    name: str
    density_kg_m3: float
    usual_lb: float
    diameters_mm: tuple[Pair, ...]


@dataclass(frozen=True)
class Model:
    __pydantic_config__ = STRICT
    line_friction: float
    head_run_factor: float
    bottom_grip: float
    count_error: float


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
class Mood:
    """From the day's conditions to activity: base by temperature (°F, straight lines between), and shifts."""

    __pydantic_config__ = STRICT
    base: tuple[Pair, ...]
    rising_below_60: float
    falling: float
    cooling_on_bait: float
    low_light_or_wind: float
    front_passed: float
    heavy_pressure: float
    spawning: float
    wind_from_mph: float
    wind_edge_mph: float
    warming_edge_f: float
    names: tuple[str, ...]


@dataclass(frozen=True)
class ActivityTarget:
    """What a lure should do for fish of one activity: bands in ft/s and cm²."""

    __pydantic_config__ = STRICT
    activity: float
    fall_ft_s: Pair
    pace_ft_s: Pair
    action: float
    action_name: str
    bulk_cm2: Pair
    profile: str


@dataclass(frozen=True)
class Grass:
    __pydantic_config__ = STRICT
    catching_base: float
    bluntness: float
    gathers: float
    stems_per_ft2: dict[str, float]
    width_ft: float
    stop_scale: float


@dataclass(frozen=True)
class Stems:
    """Standing stems of each kind against grass of the same density; factors for hooks and tails."""

    __pydantic_config__ = STRICT
    share: dict[str, float]
    open_hook: float
    two_tails: float


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


@dataclass(frozen=True)
class Rock:
    __pydantic_config__ = STRICT
    wedge_oz: float
    usual: str
    kinds: dict[str, float]


@dataclass(frozen=True)
class CoverNumbers:
    """Cover indices, by kind."""

    __pydantic_config__ = STRICT
    grass: Grass
    stems: Stems
    mats: Mats
    wood: Wood
    rock: Rock


@dataclass(frozen=True)
class HandNumbers:
    """What a hand does: turns a second, ft, s, shares of the cast."""

    __pydantic_config__ = STRICT
    turns_per_s: Pair
    pitch_ft: float
    worked_s: float
    hopped_ft: float
    off_bottom_ft: float
    through_cover: float
    felt_at: float


@dataclass(frozen=True)
class FitNumbers:
    """Exponents of the parts, widths of their edges, shares of the action."""

    __pydantic_config__ = STRICT
    weights: dict[str, float]
    fall_edge: float
    profile_edge: float
    action_edge: float
    weight_edge: float
    school_edge: float
    family_share: float
    asked_of_lure: dict[Work, float]
    fish_sigma_ft: float
    hand_sigma_ft: float
    depth_share: float
    off_floor_ft: dict[Work, float]
    still_met: float
    enough: float
    quick_heavier: float
    wind_heavier: float
    breeze_mph: float
    pace_edge: float
    noise: float
    least_part: float
    doubtful: float


@dataclass(frozen=True)
class Usual:
    """A family's usual weights: rows of (down to this depth in ft, lightest and heaviest oz)."""

    __pydantic_config__ = STRICT
    by: Literal["target", "bottom"]
    rows: tuple[tuple[float, float, float], ...]


@dataclass(frozen=True)
class Fitted:
    """What fitting to worked waters gives: exponents of the parts, log points added to rules by family."""

    __pydantic_config__ = STRICT
    weights: dict[str, float]
    points: dict[str, dict[str, float]]


@dataclass(frozen=True)
class TargetNumbers:
    __pydantic_config__ = STRICT
    above_fish_ft: float
    tick_above_ft: float
    tick_into_ft: float
    mat_fall_ft_s: float
    clear_ft: float
    clear_edge_ft: float
    skating_ft: float
    bulk_shift: float


@dataclass(frozen=True)
class SchoolNumbers:
    __pydantic_config__ = STRICT
    least_liking: float


@dataclass(frozen=True)
class PresentationNumbers:
    __pydantic_config__ = STRICT
    cold_f: float
    deep_ft: float
    shake_below: float
    slow_below: float
    burn_from: float


@dataclass(frozen=True)
class CautionNumbers:
    __pydantic_config__ = STRICT
    cold_water_f: float
    deep_fish_ft: float
    windy_mph: float
    windy_in_wood_mph: float
    mud_ft: float
    hot_f: float


@dataclass(frozen=True)
class TouchNumbers:
    __pydantic_config__ = STRICT
    drift_share: float
    least_drift_m_s: float
    wet_share: float
    dry_share: float
    air_density_kg_m3: float
    air_drag: float


@dataclass(frozen=True)
class ChangeNumbers:
    __pydantic_config__ = STRICT
    needed_ft: float
    enough: float
    slowest_ft_s: float
    pace_step_in_s: float
    count_step_s: float
    tip_step_ft: float


@dataclass(frozen=True)
class LearningNumbers:
    __pydantic_config__ = STRICT
    late_sigma_s: float
    test_depth_error: float
    starting_tries: float
    suspect: float
    freedom: float
    outlier_sigma: float
    least_error: float
    depth_share: float
    depth_least_m: float
    mat_sigma: float
    run_with_fall: float


@dataclass(frozen=True)
class Judgement:
    """Numbers of the judgement, by the room that reads them."""

    __pydantic_config__ = STRICT
    hand: HandNumbers
    fit: FitNumbers
    targets: TargetNumbers
    schools: SchoolNumbers
    presentation: PresentationNumbers
    cautions: CautionNumbers
    touch: TouchNumbers
    change: ChangeNumbers
    learning: LearningNumbers


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
    dress: dict[Literal["orientation", "skirt", "plastic"], str] = field(default_factory=dict)


@dataclass(frozen=True)
class ByClarity:
    """A word for water under and over 4 ft of visibility."""

    __pydantic_config__ = STRICT
    under_4: str
    over_4: str


@dataclass(frozen=True)
class Effect:
    """What holding to a school changes. Weights oz by family or ``*``, bulk cm², factors without unit.

    ``ladder`` gives a family's weight by fish depth: the first row not shallower than the fish.
    """

    __pydantic_config__ = STRICT
    ladder: dict[str, tuple[Pair, ...]] = field(default_factory=dict)
    heads: dict[str, Pair] = field(default_factory=dict)
    bulk: Pair | None = None
    trailers: dict[str, dict[str, float]] = field(default_factory=dict)
    favours: dict[str, float] = field(default_factory=dict)
    fall_ft_s: Pair | None = None
    pace_factor: float = 1.0
    lean: float = 1.0
    lobbed: bool = False
    bare: bool = False
    dress: dict[Literal["orientation", "skirt", "plastic"], str] = field(default_factory=dict)
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
