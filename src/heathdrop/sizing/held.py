"""A dropped rig hung over a limb: let down to the fish's depth, stopped there and shaken.

Flown from the limb (:class:`heathdrop.physics.cast.Cast`), measured from the stop on.
"""

from dataclasses import replace

import numpy as np

from heathdrop.catalog.rule_records import Cadence
from heathdrop.errors import BadInput
from heathdrop.physics.cast import LIMB_M, fly
from heathdrop.physics.fall import time_to_depth_s
from heathdrop.physics.kernels.records import Limits, Samples, Scene
from heathdrop.physics.kernels.search import TRIAL_SAMPLE_S, measure
from heathdrop.physics.rig import Lure
from heathdrop.sizing.cadence import Cadenced
from heathdrop.sizing.setting import Setting
from heathdrop.sizing.tune import SEARCH
from heathdrop.sizing.ways import programme
from heathdrop.units import feet, metres

#: No rig is hung nearer the surface, m.
LEAST_M = 0.1


def hung(setting: Setting, scene: Scene, limits: Limits, lure: Lure, cadence: Cadence) -> Cadenced | None:
    """A rig hung at the middle of the band and shaken there, measured from its stop on; None where it cannot
    be played."""
    thrown = replace(setting.cast, over_limb=True)
    pace = float(np.sqrt(limits.liked_slow_m_s * limits.liked_fast_m_s))
    # Let down on slack it comes tight where the line's length ends, deeper by about half a limb's height.
    start = max(LEAST_M, 0.5 * (scene.band.top + scene.band.low) - 0.5 * LIMB_M)
    count = time_to_depth_s(lure, start, setting.line, setting.water)
    lift, hold = metres(cadence.lift_ft), cadence.pause_s
    program = programme(cadence.id, pace, count_s=count, away_m=thrown.distance_m, lift_m=lift, hold_s=hold)
    try:
        cast = fly(
            lure, setting.line, setting.water, thrown, program, fidelity=SEARCH, sample_s=TRIAL_SAMPLE_S
        )
    except BadInput:
        return None
    reeled = cast.time_s >= cast.fall_s
    samples = Samples(*(np.ascontiguousarray(column[reeled]) for column in cast.samples))
    # All of it is work: what is measured is what lies in the useful part of a cast.
    samples = samples._replace(x=np.full(len(samples.t), 0.5 * scene.distance))
    measured = measure(
        out=samples,
        k=len(samples.t),
        scene=scene,
        pace=pace,
        start=cast.start_depth_m,
        worth=1.0,
        haze=scene.band.haze,
        spread=0.0,
    )
    return Cadenced(
        cadence=cadence,
        tuned=measured,
        count_s=cast.fall_s,
        falling=0.0,
        glides_ft=0.0,
        far_ft_s=feet(pace),
        near_ft_s=feet(pace),
        handle_m_s=pace,
    )
