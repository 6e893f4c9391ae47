"""`make bench`: speed as ratios and percentiles within one run."""

from __future__ import annotations

import statistics
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from fastapi.testclient import TestClient

from heathdrop import catalog as catalogue
from heathdrop.physics.cast import DISPLAY, Cast, Fidelity, fly
from heathdrop.physics.line import line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import lure_of, rig_by_name
from heathdrop.physics.water import water_at
from heathdrop.warmth import warm_up
from heathdrop.web.app import create_app

FINEST = Fidelity(100, 1.0, 0.0005, 0.001)


def timed(action: Callable[[], object], times: int) -> list[float]:
    """Milliseconds of each of ``times`` runs."""
    found = []
    for _ in range(times):
        begun = time.perf_counter()
        action()
        found.append((time.perf_counter() - begun) * 1e3)
    return found


def said(name: str, ms: list[float]) -> None:
    """Print the median and the 95th percentile."""
    p95 = statistics.quantiles(ms, n=20)[-1]
    print(f"{name:58s} median {statistics.median(ms):8.1f} ms   p95 {p95:8.1f} ms   n={len(ms)}")


def main() -> None:
    """Run it all."""
    warm_up()
    cat, water = catalogue.load(), water_at(58)
    lure = lure_of(cat, rig_by_name(cat, "bladed-jig", 0.5, "craw"), water.density_kg_m3)
    line = line_by_test(cat, "fluorocarbon", 15)
    cast = Cast(25.0, 0.6, ((0.0, 9.0), (99.0, 9.0)))
    program = [Phase("fall", slack=True, to_depth_m=2.0), Phase("retrieve", speed_m_s=0.7)]
    shown = timed(lambda: fly(lure, line, water, cast, program, fidelity=DISPLAY), 30)
    finest = timed(lambda: fly(lure, line, water, cast, program, fidelity=FINEST), 2)
    print(f"a display cast is {min(finest) / statistics.median(shown):.0f} times faster than 100 segments at 0.5 mm steps")
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder) / "bench.sqlite", demo=True)
        client = TestClient(app, base_url="http://127.0.0.1")
        body = {"conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6}}
        said("size, 2 families, 128 rigs", timed(lambda: client.post("/api/v1/size", json=body), 30))
        hx = {"hx-request": "true"}
        said("page: one control moved, 64 rigs", timed(lambda: client.get("/?fish_depth_ft=5", headers=hx), 30))
        app.state.database.close()


if __name__ == "__main__":
    main()
