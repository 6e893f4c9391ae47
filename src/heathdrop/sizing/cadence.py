"""Cadence: a rig worked otherwise than steadily, measured like any cast, and told where it is better.

A programme is flown at the search's fidelity to choose, and the one that is told once more at the screens';
depth, the time among the fish and the share of it that the lure spends falling are read off its path. Paces
far and near are what the hand turns there: on the floor a hand slows as the line shortens, or it lifts off.
"""

import math
from dataclasses import dataclass

import numpy as np

from heathdrop.catalog import Catalog, Family
from heathdrop.catalog.rule_records import Cadence
from heathdrop.conditions.facts import degree
from heathdrop.errors import BadInput
from heathdrop.physics.cast import DISPLAY, Cast, CastResult, Fidelity, fly
from heathdrop.physics.kernels.records import USEFUL_FAR, USEFUL_NEAR, Limits, Samples, Scene, Tuned
from heathdrop.physics.kernels.search import TRIAL_SAMPLE_S, comfort, measure
from heathdrop.physics.rig import Lure
from heathdrop.sizing.setting import Setting
from heathdrop.sizing.tune import SEARCH
from heathdrop.sizing.ways import programme
from heathdrop.units import feet, metres

#: A lure that sinks at least so fast (m/s) is falling.
FALLING_M_S = 0.08
#: No mean depth is reckoned less, m.
LEAST_DEPTH_M = 0.05
#: Ends of the far and of the near part of a cast, as shares of it.
FAR_PART, NEAR_PART = (USEFUL_FAR, 0.6), (0.4, USEFUL_NEAR)


@dataclass(frozen=True)
class Cadenced:
    """A rig worked in a cadence: what it measures as a setting, the share of the useful time in which it
    falls, how far it glides on a pause (ft), the paces (ft/s) far and near, and what the handle is turned at
    while nothing eases it (m/s)."""

    cadence: Cadence
    tuned: Tuned
    count_s: float
    falling: float
    glides_ft: float
    far_ft_s: float
    near_ft_s: float
    handle_m_s: float

    @property
    def way(self) -> str:
        """The way of working that plays it."""
        return self.cadence.id


def evenly(cadence: Cadence, tuned: Tuned, count_s: float) -> Cadenced:
    """A cadence in which the rig is reeled evenly at its setting: nothing of it is played otherwise."""
    pace = feet(tuned.pace_m_s)
    return Cadenced(
        cadence=cadence,
        tuned=tuned,
        count_s=count_s,
        falling=0.0,
        glides_ft=0.0,
        far_ft_s=pace,
        near_ft_s=pace,
        handle_m_s=tuned.pace_m_s,
    )


def work_in(family: Family, cadence: Cadence | None) -> str:
    """Swim, bottom, drop or hang: a family's work, or what a cadence makes of it."""
    return (cadence.work if cadence is not None else "") or family.work


def cadences_for(catalog: Catalog, setting: Setting) -> list[Cadence]:
    """The cadences that the setting's family is worked in, in this water and mood."""
    return [c for c in catalog.cadences.values() if degree(c.when, setting.facts) >= 0.5]


def worked_in(
    setting: Setting,
    scene: Scene,
    limits: Limits,
    away: Cast,
    lure: Lure,
    steady: Tuned,
    count_s: float,
    cadence: Cadence,
) -> Cadenced | None:
    """A swum rig played in a cadence at the pace and count of its ``steady`` setting (a floor cadence from
    the bottom), and once more at the pace that should bring it back to the depth of the band where pauses
    or bursts took it out; None where it cannot be played or is not swum home."""
    played = _played(
        setting,
        scene,
        limits=limits,
        thrown=away,
        lure=lure,
        pace_m_s=steady.pace_m_s,
        count_s=count_s,
        cadence=cadence,
    )
    if played is None or cadence.floor or played.tuned.soft_share >= steady.soft_share:
        return played
    middle = 0.5 * (scene.band.top + scene.band.low)
    factor = math.sqrt(max(played.tuned.mean_m, LEAST_DEPTH_M) / middle)
    pace = min(limits.fastest_m_s, max(limits.slowest_m_s, steady.pace_m_s * factor))
    again = _played(
        setting, scene, limits=limits, thrown=away, lure=lure, pace_m_s=pace, count_s=count_s, cadence=cadence
    )
    if again is None:
        return played
    return max(played, again, key=lambda c: c.tuned.soft_share * c.tuned.comfort)


