"""What the log teaches: days like this one, bites an hour by what was different, schools on trial.

An angler's year is a few hundred casts: what cannot be told from it is said to be so.
"""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

from heathdrop.answers.last_time import Day, days_like
from heathdrop.answers.shifts import Shift, shifts_of
from heathdrop.answers.thrown import Run, bitten, hours_among, known_of, number_of_cast, run_of
from heathdrop.answers.trials import Trial, trials_of
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.scenario import Scenario
from heathdrop.learning.rates import Effort, Rate, clumped, rates_of
from heathdrop.reading import number_of
from heathdrop.units import ounces_as_written

#: A cast and what lies between it and the next take no longer than this (min) where the clock says more, and
#: this where nothing follows.
LONGEST_MIN, USUAL_MIN = 3.0, 1.0
#: Casts whose rates are looked at, and those that schools are tried on, at most: the latest.
LOOKED_AT, ON_TRIAL = 3000, 400
#: The trip of fish typed in without their casts: they teach no rate, for nobody knows the effort.
UNCOUNTED = "Typed in, casts not counted"
#: Bulk by the area (cm²) that a trailer falls with.
BULK_CM2, BULK = (1.2, 2.5), ("slim", "medium", "bulky")

#: Fits (of 100) that are told apart, the best first: the least of each, and how it is read.
FITS = {90: "90 and more", 80: "80 to 89", 70: "70 to 79", 0: "0 to 69"}

#: The bin of a cast, by the cast itself or by how it ran.
Bin = Callable[[MadeCast, Run | None], str]


@dataclass(frozen=True)
class Lessons:
    """Everything that the log supports; ``among``: effort is time among the fish, not time by the clock;
    ``fit``: what the fit of a rig as it was cast has meant, by the clock."""

    casts: int
    bites: int
    like_today: tuple[Day, ...]
    rates: tuple[Rate, ...]
    schools: tuple[Trial, ...]
    own: tuple[Shift, ...]
    among: bool = False
    fit: tuple[Rate, ...] = ()


def lessons_of(made: Sequence[MadeCast], today: Scenario | None = None) -> Lessons:
    """The lessons of a log, casts in the order of time; ``today`` asks for days like it. Effort is the time
    among the fish, or by the clock where no cast's water is known."""
    late = [c for c in made if c.trip != UNCOUNTED][-LOOKED_AT:]
    runs = [run_of(c) for c in late]
    clock, among = minutes_of(late), hours_among(runs)
    minutes = clock
    if among is not None:
        minutes = [60.0 * h for h in among]
    return Lessons(
        casts=len(made),
        bites=sum(bitten(c) for c in made),
        like_today=tuple(days_like(made, today)) if today is not None else (),
        rates=tuple(rates_of(efforts_of(late, minutes, runs), _clumped(late, minutes))),
        schools=tuple(trials_of(late[-ON_TRIAL:], minutes[-ON_TRIAL:])),
        own=tuple(shifts_of(late, minutes, runs, ON_TRIAL)),
        among=among is not None,
        fit=tuple(rates_of(efforts_of(late, clock, runs, {"fit": fit_bin}), _clumped(late, clock))),
    )


def minutes_of(made: Sequence[MadeCast]) -> list[float]:
    """Minutes that each cast took, by the clock to the next one at the same stop of the same trip."""
    minutes = []
    follows: list[MadeCast | None] = [*made[1:], None]
    for cast, after in zip(made, follows[: len(made)], strict=True):
        gap = USUAL_MIN
        if after is not None and (after.trip, after.stop) == (cast.trip, cast.stop):
            gap = (after.time - cast.time).total_seconds() / 60.0
        minutes.append(min(LONGEST_MIN, gap) if gap > 0.0 else USUAL_MIN)
    return minutes


def _band(value: float, step: float, unit: str) -> str:
    low = step * math.floor(value / step)
    return f"{low:g} to {low + step:g} {unit}"


def _between(value: float, edges: Sequence[float], unit: str) -> str:
    for low, high in zip([0.0, *edges], edges, strict=False):
        if value < high:
            return f"{low:g} to {high:g} {unit}"
    return f"{edges[-1]:g} {unit} and more"


