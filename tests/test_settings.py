"""Flags win over the environment, that over the defaults."""

from __future__ import annotations

from pathlib import Path

import pytest
from pydantic import ValidationError

from heathdrop.settings import Settings, users_data


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
