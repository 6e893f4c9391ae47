"""The log in words and dots: its days, rates with whiskers, what may be said of schools and of own fish."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from heathdrop import catalog as catalogue
from heathdrop.answers.lessons import Day, Lessons, bitten
from heathdrop.conditions.made import MadeCast
from heathdrop.learning.rates import Rate

#: Schools that the page speaks of, the loudest first.
SAID = 3
#: The drawing of a rate: its width, and the most bites an hour that a scale is made for at least.
WIDTH, LEAST_SCALE = 220.0, 1.0


@dataclass(frozen=True)
class DayRow:
    """A day: its date, stops, casts, fish, and where each cast came to something along its hours (0 to 1)."""

    date: str
    stops: str
    casts: int
    bites: int
    marks: tuple[tuple[float, bool], ...]


@dataclass(frozen=True)
class LastRow:
    """A day that was like this one: when and where, casts and bites, what is alike and what is not, what bit,
    what was tried in vain, the address that takes what bit most (empty: nothing did)."""

    when: str
    came: str
    alike: str
    differs: str
    bit: str
    in_vain: str
    take: str


def last_rows(days: Sequence[Day], link: Callable[..., str]) -> list[LastRow]:
    """Days in words; ``link`` makes the address of the sheet with some values changed."""
    found = []
    for day in days:
        at = ""
        if day.take is not None:
            rig, count, pace = day.take
            setting = {"count_s": f"{count:g}", "pace_ft_s": f"{pace:g}"} if pace > 0.0 else {}
            at = link(family=rig.family, pick=rig.text(), view="size", **setting)
        found.append(
            LastRow(
                f"{day.date}, {day.stop}" if day.stop else day.date,
                f"{day.casts} casts, {day.bites} bitten",
                ", ".join(day.alike),
                ", ".join(day.differs),
                "; ".join(day.bit),
                "; ".join(day.in_vain[:3]),
                at,
            )
        )
    return found


@dataclass(frozen=True)
class Whisker:
    """A bin's rate as drawn: words, figures, and where dot and whiskers lie (px)."""

    bin: str
    casts: int
    said: str
    dot: float
    low: float
    high: float
    told: str
    enough: bool


@dataclass(frozen=True)
class Look:
    """A category of the log: its name and its bins."""

    name: str
    rows: tuple[Whisker, ...]


def day_rows(days: Sequence[tuple[str, Sequence[MadeCast]]]) -> list[DayRow]:
    """Days as rows, each cast a mark between the day's first and last minute."""
    found = []
    for date, casts in days:
        first, last = casts[0].time, casts[-1].time
        whole = max(60.0, (last - first).total_seconds())
        marks = tuple(((c.time - first).total_seconds() / whole, bitten(c)) for c in casts)
        stops = ", ".join(dict.fromkeys(c.stop for c in casts if c.stop)) or "no stop named"
        found.append(DayRow(date, stops, len(casts), sum(b for _, b in marks), marks))
    return found


def looks_of(found: Lessons) -> list[Look]:
    """The categories with more than one bin, on one scale of bites an hour."""
    most = max((r.high for r in found.rates), default=LEAST_SCALE)
    scale = WIDTH / max(LEAST_SCALE, most)
    looks: dict[str, list[Whisker]] = {}
    for r in found.rates:
        looks.setdefault(r.effort.by, []).append(_whisker(r, scale))
    return [Look(name, tuple(rows)) for name, rows in looks.items() if len(rows) > 1]


def _whisker(r: Rate, scale: float) -> Whisker:
    said = f"{r.per_hour:.1f} an hour, {r.low:.1f} to {r.high:.1f}" if r.enough else "too few yet"
    told = {1: "more than the rest of your log", -1: "fewer than the rest of your log", 0: ""}[r.differs]
    dot, low, high = scale * r.per_hour, scale * r.low, scale * r.high
    return Whisker(r.effort.bin, r.effort.casts, said, dot, low, high, told, r.enough)


def sayings_of(found: Lessons) -> list[str]:
    """What may be said of schools and of own fish, in sentences; nothing where too little is known."""
    topics, said = catalogue.load().topics, []
    loudest = sorted(found.schools, key=lambda t: -abs(t.ratio))[:SAID]
    for t in loudest:
        if t.words != "too few":
            topic = topics[t.topic]
            school = topic.schools[t.school].name
            said.append(f"{topic.name}, “{school}”: your log {t.words} ({t.casts} casts).")
    for s in found.own:
        if s.low > 1.0 or s.high < 1.0:
            more = "heavier" if s.what == "head weight" else "quicker"
            less = "lighter" if s.what == "head weight" else "slower"
            side = more if s.factor > 1.0 else less
            said.append(
                f"Your fish took it {side} than the tables have it: by {abs(s.factor - 1.0) * 100:.0f} % "
                f"({s.casts} casts). Nothing is changed by that until you change it."
            )
    return said