def _if_number(name: str, said: Callable[[float], str]) -> Bin:
    def of(cast: MadeCast, _: Run | None) -> str:
        value = number_of_cast(cast, name)
        return "" if value is None else said(value)

    return of


def _if_run(said: Callable[[Run], str]) -> Bin:
    return lambda _, run: "" if run is None else said(run)


def _by_cast(said: Callable[[MadeCast], str]) -> Bin:
    return lambda cast, _: said(cast)


def fit_bin(_: MadeCast, run: Run | None) -> str:
    """The bin of a cast by how well its rig fitted as it was cast, rounded as on the sheet."""
    fit = -1 if run is None else round(run.fit)
    return next((said for least, said in FITS.items() if fit >= least), "")


#: What a log is looked at by: the category, and the bin of a cast with its run (empty: not known).
BY: dict[str, Bin] = {
    "height over the bottom": _if_run(lambda r: _between(r.height_ft, (1.0, 3.0, 6.0, 12.0), "ft")),
    "way": _if_run(lambda r: "" if r.way == "open" else r.way),
    "temperature": _if_number("water_temp_f", lambda v: _band(v, 5.0, "°F")),
    "visibility": _if_number("clarity_ft", lambda v: _between(v, (2.0, 4.0, 8.0), "ft")),
    "light": _by_cast(lambda c: str(known_of(c, "light") or "")),
    "cover": _by_cast(lambda c: str(known_of(c, "cover") or "").replace("-", " ")),
    "hour": _by_cast(lambda c: f"{c.time.hour - c.time.hour % 3} to {c.time.hour - c.time.hour % 3 + 3} h"),
    "stop": _by_cast(lambda c: c.stop),
    "lure": _by_cast(lambda c: c.family.replace("-", " ")),
    "head": _by_cast(lambda c: f"{ounces_as_written(c.head_oz)} oz"),
    "trailer": _by_cast(lambda c: c.trailer.replace("-", " ")),
    "bulk": _if_run(lambda r: BULK[sum(r.bulk_cm2 >= edge for edge in BULK_CM2)]),
    "pace": _by_cast(lambda c: _between(c.pace_ft_s, (1.5, 2.5), "ft/s") if c.pace_ft_s > 0.0 else ""),
    "working": _by_cast(lambda c: c.work.replace("-", " ")),
}


def efforts_of(
    made: Sequence[MadeCast],
    minutes: Sequence[float],
    runs: Sequence[Run | None] | None = None,
    looked_at: Mapping[str, Bin] = BY,
) -> list[Effort]:
    """Casts, hours and bites of every bin of every category; ``runs`` of the casts where they are known."""
    efforts, ran = [], runs or [None] * len(made)
    for by, of in looked_at.items():
        bins: dict[str, list[int]] = {}
        for k, (cast, run) in enumerate(zip(made, ran, strict=True)):
            said = of(cast, run)
            if said:
                bins.setdefault(said, []).append(k)
        for said in sorted(bins, key=_order):
            indices = bins[said]
            hours, bites = sum(minutes[k] for k in indices) / 60.0, sum(bitten(made[k]) for k in indices)
            efforts.append(Effort(by, said, len(indices), hours, bites))
    return efforts


def _clumped(made: Sequence[MadeCast], minutes: Sequence[float]) -> float:
    """How bites clump by the stops of the days."""
    stops: dict[tuple[str, str], list[float]] = {}
    for cast, minute in zip(made, minutes, strict=True):
        totals = stops.setdefault((cast.time.date().isoformat(), cast.stop), [0.0, 0.0])
        totals[0] += minute / 60.0
        totals[1] += bitten(cast)
    return clumped([h for h, _ in stops.values()], [round(b) for _, b in stops.values()])


def _order(said: str) -> tuple[float, str]:
    """Bins by the number that they begin with, those of words by the alphabet."""
    try:
        return number_of(said.split(" ", 1)[0]), said
    except ValueError:
        return math.inf, said
