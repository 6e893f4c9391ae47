"""A line that is cut is taken up again; an address that is none is refused."""

from __future__ import annotations

import time

import pytest

from heathdrop.errors import BadInput
from heathdrop.feeds.feed import Feed
from heathdrop.feeds.reader import Reader
from heathdrop.feeds.simulated import Boat, Sounder


def wait(until) -> None:  # type: ignore[no-untyped-def]
    for _ in range(400):
        if until():
            return
        time.sleep(0.02)
    raise AssertionError("it never came")


@pytest.mark.slow
def test_a_cut_line_is_taken_up_again() -> None:
    """The real stand-in over TCP, faults on, twenty seconds a second: it reconnects after each cut."""
    told = Sounder(Boat(seed=5, faults=True), 0, rate=60.0)
    told.start()
    feed = Feed()
    reader = Reader(feed, f"tcp://127.0.0.1:{told.port}")
    reader.start()
    try:
        wait(lambda: feed.figure("depth_ft").state == "live")
        assert feed.connected
        tries = reader.tries
        told._drop()
        wait(lambda: reader.tries > tries and feed.connected)
        wait(lambda: feed.figure("depth_ft").state == "live")
    finally:
        reader.stop()
        told.stop()
    assert not feed.connected


@pytest.mark.slow
def test_nobody_there_is_tried_again_later_and_later() -> None:
    reader = Reader(Feed(), "tcp://127.0.0.1:1")
    begun = time.monotonic()
    reader.start()
    wait(lambda: reader.tries >= 3)
    assert time.monotonic() - begun >= 1.4  # half a second, then a second
    reader.stop()


NO_ADDRESS = ("tcp://", "tcp://127.0.0.1", "tcp://a:b", "udp://127.0.0.1:1", "", "serial:/x?baud=fast")


@pytest.mark.parametrize("where", NO_ADDRESS)
def test_an_address_that_is_none_is_refused(where: str) -> None:
    with pytest.raises(BadInput, match="tcp://ADDRESS:PORT or serial:"):
        Reader(Feed(), where)
