"""One kind of refusal for bad input, worded the same at every door."""

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
    text = text.encode("utf-8", "replace").decode()
    return text if len(text) <= 60 else text[:57] + "..."


#: Marks that turn the direction of a text, and other characters nobody typed.
UNSEEN = {chr(c) for c in (*range(0x202A, 0x202F), *range(0x2066, 0x206A), 0x200E, 0x200F, 0xFEFF)}


#: What a text must be that people read.
SHOWABLE = "made of characters that can be shown"


def plain_text(text: str) -> str:
    """A text as people type it. Raises ValueError for control characters, direction marks and half pairs."""
    if any(c in UNSEEN or 0xD800 <= ord(c) < 0xE000 or (ord(c) < 32 and c not in "\n\t") for c in text):
        raise ValueError(SHOWABLE)
    return text


def named(text: str, longest: int, field: str = "name") -> str:
    """A name as people type it, its spaces single. Raises BadInput for none, a longer one, or one that cannot
    be shown."""
    name = " ".join(text.split())
    if not 1 <= len(name) <= longest:
        raise BadInput(field, name, f"1 to {longest} characters")
    try:
        return plain_text(name)
    except ValueError as error:
        raise BadInput(field, "unreadable", SHOWABLE) from error


def require_between(field: str, value: float, low: float, high: float, unit: str = "") -> float:
    """Return ``value`` when it is finite and within ``low``..``high``, else raise BadInput."""
    if not math.isfinite(value) or not low <= value <= high:
        raise BadInput(field, value, f"from {low:g} to {high:g}{' ' + unit if unit else ''}")
    return value
