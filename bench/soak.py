"""`make soak`: about five bounded minutes against the real program, on loopback, in a scratch folder.

Kills over writes, first starts, migrations, imports and restores; hostile requests over every route and form,
made from the routes themselves; twenty clients at once. Prints what was lost, doubled, unopenable or answered
with 500 or more: each should be 0.
"""

import asyncio
import json
import os
import random
import signal
import sqlite3
import statistics
import subprocess
import sys
import tempfile
import time
from collections import Counter
from contextlib import closing
from pathlib import Path

import httpx2 as httpx
from fastapi.routing import APIRoute

from bench.box import token_of
from bench.hostile_files import sixty
from heathdrop.store import items
from heathdrop.store.database import Database, migrate
from heathdrop.store.files import exchange
from heathdrop.web.app import create_app

PORT, SEED = 8658, 9
KILLS, REQUESTS, CLIENTS, CLIENTS_S = 200, 10_000, 20, 60.0
SLOW_S = 5.0
HEAD = {"family": "swim-jig", "weight_oz": 0.375}
#: What stands for a part of an address.
PLACES = (
    "1",
    "9" * 20,
    "delete",
    "tackle.csv",
    "x",
    "%2e%2e",
    "0",
    "deck-card.html",
    "5f0c6a52-0000-4000-8000-000000000001",
)
#: Texts that people and strangers type.
ODD = (
    "",
    " ",
    "0",
    "-1",
    "1e400",
    "nan",
    "inf",
    "2.7",
    "3/0",
    "9" * 300,
    "<script>alert(1)</script>",
    "' or 1=1 --",
    "\0",
    "\u202eevil",
    "../../etc/passwd",
    "{{7*7}}",
    "%00",
    "٣",
    "true",
    "null",
    "[]",
    "{}",
    "swim-jig",
    "craw",
    "3/8 swim jig",
    "call",
    "cast",
    "water",
    "rig",
    "size",
    "ran-too-high",
    "line:nylon:20",
    "swim-jig:0.375:craw",
    "60",
    "9",
    "1 1/4",
)


def child(code: str, folder: Path) -> subprocess.Popen[str]:
    """A process of our own running a snippet in a folder, its answers on a pipe."""
    return subprocess.Popen(
        [sys.executable, "-c", code], cwd=folder, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
    )


WRITER = """
from heathdrop.store.database import Database
from heathdrop.store import items
from pathlib import Path
d = Database(Path('d.sqlite'))
for k in range(100000):
    with d.session() as s:
        row = items.add(s, 'head', {'family': 'swim-jig', 'weight_oz': 0.375, 'colour': f'c{k}'})
        uid = row.uid
    print(uid, flush=True)
"""
STARTER = (
    "from pathlib import Path\nfrom heathdrop.store.database import Database\nDatabase(Path('n.sqlite'))"
)
IMPORTER = """
from pathlib import Path
from heathdrop.store.database import Database
from heathdrop.store.files import exchange
d = Database(Path('i.sqlite'))
with d.session() as s:
    exchange.keep(s, exchange.unpacked(Path('export.zip').read_bytes()))
"""
RESTORER = """
from pathlib import Path
from heathdrop.store.database import restore
restore(Path('r.sqlite'), Path('copy.sqlite'))
"""


def whole(path: Path) -> bool:
    """Whether a data file opens and is sound."""
    try:
        Database(path).close()
        with closing(sqlite3.connect(path)) as connection:
            return connection.execute("pragma integrity_check").fetchone() == ("ok",)
    except Exception:
        return False


def names(path: Path) -> list[str]:
    with closing(sqlite3.connect(path)) as connection:
        return [row[0] for row in connection.execute("select uid from item where gone_at is null")]


