"""`make bench AGAINST=REV`: this tree and another revision, asked in turn, as ratios of medians: of the time
waited, and of the processor time that the servers spent."""

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import httpx2 as httpx

ROOT = Path(__file__).parent.parent
PORTS = {"here": 8655, "there": 8656}
TIMES, ASIDE = 24, 3
HX = {"hx-request": "true"}
WATER = {
    "water_temp_f": 58,
    "trend": "rising",
    "clarity_ft": 3,
    "bottom_depth_ft": 9,
    "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
}
FOUR = ["swim-jig", "bladed-jig", "spinnerbait", "underspin"]


def served(tree: Path, port: int, folder: Path) -> subprocess.Popen[bytes]:
    """The server of a source tree in its own process, warm."""
    argv = [
        "-m",
        "heathdrop.cli",
        "serve",
        "--demo",
        "--port",
        str(port),
        "--data",
        str(folder / f"{port}.sqlite"),
    ]
    env = {**os.environ, "PYTHONPATH": str(tree / "src"), "NUMBA_CACHE_DIR": str(folder / str(port))}
    process = subprocess.Popen([sys.executable, *argv], env=env, cwd=tree, stdout=subprocess.DEVNULL)
    begun = time.monotonic()
    while time.monotonic() - begun < 180.0:
        try:
            httpx.get(f"http://127.0.0.1:{port}/", timeout=120).raise_for_status()
            return process
        except httpx.TransportError:
            time.sleep(0.1)
    raise SystemExit(f"the server of {tree} did not answer")


def spent_s(process: subprocess.Popen[bytes]) -> float:
    """Processor seconds that a server has spent so far, all of its threads."""
    fields = Path(f"/proc/{process.pid}/stat").read_text().rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


def asks() -> dict[str, Callable[[httpx.Client, int], object]]:
    """What an angler waits for, each a little different from the one before."""

    def size(web: httpx.Client, k: int, families: list[str] | None) -> object:
        body = {"conditions": {**WATER, "fish_depth_ft": 3 + k / 10}, "families": families}
        return web.post("/api/v1/size", json=body).raise_for_status()

    def page(web: httpx.Client, k: int, more: str) -> object:
        return web.get(f"/?{more}fish_depth_ft={3 + k / 10:.1f}", headers=HX).raise_for_status()

    def moved(web: httpx.Client, k: int, what: str) -> object:
        return web.get(f"/?family=swim-jig&{what}", headers=HX).raise_for_status()

    return {
        "four-family board": lambda web, k: size(web, k, FOUR),
        "families called, JSON": lambda web, k: size(web, k, None),
        "a control moved, family chosen": lambda web, k: page(web, k, "family=swim-jig&"),
        "a control moved, family called": lambda web, k: page(web, k, ""),
        "a control moved in the Water view": lambda web, k: page(web, k, "view=water&"),
        "a control that moves no rig": lambda web, k: moved(web, k, f"clarity_ft={3 + k / 10:.1f}"),
    }


def main() -> None:
    revision = sys.argv[1]
    with tempfile.TemporaryDirectory() as scratch:
        folder, tree = Path(scratch), Path(scratch) / "there"
        subprocess.run(
            ["git", "worktree", "add", "-q", "--detach", str(tree), revision], cwd=ROOT, check=True
        )
        processes = []
        try:
            processes = [served(ROOT, PORTS["here"], folder), served(tree, PORTS["there"], folder)]
            webs = {k: httpx.Client(base_url=f"http://127.0.0.1:{p}", timeout=120) for k, p in PORTS.items()}
            for name, ask in asks().items():
                ms: dict[str, list[float]] = {"here": [], "there": []}
                busy = dict.fromkeys(ms, 0.0)
                for k in range(TIMES + ASIDE):
                    for which in sorted(ms, reverse=bool(k % 2)):
                        server = processes[list(PORTS).index(which)]
                        begun, before = time.perf_counter(), spent_s(server)
                        ask(webs[which], k)
                        if k >= ASIDE:
                            ms[which].append((time.perf_counter() - begun) * 1e3)
                            busy[which] += spent_s(server) - before
                here, there = (statistics.median(ms[which]) for which in ("here", "there"))
                processor = busy["here"] / max(busy["there"], 1e-9)
                print(
                    f"{name:36s} {here / there:5.2f} of {revision}, processor {processor:5.2f}   "
                    f"({here:.0f} ms against {there:.0f})",
                    flush=True,
                )
        finally:
            for process in processes:
                process.terminate()
                process.wait(10)
            subprocess.run(["git", "worktree", "remove", "--force", str(tree)], cwd=ROOT, check=False)


if __name__ == "__main__":
    main()
