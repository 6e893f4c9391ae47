"""Ten clients of mixed use against the real program: its memory, its handles, answers of 500, casts lost.

    python -m bench.mixed MINUTES

Waters at random on every view, pages, casts, pieces for the box, sizes, lessons, exports; two to six seconds
between one client's requests.
"""

import os
import random
import sqlite3
import sys
import tempfile
import threading
import time
import uuid
from collections.abc import Callable
from pathlib import Path

import httpx2 as httpx

from bench.attacks import RIG, Program

CLIENTS, VIEWS = 10, ("size", "water", "rig", "cast", "search")
PAGES = ("log", "box", "drops", "deck", "plan", "train", "data", "log/taught", "deck/record")
CAST = {"time": "2026-10-03T06:12:00Z", "countdown_s": 2, "pace_ft_s": 2.2, **RIG}


class Client:
    """One client: what it does is drawn from its own seed."""

    def __init__(self, program: Program, seed: int) -> None:
        self.rng, self.token = random.Random(seed), program.token()
        self.web = httpx.Client(base_url=program.web.base_url, timeout=120, follow_redirects=True)
        self.answers: list[int] = []
        self.acknowledged: set[str] = set()

    def _water(self) -> dict[str, int]:
        return {
            "water_temp_f": self.rng.randint(44, 84),
            "bottom_depth_ft": 9,
            "fish_depth_ft": self.rng.randint(3, 8),
        }

    def _sheet(self) -> httpx.Response:
        return self.web.get("/", params={**self._water(), "view": self.rng.choice(VIEWS)})

    def _cast(self) -> httpx.Response:
        outcome, uid = self.rng.choice(("nothing", "fish", "bump")), str(uuid.uuid4())
        body = {**CAST, "id": uid, "outcome": outcome, "conditions": self._water()}
        answer = self.web.post("/api/v1/casts", json=body)
        if answer.status_code == httpx.codes.OK:
            self.acknowledged.add(uid)
        return answer

    def run(self, until: float) -> None:
        """Ask until the clock says so."""
        does: tuple[tuple[Callable[[], httpx.Response], float], ...] = (
            (self._sheet, 0.25),
            (lambda: self.web.get(f"/{self.rng.choice(PAGES)}"), 0.15),
            (self._cast, 0.25),
            (lambda: self.web.post("/box", data={"token": self.token, "entry": "3/8 swim jig soak"}), 0.1),
            (lambda: self.web.post("/api/v1/size", json={"conditions": self._water()}), 0.1),
            (lambda: self.web.get("/api/v1/lessons"), 0.08),
            (lambda: self.web.get("/export.zip"), 0.07),
        )
        acts, shares = [act for act, _ in does], [share for _, share in does]
        while time.time() < until:
            self.answers.append(self.rng.choices(acts, shares)[0]().status_code)
            time.sleep(self.rng.uniform(2.0, 6.0))


def _memory_mb(pid: int) -> float:
    lines = Path(f"/proc/{pid}/status").read_text().splitlines()
    return int(next(line for line in lines if line.startswith("VmRSS")).split()[1]) / 1024.0


def main() -> None:
    """Print a line a minute, and what was lost in the end."""
    minutes = float(sys.argv[1]) if len(sys.argv) > 1 else 30.0
    with tempfile.TemporaryDirectory() as folder:
        program = Program(Path(folder), "--demo")
        pid, until = program.process.pid, time.time() + 60.0 * minutes
        clients = [Client(program, seed) for seed in range(CLIENTS)]
        threads = [threading.Thread(target=c.run, args=(until,)) for c in clients]
        for thread in threads:
            thread.start()
        while any(thread.is_alive() for thread in threads):
            threads[0].join(60.0)
            answers = [code for c in clients for code in c.answers]
            print(
                f"{(time.time() - until) / 60.0 + minutes:.0f} min: {len(answers)} answers, "
                f"{sum(code >= 500 for code in answers)} of 500, {_memory_mb(pid):.0f} MB, "
                f"{len(os.listdir(f'/proc/{pid}/fd'))} handles",
                flush=True,
            )
        with sqlite3.connect(program.data) as data:
            there = {uid for (uid,) in data.execute("select uid from cast_made")}
        sent = set().union(*(c.acknowledged for c in clients))
        print(f"casts acknowledged {len(sent)}, lost {len(sent - there)}")
        program.process.terminate()
        program.process.wait(30)


if __name__ == "__main__":
    main()
