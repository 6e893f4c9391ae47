"""`make bench`: speed as ratios and percentiles within one run, through HTTP as in real life."""

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path

import httpx2 as httpx

from bench import page
from bench.box import fill_box, token_of
from bench.reference import reference_cast
from heathdrop import catalog as catalogue
from heathdrop.conditions.request import SizeRequest
from heathdrop.physics.cast import DISPLAY, Cast, fly
from heathdrop.physics.kernels.records import Limits
from heathdrop.physics.line import line_by_test
from heathdrop.physics.program import Phase
from heathdrop.physics.rig import Lure, lure_of, rig_by_name
from heathdrop.physics.water import water_at
from heathdrop.sizing.candidates import standard_rigs
from heathdrop.sizing.setting import setting_of
from heathdrop.sizing.tune import TUNED, scene_of, tune
from heathdrop.sizing.warmth import warm_up

PORT = 8653
WATER = {
    "water_temp_f": 58,
    "trend": "rising",
    "clarity_ft": 3,
    "bottom_depth_ft": 9,
    "fish_depth_ft": 6,
    "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
}
FOUR = ["swim-jig", "bladed-jig", "spinnerbait", "underspin"]


def timed(action: Callable[[int], object], times: int) -> list[float]:
    """Milliseconds of each of ``times`` runs, after two that do not count."""
    found = []
    for k in range(times + 2):
        begun = time.perf_counter()
        action(k)
        if k >= 2:
            found.append((time.perf_counter() - begun) * 1e3)
    return found


def said(name: str, ms: list[float], ask: float | None = None) -> None:
    """Print the median, the 95th percentile and what was asked."""
    p95 = statistics.quantiles(ms, n=20)[-1]
    wish = f"   asked p95 ≤ {ask:.0f}: {'met' if p95 <= ask else 'NOT met'}" if ask else ""
    print(
        f"{name:62s} median {statistics.median(ms):7.1f} ms   p95 {p95:7.1f} ms   n={len(ms)}{wish}",
        flush=True,
    )


@contextmanager
def server(
    folder: Path, env: dict[str, str] | None = None
) -> Iterator[tuple[subprocess.Popen[bytes], float]]:
    """The real server in its own process; yields it and the seconds to its first answer."""
    argv = [
        sys.executable,
        "-m",
        "heathdrop.cli",
        "serve",
        "--demo",
        "--port",
        str(PORT),
        "--data",
        str(folder / "b.sqlite"),
    ]
    begun = time.perf_counter()
    process = subprocess.Popen(argv, env={**os.environ, **(env or {})}, stdout=subprocess.DEVNULL)
    try:
        while True:
            try:
                httpx.get(f"http://127.0.0.1:{PORT}/", timeout=60).raise_for_status()
                break
            except httpx.TransportError:
                time.sleep(0.03)
        yield process, time.perf_counter() - begun
    finally:
        process.terminate()
        process.wait(10)


def peak_mb(pid: int) -> float:
    """Peak resident memory of a process, MB (Linux)."""
    lines = Path(f"/proc/{pid}/status").read_text().splitlines()
    return int(next(line for line in lines if line.startswith("VmHWM")).split()[1]) / 1024


def core() -> None:
    """The simulation against its reference, and how sizing grows."""
    cat, water = catalogue.load(), water_at(58)
    lure = lure_of(cat, rig_by_name(cat, "bladed-jig", 0.5, "craw"), water.density_kg_m3, 60.0)
    line = line_by_test(cat, "fluorocarbon", 15)
    cast = Cast(25.0, 0.6, ((0.0, 9.0), (99.0, 9.0)))
    program = [Phase("fall", slack=True, to_depth_m=2.0), Phase("retrieve", speed_m_s=0.7)]
    shown = timed(lambda _: fly(lure, line, water, cast, program, fidelity=DISPLAY), 30)
    slow = timed(lambda _: reference_cast(lure, line, water, 25.0, 0.6, 2.0, 0.7), 2)
    ratio = min(slow) / statistics.median(shown)
    print(f"a display cast is {ratio:.0f} times faster than the converged reference (asked: 100)", flush=True)
    water_today = SizeRequest.model_validate({"conditions": WATER}).scenario()
    families = [replace(water_today, families=(f,)) for f in cat.families]
    rigs = [rig for one in families for rig in standard_rigs(setting_of(cat, one))]
    lures = [lure_of(cat, r, water.density_kg_m3, 60.0) for r in rigs]
    scene = scene_of(line, water, cast, (1.2, 1.8), 1e6)
    for count in (250, 500, 1000, 2500):
        many = (lures * 3)[:count]
        limits = [Limits(0.4, 1.2, 2.6, 0.3, 0.5, 0.9, 0.45, 0.35, 24.0)] * count

        def anew(_: int, some: list[Lure] = many, bounds: list[Limits] = limits) -> object:
            TUNED.clear()  # else what was found is remembered
            return tune(some, bounds, scene)

        ms = timed(anew, 3)
        print(
            f"  search of {count:5d} rigs {statistics.median(ms):7.0f} ms, "
            f"{statistics.median(ms) / count:.2f} ms a rig"
        )


