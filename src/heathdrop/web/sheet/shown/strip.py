"""The answer strip: the rig in a line to be read aloud, and its figures with their bands."""

import math
from dataclasses import dataclass, replace

from heathdrop.answers import plan as plans
from heathdrop.answers.cast import WorkedCast
from heathdrop.conditions.cover import SNAGS
from heathdrop.sizing.bands import Bands
from heathdrop.sizing.cadence import Cadenced
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import AT_ONCE_S, counted, feet, ounces_as_written, turns_said

#: A lure with this share of its time on the floor, in a band narrower than this (ft), is worked along it.
ON_FLOOR, LEAST_SPREAD_FT = 0.3, 0.15
#: With this share at least it is still just off it.
NEAR_FLOOR = 0.15


@dataclass(frozen=True)
class Figure:
    """A figure of the answer strip: a label, the value said aloud, its unit and its band; what is ``wanted``
    of it (its ends), whether that is hit, near or missed, the control that sets it where it is the angler's
    own, and the address that leaves it to be judged again."""

    label: str
    value: str
    unit: str
    band: str
    wanted: str = ""
    hit: str = ""
    own: str = ""
    back: str = ""


def _turns(sizing: Sizing, pace_ft_s: float) -> str:
    """Handle turns as a hand counts them."""
    return f"{turns_said(sizing.scenario.gear.turns_per_s(pace_ft_s))} turns in 20 s"


def _floor_said(worked: WorkedCast) -> str:
    """Where a lure that is meant for the floor works: a light one on a long line may be pulled off it."""
    if worked.on_floor >= ON_FLOOR:
        return "along the floor"
    return "just off the floor" if worked.on_floor >= NEAR_FLOOR else "pulled off the floor"


def aloud(sizing: Sizing, rated: Rated) -> str:
    """The answer as one line a person could read aloud."""
    pace = feet(rated.tuned.pace_m_s)
    head = ounces_as_written(rated.rig.head_oz)
    rig = f"{head} oz {rated.rig.family.name}, {rated.rig.trailer.name}"
    down = f"{rig}: count {rated.countdown_s:.1f}"
    if rated.work == "hang":
        return f"{down} with the line over a limb, stop it, shake it there {rated.tuned.useful_s:.0f} s."
    if rated.work == "drop":
        return f"{down}, let it land, hop it once or twice, then move on."
    if rated.work == "bottom":
        return f"{down}, let it land, then work it along the floor, a foot in about {1.0 / pace:.0f} s."
    sized = rated.cadence
    if sized is not None:
        begins = down if sized.cadence.floor else f"{rig}: {counted(rated.countdown_s)}"
        return f"{begins}, {_cadence_said(sizing, sized)}."
    return (
        f"{rig}: {counted(rated.countdown_s)}, then {pace:.1f} ft a second, {_turns(sizing, pace)}, rod tip "
        f"{sizing.scenario.gear.rod_tip_height_ft:g} ft up."
    )


def _cadence_said(sizing: Sizing, sized: Cadenced) -> str:
    """What the hands do in a cadence, to be read aloud."""
    far, near = _turns(sizing, sized.far_ft_s), _turns(sizing, sized.near_ft_s)
    pull, pause = f"{sized.cadence.lift_ft * 12:.0f} inches", f"{sized.cadence.pause_s:g} s"
    turns = _turns(sizing, feet(sized.tuned.pace_m_s))
    return {
        "slow-roll": f"let it land, then roll it so that it keeps touching: {far} far out, {near} close in",
        "yo-yo": f"let it land, then reel it up {pull} and let it swing down {pause}, over and over",
        "stop-and-go": f"then {turns}, and now and then a dead stop of {pause}",
        "twitch": f"then {turns}, the tip snapped {pull} every {pause} and lowered as it sinks back",
        "hole-drop": f"then {turns} over the tops, and a dead stop of {pause} over each hole",
        "swim-out": f"stop it there, then {turns}, out past them",
        "burn-and-drop": f"then three quick seconds and a drop of {pause} on a tight line, over and over",
    }[sized.way]


#: How the strip says the way that a swum lure goes to its cover.
WAY_SAID = {
    "over": "over it",
    "ticking": "ticking it",
    "through": "through it",
    "beside": "beside it",
}


def _way_said(rated: Rated) -> str:
    return WAY_SAID.get(rated.way, "of the retrieve")


def rig_said(rated: Rated) -> str:
    """A rig in words, as plan and deck have it: ``3/8 oz swim jig, craw 4 in``."""
    return plans.rig_said(rated.rig)


def title_of(sizing: Sizing, rated: Rated) -> str:
    """The state in a line, for the window's title and the history."""
    return f"{rig_said(rated)} · {sizing.scenario.said} · Heathdrop"


