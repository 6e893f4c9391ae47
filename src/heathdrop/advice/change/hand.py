"""A rig as it is being fished, what moving one thing does to it, and the one change that says so."""

from __future__ import annotations

from dataclasses import dataclass, replace

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, fly
from heathdrop.physics.cover import CoverOdds
from heathdrop.physics.fall import depth_after_s
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Rig
from heathdrop.physics.rig_name import name_of
from heathdrop.sizing.candidates import standard_trailers
from heathdrop.sizing.cast import line_of
from heathdrop.sizing.setting import Setting
from heathdrop.sizing.size import Rated
from heathdrop.sizing.tune import BOARD
from heathdrop.units import feet

#: Among stems a lure is reckoned to swim at least this far, ft.
LEAST_WAY_FT = 2.0

Tries = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Change:
    """One change: what to do, its effect in words, whether the model or a rule says so, whether it is enough
    by itself, and how to try it here."""

    what: str
    effect: str
    by: str
    mends: bool
    tries: Tries = ()


@dataclass(frozen=True)
class Hand:
    """How a rig is being fished: seconds counted, pace (m/s), rod tip (m), and the tackle."""

    rig: Rig
    line: Line
    count_s: float
    pace_m_s: float
    tip_m: float


def mean_depth_ft(setting: Setting, hand: Hand) -> float:
    """Mean depth (ft) of the useful retrieve as fished by ``hand``."""
    lure = setting.lure(hand.rig)
    start = max(0.05, depth_after_s(lure, hand.count_s, hand.line, setting.water))
    cast = Cast(setting.cast.distance_m, hand.tip_m, setting.cast.bottom)
    home = Phase("retrieve", speed_m_s=hand.pace_m_s, take_up=True)
    program = [Phase("fall", slack=True, to_depth_m=start), home]
    depths = fly(lure, hand.line, setting.water, cast, program, fidelity=BOARD).useful()
    return feet(float(depths.mean())) if depths.size else 0.0


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
    return setting.known.applied(name.rig(setting.catalog))


def pick(rig: Rig) -> Tries:
    """How the sheet is asked for a rig."""
    return (("family", rig.family.id), ("pick", name_of(rig).text()))


def other_line(setting: Setting, thinner: bool) -> tuple[float, Line] | None:
    """The next test (lb) down or up of the same material, and its line; None at the end of the table."""
    gear = setting.scenario.gear
    tests = [lb for lb, _ in setting.catalog.lines[gear.line.material].diameters_mm]
    beyond = [t for t in tests if (t < gear.line.test_lb if thinner else t > gear.line.test_lb)]
    if not beyond:
        return None
    test = max(beyond) if thinner else min(beyond)
    own = replace(gear.line, test_lb=test)
    return test, line_of(setting.catalog, own, setting.known)


def odds_of(setting: Setting, rated: Rated, rig: Rig) -> CoverOdds:
    """Odds of another rig over the same way through the cover."""
    return setting.odds(rig, setting.lure(rig), rated.tuned, LEAST_WAY_FT)


def percent(share: float) -> str:
    """A share as so many of a hundred."""
    return f"{share * 100:.0f} of 100"


def turned(word: str, before: float, after: float) -> str:
    """A change of pace as a hand counts it, turns in ten seconds: whole ones where they differ."""
    if round(before) != round(after):
        return f"{word} to {after:.0f} turns in 10 s"
    return f"{word} a little: {after:.1f} turns in 10 s instead of {before:.1f}"
