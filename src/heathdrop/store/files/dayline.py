"""A day typed in afterwards, one line of text: ``three fish, swim jig 3/8 craw, Mill bay, morning, 61F``.

What names a number of fish or casts, a rig, a time or a temperature is taken; what is left is the stop, then
a note.
"""

from __future__ import annotations

import re
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from heathdrop.answers.lessons import UNCOUNTED
from heathdrop.catalog import Catalog
from heathdrop.conditions.made import MadeCast
from heathdrop.errors import BadInput
from heathdrop.measures import METRIC
from heathdrop.physics.rig import Rig
from heathdrop.store.files.entry import typed_rig
from heathdrop.units import ounces_as_written

__all__ = ["TYPED", "TypedDay", "line_of", "typed_day", "typed_parts"]

#: The longest line that is read; the most fish and casts of one line.
LONGEST, MOST_FISH, MOST_CASTS = 200, 50, 300
#: Trips of days typed in, with their casts counted, and without.
TYPED = "Typed in"
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
    r"(?:(?:and|in|of|on|with)\s+)*(\w+)\s+(fish|bass|bites?|bumps?|short strikes?|casts?)(?!\w)", re.I
)
CAME = {
    "fish": "fish",
    "bass": "fish",
    "bite": "bump",
    "bump": "bump",
    "short strike": "short",
    "cast": "cast",
}
#: Outcomes that a line names, and the word for one.
SAID = (("fish", "fish"), ("bump", "bump"), ("short", "short strike"))
TEMPERATURE = re.compile(r"(?<![\w/.])(\d{1,3}(?:\.\d)?)\s?(?:°|degrees )?\s?([CF])(?!\w)", re.I)
CLOCK = re.compile(r"(?<!\d)([01]?\d|2[0-3]):([0-5]\d)(?!\d)")
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
class TypedDay:
    """What a line says: the day, when it began, the stop, the rig, what came of how many casts (None: not
    counted), °F (None: not said), a note."""

    begun: datetime
    stop: str
    rig: Rig
    came: tuple[str, ...]
    casts: int | None
    water_temp_f: float | None
    note: str

    def made(self, line: str) -> list[MadeCast]:
        """The casts that are kept of it; the same line typed for the same day gives the same ones."""
        blanks = 0 if self.casts is None else self.casts - len(self.came)
        known = {} if self.water_temp_f is None else {"water_temp_f": self.water_temp_f}
        rig = self.rig
        return [
            MadeCast(
                id=uuid.uuid5(uuid.NAMESPACE_OID, f"{self.begun.date()} {line} {k}"),
                time=self.begun + timedelta(minutes=k),
                trip=f"{TYPED} {self.begun.date()}" if self.casts is not None else UNCOUNTED,
                stop=self.stop,
                family=rig.family.id,
                head_oz=rig.head_oz,
                head_material=rig.head_material.id,
                trailer=rig.trailer.id,
                trailer_length_in=0.0 if rig.trailer.bare else rig.trailer_length_in,
                countdown_s=0.0,
                pace_ft_s=0.0,
                outcome=outcome,
                conditions=known or None,
                note=self.note if k == 0 else "",
            )
            for k, outcome in enumerate((*self.came, *["nothing"] * blanks))
        ]


def typed_day(catalog: Catalog, line: str, on: date, typed_in: str = "") -> TypedDay:
    """What a line says of the day ``on``; a temperature without C or F is in the system ``typed_in``. Raises
    BadInput naming what is missing or cannot be."""
    line = " ".join(line.split())
    if not line or len(line) > LONGEST:
        raise BadInput(
            "the line", line[:40], f"from 1 to {LONGEST} characters: three fish, swim jig 3/8 craw"
        )
    if on > date.today():
        raise BadInput("the day", on.isoformat(), "today or before")
    counts, rest = _counts(line)
    degrees, rest = _temperature(rest, typed_in)
    hour, rest = _hour(rest)
    rig, left = _rig(catalog, rest, line)
    begun = datetime(on.year, on.month, on.day, *hour).astimezone()
    came = tuple(kind for kind, n in counts.items() if kind != "cast" for _ in range(n))
    casts = counts.get("cast")
    if not came and casts is None:
        raise BadInput("the line", line[:40], "words that say how many: three fish, or no fish in 20 casts")
    if len(came) > MOST_FISH or (casts or 0) > MOST_CASTS:
        raise BadInput("the line", line[:40], f"at most {MOST_FISH} fish and {MOST_CASTS} casts")
    if casts is not None and casts < len(came):
        raise BadInput("the casts", casts, f"at least the {len(came)} that something came of")
    if casts == 0:
        raise BadInput("the casts", casts, "at least 1")
    return TypedDay(
        begun=begun,
        stop=left[0] if left else "",
        rig=rig,
        came=came,
        casts=casts,
        water_temp_f=degrees,
        note="; ".join(left[1:]),
    )


