"""The plan page: rods as columns, stops as rows, each crossing how well that rod serves that stop."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.answers.own import Own
from heathdrop.answers.picked import picked
from heathdrop.answers.stop import Stop
from heathdrop.answers.water import placed, sized_alone
from heathdrop.api.planning import PlanAnswer, PlannedStop, WithAnswer
from heathdrop.physics.rig_name import RigName
from heathdrop.web.plan.deckcard import line_said
from heathdrop.web.plan.worked import CHANGES, all_day, beside_said, hands_of, rig_said, runs_of
from heathdrop.web.sheet.shown.section import Section, section_of
from heathdrop.web.shell.frame import LOW, NARROW

#: A rod that adds less than this to the day (per cent) could stay at home.
HARDLY = 2.5
#: Shades of a crossing, from the least share of a perfect fit.
SHADES = (0.3, 0.5, 0.7, 0.82, 0.92)


@dataclass(frozen=True)
class Crossing:
    """A rod at a stop: its name, its share of a perfect fit, shade 0..5, count, change; whether to use it."""

    rod: str
    score: int
    shade: int
    count: str
    change: str
    chosen: bool
    said: str
    address: str
    rig: str
    line: str


@dataclass(frozen=True)
class RodColumn:
    """A rod: its name, rig, line, and what is lost without it."""

    name: str
    rig: str
    line: str
    adds: str


@dataclass(frozen=True)
class StopRow:
    """A stop: its crossings, how it is fished, the rods beside for other fish, first changes, search order,
    cautions."""

    name: str
    minutes: str
    cells: tuple[Crossing, ...]
    fished: str
    beside: tuple[str, ...]
    doubt: str
    ifs: tuple[str, ...]
    order: tuple[str, ...]
    cautions: tuple[str, ...]
    address: str


@dataclass(frozen=True)
class Planned:
    """Everything the plan's answer shows."""

    rods: tuple[RodColumn, ...]
    stops: tuple[StopRow, ...]
    bag: tuple[str, ...]
    buy: tuple[str, ...]
    care: tuple[str, ...]
    total: str
    bound: str
    spare: str


def planned_of(answer: PlanAnswer, body: dict[str, Any], address: Callable[..., str]) -> Planned:
    """A plan's answer ready to show; ``address`` makes the sheet of a stop, with a rig picked."""
    return Planned(
        rods=tuple(
            RodColumn(r.name, rig_said(r.rig), line_said(r.line), f"{100 * r.adds / answer.total:.0f} %")
            for r in answer.rods
        ),
        stops=tuple(_stop(answer, body, k, s, address) for k, s in enumerate(answer.stops)),
        bag=tuple(answer.bag),
        buy=tuple(answer.buy),
        care=all_day(answer),
        total=f"{100 * answer.total:.0f}",
        bound=f"{100 * answer.bound:.0f}",
        spare=_spare(answer),
    )


def _spare(answer: PlanAnswer) -> str:
    """The rod that could stay at home, in words; nothing where each is worth carrying."""
    least = min(answer.rods, key=lambda r: r.adds)
    share = 100 * least.adds / answer.total
    if len(answer.rods) < 2 or share >= HARDLY:
        return ""
    left = len(answer.rods) - 1
    rods = "one rod" if left == 1 else f"{left} rods"
    return f"{rods.capitalize()} would do: without {least.name} the day is {share:.0f} % less."


def _stop(
    answer: PlanAnswer, body: dict[str, Any], k: int, s: PlannedStop, address: Callable[..., str]
) -> StopRow:
    by_rod = {w.rod: w for w in (s.with_, *s.also)}
    change = CHANGES[s.with_.change]
    fished = f"Rod {s.with_.rod}{f' ({change})' if change else ''}: {rig_said(s.with_.rig)}, "
    fished += f"{hands_of(s.with_).said}."
    return StopRow(
        name=s.name,
        minutes=f"{s.minutes:.0f}",
        cells=tuple(
            _cell(
                s,
                by_rod[r.name],
                address(body, k, by_rod[r.name].rig.name, r),
                f"{r.line['material']}:{r.line['test_lb']:g}",
            )
            for r in answer.rods
        ),
        fished=fished,
        beside=tuple(beside_said(s)),
        doubt="" if s.served else _doubt(s),
        ifs=tuple(f"{i.symptom}: {i.change} ({i.effect})" for i in s.if_),
        order=tuple(
            f"{cast.why}{f' Then so in {n - 1} more directions.' if n > 2 else ''}"
            for cast, n in runs_of(s.search)
        ),
        cautions=tuple(c for c in s.cautions if c not in all_day(answer)),
        address=address(body, k, s.with_.rig.name, next(r for r in answer.rods if r.name == s.with_.rod)),
    )


def _doubt(s: PlannedStop) -> str:
    """What a stop that is served less than well would want."""
    best = f"{100 * s.ideal.fit:.0f}"
    if s.ideal.rig.name == s.with_.rig.name:
        return (
            f"Served less than well: the change costs it; a rod with this rig on it already would be {best}."
        )
    return f"Served less than well: its own best would be {rig_said(s.ideal.rig)} ({best})."


def _changed_to(w: WithAnswer) -> str:
    """What is put on the rod for a stop, in a cell's few words: another trailer, or another lure."""
    catalog = catalogue.load()
    if w.change == "trailer":
        trailer = catalog.trailers[w.rig.trailer]
        return "skirt alone" if trailer.bare else f"with {trailer.name.lower()}"
    return f"retie {catalog.families[w.rig.family].name}" if w.change == "retie" else ""


def _cell(s: PlannedStop, w: WithAnswer, address: str, line: str) -> Crossing:
    score = round(100 * w.fit)
    count = hands_of(w).count
    said = f"Rod {w.rod} at {s.name}: {score} of 100, {rig_said(w.rig)}, count {w.countdown_s:.1f} s"
    return Crossing(
        rod=w.rod,
        score=score,
        shade=sum(w.fit >= edge for edge in SHADES),
        count=f"{count} s" if count[0].isdigit() else count,
        change=_changed_to(w),
        chosen=w.rod == s.with_.rod,
        said=said,
        address=address,
        rig=w.rig.name,
        line=line,
    )


def stop_section(stop: Stop, rig: str, line: str, own: Own) -> tuple[Section, ...]:
    """The section of a stop with a rig's cast on a line (``material:test``), wide and narrow. Raises
    BadInput."""
    catalog = catalogue.load()
    name = RigName.parse(rig)
    material, _, test = line.partition(":")
    gear = stop.scenario.gear
    if material and test.replace(".", "", 1).isdigit():
        gear = replace(gear, line=replace(gear.line, material=material, test_lb=float(test)))
    scenario = replace(placed(stop.scenario), gear=gear, families=(name.family,))
    catalog.pick(catalog.families, "rig", name.family)
    one = picked(sized_alone(scenario, name, own), closely=False)
    return tuple(
        section_of(one.sizing, one.rated, one.cast, one.bands, f, spread=one.way == "steady")
        for f in (LOW, NARROW)
    )
