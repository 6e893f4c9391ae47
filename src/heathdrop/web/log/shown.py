"""The log in words and dots: years and their months, days, a day's stops."""

import math
from calendar import month_name
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from itertools import groupby
from typing import Any

from heathdrop.answers.last_time import Day, thrown_said
from heathdrop.answers.plan import rig_said
from heathdrop.answers.thrown import bitten, known_of, number_of_cast, run_of
from heathdrop.answers.year import Year as YearOf
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.outcome import OUTCOME
from heathdrop.store.casts import DayCount
from heathdrop.store.files.dayline import TYPED, TypedDay
from heathdrop.units import count_said, counted, many, pounds_said

#: The strip of a year, and the drawing of a stop: width and height (count_said, px).
YEAR_WIDTH, WIDE, TALL = 620.0, 600.0, 130.0
#: Where the surface is drawn (px); how near marks of the clock and changes of the weather may stand; how far
#: from the drawing's ends the first and the last cast do.
SURFACE, APART, INSET = 8.0, 120.0, 10.0
#: The count of a cast that was typed in afterwards.
UNSAID = "not on record"
#: Light as a noun.
LIGHT = {"low": "low light", "mixed": "sun and cloud"}


@dataclass(frozen=True)
class DayRow:
    """A day: its date, stops, casts, fish, and where each cast came to something along its hours (0 to 1)."""

    date: str
    stops: str
    casts: int
    bites: int
    marks: tuple[tuple[float, bool], ...]


@dataclass(frozen=True)
class Year:
    """A year: what it came to, and its days as dots (x, radius, date)."""

    year: str
    said: str
    dots: tuple[tuple[float, float, str], ...]


@dataclass(frozen=True)
class RigRow:
    """A rig at a stop: the counts that were thrown, casts, bites, what else it came to."""

    rig: str
    counts: str
    casts: int
    bites: int
    came: str


@dataclass(frozen=True)
class Dot:
    """A cast in the drawing of its stop: where, whether a fish answered, its id."""

    x: float
    y: float
    bit: bool
    id: str


@dataclass(frozen=True)
class Drawing:
    """A stop's casts over time and depth: dots, floor and cover tops as closed shapes, where the fish were
    thought to be (points), the hours, what changed beneath (a row of x and words for each condition), what it
    shows in words."""

    dots: tuple[Dot, ...]
    floor: str
    floor_y: float
    floor_said: str
    tops: str
    fish: str
    hours: tuple[tuple[float, str], ...]
    beneath: tuple[tuple[tuple[float, str], ...], ...]
    said: str


@dataclass(frozen=True)
class StopOfDay:
    """A stop of a day: when, its casts and bites, its water in words, the drawing, rigs, fish, notes."""

    name: str
    hours: str
    casts: tuple[MadeCast, ...]
    bites: int
    water: str
    drawing: Drawing | None
    rigs: tuple[RigRow, ...]
    fish: tuple[str, ...]
    notes: tuple[str, ...]


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
    last = []
    for day in days:
        at = ""
        if day.take is not None:
            rig, count, pace = day.take
            setting = {"count_s": f"{count:g}", "pace_ft_s": f"{pace:g}"} if pace > 0.0 else {}
            at = link(family=rig.family, pick=rig.text(), view="size", **setting)
        last.append(
            LastRow(
                when=f"{day.date}, {day.stop}" if day.stop else day.date,
                came=f"{many(day.bites, 'bite')} in {many(day.casts, 'cast')}",
                alike=", ".join(day.alike),
                differs=", ".join(day.differs),
                bit="; ".join(day.bit),
                in_vain="; ".join(day.in_vain[:3]),
                take=at,
            )
        )
    return last


def day_rows(made: Sequence[MadeCast]) -> list[DayRow]:
    """Days as rows, the newest first, each cast a mark between the day's first and last minute."""
    days = []
    for day, some in groupby(made, key=lambda c: c.time.date().isoformat()):
        casts = list(some)
        first, last = casts[0].time, casts[-1].time
        whole = max(60.0, (last - first).total_seconds())
        marks = tuple(((c.time - first).total_seconds() / whole, bitten(c)) for c in casts)
        stops = ", ".join(dict.fromkeys(c.stop for c in casts if c.stop)) or "no stop named"
        days.append(DayRow(day, stops, len(casts), sum(b for _, b in marks), marks))
    return days[::-1]


def years_of(days: Sequence[DayCount]) -> list[Year]:
    """The years that have days, the newest first, each day a dot by its place in the year and its bites."""
    years = []
    for year, some in groupby(days, key=lambda d: d.date[:4]):
        year_days = list(some)
        begun = date.fromisoformat(f"{year}-01-01")
        dots = tuple(
            (
                (date.fromisoformat(d.date) - begun).days * YEAR_WIDTH / 366.0,
                2.5 + min(5.0, math.sqrt(d.bites)),
                d.date,
            )
            for d in year_days
        )
        casts, bites = sum(d.casts for d in year_days), sum(d.bites for d in year_days)
        said = f"{many(len(year_days), 'day')}, {many(bites, 'bite')} in {many(casts, 'cast')}"
        years.append(Year(year, said, dots))
    return years


