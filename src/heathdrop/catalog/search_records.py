"""Records of ``data/search.toml``: where fish are looked for, what a second near them is worth, what changes
cost."""

from dataclasses import dataclass

from heathdrop.catalog.records import STRICT, Pair
from heathdrop.conditions.facts import When


@dataclass(frozen=True)
class SearchGrid:
    """How finely is searched, and how many casts and rods an order has."""

    __pydantic_config__ = STRICT
    slices: int
    known_ft: float
    tail: float
    casts: int
    rods: int
    sized_first: float
    opens_from: float


@dataclass(frozen=True)
class Reach:
    """How far a lure is met: above and below the fish (ft), at paces beside theirs, after a bite."""

    __pydantic_config__ = STRICT
    above_ft: float
    below_ft: float
    edge_ft: float
    beside: float
    bitten_ft: float
    ran_off_ft: float
    fouled_share: float


@dataclass(frozen=True)
class Bite:
    """Chance per second within reach, by mood 0 to 4."""

    __pydantic_config__ = STRICT
    per_s: tuple[float, ...]


@dataclass(frozen=True)
class Paces:
    """Slow, middle and quick: edges (ft/s), and a pace for each."""

    __pydantic_config__ = STRICT
    edges_ft_s: Pair
    usual_ft_s: tuple[float, float, float]


@dataclass(frozen=True)
class Minutes:
    """What a cast and a change cost besides the cast's own time."""

    __pydantic_config__ = STRICT
    between_casts_s: float
    setting_min: float
    trailer_min: float
    rod_min: float
    retie_min: float


@dataclass(frozen=True)
class PlaceNumbers:
    """Lanes of a stop, how fish tire of the same cast, how many stops hold nobody, what fouling costs.

    Lanes: the arc (rad) that is thrown over, the share of the cast's length that its middle lies at, half a
    lane's width as a share of the visibility and within these feet, and how many there are at most.
    """

    __pydantic_config__ = STRICT
    arc_rad: float
    middle: float
    half_lane: float
    half_lane_ft: Pair
    most_lanes: int
    holds: float
    tires: float
    absent: float
    fouled_costs: float
    foul_prior: float
    fouled_again: float
    move_on: float
    ride_mph: float
    settle_min: float
    stay_min: float


@dataclass(frozen=True)
class HuntNumbers:
    """What casts teach of a stop (:mod:`heathdrop.search.hunt`): factors, shares, minutes, fish.

    ``shows``: how much more readily fish are taken to bite where a cast that nothing takes is judged;
    ``suit_known``: the power of a rig's suit; ``shared_depth``: the share of a cast that speaks for the other
    directions; ``liking_bites``: bites that the prior on a family is worth; ``carries_over``: what a cast at
    another stop of the day is worth to it; ``mates``, ``beside``, ``elsewhere``: fish looked for around a
    bite, and the shares of them a direction aside and further; ``again``: casts that what bit is thrown
    again; ``same_rig``: what a rig is worth each time it comes again; ``sized_for``, ``rod_for``: casts that
    a sized setting is held to, and that a rod is taken up for."""

    __pydantic_config__ = STRICT
    shows: float
    suit_known: float
    shared_depth: float
    liking_bites: float
    mates: float
    beside: float
    elsewhere: float
    same_rig: float
    carries_over: float
    again: int
    sized_for: int
    rod_for: float
    lane_min: float
    depth_min: float
    back_min: float


@dataclass(frozen=True)
class PlanCosts:
    """How readily changes are put off on the water (shares of a perfect fit, beside their minutes), and from
    which share of its best a stop is served well."""

    __pydantic_config__ = STRICT
    trailer_put_off: float
    retie_put_off: float
    unborne: float
    well: float


@dataclass(frozen=True)
class StartRow:
    """A weight of fish around a share of the depth (``at``), or so far (ft) above the top of the cover."""

    __pydantic_config__ = STRICT
    says: str
    weight: float
    when: When = ()
    at: float = 0.0
    spread: float = 0.0
    above_cover_ft: float | None = None
    spread_ft: float = 0.0


@dataclass(frozen=True)
class SearchNumbers:
    """Everything that search takes from data."""

    __pydantic_config__ = STRICT
    grid: SearchGrid
    reach: Reach
    bite: Bite
    paces: Paces
    minutes: Minutes
    plan: PlanCosts
    place: PlaceNumbers
    hunt: HuntNumbers
    start: tuple[StartRow, ...]
