"""Numbers as people type them: ``3/8``, ``1 1/2``, ``½``, ``.5``, ``5,5``, with a unit or without: ``15 C``.

One reader for every field, file and line of text. A number without a unit is in the field's own; one with
a unit is turned into it; a unit of another kind is refused.
"""

import re
from collections.abc import Callable

from heathdrop.units import KG_PER_LB, KG_PER_OZ, M_PER_FT, M_PER_IN, M_S_PER_MPH

#: A whole number with or without a fraction, or a plain number.
WRITTEN = re.compile(
    r"(?:(\d{1,4})\s*[\s-]\s*)?(\d{1,4})/(\d{1,4})|([+-]?(?:\d{1,9}(?:[.,]\d{0,9})?|[.,]\d{1,9}))", re.ASCII
)
#: The longest number that is read, and the longest with its unit and what stands about it: patterns are tried
#: on nothing longer.
LONGEST, LONGEST_TYPED = 24, 60
#: Fractions that have a sign of their own.
SIGNS = {
    "½": "1/2",
    "⅓": "1/3",
    "⅔": "2/3",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⁄": "/",
}
#: What one of each unit is in its kind's own: m, kg, m/s, s.
LENGTHS = {"ft": M_PER_FT, "in": M_PER_IN, "m": 1.0, "cm": 0.01, "mm": 0.001, "yd": 3.0 * M_PER_FT}
MASSES = {"oz": KG_PER_OZ, "lb": KG_PER_LB, "g": 0.001, "kg": 1.0}
SPEEDS = {
    "ft/s": M_PER_FT,
    "m/s": 1.0,
    "cm/s": 0.01,
    "mph": M_S_PER_MPH,
    "km/h": 1.0 / 3.6,
    "kn": 1852.0 / 3600.0,
}
TIMES = {"s": 1.0, "min": 60.0}
TURNS = {"in/turn": M_PER_IN, "cm/turn": 0.01}
KINDS = (LENGTHS, MASSES, SPEEDS, TIMES, TURNS)
DEGREES = ("°f", "°c")
#: Other ways to write a unit.
SAME = {
    "feet": "ft",
    "foot": "ft",
    "'": "ft",
    "′": "ft",
    "inch": "in",
    "inches": "in",
    '"': "in",
    "″": "in",
    "metre": "m",
    "metres": "m",
    "meter": "m",
    "meters": "m",
    "ounce": "oz",
    "ounces": "oz",
    "oz.": "oz",
    "gram": "g",
    "grams": "g",
    "gr": "g",
    "pound": "lb",
    "pounds": "lb",
    "lbs": "lb",
    "sec": "s",
    "seconds": "s",
    "kmh": "km/h",
    "kph": "km/h",
    "knot": "kn",
    "knots": "kn",
    "kt": "kn",
    "kts": "kn",
    "f": "°f",
    "c": "°c",
    "deg f": "°f",
    "deg c": "°c",
}


#: Units by the end of a field's name, the longest first.
ENDINGS = {
    "_per_turn": "in/turn",
    "_ft_s": "ft/s",
    "_mph": "mph",
    "_ft": "ft",
    "_in": "in",
    "_mm": "mm",
    "_oz": "oz",
    "_lb": "lb",
    "_g": "g",
    "_f": "°f",
    "_s": "s",
}


def number_of(text: str) -> float:
    """A number without a unit. Raises ValueError for anything else."""
    if len(text) > LONGEST:
        raise ValueError("not a number")
    plain = text.strip()
    for sign, written in SIGNS.items():
        plain = plain.replace(sign, written if sign == "⁄" else f" {written}")
    match = WRITTEN.fullmatch(plain.strip())
    if match is None:
        raise ValueError("not a number")
    whole, top, low, decimal = match.groups()
    if decimal is not None:
        return float(decimal.replace(",", "."))
    if int(low) == 0:
        raise ValueError("divided by nothing")
    return float(whole or 0) + int(top) / int(low)


