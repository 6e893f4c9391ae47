"""Named ways that harm was done once, each tried from outside against the real program on loopback: its own
process, requests and the file alone. Prints for each whether it held; `make soak` runs it.
"""

import json
import re
import shutil
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
import uuid
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from pathlib import Path

import httpx2 as httpx

PORT, SLOW_S = 8661, 2.0
RIG = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw"}


class Program:
    """The served program on a data file, and a browser of its own machine."""

    def __init__(self, folder: Path, *flags: str) -> None:
        self.data = folder / "lake.sqlite"
        command = [
            sys.executable,
            "-m",
            "heathdrop.cli",
            "serve",
            "--data",
            str(self.data),
            "--port",
            str(PORT),
        ]
        self.process = subprocess.Popen([*command, *flags], stdout=subprocess.PIPE, text=True)
        self.said = ""
        assert self.process.stdout is not None
        for line in self.process.stdout:
            self.said += line
            if " is at http" in line:
                break
        self.web = httpx.Client(base_url=f"http://127.0.0.1:{PORT}", timeout=60, follow_redirects=True)
        for _ in range(100):
            try:
                self.web.get("/units")
                return
            except httpx.TransportError:
                time.sleep(0.1)

    def token(self) -> str:
        """The token of this installation's forms."""
        found = re.search(r'name="token" value="(\w+)"', self.web.get("/box").text)
        return found[1] if found else ""

    def cast(self) -> tuple[str, int]:
        """A cast sent: its id, and what was answered."""
        id_ = str(uuid.uuid4())
        made = {"id": id_, "time": "2026-04-03T06:12:00Z", **RIG, "countdown_s": 2, "pace_ft_s": 2.2}
        return id_, self.web.post("/api/v1/casts", json=made | {"outcome": "fish"}).status_code

    def post(self, path: str, **fields: str) -> httpx.Response:
        """A form of the program's own."""
        return self.web.post(path, data={"token": self.token(), **fields})

    def rows(self, table: str = "cast_made") -> int:
        """Rows in the file that count."""
        with sqlite3.connect(f"{self.data.as_uri()}?mode=ro", uri=True) as connection:
            return int(
                connection.execute(f"select count(*) from {table} where gone_at is null").fetchone()[0]
            )


@contextmanager
def served(*flags: str) -> Iterator[Program]:
    """The program on a new file; ended whatever came of it."""
    with tempfile.TemporaryDirectory() as scratch:
        program = Program(Path(scratch), *flags)
        try:
            yield program
        finally:
            program.process.send_signal(signal.SIGTERM)
            program.process.wait(30)


def written_over(p: Program) -> bool:
    """A shorter copy written into the file in place: the next write is refused, later ones are there."""
    p.cast()
    copy = p.data.with_name("copy.sqlite")
    shutil.copyfile(p.data, copy)
    for _ in range(40):
        p.cast()
    p.data.write_bytes(copy.read_bytes())
    first, (id_, second) = p.cast()[1], p.cast()
    with sqlite3.connect(p.data) as connection:
        there = connection.execute("select 1 from cast_made where uid = ?", (id_,)).fetchone() is not None
        sound = connection.execute("pragma integrity_check").fetchone() == ("ok",)
    return first == 503 and second == 200 and there and sound


def taken_away(p: Program) -> bool:
    """The file removed while it runs: writes are refused and no empty file stands in its place."""
    p.data.unlink()
    answers = [p.cast()[1], p.web.get("/box").status_code, p.cast()[1]]
    return answers == [503, 503, 503] and not p.data.exists()


def tapped_twice(p: Program) -> bool:
    """A day taken back by a double tap comes back."""
    p.cast()
    for _ in range(2):
        p.post("/log/away", date="2026-04-03")
    gone = p.rows()
    return gone == 0 and p.post("/log/back").status_code == 200 and p.rows() == 1


def counted_out(p: Program) -> bool:
    """A thousand million fish in a typed line are refused at once."""
    begun = time.perf_counter()
    answer = p.post("/log/typed", date="2026-04-11", line="99999999999 fish, swim jig 3/8 craw")
    return answer.status_code == 422 and time.perf_counter() - begun < SLOW_S


def another_charset(p: Program) -> bool:
    """A form in a charset of square time is refused before it is read."""
    body = b'--x\r\nContent-Disposition: form-data; name="code"\r\n\r\n-' + b"b" * 240_000 + b"\r\n--x--\r\n"
    begun = time.perf_counter()
    kind = {"content-type": "multipart/form-data; boundary=x; charset=punycode"}
    answer = p.web.post("/pair", content=body, headers=kind)
    return answer.status_code == 415 and time.perf_counter() - begun < SLOW_S


