"""A rated rig's own programme: count down on slack line, then a steady retrieve."""

from __future__ import annotations

from heathdrop.physics.cast import CastResult, Phase, fly
from heathdrop.sizing.size import Rated, Sizing


def program_of(rated: Rated) -> tuple[Phase, ...]:
    """The count and the pace that the search found."""
    return (
        Phase("fall", slack=True, to_depth_m=rated.tuned.start_depth_m),
        Phase("retrieve", speed_m_s=rated.tuned.pace_m_s),
    )


def play(sizing: Sizing, rated: Rated, *, shapes: bool = False) -> CastResult:
    """The rig's cast at display fidelity."""
    return fly(rated.lure, sizing.line, sizing.water, sizing.cast, program_of(rated), shapes=shapes)
