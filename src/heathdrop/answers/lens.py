"""What the size board shows of each rig through a lens: a figure, and its side of what is wanted.

The lens *depth* flies every pair at the count and pace of the chosen rig, so that the board shows what
another head or trailer does in the same hand; the other lenses show each pair as it is sized.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

from heathdrop import catalog as catalogue
from heathdrop.physics.fall import depth_after_s
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import Rated, Sizing, rated_at
from heathdrop.units import feet


@dataclass(frozen=True)
class Lens:
    """A lens: its name on the board, its unit, what it shows in a line, digits behind the point."""

    id: str
    name: str
    unit: str
    says: str
    digits: int = 1


FIT = "fit"
LENSES = (
    Lens(FIT, "fit", "of 100", "how well each pair does, and what holds it back", 0),
    Lens("depth", "depth", "ft", "at the same count and pace"),
    Lens("pace", "pace", "ft/s", "as each is sized"),
    Lens("fall", "fall", "ft/s", "on slack line"),
    Lens("through", "through", "of 100", "casts that come clean", 0),
    Lens("felt", "felt", "of 100", "landings, in today's wind", 0),
)
LENS = {lens.id: lens for lens in LENSES}


@dataclass(frozen=True)
class Sight:
    """A pair's figure in the lens's unit; ``side`` -1 under what is wanted, 0 within it, 1 over it."""

    value: float
    side: int


def lenses_for(sizing: Sizing, chosen: Rated) -> tuple[Lens, ...]:
    """The lenses that show something of the chosen rig's family in this water."""
    out = {"through"} if sizing.scenario.conditions.cover.kind == "open" else set[str]()
    out |= {"felt"} if chosen.rig.family.work == "swim" else {"pace"}
    return tuple(lens for lens in LENSES if lens.id not in out)


def wanted_through(sizing: Sizing, lens: str) -> tuple[float, float]:
    """What is wanted of a lens's figure: its low and high end (infinite where there is none)."""
    t, own, enough = sizing.targets, sizing.scenario.wanted, catalogue.load().judgement.fit.enough
    bands = {"depth": t.depth_ft, "pace": t.pace_ft_s, "fall": t.fall_ft_s}
    if lens in bands:
        return bands[lens]
    least = own.passes if lens == "through" and own.passes is not None else enough
    return (100.0 * least, math.inf) if lens in ("through", "felt") else (-math.inf, math.inf)


def sights(sizing: Sizing, chosen: Rated, lens: str, rigs: Iterable[Rated]) -> dict[str, Sight]:
    """The figure of each rig, by its name, as the board shows it: rounded to the lens's digits."""
    low, high = wanted_through(sizing, lens)
    by_cell = {}
    for rated in rigs:
        value = round(_figure(sizing, chosen, lens, rated), LENS[lens].digits)
        by_cell[rated.key] = Sight(value, -1 if value < low else 1 if value > high else 0)
    return by_cell


def _figure(sizing: Sizing, chosen: Rated, lens: str, rated: Rated) -> float:
    odds = rated.cover
    match lens:
        case "depth":
            return _depth_ft(sizing, chosen, rated)
        case "pace":
            return feet(rated.tuned.pace_m_s)
        case "fall":
            return rated.fall_ft_s
        case "through":
            return 100.0 * odds.passes * (1.0 - odds.fouls) * (1.0 - odds.hangs)
        case "felt":
            return 100.0 * rated.felt
    return 100.0 * rated.fits.score


def _depth_ft(sizing: Sizing, chosen: Rated, rated: Rated) -> float:
    """Mean depth at the chosen rig's count and pace; for what is not swum the depth that its count brings."""
    if chosen.rig.family.work != "swim":
        sunk = feet(depth_after_s(rated.lure, chosen.countdown_s, sizing.line, sizing.water))
        return min(sunk, sizing.scenario.conditions.bottom_depth_ft)
    if rated is chosen:
        return feet(chosen.tuned.mean_m)
    scenario = replace(sizing.scenario, families=(rated.rig.family.id,))
    setting = setting_of(catalogue.load(), scenario, sizing.knowledge)
    pace = feet(chosen.tuned.pace_m_s)
    return feet(rated_at(setting, rated.rig, chosen.countdown_s, pace).tuned.mean_m)
