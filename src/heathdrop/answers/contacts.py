"""What the lure touched while it was fished, as the learning takes it.

A bottom that was found while the lure still fell is a drop test from the water; cover whose top was ticked on
the way home is a depth check, and so is a lure that was seen to run higher or lower than it was said to. The
depth of the place is a chart's or the angler's: an unknown of its own, shared by all that was found at a stop
on a day.
"""

from collections.abc import Sequence
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.answers.thrown import rig_of
from heathdrop.conditions.gear import Line
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.errors import BadInput
from heathdrop.learning.drops import predicted_s
from heathdrop.learning.observations import DepthCheck, DropTest
from heathdrop.sizing.cast import line_of
from heathdrop.units import metres

#: A tap comes so late (s) at most; from so long after the count on the lure was under way.
TAP_S, UNDER_WAY_S = 1.5, 2.5
#: No fall shorter than this (s) teaches: the thumb is a larger part of it than the lure.
LEAST_S = 1.5
#: So many times longer or shorter than expected, and the depth is wrong, or something else was touched.
APART = 1.6
#: Contacts that are learned from, the latest; depth checks among them (each is simulated over a grid).
MOST, MOST_CHECKS = 60, 12
#: The cast (ft) of a contact whose water does not say it.
USUAL_CAST_FT = 80.0

Contact = DropTest | DepthCheck


def contacts_of(made: Sequence[MadeCast]) -> list[Contact]:
    """The drop tests and depth checks of casts in the order of time; a cast that is none is passed over."""
    contacts = [c for c in map(contact_of, made) if c is not None][-MOST:]
    checks = [c for c in contacts if isinstance(c, DepthCheck)]
    late = {id(c) for c in checks[-MOST_CHECKS:]}
    return [c for c in contacts if isinstance(c, DropTest) or id(c) in late]


def contact_of(cast: MadeCast) -> Contact | None:
    """What a cast's contact teaches; None where it says nothing sure: no second, no line, no depth, a floor
    that is not level, or a time far from any fall to that depth."""
    conditions, at_s, row = cast.conditions or {}, cast.at_s, OUTCOME[cast.outcome]
    shows, count = row.shows, cast.countdown_s if cast.count_s is None else cast.count_s
    if not isinstance(cast.line, Line):
        return None
    if row.ran_off and cast.pace_ft_s > 0.0:
        off = metres(row.ran_off * catalogue.load().search.reach.ran_off_ft)
        return _ran(cast, cast.line, conditions, count_s=count, off_m=off)
    if at_s is None or at_s < LEAST_S:
        return None
    if shows == "bottom" and at_s <= count + TAP_S and not conditions.get("bottom_ft"):
        return _fall(cast, cast.line, conditions, at_s)
    if shows == "top" and at_s >= count + UNDER_WAY_S and cast.pace_ft_s > 0.0:
        cover = conditions.get("cover")
        top = _number(cover.get("top_depth_ft")) if isinstance(cover, dict) else 0.0
        return _ran(cast, cast.line, conditions, count_s=count, depth_m=metres(top)) if top >= 1.0 else None
    return None


def _number(value: Any) -> float:
    return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else 0.0


def _fall(cast: MadeCast, line: Line, conditions: dict[str, Any], at_s: float) -> DropTest | None:
    depth, warmth = _number(conditions.get("bottom_depth_ft")), _number(conditions.get("water_temp_f"))
    if depth < 1.0 or warmth <= 0.0:
        return None
    catalog = catalogue.load()
    try:
        test = DropTest(
            rig=rig_of(cast),
            line=line_of(catalog, line),
            line_material=line.material,
            depth_m=metres(depth),
            times_s=(at_s,),
            temperature_f=warmth,
            place=f"{cast.time.date()} {cast.stop}",
        )
    except BadInput:
        return None
    ratio = at_s / predicted_s(catalog, test, 1.0, 1.0, 1.0)
    return test if 1.0 / APART < ratio < APART else None


def _ran(
    cast: MadeCast,
    line: Line,
    conditions: dict[str, Any],
    *,
    count_s: float,
    depth_m: float = 0.0,
    off_m: float = 0.0,
) -> DepthCheck | None:
    """A swum lure that ran at a depth, or off the one that was said; None where it was not reeled evenly."""
    catalog = catalogue.load()
    if cast.work in catalog.cadences or catalog.families[cast.family].work != "swim":
        return None
    try:
        return DepthCheck(
            rig=rig_of(cast),
            line=line_of(catalog, line),
            pace_m_s=metres(cast.pace_ft_s),
            count_s=count_s,
            cast_m=metres(USUAL_CAST_FT),
            depth_m=depth_m,
            rod_tip_m=metres(cast.rod_tip_height_ft if cast.rod_tip_height_ft is not None else 2.0),
            temperature_f=_number(conditions.get("water_temp_f")) or 60.0,
            off_m=off_m,
        )
    except BadInput:
        return None