def kills(folder: Path, rng: random.Random) -> Counter[str]:
    """Kill a writer, a first start, a migration, an import and a restore at random moments."""
    told: Counter[str] = Counter()
    Database(folder / "d.sqlite").close()
    source = Database(folder / "source.sqlite")
    with source.session() as session:
        for k in range(120):
            items.add(session, "head", {**HEAD, "colour": f"c{k}"})
    with source.session() as session:
        (folder / "export.zip").write_bytes(exchange.packed(session))
    source.close()
    (folder / "copy.sqlite").write_bytes((folder / "source.sqlite").read_bytes())
    said: list[str] = []
    for k in range(KILLS):
        kind = ("write", "start", "import", "restore", "migrate")[k % 5]
        wait = rng.uniform(0.5, 1.5)
        told["kills"] += 1
        if kind == "write":
            process = child(WRITER, folder)
            time.sleep(wait + 0.9)
            process.kill()
            said += [line for line in process.communicate()[0].splitlines() if len(line) == 36]
            sound = whole(folder / "d.sqlite")
            there = Counter(names(folder / "d.sqlite")) if sound else Counter()
            told["unopenable"] += not sound
            told["lost"] += sum(uid not in there for uid in said)
            told["doubled"] += sum(n > 1 for n in there.values())
            continue
        for old in folder.glob(f"{kind[0]}.sqlite*"):
            old.unlink()
        path = folder / {"start": "n", "import": "i", "restore": "r", "migrate": "n"}[kind]
        path = path.with_suffix(".sqlite")
        for old in folder.glob(path.name + "*"):
            old.unlink()
        if kind == "migrate":
            migrate(path, "0001")
        if kind == "restore":
            Database(path).close()
        process = child({"import": IMPORTER, "restore": RESTORER}.get(kind, STARTER), folder)
        time.sleep(wait)
        process.kill()
        process.wait()
        told["unopenable"] += not whole(path)
        if kind in ("import", "restore"):
            told["half"] += len(names(path)) not in (0, 120)
    told["acknowledged"] = len(said)
    return told


def served(folder: Path) -> subprocess.Popen[bytes]:
    """The real server on its own data file."""
    argv = [sys.executable, "-m", "heathdrop.cli", "serve", "--demo", "--port", str(PORT)]
    process = subprocess.Popen([*argv, "--data", str(folder / "web.sqlite")], stdout=subprocess.DEVNULL)
    begun = time.monotonic()
    while time.monotonic() - begun < 120:
        try:
            httpx.get(f"http://127.0.0.1:{PORT}/", timeout=60)
            return process
        except httpx.TransportError:
            time.sleep(0.1)
    raise SystemExit("the server did not answer")


def routes() -> list[tuple[str, str]]:
    """Every (method, path) of the app itself."""
    app = create_app(Path(tempfile.mkdtemp()) / "x.sqlite")
    given = [r.original_router for r in app.routes if hasattr(r, "original_router")]
    inner = [r for router in given for r in router.routes if isinstance(r, APIRoute)]
    return [(method, r.path) for r in inner for method in sorted(r.methods)]


def hostile(rng: random.Random) -> Counter[str]:
    """Odd requests over every route and form; none may break the server or take long."""
    told: Counter[str] = Counter()
    every = routes()
    fields = (
        "entry",
        "quantity",
        "colour",
        "mass_g",
        "name",
        "kind",
        "family",
        "times_s",
        "depth_ft",
        "head_oz",
        "q",
        "view",
        "pick",
        "compare",
        "lens",
        "touched",
        "way",
        "wrong",
        "missed_ft",
        "water_temp_f",
        "cover",
        "sure",
        "count_s",
        "topic",
        "do",
        "stop",
        "stop_name",
        "minutes",
        "position",
        "rods",
        "to",
        "boat_at",
        "value",
        "by",
        "outcome",
        "length_in",
        "code",
        "rig",
        "units",
        "driven",
        "tried",
    )
    with httpx.Client(base_url=f"http://127.0.0.1:{PORT}", timeout=60, follow_redirects=False) as web:
        token = token_of(web)
        for _ in range(REQUESTS):
            method, path = rng.choice(every)
            for part in ("{id_}", "{act}", "{name}", "{topic}", "{k}"):
                path = path.replace(part, rng.choice(PLACES))
            texts = {f: rng.choice(ODD) for f in rng.sample(fields, rng.randint(0, 6))}
            begun = time.perf_counter()
            try:
                if method in ("PUT", "DELETE"):
                    answer = web.request(method, path, json=texts if method == "PUT" else None)
                elif method != "POST":
                    answer = web.request(method, path, params=texts)
                elif path.startswith("/api/"):
                    raw = rng.choice(
                        (json.dumps(texts), "[" * 500, '{"conditions": {"water_temp_f": 1e999}}', "\udcff")
                    )
                    answer = web.post(
                        path,
                        content=raw.encode("utf-8", "replace"),
                        headers={"content-type": "application/json"},
                    )
                elif path == "/import":
                    answer = web.post(
                        path, data={"token": token, **texts}, files={"file": ("x", os.urandom(200))}
                    )
                else:
                    answer = web.post(path, data={"token": token, **texts})
            except httpx.TransportError:
                told["cut"] += 1
                continue
            seconds = time.perf_counter() - begun
            told["requests"] += 1
            told["500s"] += answer.status_code >= 500
            told["slow"] += seconds > SLOW_S
            if answer.status_code >= 500:
                print("  ", answer.status_code, method, path, texts)
    return told