def year_one(p: Program) -> bool:
    """An answer of the year 1 is refused, and the export still goes out."""
    made = {"id": str(uuid.uuid4()), "question": "eye.nylon.3", "time": "0001-01-01T00:00:00+14:00"}
    answer = p.web.post("/api/v1/drill/answer", json=made | {"answer": {"depth_ft": 4}})
    return answer.status_code == 422 and p.web.get("/export.zip").status_code == 200


def imports_at_once(p: Program) -> bool:
    """The same file brought in eight times at once: every answer is a page, the rows come once."""
    p.cast()
    raw = p.web.get("/export.zip").content
    p.post("/log/away", date="2026-04-03")
    token = p.token()

    def bring(_: int) -> int:
        files = {"file": ("a.zip", raw, "application/zip")}
        return p.web.post("/import", data={"token": token, "sure": "yes"}, files=files).status_code

    with ThreadPoolExecutor(8) as pool:
        answers = set(pool.map(bring, range(8)))
    return answers == {200} and p.rows() == 1


def bent_pages(p: Program) -> bool:
    """A damaged file is said with 503 and a backup's name, and its imports push no sound backup out."""
    for _ in range(30):
        p.cast()
    raw = p.web.get("/export.zip").content
    files = {"file": ("a.zip", raw, "application/zip")}
    p.web.post("/import", data={"token": p.token(), "sure": "yes"}, files=files)
    (sound,) = (p.data.parent / "backups").iterdir()
    bent = bytearray(p.data.read_bytes())
    bent[8192:57344] = b"\xa5" * 49152
    with p.data.open("r+b") as file:
        file.write(bent)
    for _ in range(2):
        answer = p.web.get("/log")
    return answer.status_code == 503 and sound.name in answer.text and sound.exists()


def forwarded(p: Program) -> bool:
    """With phones let in a connection of this machine without the key is a stranger; with it, the laptop."""
    key = re.search(r"key=(\w+)", p.said)
    without = [p.web.get(at).status_code for at in ("/devices", "/export.zip", "/box")]
    return (
        without == [403] * 3
        and bool(key)
        and p.web.get(f"/box?key={key[1] if key else ''}").status_code == 200
    )


def cpu_s(pid: int) -> float:
    """Seconds of processor that a process has used."""
    fields = Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()
    return (int(fields[11]) + int(fields[12])) / 100.0


def held_up(p: Program) -> bool:
    """No request within the limits of size takes more than two seconds of processor."""
    water = {"water_temp_f": 61, "bottom_depth_ft": 9, "fish_depth_ft": 6}
    families = [
        "swim-jig",
        "bladed-jig",
        "spinnerbait",
        "underspin",
        "casting-jig",
        "flipping-jig",
        "football-jig",
    ]
    typed = "\n".join(["qwzx 3/8 swmi jgi grren pumpkni x4"] * 60)
    rows = "kind,family,weight_oz\n" + "head,swim-jig,3/8\n" * 20_000
    casts = [
        {"id": str(uuid.uuid4()), "time": "2026-04-03T06:12:00Z", **RIG, "countdown_s": 2, "pace_ft_s": 2.2}
        | {"outcome": "ticked-top", "at_s": 3.0, "conditions": water}
        for _ in range(500)
    ]
    token, web, most = p.token(), p.web, 0.0
    web.get("/?water_temp_f=58")
    for ask in (
        lambda: web.post("/api/v1/size", json={"conditions": water, "families": families, "limit": 500}),
        lambda: web.post(
            "/api/v1/search", json={"conditions": {**water, "fish_depth_ft": None}, "limit": 20}
        ),
        lambda: web.post("/box", data={"token": token, "entry": typed}),
        lambda: web.post("/api/v1/casts", json=casts),
        lambda: web.get("/log/taught"),
        lambda: web.post("/import", data={"token": token}, files={"file": ("a.csv", rows, "text/csv")}),
        lambda: web.get("/?tried=" + "nothing:2:2," * 400),
        lambda: web.get("/?view=rig&wrong=ran-low&missed_ft=2&water_temp_f=64"),
    ):
        before = cpu_s(p.process.pid)
        ask()
        most = max(most, cpu_s(p.process.pid) - before)
    print(f"  the longest request: {most:.2f} s of processor")
    return most < SLOW_S


ATTACKS: tuple[tuple[Callable[[Program], bool], tuple[str, ...]], ...] = (
    *((one, ()) for one in (written_over, taken_away, tapped_twice, counted_out, another_charset)),
    *((one, ()) for one in (year_one, imports_at_once, bent_pages, held_up)),
    (forwarded, ("--lan", "--host", "127.0.0.1")),
)


def main() -> int:
    held = {}
    for attack, flags in ATTACKS:
        with served(*flags) as program:
            try:
                held[attack.__name__] = attack(program)
            except (httpx.TransportError, sqlite3.Error, ValueError) as error:
                print("  ", attack.__name__, repr(error)[:200])
                held[attack.__name__] = False
    print("named attacks:", json.dumps(held))
    return sum(not one for one in held.values())


if __name__ == "__main__":
    sys.exit(main())
