"""Records of the judgement: moods, targets, and the numbers that each room reads."""

from dataclasses import dataclass
from typing import Literal

from heathdrop.catalog.records import STRICT, Pair, Work


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
class HandNumbers:
    """What a hand does: turns a second, ft, s, shares of the cast."""

    __pydantic_config__ = STRICT
    turns_per_s: Pair
    pitch_ft: float
    worked_s: float
    worked_share: float
    reel_home_ft_s: float
    hopped_ft: float
    off_bottom_ft: float
    slack_s: float
    through_cover: float
    felt_at: float
    lost_of_hung: float


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
    bearing_share: float
    family_share: float
    asked_of_lure: dict[Work, float]
    fish_sigma_ft: float
    pace_moves: Pair
    areas_move: float
    met_outside: float
    eased: float
    seconds_eased: float
    seconds_enough: float
    under_roof: float
    on_ledges: float
    passing_loss: float
    unglided: float
    enough: float
    mat_habit: float
    mat_habit_oz: float
    quick_heavier: float
    wind_heavier: float
    breeze_mph: float
    slower_sigma: float
    quicker_sigma: Pair
    noise: float
    least_part: float
    doubtful: float


@dataclass(frozen=True)
class TackleNumbers:
    """How far off tackle may be: logs, oz, lb, mm, ft."""

    __pydantic_config__ = STRICT
    weak_edge: float
    said_below: float
    lb_per_oz: float
    spinning_hook: float
    spinning_most_oz: float
    light_oz: float
    light_lb: float
    light_power: float
    light_edge: float
    seen_mm: float
    seen_ft: Pair
    seen_edge: float
    seen_finesse: float
    seen_other: float
    braid_seen: float
    rod_edge: float


@dataclass(frozen=True)
class TackleRows:
    """What a family's hook asks of the line (lb), and how much more each cover does, by density."""

    __pydantic_config__ = STRICT
    hook_lb: dict[str, float]
    cover: dict[str, dict[str, float]]
    numbers: TackleNumbers


@dataclass(frozen=True)
class Usual:
    """A family's usual weights: rows of (down to this depth in ft, lightest and heaviest oz)."""

    __pydantic_config__ = STRICT
    by: Literal["target", "bottom"]
    rows: tuple[tuple[float, float, float], ...]


@dataclass(frozen=True)
class Leans:
    """How the day's leans move the liking of trailers (by work and lean: log points for a level of action,
    for a log of bulk) and the usual weights (log, by work and lean)."""

    __pydantic_config__ = STRICT
    leans: dict[str, dict[str, dict[str, float]]]
    heads: dict[str, dict[str, float]]


@dataclass(frozen=True)
class Fitted:
    """What fitting to worked waters gives: exponents of the parts, log points added to rules by family, how
    the day's leans move the liking of trailers (by work and lean: for a level of action, for a log of bulk)
    and the usual weights (log, by work and lean), each family's own shift of them, and log points added to
    how a trailer suits a family."""

    __pydantic_config__ = STRICT
    weights: dict[str, float]
    points: dict[str, dict[str, float]]
    leans: dict[str, dict[str, dict[str, float]]]
    heads: dict[str, dict[str, float]]
    usual: dict[str, float]
    suits: dict[str, dict[str, float]]


@dataclass(frozen=True)
class TargetNumbers:
    __pydantic_config__ = STRICT
    above_fish_ft: float
    tick_above_ft: float
    tick_into_ft: float
    along_edge_ft: float
    into_holes: float
    mat_fall_ft_s: float
    clear_ft: float
    clear_edge_ft: float
    skating_ft: float
    bulk_shift: float
    floor_power: float


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
    tick_m: float
    tip_m_n: float
    threshold_n: float
    scatter: float


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
    read_sigma: float
    dragged_sigma_m: float
    place_sigma: float
    lengths_alike: float
    starting_tries: float
    suspect: float
    spoilt: float
    freedom: float
    outlier_sigma: float
    other_head: float
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
