"""Anglers' units and metric ones: how a figure is said, and how a typed one is meant.

Inside, every figure is in the unit its name ends in. An angler who reads metric gets each one turned where
it is shown: in fields and on axes by the row's unit, in sentences by the unit written behind the number.
"""

import math
import re
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass

from heathdrop.reading import number_of, parts_of, read
from heathdrop.units import CM_PER_IN, G_PER_OZ, KG_PER_LB, M_PER_FT, M_S_PER_MPH

#: The two systems, by id, and how they are said.
IMPERIAL, METRIC = "imperial", "metric"
SYSTEMS = ((IMPERIAL, "ft, oz, °F"), (METRIC, "m, g, °C"))


@dataclass(frozen=True)
class Turn:
    """How one unit is said in the other system: its unit, factor and offset.

    ``more`` decimals are kept beyond those of the figure turned, ``most`` at all; from ``coarse`` on (in the
    other unit) a whole figure stays whole.
    """

    unit: str
    factor: float
    more: int = 1
    most: int = 2
    coarse: float = 20.0
    offset: float = 0.0

    def value(self, value: float) -> float:
        """The figure in the other unit."""
        return (value + self.offset) * self.factor

    def said(self, value: float, decimals: int = 0) -> str:
        """The figure in the other unit, as text; ``decimals`` is how finely it was given."""
        turned = self.value(value)
        if decimals == 0 and abs(turned) >= self.coarse:
            return f"{turned:.0f}"
        text = f"{turned:.{min(self.most, decimals + self.more)}f}"
        return text if decimals else f"{float(text):g}"


#: Every unit of the trade and its metric one.
TURNS: dict[str, Turn] = {
    "ft": Turn("m", M_PER_FT),
    "ft/s": Turn("m/s", M_PER_FT, more=2),
    "in": Turn("cm", CM_PER_IN, most=1, coarse=10.0),
    "in/s": Turn("cm/s", CM_PER_IN, more=0),
    "in/turn": Turn("cm/turn", CM_PER_IN, more=0, most=1),
    "oz": Turn("g", G_PER_OZ, most=1, coarse=100.0),
    "lb": Turn("kg", KG_PER_LB, most=1),
    "mph": Turn("m/s", M_S_PER_MPH, most=1),
    "°F": Turn("°C", 1.0 / 1.8, most=1, coarse=1000.0, offset=-32.0),
    "s a foot": Turn("s a metre", 1.0 / M_PER_FT, more=0),
}
_SYSTEM: ContextVar[str] = ContextVar("system", default=IMPERIAL)

_NUMBER = r"\d+\s\d/\d+|\d+/\d+|\d*\.?\d+"
_JOIN = r"\s?[–-]\s?|\sto\s|\sor\s|\sand\s"
#: Words after which an ``in`` before them is no inch: ``8 turns in 10 s``, ``3 in the box``.
_NO_INCH = r"(?!\s(?:the|an?|its?|your|this|these|that|\d|all|front|one|each)\b)"
_UNITS = r"°F|ft/s|ft a second|in/s|in/turn|in a turn|in per turn|ft|oz|mph|lb|in" + _NO_INCH
_MEASURED = re.compile(
    r"(?<![\w/.])(?P<article>\b[Aa]n?\s)?"
    rf"(?P<numbers>(?:{_NUMBER})(?:(?:{_JOIN})(?:{_NUMBER}))*)\s?(?P<unit>{_UNITS})(?![\w/])"
)
#: A fish's weight in pounds and ounces is one figure.
_POUNDS = re.compile(r"\b(\d+) lb (\d+) oz\b")
_FOOT = re.compile(r"a foot(?P<between>(?: of sweep)? in about )(?P<seconds>[\d.]+) s")
_BARE = re.compile(rf"(?:{_NUMBER})(?:(?:{_JOIN})(?:{_NUMBER}))?")
_SPELT = {"ft a second": "ft/s", "in a turn": "in/turn", "in per turn": "in/turn"}


def system() -> str:
    """The system figures are said in now."""
    return _SYSTEM.get()


def is_metric() -> bool:
    """Whether figures are said in metric units now."""
    return _SYSTEM.get() == METRIC


@contextmanager
def said_in(wanted: str) -> Iterator[None]:
    """Say figures in ``wanted`` while this holds."""
    token = _SYSTEM.set(wanted)
    try:
        yield
    finally:
        _SYSTEM.reset(token)


