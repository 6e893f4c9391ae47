"""The boat's figures as JSON, with their age."""

from __future__ import annotations

from functools import reduce
from operator import xor

import pytest

from heathdrop.api.feeding import feed_answer, said_of
from heathdrop.feeds.feed import Feed


def test_figures_of_the_boat_with_their_age() -> None:
    now = [100.0]
    feed = Feed(clock=lambda: now[0], connected=True)
    body = "SDDPT,3.66,0.0"
    feed.hear(f"${body}*{reduce(xor, body.encode()):02X}")
    now[0] += 1.26
    depth = feed_answer(feed).depth_ft
    assert (depth.state, depth.age_s) == ("live", 1.3)
    assert depth.value == pytest.approx(12.0, abs=0.05)
    assert depth.said == said_of("depth_ft", 12.0) == "12.0 ft"
    none = feed_answer(None)
    assert not none.connected
    lost = none.depth_ft
    assert (lost.state, lost.age_s, lost.said) == ("lost", None, "–")
    assert said_of("position", {"lat": 1, "lon": 2}) == "–"
