"""Line or rod that cannot bear a rig: said with what would, and with what this tackle can fish instead."""

from dataclasses import replace

from heathdrop.advice.linesay import SPOOLS_LB
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.size import Rated, Sizing, size
from heathdrop.sizing.tackle import TackleFit
from heathdrop.units import ounces_as_written

#: Fluorocarbon is sold up to this (lb); beyond it braid is named.
MOST_FLUOROCARBON_LB = 25
#: Another family is named when its fit comes so near, as a share.
NEAR = 0.75


def tackle_of(catalog: Catalog, sizing: Sizing, rated: Rated) -> TackleFit:
    """How line and rod suit a rated rig."""
    setting = setting_of(catalog, _alone(sizing.scenario, rated.rig.family.id), sizing.knowledge)
    return setting.tackle(rated.rig, rated.lure)


def _alone(scenario: Scenario, family: str) -> Scenario:
    return replace(scenario, families=(family,))


def spool_lb(need_lb: float) -> int:
    """The lightest spool that holds so much (lb); the heaviest where none does."""
    return next((lb for lb in SPOOLS_LB if lb >= need_lb - 0.5), SPOOLS_LB[-1])


def tackle_said(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """The sentence that line or rod cannot bear a rig, and what would do; nothing where they can."""
    fit, least = tackle_of(catalog, sizing, rated), catalog.tackle.numbers.said_below
    if fit.strength >= least and fit.rod >= least:
        return ""
    said = [_line(sizing, rated, fit)] if fit.strength < least else []
    if fit.rod < least and sizing.scenario.gear.rod is not None:
        said.append(f"Your {sizing.scenario.gear.rod.said} is not made for it.")
    other = _instead(catalog, sizing, rated)
    return " ".join([*said, other] if other else said)


def _line(sizing: Sizing, rated: Rated, fit: TackleFit) -> str:
    """Which line is too light, and which would hold."""
    c, line = sizing.scenario.conditions, sizing.scenario.gear.line
    tied = line if line.leader is None or line.test_lb < line.leader.test_lb else line.leader
    weak = f"{fit.test_lb:g} lb {tied.material}{' leader' if tied is line.leader else ''}"
    lb = spool_lb(fit.need_lb)
    kind = "braid" if lb > MOST_FLUOROCARBON_LB else "fluorocarbon"
    where = "" if c.cover.kind == "open" else f" in {c.cover.kind.replace('-', ' ')}"
    head = ounces_as_written(rated.rig.head_oz)
    return f"Your {weak} is light for a {head} oz {rated.rig.family.name}{where}: {lb} lb {kind} holds it."


def _instead(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """What this tackle can fish here nearly as well: a family whose best rig it bears."""
    best: tuple[float, Rated] | None = None
    for family in catalog.families.values():
        if family.id == rated.rig.family.id:
            continue
        holding = setting_of(catalog, _alone(sizing.scenario, family.id), sizing.knowledge).holding
        if holding.hook_lb > holding.test_lb:
            continue
        other = size(
            catalog, replace(_alone(sizing.scenario, family.id), box="standard"), knowledge=sizing.knowledge
        )
        r = other.rigs[0]
        score = r.fits.score
        if tackle_of(catalog, other, r).strength >= catalog.tackle.numbers.said_below and (
            best is None or score > best[0]
        ):
            best = score, r
    if best is None or best[0] < NEAR * rated.fits.score:
        return ""
    r = best[1]
    return (
        f"On what you have, a {ounces_as_written(r.rig.head_oz)} oz {r.rig.family.name} with a "
        f"{r.rig.trailer.name} can be fished (fit {r.fits.score * 100:.0f})."
    )
