"""Programmes for a rated rig: its own count and pace, or another way of working it."""

from dataclasses import replace

from heathdrop.catalog import Catalog
from heathdrop.physics.cast import Cast, CastResult, fly
from heathdrop.physics.line import Line
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure
from heathdrop.sizing.presentation import WAY_OF, presentation_of
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.sizing.ways import WAY, WAYS, Way, programme
from heathdrop.units import metres

__all__ = ["WAY", "WAYS", "Way", "cast_in", "play", "program_of", "usual_way"]


def usual_way(catalog: Catalog, sizing: Sizing, rated: Rated) -> str:
    """The way of working that the rig was sized in, or that its presentation in this water asks for."""
    if rated.cadence is not None:
        return rated.cadence.way
    return WAY_OF[presentation_of(catalog, rated.rig.family, sizing.facts)]


def program_of(
    sizing: Sizing,
    rated: Rated,
    way: str = "steady",
    lift_m: float | None = None,
    hold_s: float | None = None,
) -> tuple[Phase, ...]:
    """The programme of ``way`` for this rig, at the count and the pace that the search found."""
    pace, away = rated.tuned.pace_m_s, rated.cast.distance_m
    sized = rated.cadence
    if sized is not None and sized.way == way:
        pace = sized.handle_m_s
        lift_m = metres(sized.cadence.lift_ft) or None if lift_m is None else lift_m
        hold_s = sized.cadence.pause_s or None if hold_s is None else hold_s
    return programme(way, pace, count_s=rated.countdown_s, away_m=away, lift_m=lift_m, hold_s=hold_s)


def cast_in(rated: Rated, way: str) -> Cast:
    """The rig's cast as it is thrown for a ``way``: over a limb where it is to hang."""
    return replace(rated.cast, over_limb=way == "hang")


def play(
    sizing: Sizing,
    rated: Rated,
    way: str = "steady",
    lift_m: float | None = None,
    hold_s: float | None = None,
    *,
    lure: Lure | None = None,
    line: Line | None = None,
) -> CastResult:
    """The cast at display fidelity; another ``lure`` or ``line`` on the same programme, to compare."""
    program = program_of(sizing, rated, way, lift_m, hold_s)
    return fly(
        lure or rated.lure, line or sizing.line, sizing.water, cast_in(rated, way), program, shapes=True
    )
