"""The trip under way of ``tests/day``."""

from __future__ import annotations

from tests.day.conftest import session

__all__ = ["session"]
