"""What a line says of a day on the water: when, where, with what, what came of how many casts.

What names a number of fish or casts, their lengths and weights, a rig, a day, a time or a temperature is
taken; what is left is the stop, then a note.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.measures import METRIC
from heathdrop.physics.rig import Rig
from heathdrop.reading import number_of, read
from heathdrop.store.files.entry import named, take_word, typed_rig

#: Whole numbers in words.
NUMBERS = {
    word: n
    for n, words in enumerate(
        (
            "no",
            "a an one",
            "two",
            "three",
            "four",
            "five",
            "six",
            "seven",
            "eight",
            "nine",
            "ten",
            "eleven",
            "twelve",
        )
    )
    for word in words.split()
}
COUNTED = re.compile(
    r"(?:(?:and|in|of|on|with|after|caught|got|landed|lost|had)\s+)*(\w+)\s+"
    r"(fish|bass|keepers?|smallmouths?|largemouths?|bites?|bumps?|short strikes?|casts?)(?!\w)",
    re.I,
)
#: Fish told without the word: ``3 on a swim jig``, ``caught 4``; and a day without any.
ON_RIG = re.compile(r"^(?:(?:caught|got|landed)\s+(\w+)(?:\s+on)?|(\w+)\s+on)(?=\s|,|$)", re.I)
NONE_CAME = re.compile(r"\b(?:skunked|blanked|skunk|zip|no luck|nothing)\b", re.I)
CAME = {
    "fish": "fish",
    "bass": "fish",
    "keeper": "fish",
    "smallmouth": "fish",
    "largemouth": "fish",
    "bite": "bump",
    "bump": "bump",
    "short strike": "short",
    "cast": "cast",
}
TEMPERATURE = re.compile(r"(?<![\w/.])(\d{1,3}(?:\.\d)?)\s?(?:°|degrees )?\s?([CF])(?!\w)", re.I)
CLOCK = re.compile(r"(?<![\d/])(?:at\s+)?([01]?\d|2[0-3])(?::([0-5]\d))?\s?([ap])\.?m\.?(?!\w)", re.I)
CLOCK_24 = re.compile(r"(?<!\d)([01]?\d|2[0-3]):([0-5]\d)(?!\d)")
MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
DAYS = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
MONTH = (
    r"(jan(?:uary)?|feb(?:ruary)?|mar(?:ch)?|apr(?:il)?|may|june?|july?|aug(?:ust)?|sept?(?:ember)?|"
    r"oct(?:ober)?|nov(?:ember)?|dec(?:ember)?)\.?"
)
ISO = re.compile(r"(?<!\d)(\d{4})-(\d{1,2})-(\d{1,2})(?!\d)")
DAY_MONTH = re.compile(
    rf"(?<!\d)(\d{{1,2}})(?:st|nd|rd|th)?\s+(?:of\s+)?{MONTH}(?:,?\s+(\d{{4}}))?(?!\w)", re.I
)
MONTH_DAY = re.compile(rf"\b{MONTH}\s+(\d{{1,2}})(?:st|nd|rd|th)?(?:,?\s+(\d{{4}}))?(?![\w/])", re.I)
SLASHED = re.compile(r"(?<![\d/])(\d{1,2})[/.](\d{1,2})(?:[/.](\d{4}|\d{2}))?(?![\d/])")
WEEKDAYS = r"(?:mon|tues|wednes|thurs|fri|satur|sun)day"
#: A day of the week; cut short only where it begins a part or stands after a word for it.
AGO = re.compile(
    rf"\b(today|yesterday|(?:(?:on|last|this)\s+)?{WEEKDAYS}|(?:on|last|this)\s+(?:mon|tues?|wed|thu(?:rs)?|fri|sat|sun))"
    r"(?=[\s,.]|$)|(?:^|(?<=,\s))(mon|tues?|wed|thu(?:rs)?|fri|sat|sun)(?=[\s,.]|$)",
    re.I,
)
#: What is a weight of a head before it is a day of a month.
WEIGHTS = re.compile(r"\d+/(?:2|4|8|16)$")
#: Lengths of fish in a part of a line, and their weights; such fish are between these inches.
LENGTHS = re.compile(r"((?:\d{1,2}(?:[.,]\d+| \d/\d)?)\s?(?:(?:in|inch|inches|inchers?|cm)\b|[\"″]))", re.I)
POUNDS = re.compile(r"(\d{1,2}(?:[.,]\d+)?)\s?-?(?:lbs?|pounds?|pounders?)\b(?:\s?(\d{1,2})\s?oz)?", re.I)
FISH_IN = (8.0, 30.0)
HOURS = {
    "first light": 6,
    "dawn": 6,
    "morning": 8,
    "midday": 12,
    "noon": 12,
    "afternoon": 15,
    "evening": 19,
    "dusk": 20,
    "night": 22,
}


@dataclass(frozen=True)
class DayRead:
    """What a line says of a day, as far as it says it: the day (None: not said, or two are as good:
    ``unsure``), the hour, stop, rig (None: none understood; the ``family`` may be), counts by kind (fish,
    bump, short, cast), lengths (in) and weights (lb) of fish, °F, a note."""

    on: date | None
    unsure: str
    at: tuple[int, int]
    stop: str
    note: str
    rig: Rig | None
    family: str
    counts: Mapping[str, int]
    lengths_in: tuple[float, ...]
    weights_lb: tuple[float, ...]
    water_temp_f: float | None
    unused: tuple[str, ...] = ()

    def missing(self) -> tuple[str, ...]:
        """What it cannot be kept without."""
        lacks = {"date": bool(self.unsure), "quantity": not self.counts, "rig": self.rig is None}
        return tuple(name for name, lacking in lacks.items() if lacking)

    def items(self) -> list[tuple[str, dict[str, Any]]]:
        """The line as pieces: the fish (none of them, too), other bites, the casts; each with when, where and
        with what."""
        said: dict[str, Any] = {"date": self.on.isoformat()} if self.on else {}
        said |= {"time": f"{self.at[0]:02d}:{self.at[1]:02d}"} | ({"stop": self.stop} if self.stop else {})
        if self.rig is not None:
            tail = self.rig.trailer
            said |= {"family": self.rig.family.id, "weight_oz": self.rig.head_oz, "shape": tail.id}
            said |= {} if tail.bare else {"trailer_length_in": self.rig.trailer_length_in}
        elif self.family:
            said |= {"family": self.family}
        said |= {} if self.water_temp_f is None else {"water_temp_f": self.water_temp_f}
        said |= {"note": self.note} if self.note else {}
        fields = []
        for kind, n in self.counts.items():
            own: dict[str, Any] = {"quantity": n}
            if kind == "fish":
                own |= {"lengths_in": list(self.lengths_in)} if self.lengths_in else {}
                own |= {"weights_lb": list(self.weights_lb)} if self.weights_lb else {}
            outcome = {} if kind in ("fish", "cast") else {"outcome": kind}
            fields.append(("cast" if kind == "cast" else "fish", own | outcome | said))
        return fields or [("fish", said)]


def read_day(catalog: Catalog, line: str, today: date, typed_in: str = "") -> DayRead:
    """What a line says of a day on the water, up to ``today``; nothing is refused but a temperature that no
    water has."""
    line = re.sub(r"(?<!\d):|:(?!\d)", ",", " ".join(line.split()))
    on, unsure, rest = _date(line, today)
    at, rest = _hour(rest)
    degrees, rest = _temperature(rest, typed_in)
    counts, rest = _counts(rest)
    lengths, weights, rest = _sizes(rest)
    rig, left = _rig(catalog, rest)
    family = ""
    if rig is None:
        family_word, _ = take_word(named(catalog.families), rest)
        family = family_word or ""
    # Fish that were measured were caught, whether they are counted or not.
    if not counts.get("fish") and (lengths or weights):
        counts = {"fish": len(lengths or weights), **counts}
    return DayRead(
        on=on,
        unsure=unsure,
        at=at,
        stop=left[0] if left else "",
        note="; ".join(left[1:]),
        rig=rig,
        family=family,
        counts=counts,
        lengths_in=lengths,
        weights_lb=weights,
        water_temp_f=degrees,
    )


def _date(line: str, today: date) -> tuple[date | None, str, str]:
    """The day that a line names (the latest such day that is not to come), what is unsure of it, and the line
    without it."""
    for pattern, order in ((ISO, "ymd"), (DAY_MONTH, "dmy"), (MONTH_DAY, "mdy")):
        match = pattern.search(line)
        if match:
            part = dict(zip(order, match.groups(), strict=True))
            month = part["m"] if part["m"].isdigit() else str(MONTHS.index(part["m"][:3].lower()) + 1)
            on = _past(today, part["y"], int(month), int(part["d"]))
            return (on, "", _cut(line, match)) if on else (None, match[0], _cut(line, match))
    match = AGO.search(line)
    if match:
        word = (match[1] or match[2]).lower().split()[-1]
        back = {"today": 0, "yesterday": 1}.get(word)
        if back is None:
            back = (today.weekday() - DAYS.index(word[:3])) % 7 or 7
        return today - timedelta(days=back), "", _cut(line, match)
    for match in SLASHED.finditer(line):
        alone = re.search(r"(?:^|,)\s*$", line[: match.start()]) and re.match(
            r"\s*(?:,|$)", line[match.end() :]
        )
        if (WEIGHTS.fullmatch(match[0]) and not alone) or ("." in match[0] and not match[3]):
            continue
        year = match[3] if match[3] is None or len(match[3]) == 4 else f"20{match[3]}"
        first, second = int(match[1]), int(match[2])
        days = {_past(today, year, first, second), _past(today, year, second, first)} - {None}
        if len(days) == 1:
            return days.pop(), "", _cut(line, match)
        return None, match[0], _cut(line, match)
    return None, "", line


def _past(today: date, year: str | None, month: int, day: int) -> date | None:
    """The day of a month, of its year or of the latest that is past; None where there is none."""
    for y in (int(year),) if year else (today.year, today.year - 1):
        try:
            on = date(y, month, day)
        except ValueError:
            continue
        if on <= today:
            return on
    return None


def _cut(text: str, match: re.Match[str]) -> str:
    return f"{text[: match.start()]} {text[match.end() :]}".strip(" ,")


def _sizes(text: str) -> tuple[tuple[float, ...], tuple[float, ...], str]:
    """Lengths (in) and weights (lb) of fish, from the parts of a line that are nothing else; the rest."""
    lengths: list[float] = []
    weights: list[float] = []
    others = []
    for part in (p.strip() for p in text.split(",")):
        # A length before a rig is a fish's: no head has one, and no trailer so long.
        while (at := LENGTHS.match(part)) and part[at.end() :].strip(" ,"):
            long = round(read(re.sub("inch.*", "in", at[1].lower()), "in"), 2)
            if not FISH_IN[0] <= long <= FISH_IN[1] or LENGTHS.fullmatch(part):
                break
            lengths, part = [*lengths, long], part[at.end() :].strip(" ,").removeprefix("and ")
        inches = [read(re.sub("inch.*", "in", m[1].lower()), "in") for m in LENGTHS.finditer(part)]
        pounds = [number_of(m[1]) + float(m[2] or 0) / 16.0 for m in POUNDS.finditer(part)]
        left = POUNDS.sub(" ", LENGTHS.sub(" ", part))
        bare = not re.sub(
            r"\b(?:and|a|an|one|best|biggest|big|fish|to|of|up|long|the)\b|[^a-z0-9]", "", left, flags=re.I
        )
        if part and bare and inches and all(FISH_IN[0] <= v <= FISH_IN[1] for v in inches):
            lengths += [round(v, 2) for v in inches]
        elif part and bare and pounds and not inches:
            weights += [round(v, 3) for v in pounds]
        else:
            others.append(part)
    return tuple(lengths), tuple(weights), ", ".join(p for p in others if p)


def _counts(line: str) -> tuple[dict[str, int], str]:
    """How many of what, each read at the beginning of a part; the line without them."""
    counts: dict[str, int] = {}
    parts = []
    for part in (p.strip() for p in line.split(",")):
        if not counts.get("fish") and NONE_CAME.search(part):
            counts.setdefault("fish", 0)
            part = NONE_CAME.sub(" ", part).strip()
        while (at := COUNTED.match(part)) is not None and (n := _number(at[1])) is not None:
            kind = CAME[re.sub(r"(?<=[eptrh])s$", "", at[2].lower())]
            counts[kind] = counts.get(kind, 0) + n
            part = part[at.end() :].strip()
        on_rig = ON_RIG.match(part)
        if on_rig is not None and "fish" not in counts and (n := _number(on_rig[1] or on_rig[2])) is not None:
            counts["fish"] = n
            part = part[on_rig.end() :].strip()
        parts.append(part)
    return counts, ", ".join(p for p in parts if p)


def _number(said: str) -> int | None:
    """A whole number in figures or words; None for another word."""
    said = said.lower()
    return NUMBERS[said] if said in NUMBERS else int(said) if said.isascii() and said.isdigit() else None


def _temperature(text: str, typed_in: str) -> tuple[float | None, str]:
    match = TEMPERATURE.search(text)
    if match is None:
        return None, text
    degrees = float(match[1])
    if match[2].upper() == "C" or (not match[2] and typed_in == METRIC):
        degrees = degrees * 9.0 / 5.0 + 32.0
    if not 32.0 <= degrees <= 100.0:
        raise BadInput("the temperature", match[0], "from 32 to 100 °F")
    return round(degrees, 1), text[: match.start()] + text[match.end() :]


def _hour(text: str) -> tuple[tuple[int, int], str]:
    match = CLOCK.search(text)
    if match is not None and 1 <= int(match[1]) <= 12:
        hour = int(match[1]) % 12 + (12 if match[3].lower() == "p" else 0)
        return (hour, int(match[2] or 0)), text[: match.start()] + text[match.end() :]
    match = CLOCK_24.search(text)
    if match is not None:
        return (int(match[1]), int(match[2])), text[: match.start()] + text[match.end() :]
    for said, hour in HOURS.items():
        at = re.search(rf"\b(?:in the |at )?{said}\b", text, re.I)
        if at is not None:
            return (hour, 0), text[: at.start()] + text[at.end() :]
    return (12, 0), text


def _rig(catalog: Catalog, text: str) -> tuple[Rig | None, list[str]]:
    """The rig that the parts of a text name (its trailer may be a part of its own; None where none does), and
    the other parts."""
    parts = [
        p for p in (re.sub(r"^(?:in|on|at|with|and)\s+", "", p.strip(" .;")) for p in text.split(",")) if p
    ]
    for k, part in enumerate(parts):
        rig = _rig_named(catalog, part)
        if rig is None:
            continue
        more = _rig_named(catalog, ", ".join(parts[k : k + 2])) if rig.trailer.bare else None
        if more is not None and not more.trailer.bare:
            return more, parts[:k] + parts[k + 2 :]
        return rig, parts[:k] + parts[k + 1 :]
    return None, parts


def _rig_named(catalog: Catalog, text: str) -> Rig | None:
    """The rig that a text names; None where it names none."""
    try:
        return typed_rig(catalog, text)
    except BadInput:
        return None
