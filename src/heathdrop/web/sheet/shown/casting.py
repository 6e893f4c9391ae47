"""The Cast view: the cast as data to play, the countdown, the coaches, and what another line or rig would
do."""

import json
from dataclasses import dataclass

import numpy as np

from heathdrop.answers.cast import WorkedCast, count_window, countdown, glide_reach_ft
from heathdrop.answers.picked import Hand, Picked
from heathdrop.measures import TURNS, is_metric, marks, unit_said
from heathdrop.physics.cast import CastResult
from heathdrop.sizing.bands import Bands
from heathdrop.sizing.program import WAY, WAYS, Way
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import (
    AT_ONCE_S,
    M_PER_FT,
    M_PER_IN,
    count_said,
    feet,
    feet_said,
    turns_said,
)
from heathdrop.web.sheet.shown.comparing import more_options
from heathdrop.web.sheet.shown.section import span_ft
from heathdrop.web.shell.frame import NARROW, WIDE, Scale

FRAME_S = 0.2
#: Ways in which the handle's pace is what matters.
REELED = ("steady", "slow-roll", "stop-and-go", "burn-and-drop", "twitch", "swing", "swim-out", "hole-drop")
#: Steps between the countdown's rows, in the units said, and how many rows at most.
ROW_STEPS, MOST_ROWS = {False: (1.0, 2.0, 5.0, 10.0), True: (0.5, 1.0, 2.0, 5.0)}, 18


@dataclass(frozen=True)
class Choices(Hand):
    """What the angler chose in an address: the hand, the rigs compared with, feet that a cast missed by."""

    against: tuple[str, ...] = ()
    missed_ft: float | None = None


@dataclass(frozen=True)
class Foot:
    """A row of the countdown: depth, seconds thrown and pulled off the reel, band, whether in the target."""

    depth: str
    seconds: str
    band: str
    pulled: str
    inside: bool


@dataclass(frozen=True)
class Casting:
    """Everything the Cast panel shows."""

    ways: tuple[Way, ...]
    way: Way
    lift_in: str
    hold_s: str
    more: tuple[tuple[str, tuple[tuple[str, str], ...]], ...]
    window: str
    slack_said: str
    at_count: str
    feet: tuple[Foot, ...]
    paced: bool
    turns_per_s: str
    turns_said: str
    count_s: str
    count_said: str
    bottom_said: str
    glide_said: str
    seconds: str
    data: str


def feet_rows(sizing: Sizing, rated: Rated, bands: Bands) -> tuple[Foot, ...]:
    """The countdown's rows in words."""
    depths = marks(sizing.scenario.conditions.bottom_depth_ft, "ft", ROW_STEPS[is_metric()], MOST_ROWS)[1:]
    rows = countdown(sizing, rated, bands, [at for at, _ in depths])
    return tuple(
        Foot(
            said,
            f"{r.seconds:.1f}",
            f"{r.low_s:.1f} to {r.high_s:.1f}",
            f"{r.pulled_s:.1f}",
            r.inside,
        )
        for r, (_, said) in zip(rows, depths, strict=True)
    )


def window_said(sizing: Sizing, rated: Rated, worked: WorkedCast) -> str:
    """How far a count may be off and what it then still does; for a lure that is let land, when it lands."""
    if worked.to_bottom:
        low, high = worked.count_band_s
        bottom = feet_said(sizing.scenario.conditions.bottom_depth_ft)
        return f"It lands in {bottom} ft after {low:.1f} to {high:.1f} s: wait for the line to go slack."
    if rated.work == "hang":
        return f"Stop it after {worked.count_s:.1f} s, the line over a limb, and shake it there."
    w = count_window(sizing, rated)
    band = f"{feet_said(w.top_ft)} to {feet_said(w.low_ft)} ft"
    if w.early_s < AT_ONCE_S:
        return f"Reel at once, or after up to {w.late_s:.1f} s: it runs at {band}, at this pace."
    return f"Any count from {w.early_s:.1f} to {w.late_s:.1f} s runs at {band}, at this pace."


