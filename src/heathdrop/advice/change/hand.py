"""A cast as it was fished, shifted to what was seen of it, and what moving one thing does to it."""

from dataclasses import dataclass, replace

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.physics.cast import Cast, fly
from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.line import Line
from heathdrop.physics.rig import Rig, as_seen
from heathdrop.physics.rig_name import name_of
from heathdrop.sizing.candidates import standard_trailers
from heathdrop.sizing.cast import line_of
from heathdrop.sizing.setting import Setting
from heathdrop.sizing.size import Rated
from heathdrop.sizing.tune import BOARD
from heathdrop.sizing.ways import programme
from heathdrop.units import feet

#: Among stems a lure is reckoned to swim at least this far, ft.
LEAST_WAY_FT = 2.0
#: Factors on a lure's drag and lift on the move between which what was seen is looked for, and how often the
#: gap is halved.
LEAST_FACTOR, MOST_FACTOR, HALVINGS = 0.2, 5.0, 7


@dataclass(frozen=True)
class Fished:
    """How a cast was fished: seconds counted, pace (ft/s), rod tip (ft), way of working; None: as sized."""

    countdown_s: float | None = None
    pace_ft_s: float | None = None
    rod_tip_height_ft: float | None = None
    work: str | None = None


AS_SIZED = Fished()


@dataclass(frozen=True)
class Hand:
    """A rig as it is being fished: seconds counted, pace (m/s), rod tip (m), way of working, the tackle, and
    the ``factor`` on its drag and lift on the move that makes the simulation what was seen; ``told_ft`` is
    what the rig is told to run deeper than it is played here."""

    rig: Rig
    line: Line
    count_s: float
    pace_m_s: float
    tip_m: float
    way: str = "steady"
    factor: float = 1.0
    told_ft: float = 0.0


@dataclass(frozen=True)
class Path:
    """What a cast does: mean depth of the useful retrieve, and the deepest of it all (ft)."""

    mean_ft: float
    deepest_ft: float


def path_of(setting: Setting, hand: Hand) -> Path:
    """A cast played as fished by ``hand``."""
    lure = as_seen(setting.lure(hand.rig), hand.factor)
    away = setting.cast_for(hand.rig).distance_m
    cast = Cast(away, hand.tip_m, setting.cast.bottom)
    try:
        program = programme(hand.way, hand.pace_m_s, hand.count_s, away)
        played = fly(lure, hand.line, setting.water, cast, program, fidelity=BOARD)
    except BadInput:
        # Home before the last of its stops: evenly, then.
        program = programme("steady", hand.pace_m_s, hand.count_s, away)
        played = fly(lure, hand.line, setting.water, cast, program, fidelity=BOARD)
    depths = played.useful()
    mean = max(0.0, feet(float(depths.mean())) + hand.told_ft) if depths.size else 0.0
    return Path(mean, feet(float(played.depth_m.max())))


def seen_at(setting: Setting, hand: Hand, ran_ft: float) -> Hand:
    """The hand with the factor that makes its cast run at ``ran_ft``, or as near as one does (bisection)."""
    low, high = LEAST_FACTOR, MOST_FACTOR
    for _ in range(HALVINGS):
        middle = (low * high) ** 0.5
        if path_of(setting, replace(hand, factor=middle)).mean_ft > ran_ft:
            low = middle
        else:
            high = middle
    return replace(hand, factor=(low * high) ** 0.5)


def neighbour_trailer(catalog: Catalog, rig: Rig, steps: int) -> str | None:
    """The standard trailer ``steps`` places bulkier (negative: slimmer), None at the end of the row."""
    order = standard_trailers(catalog, bare=True)
    if rig.trailer.id not in order:
        return None
    k = order.index(rig.trailer.id) + steps
    return order[k] if 0 <= k < len(order) else None


def neighbour_head(rig: Rig, steps: int) -> float | None:
    """The listed weight (oz) ``steps`` places heavier, None at the end of the row."""
    weights = rig.family.weights_oz
    k = min(range(len(weights)), key=lambda i: abs(weights[i] - rig.head_oz)) + steps
    return weights[k] if 0 <= k < len(weights) else None


def with_part(setting: Setting, rig: Rig, *, oz: float | None = None, trailer: str | None = None) -> Rig:
    """The rig with another head weight or trailer, everything else as it is, and what is known of those."""
    name = name_of(rig)
    if oz is not None:
        name = replace(name, head_oz=oz, head_g=0.0)
    if trailer is not None:
        name = replace(name, trailer=trailer, length_in=0.0, trailer_g=0.0, width=0.0, fused=False)
    return setting.knowledge.applied(name.rig(setting.catalog))


def other_line(setting: Setting, thinner: bool) -> tuple[float, Line] | None:
    """The next test (lb) down or up of the same material, and its line; None at the end of the table."""
    gear = setting.scenario.gear
    tests = [lb for lb, _ in setting.catalog.lines[gear.line.material].diameters_mm]
    beyond = [t for t in tests if (t < gear.line.test_lb if thinner else t > gear.line.test_lb)]
    if not beyond:
        return None
    test = max(beyond) if thinner else min(beyond)
    return test, line_of(setting.catalog, replace(gear.line, test_lb=test), setting.knowledge)


def odds_of(setting: Setting, rated: Rated, rig: Rig) -> CoverOdds:
    """Odds of another rig over the same way through the cover."""
    return setting.odds(rig, setting.lure(rig), rated.tuned, LEAST_WAY_FT)
