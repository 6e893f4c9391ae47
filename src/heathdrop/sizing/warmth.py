"""Compile (or load from cache) every inner loop before the first request."""

import gc
import time

from heathdrop import catalog as catalogue
from heathdrop.conditions.scenario import Conditions, Scenario
from heathdrop.physics.kernels import ahead
from heathdrop.sizing.bands import bands_for
from heathdrop.sizing.program import play
from heathdrop.sizing.size import size


def warm_up() -> float:
    """Run one small question through every compiled path; seconds it took."""
    begun = time.perf_counter()
    helper = ahead.start()
    catalog = catalogue.load()
    sizing = size(
        catalog,
        Scenario(
            Conditions(water_temp_f=60.0, bottom_depth_ft=9.0, fish_depth_ft=6.0), families=("swim-jig",)
        ),
    )
    best = sizing.rigs[0]
    bands_for(catalog, sizing, [best])
    play(sizing, best)
    if helper is not None:
        helper.terminate()
        helper.wait()
    return time.perf_counter() - begun


def settle() -> None:
    """Leave what is there for good (compiled code, catalogue, routes) out of every later search for garbage:
    looking through it held single answers up for a tenth of a second."""
    gc.collect()
    gc.freeze()