def _taken_up(cast: CastResult) -> str:
    """How long the slack is reeled in before the pace, in words; nothing where there is hardly any."""
    spent = float(np.sum(np.diff(cast.time_s) * cast.taking_up[:-1]))
    if spent < 0.5:
        return ""
    return f"Then reel the slack in fast, about {spent:.0f} s, until the line comes tight: now the pace."


def _seconds_said(count_s: float) -> str:
    said = count_said(count_s)
    return said if count_s < AT_ONCE_S else f"{said} s"


def casting_of(one: Picked, hand: Hand, others: tuple[CastResult, ...]) -> Casting:
    """The Cast panel for a picked rig."""
    sizing, rated, own, worked = one.sizing, one.rated, one.cast, one.worked
    way = WAY[one.way]
    per_turn = sizing.scenario.gear.reel.inches_per_turn
    pace = feet(rated.tuned.pace_m_s)
    turns = sizing.scenario.gear.turns_per_s(pace)
    lift = way.lift_m if hand.lift_m is None else hand.lift_m
    hold = way.hold_s if hand.hold_s is None else hand.hold_s
    reach = glide_reach_ft(rated, own)
    return Casting(
        ways=WAYS,
        way=way,
        lift_in="" if lift is None else f"{lift / M_PER_IN:.0f}",
        hold_s="" if hold is None else f"{hold:g}",
        more=more_options(sizing, rated),
        window=window_said(sizing, rated, worked),
        slack_said=_taken_up(own),
        at_count="Down" if worked.to_bottom else "Stop" if rated.work == "hang" else "Reel",
        feet=feet_rows(sizing, rated, one.bands),
        paced=way.id in REELED,
        turns_per_s=f"{turns:.4f}",
        turns_said=f"{turns_said(turns)} turns in 20 s, {pace:.1f} ft/s on a {per_turn:g} in reel",
        count_s=f"{worked.count_s:.2f}",
        count_said=f"{worked.count_s:.1f} s" if worked.to_bottom else _seconds_said(worked.count_s),
        bottom_said=f"{own.bottom_s:.0f} s of this cast on the bottom." if own.bottom_s >= 0.5 else "",
        glide_said=f"This trailer glides: it may land up to {reach:.1f} ft to any side of the line."
        if reach >= 0.3
        else "",
        seconds=f"{own.time_s[-1]:.1f}",
        data=_data(sizing, own, others),
    )


def _data(sizing: Sizing, own: CastResult, others: tuple[CastResult, ...]) -> str:
    """The cast as JSON for the player: frames of time, lure, line and phase, in feet."""
    gear, c = sizing.scenario.gear, sizing.scenario.conditions
    keep = np.searchsorted(own.time_s, np.arange(0.0, own.time_s[-1], FRAME_S))
    keep = np.unique(np.append(keep, len(own.time_s) - 1))
    scales = {
        f.name: Scale(f, span_ft(own, others), c.bottom_depth_ft, gear.rod_tip_height_ft)
        for f in (WIDE, NARROW)
    }

    def track(result: CastResult) -> list[list[float]]:
        every = np.searchsorted(result.time_s, own.time_s[keep]).clip(0, len(result.time_s) - 1)
        return [
            [round(feet(x), 2), round(feet(z), 2)]
            for x, z in zip(result.distance_m[every], result.depth_m[every], strict=True)
        ]

    line = [np.round(shape / M_PER_FT, 2).ravel().tolist() for shape in own.shapes[keep][:, ::2, :]]
    payload = {
        "t": np.round(own.time_s[keep], 2).tolist(),
        "lure": track(own),
        "line": line,
        "bottom": own.on_bottom[keep].astype(int).tolist(),
        "reeling": (np.ceil(own.samples.phase[keep] > 0) + own.taking_up[keep]).astype(int).tolist(),
        "rivals": [track(r) for r in others],
        "say": {"unit": unit_said("ft"), "per": TURNS["ft"].factor if is_metric() else 1.0},
        "scales": {
            name: {"x0": s.x(0.0), "kx": s.per_ft_x, "y0": s.y(0.0), "ky": s.per_ft_y}
            for name, s in scales.items()
        },
    }
    return json.dumps(payload, separators=(",", ":")).replace("<", "\\u003c")
