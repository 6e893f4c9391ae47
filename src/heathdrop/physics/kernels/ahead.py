"""A second process that compiles kernels from the other end, so that a first start takes two cores' time.

The first process compiles kernels in the order in which :func:`run_chain` calls them; this one begins with
those called last and leaves each in the cache. Whoever comes to a kernel second finds it there, or
compiles it again: nothing waits for anything, and nothing depends on the second process.
"""

import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import numpy as np
from numba import typeof

from heathdrop.physics.kernels import chain, ground, search
from heathdrop.physics.kernels.records import Band, Limits, LineParams, LureParams, Scene, samples_room
from heathdrop.physics.kernels.state import ROWS


def calls() -> Iterator[tuple[Any, tuple[Any, ...]]]:
    """Kernels, the last called first, each with arguments of the kinds it is called with."""
    s, rows, mesh = np.zeros((ROWS, 2)), np.zeros((2, 4)), np.zeros(2)
    line, lure = LineParams(*[1.0] * 12), LureParams(*[1.0] * 7)
    free = ground.Ground(False, False, 1.0, 0.0, 0.0)
    scene = Scene(line, rows, 1.0, 1.0, Band(*[1.0] * 8))
    yield search.comfort, (1.0, Limits(*[1.0] * 10))
    yield search.measure, (samples_room(1), 1, scene, 1.0, 1.0, 1.0, 1.0, 1.0)
    yield ground.stand, (s, 1, rows, rows, free, 1.0, 1.0)
    yield ground.keep_line_out, (s, 1, rows, 1.0, rows)
    yield ground.round_lips, (s, 1, rows)
    yield chain.move, (s, 1, 1.0)
    yield chain.tensions, (s, 1)
    yield chain.assemble, (s, mesh, 1, 1.0, 1.0, 1.0, 1.0)
    yield chain.lure_node, (s, mesh, 1, 1.0, lure, line, 1.0, free)
    yield chain.line_nodes, (s, mesh, 1, 1.0, 1.0, line, 1.0)


def cache_folder() -> Path:
    """The folder that holds these kernels' machine code: that of this very copy of the sources."""
    return Path(search.search.stats.cache_path)  # type: ignore[attr-defined]


def start() -> subprocess.Popen[bytes] | None:
    """The second process; None where everything is compiled already or there is one core only."""
    if any(cache_folder().glob("*.nbc")) or (os.cpu_count() or 1) < 2:
        return None
    quiet = {"stdout": subprocess.DEVNULL, "stderr": subprocess.DEVNULL}
    return subprocess.Popen([sys.executable, "-m", __name__], **quiet)  # type: ignore[call-overload,no-any-return]


if __name__ == "__main__":
    for kernel, given in calls():
        kernel.compile(tuple(typeof(one) for one in given))  # type: ignore[no-untyped-call]
