"""Reads a feed from TCP or a serial port in a thread of its own; a cut is tried again, later and later."""

import socket
import threading
from collections.abc import Iterator
from contextlib import closing
from urllib.parse import parse_qs, urlsplit

from heathdrop.errors import BadInput
from heathdrop.feeds.feed import Feed
from heathdrop.logs import logger

LOG = logger("feeds")
#: Seconds before a cut line is tried again: doubled from the first to the last.
FIRST_S, LAST_S = 0.5, 30.0
#: Seconds of silence after which a line counts as cut, and to connect.
SILENT_S, CONNECT_S = 10.0, 3.0
#: The longest line that is waited for, bytes.
LONGEST = 400
WANTED = "tcp://ADDRESS:PORT or serial:/dev/PORT?baud=4800"


class Reader:
    """Keeps a feed up to date from ``where`` until it is stopped."""

    def __init__(self, feed: Feed, where: str) -> None:
        self.feed, self.where = feed, where
        self._open = _opener(where)
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._run, daemon=True, name="feed")
        self.tries = 0

    def start(self) -> None:
        """Begin to read."""
        self._thread.start()

    def stop(self) -> None:
        """Stop reading; waits for the thread to end."""
        self._stop.set()
        if self._thread.is_alive():
            self._thread.join(CONNECT_S + 1.0)

    def _run(self) -> None:
        wait = FIRST_S
        while not self._stop.is_set():
            self.tries += 1
            try:
                for line in self._open(self._stop):
                    if not self.feed.connected:
                        LOG.info("the feed at %s answers", self.where)
                    self.feed.connected = True
                    wait = FIRST_S
                    self.feed.hear(line.decode("ascii", "replace"))
            except OSError as error:
                LOG.info("the feed at %s is cut: %s", self.where, error)
            self.feed.connected = False
            self._stop.wait(wait)
            wait = min(LAST_S, 2.0 * wait)


def _opener(where: str):  # type: ignore[no-untyped-def]
    """What opens a feed and gives its lines. Raises BadInput for an address that is none."""
    parts = urlsplit(where)
    if parts.scheme == "tcp" and parts.hostname:
        try:
            port = parts.port
        except ValueError as error:
            raise BadInput("nmea", where, WANTED) from error
        if port:
            return lambda stop: _tcp(str(parts.hostname), port, stop)
    if parts.scheme == "serial" and parts.path:
        baud = parse_qs(parts.query).get("baud", ["4800"])[0]
        if baud.isdigit() and 300 <= int(baud) <= 460800:
            return lambda stop: _serial(parts.path, int(baud), stop)
    raise BadInput("nmea", where, WANTED)


def _tcp(host: str, port: int, stop: threading.Event) -> Iterator[bytes]:
    with closing(socket.create_connection((host, port), timeout=CONNECT_S)) as line:
        line.settimeout(SILENT_S)
        buffered = b""
        while not stop.is_set():
            more = line.recv(4096)
            if not more:
                raise ConnectionResetError("closed at the other end")
            *lines, buffered = (buffered + more).replace(b"\r", b"\n").split(b"\n")
            yield from (one for one in lines if one)
            buffered = buffered if len(buffered) <= LONGEST else b""


def _serial(path: str, baud: int, stop: threading.Event) -> Iterator[bytes]:
    import serial

    with closing(serial.Serial(path, baud, timeout=SILENT_S)) as line:
        while not stop.is_set():
            one = line.read_until(b"\n", LONGEST)
            if not one:
                raise TimeoutError("silent")
            yield one