def cadence_played(
    setting: Setting, scene: Scene, limits: Limits, away: Cast, lure: Lure, chosen: Cadenced
) -> Cadenced | None:
    """The cadence that is to be told, measured as screens play it."""
    return _played(
        setting,
        scene,
        limits=limits,
        thrown=away,
        lure=lure,
        pace_m_s=chosen.handle_m_s,
        count_s=chosen.count_s,
        cadence=chosen.cadence,
        fidelity=DISPLAY,
    )


def _played(
    setting: Setting,
    scene: Scene,
    limits: Limits,
    thrown: Cast,
    lure: Lure,
    pace_m_s: float,
    count_s: float,
    cadence: Cadence,
    fidelity: Fidelity = SEARCH,
) -> Cadenced | None:
    lift, hold = metres(cadence.lift_ft) or None, cadence.pause_s or None
    phases = programme(
        cadence.id, pace_m_s, count_s=count_s, away_m=thrown.distance_m, lift_m=lift, hold_s=hold
    )
    try:
        cast = fly(
            lure,
            setting.line,
            setting.water,
            thrown,
            phases,
            fidelity=fidelity,
            sample_s=TRIAL_SAMPLE_S,
        )
    except BadInput:
        return None
    far, near, mean = (_closing(cast, *part) for part in (FAR_PART, NEAR_PART, (USEFUL_FAR, USEFUL_NEAR)))
    if mean is None or far is None or near is None:
        return None
    reeled = cast.time_s >= cast.fall_s
    samples = Samples(*(np.ascontiguousarray(column[reeled]) for column in cast.samples))
    pace = mean if cadence.floor else pace_m_s
    worth = comfort(mean, limits)
    own = scene._replace(distance=thrown.distance_m)
    measured = measure(
        out=samples,
        k=len(samples.t),
        scene=own,
        pace=pace,
        start=cast.start_depth_m,
        worth=worth,
        haze=limits.haze_m,
        spread=limits.spread_m,
    )
    if cadence.floor:
        met = setting.near_floor
        c = setting.scenario.conditions
        near_it = float(c.bottom_depth_ft - c.fish_depth_ft <= c.floor_reach_ft)
        measured = measured._replace(soft_share=met, in_band=met, near_band=max(measured.near_band, near_it))
    drop = lure.glide_ratio * cadence.pause_s * feet(cast.start_depth_m) / max(cast.fall_s, 0.1)
    return Cadenced(
        cadence=cadence,
        tuned=measured,
        count_s=cast.fall_s,
        falling=_falling(cast),
        glides_ft=drop,
        far_ft_s=feet(far),
        near_ft_s=feet(near),
        handle_m_s=pace_m_s,
    )


def _closing(cast: CastResult, far: float, near: float) -> float | None:
    """Mean pace (m/s) toward the angler between two shares of the cast; None where it is not swum."""
    x, away = cast.distance_m, cast.cast.distance_m
    inside = np.flatnonzero((cast.time_s >= cast.fall_s) & (x <= far * away) & (x >= near * away))
    if inside.size < 2:
        return None
    a, b = int(inside[0]), int(inside[-1])
    seconds = float(cast.time_s[b] - cast.time_s[a])
    return float(x[a] - x[b]) / seconds if seconds > 0.0 else None


def _falling(cast: CastResult) -> float:
    """Share of the work in which the lure sinks."""
    after = cast.time_s >= cast.fall_s
    t, z = cast.time_s[after], cast.depth_m[after]
    if t.size < 2:
        return 0.0
    seconds = np.diff(t)
    return float(np.sum(seconds[np.diff(z) > FALLING_M_S * seconds]) / np.sum(seconds))


def reaches_steadily(tuned: Tuned) -> bool:
    """Whether the steady retrieve at the same pace is mostly within the band or within ``NEAR_M`` of it."""
    return tuned.near_band >= 0.5