def files(rng: random.Random) -> Counter[str]:
    """Sixty hostile files, kept where they may be: none breaks the server, takes long, or is kept in part."""
    told: Counter[str] = Counter()
    with httpx.Client(base_url=f"http://127.0.0.1:{PORT}", timeout=60) as web:
        token = token_of(web)
        made = {
            "id": "5f0c6a52-0000-4000-8000-00000000000a",
            "time": "2027-09-25T06:12:00+01:00",
            "family": "swim-jig",
            "head_oz": 0.375,
            "trailer": "craw",
            "countdown_s": 2.0,
            "pace_ft_s": 2.2,
            "outcome": "nothing",
        }
        web.post("/api/v1/casts", json=made)
        web.post("/deck", data={"token": token})
        export = web.get("/export.zip").content
        own = web.post("/import", data={"token": token, "sure": "yes"}, files={"file": ("x.zip", export)})
        told["own refused"] += own.status_code != 200
        for name, content in sixty(export, rng):
            begun = time.perf_counter()
            answer = web.post(
                "/import", data={"token": token, "sure": "yes"}, files={"file": ("x.zip", content)}
            )
            seconds = time.perf_counter() - begun
            told["files"] += 1
            told["refused"] += answer.status_code == 422
            told["500s"] += answer.status_code >= 500
            told["slow"] += seconds > SLOW_S
            if answer.status_code == 422:
                told["kept in part"] += web.get("/export.zip").content != export
            else:
                export = web.get("/export.zip").content
            if answer.status_code >= 500 or seconds > SLOW_S:
                print("  ", answer.status_code, f"{seconds:.1f} s", name)
            told["pages broken"] += any(
                web.get(at).status_code != 200 for at in ("/", "/box", "/plan", "/deck")
            )
    return told


async def crowd() -> tuple[Counter[str], list[float]]:
    """Twenty clients at once for a minute: reading, writing, sizing."""
    told: Counter[str] = Counter()
    seconds: list[float] = []
    with httpx.Client(base_url=f"http://127.0.0.1:{PORT}", timeout=60) as one:
        token = token_of(one)
    end = time.monotonic() + CLIENTS_S

    async def client(k: int) -> None:
        rng = random.Random(k)
        async with httpx.AsyncClient(base_url=f"http://127.0.0.1:{PORT}", timeout=60) as web:
            while time.monotonic() < end:
                begun = time.perf_counter()
                what = rng.random()
                if what < 0.3:
                    answer = await web.get("/box")
                elif what < 0.5:
                    answer = await web.post("/box", data={"token": token, "entry": "3/8 swim jig soak"})
                elif what < 0.7:
                    answer = await web.get("/drops")
                else:
                    answer = await web.get(
                        f"/?fish_depth_ft={rng.randint(2, 8)}&water_temp_f={rng.randint(45, 85)}"
                    )
                told["answers"] += 1
                told["500s"] += answer.status_code >= 500
                seconds.append(time.perf_counter() - begun)

    await asyncio.gather(*(client(k) for k in range(CLIENTS)))
    return told, seconds


def peak_mb(pid: int) -> float:
    lines = Path(f"/proc/{pid}/status").read_text().splitlines()
    return int(next(line for line in lines if line.startswith("VmHWM")).split()[1]) / 1024


def main() -> None:
    rng = random.Random(SEED)
    with tempfile.TemporaryDirectory() as scratch:
        print("kills:", dict(kills(Path(scratch), rng)), flush=True)
        process = served(Path(scratch))
        try:
            print("hostile requests:", dict(hostile(rng)), flush=True)
            print(f"memory {peak_mb(process.pid):.0f} MB", flush=True)
            print("hostile files:", dict(files(rng)), flush=True)
            print(f"memory {peak_mb(process.pid):.0f} MB", flush=True)
            told, seconds = asyncio.run(crowd())
            p50, p99 = statistics.median(seconds), statistics.quantiles(seconds, n=100)[-1]
            print(
                f"{CLIENTS} clients, {CLIENTS_S:.0f} s: {dict(told)}, p50 {p50:.2f} s, p99 {p99:.2f} s",
                flush=True,
            )
            print(f"peak memory {peak_mb(process.pid):.0f} MB", flush=True)
        finally:
            process.send_signal(signal.SIGTERM)
            process.wait(20)
        left = names(Path(scratch) / "web.sqlite")
        alone = f"{(Path(scratch) / 'web.sqlite').as_uri()}?immutable=1"
        with closing(sqlite3.connect(alone.replace("file:///", "file:/"), uri=True)) as connection:
            main_file = connection.execute("select count(*) from item where gone_at is null").fetchone()[0]
        print(f"after SIGTERM: {len(left)} pieces, {main_file} of them in the one file")


if __name__ == "__main__":
    main()