def stops_of_day(made: Sequence[MadeCast]) -> list[StopOfDay]:
    """A day's stops in the order in which they were fished."""
    by_stop: dict[str, list[MadeCast]] = {}
    for cast in made:
        by_stop.setdefault(cast.stop, []).append(cast)
    return [_stop_of_day(name, casts) for name, casts in by_stop.items()]


def _stop_of_day(name: str, casts: Sequence[MadeCast]) -> StopOfDay:
    first, last = casts[0].time, casts[-1].time
    conditions = next((c.conditions for c in casts if c.conditions), None) or {}
    return StopOfDay(
        name=name or "No stop named",
        hours=f"{first:%H:%M}" + (f" to {last:%H:%M}" if f"{last:%H:%M}" != f"{first:%H:%M}" else ""),
        casts=tuple(casts),
        bites=sum(bitten(c) for c in casts),
        water=water_said(conditions),
        drawing=_drawing(casts, conditions),
        rigs=tuple(_rigs(casts)),
        fish=tuple(_fish(c) for c in casts if c.outcome == "fish"),
        notes=tuple(f"{c.time:%H:%M} {c.note}" for c in casts if c.note),
    )


def typed_said(day: TypedDay) -> str:
    """A day typed in, read back in a sentence."""
    came = Counter(OUTCOME[o].button.lower() for o in day.came)
    what = ", ".join(f"{n} {word}" for word, n in came.items()) or "no fish"
    said = f"{day.begun:%Y-%m-%d}, about {day.begun:%H:%M}"
    said += f", {day.stop}: {what}" if day.stop else f": {what}"
    said += f" in {day.casts} casts" if day.casts is not None else ""
    said += f" on {rig_said(day.rig)}"
    said += f"; water {day.water_temp_f:g} °F" if day.water_temp_f is not None else ""
    said += f"; note: {day.note}" if day.note else ""
    if day.casts is None:
        said += ". How many casts is not said, so the rates leave it out"
    return said + "."


def water_said(conditions: Mapping[str, Any]) -> str:
    """Conditions as they were, in a line."""
    said = [
        f"{float(conditions[k]):g} {unit}" if k != "clarity_ft" else f"visibility {float(conditions[k]):g} ft"
        for k, unit in (("water_temp_f", "°F"), ("clarity_ft", "ft"), ("wind_mph", "mph of wind"))
        if isinstance(conditions.get(k), int | float)
    ]
    cover = conditions.get("cover")
    parts = [
        LIGHT.get(str(conditions.get("light")), conditions.get("light")),
        conditions.get("season"),
        conditions.get("trend") and f"temperature {conditions['trend']}",
        cover.get("kind") if isinstance(cover, dict) else None,
    ]
    depth, floor = conditions.get("fish_depth_ft"), conditions.get("bottom_depth_ft")
    if isinstance(depth, int | float):
        said.append(f"fish at {float(depth):g} ft")
    if isinstance(floor, int | float):
        said.append(f"bottom {float(floor):g} ft")
    return ", ".join([*said, *(str(w).replace("-", " ") for w in parts if w)])


def _rigs(casts: Sequence[MadeCast]) -> list[RigRow]:
    """Each rig that was thrown, in order: its counts, casts, bites."""
    rows: dict[str, list[MadeCast]] = {}
    for cast in casts:
        rows.setdefault(thrown_said(cast), []).append(cast)
    rig_rows = []
    for rig, rig_casts in rows.items():
        swum, typed = any(c.pace_ft_s > 0.0 for c in rig_casts), rig_casts[0].trip.startswith(TYPED)
        counts = sorted({round(c.countdown_s, 1) for c in rig_casts})
        came = Counter(OUTCOME[c.outcome].button.lower() for c in rig_casts if c.outcome != "nothing")
        rig_rows.append(
            RigRow(
                rig,
                ", ".join(count_said(c) for c in counts[:6])
                if swum
                else UNSAID
                if typed
                else "on the bottom",
                len(rig_casts),
                sum(bitten(c) for c in rig_casts),
                ", ".join(f"{what} {n} times" if n > 1 else what for what, n in came.items()),
            )
        )
    return rig_rows


def _fish(cast: MadeCast) -> str:
    length = f"{cast.fish.length_in:g} in" if cast.fish and cast.fish.length_in else "not measured"
    weight = f", {pounds_said(cast.fish.weight_lb)}" if cast.fish and cast.fish.weight_lb else ""
    count = f", {counted(cast.countdown_s)}" if cast.pace_ft_s > 0.0 else ""
    return f"{cast.time:%H:%M} {length}{weight}: {thrown_said(cast)}{count}"


