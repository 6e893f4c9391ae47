"""One change: the smallest single thing that should mend what went wrong, then the next smallest.

Where the model knows, each change is simulated and its effect said in feet or in chances; where it does
not, the rules speak. A change without effect is not shown.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from heathdrop.advice.change import bites, cover
from heathdrop.advice.change.depth import depth_changes
from heathdrop.advice.change.hand import Change, Hand
from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import ROOFS, SNAGS
from heathdrop.errors import BadInput, require_between
from heathdrop.sizing.setting import Setting, setting_of
from heathdrop.sizing.size import Rated, Sizing

__all__ = ["COMPLAINTS", "MEASURED", "MOST_MISSED_FT", "Change", "changes_for", "likely"]


COMPLAINTS = {
    "ran-too-high": "It ran too high",
    "ran-too-low": "It ran too low",
    "fouled": "It fouled",
    "hung-up": "It hung up",
    "short-strikes": "Short strikes",
    "will-not-go-through": "It will not go through",
    "not-felt": "I could not feel it",
    "nothing": "Nothing at all",
}
#: Complaints that can be measured in feet.
MEASURED = ("ran-too-high", "ran-too-low")
#: The most that a lure may have missed by, ft.
MOST_MISSED_FT = 30.0


def likely(work: str, cover_kind: str) -> tuple[str, ...]:
    """The complaints that a stop is prepared for: what a lure of this work can do wrong in this cover."""
    held = ("fouled",) if cover_kind in cover.STEMS else ("hung-up",) if cover_kind in SNAGS else ()
    if work == "swim":
        return (*MEASURED, *held, "short-strikes", "nothing")
    through = ("will-not-go-through",) if cover_kind in ROOFS else ()
    return ("not-felt", *through, *(() if through else held), "short-strikes", "nothing")


def changes_for(
    catalog: Catalog, sizing: Sizing, rated: Rated, complaint: str, missed_ft: float | None = None
) -> tuple[Change, ...]:
    """Changes for a complaint, smallest that mends first; ``missed_ft`` is by how much it ran too high or
    low, None for unknown. Raises BadInput for an unknown complaint or a miss that cannot be."""
    if complaint not in COMPLAINTS:
        raise BadInput("wrong", complaint, "one of " + ", ".join(COMPLAINTS))
    if missed_ft is not None:
        require_between("missed_ft", missed_ft, 0.1, MOST_MISSED_FT, "ft")
    setting = setting_of(catalog, replace(sizing.scenario, families=(rated.rig.family.id,)), sizing.known)
    hand = Hand(rated.rig, setting.line, rated.countdown_s, rated.tuned.pace_m_s, sizing.cast.rod_tip_m)
    missed = catalog.judgement.change.needed_ft if missed_ft is None else missed_ft
    if complaint in MEASURED:
        down = 1.0 if complaint == "ran-too-high" else -1.0
        found = (
            depth_changes(setting, rated, hand, down, missed)
            if setting.family.work == "swim"
            else bites.lost_touch(setting, rated, hand)
        )
    else:
        makers: dict[str, Callable[[Setting, Rated, Hand], list[Change]]] = {
            "fouled": cover.fouled,
            "hung-up": cover.hung,
            "will-not-go-through": cover.through,
            "short-strikes": bites.short,
            "not-felt": bites.felt,
            "nothing": bites.nothing,
        }
        found = makers[complaint](setting, rated, hand)
    return tuple(sorted(found, key=lambda c: not c.mends))
