"""One rig held against others: rigs of the board, another lure at its best, the same rig on another line."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from heathdrop import catalog as catalogue
from heathdrop.advice.call import points_of
from heathdrop.answers.water import with_rig
from heathdrop.physics.cast import CastResult
from heathdrop.physics.line import line_by_test
from heathdrop.physics.rig_name import RigName
from heathdrop.sizing.program import play, usual_way
from heathdrop.sizing.size import Rated, Sizing, size

#: What names another family's best rig, and another line, to compare with; how many at once.
OTHER_LURE, OTHER_LINE, MOST_COMPARED = "lure:", "line:", 2


@dataclass(frozen=True)
class Compared:
    """Another rig, lure or line: its letter (B, C), what names it, its rating in its own sizing (the chosen
    rig's for another line), its cast; whether that is at the chosen rig's count and pace (``together``), and
    whether it fits better and the call still stands before it."""

    mark: str
    key: str
    kind: Literal["rig", "line", "lure"]
    sizing: Sizing
    rated: Rated
    result: CastResult
    together: bool = False
    call_stands: bool = False


def compared_with(
    sizing: Sizing,
    rated: Rated,
    keys: Sequence[str],
    hand: tuple[str, float | None, float | None] | None = None,
) -> tuple[Compared, ...]:
    """Up to two others. With a ``hand`` (way, lift m, hold s) rigs and lines are worked as the chosen rig is,
    at its count and pace; without, each rig as it is sized. Raises BadInput for an unknown one."""
    return tuple(
        _compared(mark, key, sizing, rated, hand)
        for mark, key in zip("BC", [k for k in keys if k][:MOST_COMPARED], strict=False)
    )


def _compared(
    mark: str, key: str, sizing: Sizing, rated: Rated, hand: tuple[str, float | None, float | None] | None
) -> Compared:
    catalog = catalogue.load()
    if key.startswith(OTHER_LURE):
        return _other_lure(mark, key, sizing, rated)
    way, lift_m, hold_s = hand or (usual_way(catalog, sizing, rated), None, None)
    if key.startswith(OTHER_LINE):
        _, material, test = (*key.split(":"), "", "")[:3]
        pounds = float(test) if test.replace(".", "").isdigit() else 0.0
        line = line_by_test(catalog, material, pounds, "compare")
        result = play(sizing, rated, way, lift_m, hold_s, line=line)
        return Compared(mark, key, "line", sizing, rated, result, together=True)
    whole, other = with_rig(sizing, RigName.parse(key))
    if hand is None:
        result = play(whole, other, usual_way(catalog, whole, other))
    else:
        result = play(sizing, rated, way, lift_m, hold_s, lure=other.lure)
    return Compared(mark, key, "rig", whole, other, result, together=hand is not None)


def _other_lure(mark: str, key: str, sizing: Sizing, rated: Rated) -> Compared:
    """Another family's best rig in this water, worked its own way at its own count and pace."""
    catalog, family = catalogue.load(), key.removeprefix(OTHER_LURE)
    catalog.pick(catalog.families, "compare", family)
    scenario = replace(sizing.scenario, families=(family,), box="standard")
    theirs = size(catalog, scenario, knowledge=sizing.knowledge)
    best = theirs.rigs[0]
    better = best.fits.score > rated.fits.score + catalog.judgement.fit.noise
    return Compared(
        mark=mark,
        key=key,
        kind="lure",
        sizing=theirs,
        rated=best,
        result=play(theirs, best, usual_way(catalog, theirs, best)),
        call_stands=better and _calls_before(rated, best, theirs),
    )


def _calls_before(rated: Rated, best: Rated, theirs: Sizing) -> bool:
    """Whether a rig stands before another in the call for this water, by fit and rules together."""
    standing = []
    for one in (rated, best):
        weighed, school = points_of(catalogue.load(), theirs.facts, theirs.scenario, one.rig.family)
        standing.append(math.log(one.fits.score) + sum(p for _, p in weighed) + school)
    return standing[0] > standing[1]
