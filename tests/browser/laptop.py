"""A laptop in the boat: the app in a process of its own, which can be killed and started again."""

import json
import signal
import socket
import sqlite3
import subprocess
import sys
import time
from datetime import datetime
from pathlib import Path
from typing import Any

SERVE = (
    "import sys, uvicorn; from pathlib import Path; from heathdrop.web.app import create_app; "
    "uvicorn.run(create_app(Path(sys.argv[1]), demo=True, nmea=sys.argv[3] or None), port=int(sys.argv[2]), "
    "log_level='error')"
)


class Laptop:
    """The app on a data file; ``kill`` is SIGKILL."""

    def __init__(self, data: Path, nmea: str = "") -> None:
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = int(probe.getsockname()[1])
        self.data, self.nmea = data, nmea
        self.address = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Start it and wait until it answers."""
        self.process = subprocess.Popen(
            [sys.executable, "-c", SERVE, str(self.data), str(self.port), self.nmea]
        )
        until = time.monotonic() + 60.0
        while time.monotonic() < until:
            with socket.socket() as probe:
                if probe.connect_ex(("127.0.0.1", self.port)) == 0:
                    return
            time.sleep(0.05)
        raise TimeoutError("the app did not start")

    def kill(self) -> None:
        """End it in the midst of whatever it does."""
        assert self.process is not None
        self.process.send_signal(signal.SIGKILL)
        self.process.wait(10)

    def stop(self) -> None:
        """End it if it runs."""
        if self.process is not None and self.process.poll() is None:
            self.process.terminate()
            self.process.wait(90)

    def casts(self) -> list[dict[str, Any]]:
        """What the data file holds, in the order of their times."""
        with sqlite3.connect(f"{self.data.resolve().as_uri()}?mode=ro", uri=True) as connection:
            rows = connection.execute("select uid, body from cast_made where gone_at is null").fetchall()
        found = [{"id": uid, **json.loads(body)} for uid, body in rows]
        # As moments, not as text: "06:12:00Z" would stand after "06:12:00.5Z".
        return sorted(found, key=lambda c: datetime.fromisoformat(c["time"]))
