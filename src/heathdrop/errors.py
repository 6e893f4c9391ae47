"""One kind of refusal for bad input, worded the same at every door."""

from __future__ import annotations

import math


class BadInput(ValueError):
    """Input the product will not compute with.

    ``field`` is the dotted path of what was wrong; ``str(error)`` is one
    sentence naming the field, what was given and what is allowed.
    """

    def __init__(self, field: str, given: object, allowed: str) -> None:
        self.field = field
        self.given = given
        self.allowed = allowed
        super().__init__(f"{field} was {_shown(given)}; it must be {allowed}.")


def _shown(given: object) -> str:
    """A given value as a short, quotable text."""
    if given is None:
        return "not given"
    if isinstance(given, str):
        return "empty" if not given.strip() else f"“{_short(given)}”"
    if isinstance(given, float) and math.isfinite(given):
        return f"{given:g}"
    return _short(str(given))


def _short(text: str) -> str:
    return text if len(text) <= 60 else text[:57] + "..."


def require_between(field: str, value: float, low: float, high: float, unit: str = "") -> float:
    """Return ``value`` when it is finite and within ``low``..``high``, else raise BadInput."""
    if not math.isfinite(value) or not low <= value <= high:
        raise BadInput(field, value, f"from {low:g} to {high:g}{' ' + unit if unit else ''}")
    return value