def _counts(line: str) -> tuple[dict[str, int], str]:
    """How many of what, each read at the beginning of a part; the line without them."""
    found: dict[str, int] = {}
    parts = []
    for part in (p.strip() for p in line.split(",")):
        while (at := COUNTED.match(part)) is not None:
            said = at[1].lower()
            if said not in NUMBERS and not (said.isascii() and said.isdigit()):
                break
            kind = CAME[re.sub(r"(?<=[ept])s$", "", at[2].lower())]
            found[kind] = found.get(kind, 0) + (NUMBERS[said] if said in NUMBERS else int(said))
            part = part[at.end() :].strip()
        parts.append(part)
    return found, ", ".join(p for p in parts if p)


def _temperature(text: str, typed_in: str) -> tuple[float | None, str]:
    found = TEMPERATURE.search(text)
    if found is None:
        return None, text
    degrees = float(found[1])
    if found[2].upper() == "C" or (not found[2] and typed_in == METRIC):
        degrees = degrees * 9.0 / 5.0 + 32.0
    if not 32.0 <= degrees <= 100.0:
        raise BadInput("the temperature", found[0], "from 32 to 100 °F")
    return round(degrees, 1), text[: found.start()] + text[found.end() :]


def _hour(text: str) -> tuple[tuple[int, int], str]:
    found = CLOCK.search(text)
    if found is not None:
        return (int(found[1]), int(found[2])), text[: found.start()] + text[found.end() :]
    for said, hour in HOURS.items():
        at = re.search(rf"\b(?:in the |at )?{said}\b", text, re.I)
        if at is not None:
            return (hour, 0), text[: at.start()] + text[at.end() :]
    return (12, 0), text


def _rig(catalog: Catalog, text: str, line: str) -> tuple[Rig, list[str]]:
    """The rig that the parts of a text name (its trailer may be a part of its own), and the other parts."""
    parts = [
        p for p in (re.sub(r"^(?:in|on|at|with|and)\s+", "", p.strip(" .;")) for p in text.split(",")) if p
    ]
    for k, part in enumerate(parts):
        rig = _named(catalog, part)
        if rig is None:
            continue
        more = _named(catalog, ", ".join(parts[k : k + 2])) if rig.trailer.bare else None
        if more is not None and not more.trailer.bare:
            return more, parts[:k] + parts[k + 2 :]
        return rig, parts[:k] + parts[k + 1 :]
    raise BadInput("the line", line[:60], "the words of a rig: swim jig 3/8 craw")


def _named(catalog: Catalog, text: str) -> Rig | None:
    """The rig that a text names; None where it names none."""
    try:
        return typed_rig(catalog, text)
    except BadInput:
        return None


def typed_parts(made: Sequence[MadeCast]) -> list[list[MadeCast]]:
    """The casts among these that were typed in, by the line that they were typed in: one trip, stop, rig."""
    parts: dict[tuple[str, ...], list[MadeCast]] = {}
    for cast in made:
        if cast.trip.startswith(TYPED):
            rig = (
                cast.family,
                f"{cast.head_oz}",
                cast.head_material,
                cast.trailer,
                f"{cast.trailer_length_in}",
            )
            parts.setdefault((cast.trip, cast.stop, *rig), []).append(cast)
    return list(parts.values())


def line_of(catalog: Catalog, part: Sequence[MadeCast]) -> str:
    """The line that says what these casts of one rig at one stop say, as it may be typed in again."""
    first = part[0]
    counts = [(n, word) for kind, word in SAID if (n := sum(c.outcome == kind for c in part))]
    came = " and ".join(f"{n} {word if n == 1 else word + 's' * (word != 'fish')}" for n, word in counts)
    casts = "" if first.trip == UNCOUNTED else f" in {len(part)} casts"
    metal = "" if first.head_material == "lead" else f"{catalog.materials[first.head_material].name} "
    rig = f"{ounces_as_written(first.head_oz)} {metal}{catalog.families[first.family].name}"
    tail = catalog.trailers[first.trailer]
    length = first.trailer_length_in or tail.length_in
    warm = (first.conditions or {}).get("water_temp_f")
    said = [
        f"{came or 'no fish'}{casts}",
        rig if tail.bare else f"{rig} {tail.name} {length:g} in",
        first.stop,
        f"{first.time:%H:%M}",
        f"{warm:g}F" if isinstance(warm, int | float) else "",
        next((c.note for c in part if c.note), ""),
    ]
    return ", ".join(s for s in said if s)
