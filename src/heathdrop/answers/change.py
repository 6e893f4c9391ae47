"""What to change after a cast that went wrong: sheet, deck, plan, JSON and command line ask here."""

from dataclasses import replace

from heathdrop import catalog as catalogue
from heathdrop.advice.change import AS_SIZED, Change, Changes, Fished, mended
from heathdrop.answers.own import STRANGER, Own
from heathdrop.answers.water import placed
from heathdrop.conditions.scenario import Scenario
from heathdrop.physics.rig import Rig
from heathdrop.sizing.size import size


def after_cast(
    scenario: Scenario,
    rig: Rig,
    went: str,
    by_ft: float | None = None,
    fished: Fished = AS_SIZED,
    own: Own = STRANGER,
) -> Changes:
    """The changes after a cast of a rig in a water, best first. Raises BadInput."""
    alone = replace(placed(scenario), families=(rig.family.id,))
    sizing = size(catalogue.load(), alone, [rig], own.learned)
    return mended(catalogue.load(), sizing, sizing.rigs[0], went, by_ft, fished)


def first_change(
    scenario: Scenario, rig: Rig, went: str, fished: Fished = AS_SIZED, own: Own = STRANGER
) -> Change | None:
    """The change to make first; None where there is nothing to do."""
    return next(iter(after_cast(scenario, rig, went, None, fished, own).changes), None)
