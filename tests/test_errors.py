"""Refusals, logging, flags and environment."""

import logging
import math
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from pydantic import ValidationError

from heathdrop.errors import BadInput, named, plain_text, require_between
from heathdrop.logs import ROOT, configure, logger
from heathdrop.settings import Settings, users_data


@pytest.mark.parametrize("text", ["a\u202eb", "a\ufeff", "a\x07", "\ud800", "\u200e", "\u2066"])
def test_what_cannot_be_shown_is_no_text(text: str) -> None:
    with pytest.raises(ValueError, match="made of characters that can be shown"):
        plain_text(text)
    with pytest.raises(BadInput, match="name was “unreadable”; it must be made of characters"):
        named("x" + text, 80)


def test_text_as_people_type_it() -> None:
    assert plain_text("Mühle, 3/8\n\tø") == "Mühle, 3/8\n\tø"
    assert named("  Mill   bay ", 80) == "Mill bay"
    assert named("x" * 5, 5) == "x" * 5
    with pytest.raises(BadInput, match="trip was “xxxxxx”; it must be 1 to 5 characters"):
        named("x" * 6, 5, "trip")
    with pytest.raises(BadInput, match="name was empty; it must be 1 to 5 characters"):
        named("   ", 5)


@pytest.mark.parametrize("value", [1.0, 5.0, 9.0])
def test_ends_are_within(value: float) -> None:
    assert require_between("depth", value, 1.0, 9.0, "ft") == value


@pytest.mark.parametrize("value", [0.999, 9.001, math.nan, math.inf, -math.inf])
def test_beyond_them_is_refused(value: float) -> None:
    with pytest.raises(BadInput, match=r"depth was .*; it must be from 1 to 9 ft\."):
        require_between("depth", value, 1.0, 9.0, "ft")
    with pytest.raises(BadInput, match=r"it must be from 1 to 9\."):
        require_between("depth", value, 1.0, 9.0)


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


def test_defaults_are_loopback_and_the_users_own_folder(monkeypatch: pytest.MonkeyPatch) -> None:
    for name in ("PORT", "HOST", "DATA", "LOG_LEVEL"):
        monkeypatch.delenv(f"HEATHDROP_{name}", raising=False)
    plain = Settings()
    assert (plain.port, plain.host, plain.log_level) == (8640, "127.0.0.1", "warning")
    assert plain.data == users_data()
    assert users_data().parts[-2:] == ("heathdrop", "heathdrop.sqlite")


def test_the_environment_then_the_flags(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    monkeypatch.setenv("HEATHDROP_PORT", "9000")
    monkeypatch.setenv("HEATHDROP_DATA", str(tmp_path / "a.sqlite"))
    found = Settings().merged(port=None, host="127.0.0.2", data=None)
    assert (found.port, found.host, found.data) == (9000, "127.0.0.2", tmp_path / "a.sqlite")
    assert Settings().merged(port=9001).port == 9001


@pytest.mark.parametrize("flag", [{"port": 0}, {"port": 65536}, {"log_level": "loud"}])
def test_what_cannot_be_is_refused(flag: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        Settings().merged(**flag)
