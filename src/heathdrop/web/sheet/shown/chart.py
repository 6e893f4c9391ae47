"""The depth chart as a page: one rig by count and turns, and the whole board at one count and pace."""

from dataclasses import dataclass
from datetime import date

from heathdrop.answers.chart import At, chart_of
from heathdrop.answers.picked import picked
from heathdrop.sizing.size import Sizing
from heathdrop.units import counted, feet, feet_said, turns_said
from heathdrop.web.sheet.shown.board import Board, board_of
from heathdrop.web.sheet.shown.strip import rig_said

#: What the marks of a chart mean.
PLACES = {
    "band": "in the wanted band",
    "over": "above it",
    "under": "below it",
    "cover": "in the cover",
    "floor": "on the bottom",
}


@dataclass(frozen=True)
class Row:
    """A row of the chart: its count, its cells with the ends of the band beside them."""

    count: str
    cells: tuple[tuple[At, str], ...]


@dataclass(frozen=True)
class ChartPage:
    """The chart with what it holds for, in words."""

    rig: str
    family: str
    day: str
    water: str
    gear: str
    wanted: str
    bands: str
    setting: str
    turns: tuple[int, ...]
    rows: tuple[Row, ...]
    places: tuple[tuple[str, str], ...]
    board: Board | None


def chart_page(sizing: Sizing, pick: str, day: date) -> ChartPage:
    """The chart of the best rig or the one picked, with its family's board. Raises BadInput."""
    one = picked(sizing, pick, closely=False)
    sizing, chosen, bands = one.sizing, one.rated, one.bands
    chart, gear = chart_of(sizing, chosen), sizing.scenario.gear
    off = 0.5 * feet(bands.mean_high_m - bands.mean_low_m)
    top, low = sizing.targets.depth_ft
    swum = bool(chart.turns)
    turns = turns_said(gear.turns_per_s(feet(chosen.tuned.pace_m_s)))
    used = {at.place for cells in chart.cells for at in cells}
    return ChartPage(
        rig=rig_said(chosen),
        family=chosen.rig.family.name,
        day=day.strftime("%-d %B %Y"),
        water=sizing.scenario.said,
        gear=f"{gear.line.said}, {gear.reel.inches_per_turn:g} in a turn, a cast of {gear.cast_ft:g} ft, "
        f"rod tip {gear.rod_tip_height_ft:g} ft up",
        wanted=f"{feet_said(top)} to {feet_said(low)} ft",
        bands=f"Eight casts of ten run within {off:.1f} ft of the figure." if swum else "",
        setting=f"{counted(chosen.countdown_s)}, {turns} turns in 20 s"
        if swum
        else counted(chosen.countdown_s),
        turns=chart.turns,
        rows=tuple(
            Row(f"{count:g}", tuple((at, _edges(chart.cells, k, n)) for n, at in enumerate(cells)))
            for k, (count, cells) in enumerate(zip(chart.counts_s, chart.cells, strict=True))
        ),
        places=tuple((id_, said) for id_, said in PLACES.items() if id_ in used),
        board=board_of(sizing, chosen, sizing.rigs[0], "depth"),
    )


def _edges(cells: tuple[tuple[At, ...], ...], k: int, n: int) -> str:
    """Where the wanted band begins or ends beside a cell: right of it (r), below it (b)."""

    def inside(k: int, n: int) -> bool | None:
        return cells[k][n].place == "band" if k < len(cells) and n < len(cells[k]) else None

    beside = (("r", inside(k, n + 1)), ("b", inside(k + 1, n)))
    return "".join(edge for edge, there in beside if there not in (None, inside(k, n)))