def in_metric(sentence: str) -> str:
    """A sentence with every figure of the trade turned: ``runs at 6.0 ft`` is ``runs at 1.83 m``."""

    def turned(match: re.Match[str]) -> str:
        unit = _SPELT.get(match["unit"], match["unit"])
        turn = TURNS[unit]
        numbers = re.sub(_NUMBER, lambda n: _one(turn, n[0]), match["numbers"])
        return f"{_article(match['article'], numbers)}{numbers} {turn.unit}"

    whole = _POUNDS.sub(lambda m: f"{int(m[1]) + int(m[2]) / 16:.1f} lb", sentence)
    return _FOOT.sub(_a_metre, _MEASURED.sub(turned, whole)).replace("an eighth of an inch", "3 mm")


def _article(article: str | None, numbers: str) -> str:
    """The article before a figure, as the figure sounds: ``an 8``, ``a 24``, ``an 11``, ``a 10``."""
    if not article:
        return ""
    sounds = numbers.startswith("8") or re.match(r"(11|18)(?!\d)", numbers) is not None
    return f"{article[0]}{'n' if sounds else ''} "


def _a_metre(match: re.Match[str]) -> str:
    return f"a metre{match['between']}{TURNS['s a foot'].said(float(match['seconds']))} s"


def _one(turn: Turn, text: str) -> str:
    decimals = 0 if "/" in text or "." not in text else len(text.split(".")[1])
    return turn.said(number_of(text), min(decimals, 1))


def sentence(text: str) -> str:
    """A sentence in the system figures are said in now."""
    return in_metric(text) if is_metric() else text


def turn_of(unit: str) -> Turn | None:
    """How a unit is turned, also one with a word behind it (``ft up``); None for what is the same in both."""
    named = "°F" if unit.lower() == "°f" else unit
    return TURNS.get(named) or TURNS.get(named.split(" ")[0])


def unit_said(unit: str) -> str:
    """A unit as it is said now."""
    turn = turn_of(unit) if is_metric() else None
    if turn is None:
        return unit
    return turn.unit if unit in TURNS else " ".join([turn.unit, *unit.split(" ")[1:]])


def step_said(unit: str, step: str) -> str:
    """A stepper's step as it is said now."""
    turn = turn_of(unit) if is_metric() else None
    if turn is None:
        return step
    wanted = float(step) * turn.factor
    power = 10.0 ** math.floor(math.log10(wanted))
    return f"{max(k * power for k in (1.0, 2.0, 5.0) if k * power <= wanted * 1.2):g}"


def bare(text: str, unit: str) -> str:
    """A figure, or a range of two, that stands apart from its ``unit``, as it is said now."""
    if not is_metric() or unit not in TURNS or not _BARE.fullmatch(text):
        return text
    return re.sub(_NUMBER, lambda n: _one(TURNS[unit], n[0]), text)


def marks(span: float, unit: str, steps: Sequence[float], wanted: int) -> list[tuple[float, str]]:
    """Marks of an axis from 0 to ``span`` (in ``unit``): where each stands, and what it says now.

    The step is the first of ``steps`` that gives at most ``wanted`` marks, in the units said now.
    """
    per = TURNS[unit].factor if is_metric() else 1.0
    least = next((s for s in steps if span * per / s <= wanted), steps[-1])
    return [(k * least / per, f"{k * least:g}") for k in range(math.floor(span * per / least + 1e-9) + 1)]


def field_said(unit: str, text: str) -> str:
    """A field's text as it is said now: a plain number is turned, anything else stays as it was typed."""
    turn = turn_of(unit) if is_metric() else None
    if turn is None:
        return text
    try:
        number, given = parts_of(text)
        return text if given else _short(turn, turn.value(number_of(number)))
    except ValueError:
        between = re.fullmatch(r"([\d.]+) to ([\d.]+)", text)
        ends = [_short(turn, turn.value(float(v))) for v in between.groups()] if between else []
        return " to ".join(ends) or text


def _short(turn: Turn, value: float) -> str:
    return f"{round(value, turn.most):g}"


def meant(text: str, unit: str, typed_in: str = IMPERIAL) -> float:
    """A typed number in ``unit``; without a unit of its own it is in the system ``typed_in``.

    A figure that was shown comes back as it was: of the round figures of the trade, the one said so is meant.
    Raises ValueError for what is no number of this kind.
    """
    turn = turn_of(unit)
    if typed_in != METRIC or turn is None or parts_of(text)[1]:
        return read(text, unit)
    number = number_of(parts_of(text)[0])
    exact = number / turn.factor - turn.offset
    shown = _short(turn, number)
    for per in (1.0, 2.0, 8.0, 16.0) if turn is TURNS["oz"] else (1.0, 2.0, 4.0, 10.0):
        figure = round(exact * per) / per
        if _short(turn, turn.value(figure)) == shown:
            return figure
    return round(exact, 6)
