"""Connections that say nothing, or half of something, are let go in time; whole ones are not."""

from __future__ import annotations

import socket
import threading
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
import uvicorn

from heathdrop.web.app import create_app
from heathdrop.web.serving import Prompt


@pytest.fixture
def port(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[int]:
    monkeypatch.setattr(Prompt, "whole_s", 0.6)
    app = create_app(tmp_path / "d.sqlite")
    config = uvicorn.Config(app, port=0, log_level="critical", http=Prompt, timeout_keep_alive=30)
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    while not server.started:
        time.sleep(0.02)
    yield server.servers[0].sockets[0].getsockname()[1]
    server.should_exit = True
    thread.join(10)


def closed_within(line: socket.socket, seconds: float) -> bool:
    """Whether the other end closes within so long; what it still says is read."""
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        line.settimeout(max(0.01, until - time.monotonic()))
        try:
            if not line.recv(4096):
                return True
        except TimeoutError:
            return False
        except ConnectionResetError:
            return True
    return False


@pytest.mark.slow
@pytest.mark.parametrize(
    "said",
    [
        b"",
        b"GET /box HT",
        b"GET /box HTTP/1.1\r\nHost: 127.0.0.1\r\nX-A: ",
        b"POST /box HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Length: 90\r\n"
        b"Content-Type: application/x-www-form-urlencoded\r\n\r\ntoken=",
    ],
)
def test_half_a_request_is_let_go(port: int, said: bytes) -> None:
    with socket.create_connection(("127.0.0.1", port)) as line:
        line.sendall(said)
        assert closed_within(line, 5.0)


def drip(line: socket.socket, said: bytes) -> None:
    for letter in said:
        line.sendall(bytes([letter]))
        time.sleep(0.05)


@pytest.mark.slow
def test_bytes_that_drip_do_not_buy_time(port: int) -> None:
    with socket.create_connection(("127.0.0.1", port)) as line:
        begun = time.monotonic()
        with pytest.raises(OSError, match=r"pipe|reset"):
            drip(line, b"GET /box HTTP/1.1\r\nX-Long: " + b"a" * 200)
        assert time.monotonic() - begun > 0.5


@pytest.mark.slow
def test_whole_requests_keep_their_line(port: int) -> None:
    """Also one after another, further apart than half a request may be."""
    with socket.create_connection(("127.0.0.1", port)) as line:
        for _ in range(2):
            line.sendall(b"GET /api/v1/schools HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
            line.settimeout(5.0)
            assert line.recv(15) == b"HTTP/1.1 200 OK"
            time.sleep(0.2)
            line.setblocking(False)
            try:
                while line.recv(65536):
                    pass
            except BlockingIOError:
                pass
            time.sleep(1.0)
            line.setblocking(True)


def held_by(port: int, own: str, most: int) -> list[socket.socket]:
    """So many connections from an address of one's own; those that the server lets stand."""
    lines = [socket.create_connection(("127.0.0.1", port), source_address=(own, 0)) for _ in range(most)]
    answered(port)  # the server takes connections in turn: by now it has taken or closed each of these
    closed = [line for line in lines if closed_within(line, 0.1)]
    for line in closed:
        line.close()
    return [line for line in lines if line not in closed]


def answered(port: int) -> None:
    with socket.create_connection(("127.0.0.1", port)) as line:
        line.sendall(b"GET /api/v1/schools HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
        line.settimeout(10.0)
        assert line.recv(15) == b"HTTP/1.1 200 OK"


@pytest.mark.slow
def test_a_stranger_holds_no_more_than_a_share(port: int, monkeypatch: pytest.MonkeyPatch) -> None:
    """Each address its own, all together theirs; the laptop is answered meanwhile, and places come back."""
    monkeypatch.setattr(Prompt, "whole_s", 20.0)
    monkeypatch.setattr(Prompt, "most_of_one", 5)
    monkeypatch.setattr(Prompt, "most_of_others", 8)
    first = held_by(port, "127.0.3.1", 12)
    second = held_by(port, "127.0.3.2", 12)
    assert (len(first), len(second)) == (5, 3)
    answered(port)
    for line in (*first, *second):
        line.close()
    time.sleep(0.3)
    again = held_by(port, "127.0.3.2", 12)
    assert len(again) == 5
    for line in again:
        line.close()
