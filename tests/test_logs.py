"""One line an event, in UTC, from the level asked for on."""

from __future__ import annotations

import logging
import re
from collections.abc import Iterator

import pytest

from heathdrop.logs import ROOT, configure, logger


@pytest.fixture(autouse=True)
def _as_before() -> Iterator[None]:
    root = logging.getLogger(ROOT)
    kept = root.handlers[:], root.level, root.propagate
    yield
    root.handlers[:], root.propagate = kept[0], kept[2]
    root.setLevel(kept[1])


def test_an_event_is_one_line_with_its_room(capfd: pytest.CaptureFixture[str]) -> None:
    configure("info")
    configure("info")  # twice is once
    logger("store").info("kept %d rows", 3)
    logger("store").debug("a detail")
    said = capfd.readouterr().err.splitlines()
    assert len(said) == 1
    assert re.fullmatch(r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ INFO heathdrop\.store kept 3 rows", said[0])


def test_times_are_utc(capfd: pytest.CaptureFixture[str], monkeypatch: pytest.MonkeyPatch) -> None:
    configure("warning")
    handler = logging.getLogger(ROOT).handlers[0]
    record = logging.LogRecord("heathdrop.web", logging.WARNING, "", 0, "x", None, None)
    record.created = 0.0
    assert handler.format(record) == "1970-01-01T00:00:00Z WARNING heathdrop.web x"
    logger("web").info("nothing of this")
    assert capfd.readouterr().err == ""
