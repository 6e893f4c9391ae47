"""The trip under way of ``tests/day``."""

from tests.day.conftest import session

__all__ = ["session"]