def through_http() -> None:
    """What an angler waits for."""
    with tempfile.TemporaryDirectory() as folder:
        cold = {"NUMBA_CACHE_DIR": str(Path(folder) / "cache")}
        with server(Path(folder), cold) as (_, seconds):
            print(f"cold start to first answer, nothing compiled: {seconds:.1f} s", flush=True)
        with server(Path(folder)) as (process, seconds):
            print(f"cold start to first answer, compiled before: {seconds:.1f} s", flush=True)
            with httpx.Client(base_url=f"http://127.0.0.1:{PORT}", timeout=60) as web:
                hx = {"hx-request": "true"}

                def sized(k: int) -> object:
                    body = {"conditions": {**WATER, "fish_depth_ft": 3 + k / 10}, "families": FOUR}
                    return web.post("/api/v1/size", json=body).raise_for_status()

                said("size, 4 families, 328 rigs each at its own best", timed(sized, 40), 400)
                one = "family=swim-jig&fish_depth_ft"
                page = timed(
                    lambda k: web.get(f"/?{one}={3 + k / 10:.1f}", headers=hx).raise_for_status(), 40
                )
                said("page, one control moved, family chosen: board of 80 rigs", page, 150)
                page = timed(
                    lambda k: web.get(f"/?fish_depth_ft={3 + k / 10:.1f}", headers=hx).raise_for_status(), 40
                )
                said("page, one control moved, all families called, then the board", page, 200)
                cast = timed(
                    lambda k: web.get(
                        f"/?view=cast&lift_in={1 + k / 10:.1f}&way=hop", headers=hx
                    ).raise_for_status(),
                    40,
                )
                said("Cast view, one control moved for one rig", cast, 150)
                print(f"peak memory of the server: {peak_mb(process.pid):.0f} MB (asked: 400)", flush=True)
    with tempfile.TemporaryDirectory() as folder:
        fill_box(Path(folder) / "b.sqlite")
        with (
            server(Path(folder)) as (process, _),
            httpx.Client(base_url=f"http://127.0.0.1:{PORT}", timeout=60) as web,
        ):
            large_box(web)
            print(f"peak memory of the server with the large box: {peak_mb(process.pid):.0f} MB", flush=True)


def large_box(web: httpx.Client) -> None:
    """400 heads and 600 trailers: the list, a filter, an edit, a sizing."""
    token = token_of(web)
    listed = {"hx-request": "true", "hx-target": "boxlist"}
    said(
        "box of 400 heads and 600 trailers opens",
        timed(lambda _: web.get("/box").raise_for_status(), 20),
        200,
    )
    words = ("craw", "3/8", "swim jig", "paddle")
    found = timed(
        lambda k: web.get("/box", params={"q": words[k % 4]}, headers=listed).raise_for_status(), 20
    )
    said("it is filtered", found, 200)
    edit = timed(
        lambda k: web.post(f"/box/{k + 1}", data={"token": token, "quantity": k % 9}).raise_for_status(), 20
    )
    said("a piece is edited", edit, 200)
    picked = timed(
        lambda k: web.get(
            "/", params={"box": "mine", "family": "swim-jig", "fish_depth_ft": 3 + k / 10}
        ).raise_for_status(),
        20,
    )
    said("a rig is sized from it", picked, 1000)


if __name__ == "__main__":
    warm_up()
    core()
    through_http()
    page.main()