def parts_of(text: str) -> tuple[str, str]:
    """A typed number and the unit behind it, empty when there is none; the unit as this module names it."""
    text = text.strip()
    if len(text) > LONGEST_TYPED:
        raise ValueError("not a number")
    match = re.fullmatch(r"\s*(.*?[\d½⅓⅔¼¾⅛⅜⅝⅞.,])\s*([^\d\s.,½⅓⅔¼¾⅛⅜⅝⅞/⁄-][^\d]*)?\s*", text, re.S)
    if match is None:
        raise ValueError("not a number")
    unit = " ".join((match[2] or "").lower().split())
    return match[1], SAME.get(unit, unit)


def unit_of(name: str) -> str:
    """The unit that a field's name ends in: ``water_temp_f`` is in °F, ``pace_ft_s`` in ft/s."""
    for tail, unit in ENDINGS.items():
        if name.endswith(tail):
            return unit
    return ""


#: Feet and inches together: ``1' 6"``, ``6 ft 10 in``, ``7'2``.
_FEET_INCHES = re.compile(
    r"\s*(\d{1,3})\s*(?:'|′|ft|feet|foot)\s*(\d{1,2}(?:\.\d)?)\s*(?:\"|″|''|in|inch|inches)?\s*", re.I
)


def read(text: str, unit: str = "") -> float:
    """A number typed with or without a unit, in ``unit`` (``ft``, ``°F``, ``in``, ``oz``, ``lb``, ``mph`` …).

    Raises ValueError for what is no number, and for a unit that cannot be turned into the one wanted.
    """
    wanted = SAME.get(unit.lower(), unit.lower())
    both = _FEET_INCHES.fullmatch(text) if len(text) <= LONGEST_TYPED else None
    if both and wanted in LENGTHS:
        inches = 12.0 * number_of(both[1]) + number_of(both[2])
        return round(inches * M_PER_IN / LENGTHS[wanted], 9)
    said, given = parts_of(text)
    value = number_of(said)
    if not given or given == wanted:
        return value
    if wanted in DEGREES and given in DEGREES:
        return value * 1.8 + 32.0 if wanted == "°f" else (value - 32.0) / 1.8
    for kind in KINDS:
        if wanted in kind and given in kind:
            return round(value * kind[given] / kind[wanted], 9)
    raise ValueError("another unit")


#: How far either side an "about" is meant, in the field's unit.
ABOUT = 2.0
_UNKNOWN = ("?", "unknown", "not known", "don't know", "any", "anywhere")
_RANGE = re.compile(r"\s*(.+?)\s*(?:\b(?:to|or|and)\b|–|—|\.\.|(?<=[\d\s])-(?=[\d\s]))\s*(.+?)\s*")
_AROUND = re.compile(r"\s*(?:about|around|~)?\s*(.+?)\s*,?\s*(?:±|\+/-|\+-|give or take)\s*(.+?)\s*")


def span_of(text: str, one: Callable[[str], float] | None = None) -> tuple[float, float] | None:
    """The ends of a depth that is not known exactly (ft): ``4 to 10``, ``4-10``, ``about 6``, ``6 ± 2``; None
    for ``?``. ``one`` reads a single figure, in feet by default. Raises ValueError for anything else."""
    read_one = one or (lambda part: read(part, "ft"))
    plain = " ".join(text.lower().split())
    if len(plain) > LONGEST_TYPED:
        raise ValueError("not a depth")
    if plain in _UNKNOWN:
        return None
    if match := _AROUND.fullmatch(plain):
        middle, off = read_one(match[1]), read_one(match[2])
    elif plain.startswith(("about ", "~", "around ")):
        middle, off = read_one(plain.removeprefix("about ").removeprefix("around ").lstrip("~ ")), ABOUT
    elif match := _RANGE.fullmatch(plain):
        unit = parts_of(match[2])[1]
        first = match[1] if parts_of(match[1])[1] or not unit else f"{match[1]} {unit}"
        low, high = read_one(first), read_one(match[2])
        return min(low, high), max(low, high)
    else:
        raise ValueError("not a depth")
    return max(0.0, middle - off), middle + off


#: Digits of a row's number at most.
LONGEST_ROW = 18


def row_number(text: str) -> int:
    """The number of a row or a place as an address or a form says it; -1 for a text that is none."""
    return int(text) if text.isascii() and text.isdigit() and len(text) <= LONGEST_ROW else -1