#: Conditions beneath a stop's drawing where they changed: how a value is said.
BENEATH = {"water_temp_f": "water {:g} °F", "wind_mph": "wind {:g} mph", "light": "{}"}


def _drawing(casts: Sequence[MadeCast], conditions: Mapping[str, Any]) -> Drawing | None:
    """Each cast at its time and the depth that it ran at, in the water as it was told or sounded then; None
    where no cast's water is known."""
    runs = [(c, run_of(c)) for c in casts]
    depths = [r.depth_ft for _, r in runs if r is not None]
    if not depths:
        return None
    floors = [b for c in casts if (b := number_of_cast(c, "bottom_depth_ft"))]
    deepest = max(*floors, max(depths), 1.0) if floors else max(*depths, 1.0)
    first = casts[0].time
    whole = max(60.0, (casts[-1].time - first).total_seconds())
    down = TALL / deepest

    def x(cast: MadeCast) -> float:
        return round(INSET + (cast.time - first).total_seconds() / whole * (WIDE - 2 * INSET), 1)

    def y(depth_ft: float) -> float:
        return round(SURFACE + depth_ft * down, 1)

    def along(name: str) -> list[str]:
        """A depth through the stop, as points; from edge to edge."""
        told = [(x(c), y(d)) for c in casts if (d := number_of_cast(c, name)) is not None]
        ends = [(0.0, told[0][1]), *told, (WIDE, told[-1][1])] if told else []
        return [f"{at:g},{deep:g}" for at, deep in dict.fromkeys(ends)]

    bites = [r.depth_ft for c, r in runs if r is not None and bitten(c)]
    said = f"{many(len(depths), 'cast')} at {_span(depths)}"
    if bites:
        said += f"; bites with the lure at {_span(bites)}"
    cover, foot = conditions.get("cover"), y(deepest)
    top = cover.get("top_depth_ft") if isinstance(cover, dict) else None
    floor = along("bottom_depth_ft") or [f"0,{foot:g}", f"{WIDE:g},{foot:g}"]
    return Drawing(
        dots=tuple(Dot(x(c), y(r.depth_ft), bitten(c), str(c.id)) for c, r in runs if r is not None),
        floor=" ".join([f"0,{foot + 8:g}", *floor, f"{WIDE:g},{foot + 8:g}"]),
        floor_y=foot,
        floor_said=f"{deepest:g} ft",
        tops=" ".join([f"0,{y(top):g} {WIDE:g},{y(top):g}", *floor[::-1]])
        if isinstance(top, int | float) and top < deepest
        else "",
        fish=" ".join(along("fish_depth_ft")),
        hours=_spaced([(x(c), f"{c.time:%H:%M}") for c in casts]),
        beneath=tuple(
            _spaced(rows)
            for name, how in BENEATH.items()
            if len(rows := _changes([(x(c), known_of(c, name)) for c in casts], how)) > 1
        ),
        said=said,
    )


def _changes(values: Sequence[tuple[float, Any]], how: str) -> list[tuple[float, str]]:
    """Where a condition became another, in words."""
    said = [
        (x, str(LIGHT.get(v, v)) if isinstance(v, str) else how.format(float(v)))
        for x, v in values
        if isinstance(v, str) or (isinstance(v, int | float) and not isinstance(v, bool))
    ]
    return [one for k, one in enumerate(said) if k == 0 or one[1] != said[k - 1][1]]


def _spaced(marks: Sequence[tuple[float, str]]) -> tuple[tuple[float, str], ...]:
    """The marks that stand far enough from the one before."""
    apart: list[tuple[float, str]] = []
    for mark in marks:
        if not apart or mark[0] - apart[-1][0] >= APART:
            apart.append(mark)
    return tuple(apart)


def _span(depths: Sequence[float]) -> str:
    """Depths from the least to the greatest, in whole feet; one figure where they are the same."""
    least, most = f"{min(depths):.0f}", f"{max(depths):.0f}"
    return f"{least} ft" if least == most else f"{least} to {most} ft"


@dataclass(frozen=True)
class MonthRow:
    """A month as the year's page shows it: its name, days, casts, fish, water and prey in words."""

    name: str
    days: int
    casts: int
    fish: int
    water: str
    prey: str


def month_rows(year: YearOf) -> list[MonthRow]:
    """The months of a year in words."""
    return [
        MonthRow(
            name=month_name[m.number],
            days=m.days,
            casts=m.casts,
            fish=m.fish,
            water="" if m.warm_f is None else _warm(*m.warm_f),
            prey=", ".join(m.prey) + (" (your notes)" if m.noted else ""),
        )
        for m in year.months
    ]


def _warm(low: float, high: float) -> str:
    return f"{low:.0f} °F" if round(low) == round(high) else f"{low:.0f} to {high:.0f} °F"