def _pace_said(sizing: Sizing, rated: Rated) -> str:
    """The handle: turns in ten seconds, far out and close in where they differ."""
    sized = rated.cadence
    if sized is None or not sized.cadence.floor:
        return _turns(sizing, feet(rated.tuned.pace_m_s))
    far, near = (turns_said(sizing.scenario.gear.turns_per_s(v)) for v in (sized.far_ft_s, sized.near_ft_s))
    return f"{far} turns in 20 s far, {near} near"


#: How far beside what is wanted is near: feet, a share of a rate, chances.
NEAR_FT, NEAR_RATE, NEAR_CHANCE = 0.5, 0.15, 0.1


def _held(figure: Figure, at: float, band: tuple[float, float], near: float, own: str) -> Figure:
    """A figure held against what is wanted of it; ``near`` is how far beside that is near."""
    low, high = band
    off = max(low - at, at - high)
    how = "hits" if off <= 0.0 else "near" if off <= near else "misses"
    ends = [f"{v:g}" if own else f"{v:.1f}".removesuffix(".0") for v in (low, high) if v < math.inf]
    return replace(figure, wanted=" to ".join(ends), hit=how, own=own)


def wanted_of(
    sizing: Sizing, rated: Rated, figures: tuple[Figure, ...], mean_ft: float
) -> tuple[Figure, ...]:
    """The strip's figures with what is wanted beside what this rig does: judged, or the angler's own."""
    t, own, shown = sizing.targets, sizing.scenario.wanted, []
    for f in figures:
        if f.label in ("Runs at", "Works at"):
            f = _held(f, round(mean_ft, 1), t.depth_ft, NEAR_FT, "want_depth" if own.depth_ft else "")
        elif f.label == "Falls":
            falls, near = round(rated.fall_ft_s, 1), NEAR_RATE * rated.fall_ft_s
            f = _held(f, falls, t.fall_ft_s, near, "want_fall" if own.fall_ft_s else "")
        elif f.label == "Pace" and own.pace_ft_s is not None:
            pace = feet(rated.tuned.pace_m_s)
            f = _held(f, round(pace, 1), own.pace_ft_s, NEAR_RATE * pace, "want_pace")
        shown.append(f)
    if own.passes is not None:
        passes = 100.0 * rated.cover.passes
        through = Figure("Gets through", f"{passes:.0f}", "of 100", "casts")
        shown = [f for f in shown if f.label not in (through.label, "In the fish")]
        shown.append(
            _held(through, passes, (100.0 * own.passes, math.inf), 100.0 * NEAR_CHANCE, "want_passes")
        )
    return tuple(shown)


def figures_of(
    sizing: Sizing, rated: Rated, bands: Bands, worked: WorkedCast, usual: bool
) -> tuple[Figure, ...]:
    """What the strip says of a rig as it is worked, in its ``usual`` way or another: count, depth, bands."""
    pace = feet(rated.tuned.pace_m_s)
    fall, mean = rated.fall_ft_s, worked.mean_ft
    low, high = worked.mean_band_ft
    slow, fast = worked.count_band_s
    count = Figure("Count", f"{round(worked.count_s, 1):g}", "s", f"{slow:.1f} to {fast:.1f}")
    if worked.count_s < AT_ONCE_S and not worked.to_bottom:
        count = Figure("Count", "at once", "", "reel as it lands")
    falls = Figure(
        "Falls", f"{fall:.1f}", "ft/s", f"{fall * bands.fall_low:.1f} to {fall * bands.fall_high:.1f}"
    )
    if not usual:
        floor = worked.on_floor >= ON_FLOOR and high - low < LEAST_SPREAD_FT
        spread = "along the floor" if floor else f"{low:.1f} to {high:.1f}"
        return count, Figure("Works at", f"{mean:.1f}", "ft", spread), falls
    if rated.work in ("drop", "hang"):
        through = Figure("Gets through", f"{rated.cover.passes * 100:.0f}", "of 100", "quiet entries")
        hangs = Figure("Hangs up", f"{rated.cover.hangs * 100:.0f}", "of 100", "casts")
        works = Figure("Works at", f"{mean:.0f}", "ft", "hopped where it lands")
        if rated.work == "hang":
            works = Figure("Works at", f"{mean:.1f}", "ft", "shaken where it is stopped")
        return (
            count,
            works,
            falls,
            hangs if sizing.scenario.conditions.cover.kind in SNAGS else through,
        )
    if rated.work == "bottom":
        return (
            count,
            Figure("Sweep", f"{1.0 / pace:.0f}", "s a foot", "the rod moves it"),
            Figure("Works at", f"{mean:.0f}", "ft", _floor_said(worked)),
            falls,
            Figure("Felt", f"{rated.felt * 100:.0f}", "of 100", "landings, in today's wind"),
        )
    return (
        count,
        Figure("Pace", f"{pace:.1f}", "ft/s", _pace_said(sizing, rated)),
        Figure("Runs at", f"{mean:.1f}", "ft", f"{low:.1f} to {high:.1f}"),
        falls,
        Figure("In the fish", f"{rated.tuned.in_band * 100:.0f}", "%", _way_said(rated)),
    )
