"""A day typed in afterwards, a line of text: ``three fish, swim jig 3/8 craw, Mill bay, morning``.

What a line says is read by :mod:`heathdrop.store.files.readday`; here it becomes casts, and they a line.
"""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from heathdrop.answers.lessons import UNCOUNTED
from heathdrop.catalog import Catalog
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.request import YEARS
from heathdrop.errors import BadInput
from heathdrop.physics.rig import Rig
from heathdrop.store.files.readday import read_day
from heathdrop.units import ounces_as_written, pounds_said

#: The longest line that is read; the most fish and casts of one line.
LONGEST, MOST_FISH, MOST_CASTS = 200, 50, 300
#: Trips of days typed in, with their casts counted, and without.
TYPED = "Typed in"
#: Outcomes that a line names, and the word for one.
SAID = (
    ("fish", "fish"),
    ("bump", "bump"),
    ("short", "short strike"),
    ("lost", "lost one"),
    ("missed", "missed one"),
    ("followed", "follower"),
)


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
        conditions = {} if self.water_temp_f is None else {"water_temp_f": self.water_temp_f}
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
                conditions=conditions or None,
                note=self.note if k == 0 else "",
            )
            for k, outcome in enumerate((*self.came, *["nothing"] * blanks))
        ]


def typed_day(catalog: Catalog, line: str, on: date, typed_in: str = "") -> TypedDay:
    """What a line says of the day that it names, else of the day ``on``; a temperature without C or F is in
    the system ``typed_in``. Raises BadInput naming what is missing or cannot be."""
    line = " ".join(line.split())
    if not line or len(line) > LONGEST:
        raise BadInput(
            "the line", line[:40], f"from 1 to {LONGEST} characters: three fish, swim jig 3/8 craw"
        )
    day_read = read_day(catalog, line, date.today(), typed_in)
    if day_read.unsure:
        raise BadInput("the day", day_read.unsure, "a day such as 2026-11-22, today or before")
    on = day_read.on or on
    if on > date.today() or on.year < YEARS[0]:
        raise BadInput("the day", on.isoformat(), f"today or before, from {YEARS[0]} on")
    if day_read.rig is None:
        raise BadInput("the line", line[:60], "the words of a rig: swim jig 3/8 craw")
    begun = datetime(on.year, on.month, on.day, *day_read.at).astimezone()
    bites = {kind: n for kind, n in day_read.counts.items() if kind != "cast"}
    casts, bitten = day_read.counts.get("cast"), sum(bites.values())
    if not bitten and casts is None:
        raise BadInput("the line", line[:40], "words that say how many: three fish, or no fish in 20 casts")
    # Compared before any cast is made of them: a slip of the thumb may say a thousand million.
    if bitten > MOST_FISH or (casts or 0) > MOST_CASTS:
        raise BadInput("the line", line[:40], f"at most {MOST_FISH} fish and {MOST_CASTS} casts")
    if casts is not None and casts < bitten:
        raise BadInput("the casts", casts, f"at least the {bitten} that something came of")
    if casts == 0:
        raise BadInput("the casts", casts, "at least 1")
    sizes = [
        ", ".join(f"{v:g} in" for v in day_read.lengths_in),
        ", ".join(pounds_said(v) for v in day_read.weights_lb),
    ]
    return TypedDay(
        begun=begun,
        stop=day_read.stop,
        rig=day_read.rig,
        came=tuple(kind for kind, n in bites.items() for _ in range(n)),
        casts=casts,
        water_temp_f=day_read.water_temp_f,
        note="; ".join(part for part in (*sizes, day_read.note) if part),
    )


def typed_parts(made: Sequence[MadeCast]) -> list[list[MadeCast]]:
    """The casts among these that were typed in, by the line that they were typed in: one trip, stop and rig,
    each cast a minute after the one before."""
    parts: list[list[MadeCast]] = []
    for cast in sorted((c for c in made if c.trip.startswith(TYPED)), key=lambda c: c.time):
        alike = (p for p in parts if _alike(p[-1], cast) and cast.time - p[-1].time == timedelta(minutes=1))
        part = next(alike, None)
        if part is None:
            parts.append([cast])
        else:
            part.append(cast)
    return parts


def _alike(one: MadeCast, other: MadeCast) -> bool:
    """Whether two casts are of one trip, stop and rig."""
    names = ("trip", "stop", "family", "head_oz", "head_material", "trailer", "trailer_length_in")
    return all(getattr(one, name) == getattr(other, name) for name in names)


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
