"""The size board: head weights across, trailers down, what each pair does and what holds it back."""

from __future__ import annotations

from dataclasses import dataclass

from heathdrop.advice.why import limit_sentence, runs
from heathdrop.sizing.size import Rated, Sizing
from heathdrop.units import feet, inches_said, ounces_as_written

#: Marks of what holds a rig back: symbol in the sprite, and its words.
MARKS = {
    "high": "runs high",
    "deep": "runs deep",
    "pace": "pace",
    "tackle": "line or rod",
    "fall": "falls wrong",
    "cover": "cover",
    "action": "action",
    "profile": "profile",
    "weight": "unusual weight",
    "touch": "touch",
    "none": "nothing holds it back",
}
#: Trailers and weights of a large box on the board at most; the standard set always fits.
MOST_ROWS, MOST_COLUMNS = 16, 12
#: Trailers that a small screen shows before it is asked for all.
LEADING = 3
#: A cell's score from which each shade begins.
SHADES = (30, 50, 70, 82, 92)


@dataclass(frozen=True)
class Cell:
    """One pair on the board: score 0..100, shade step 0..5, and what holds it back."""

    key: str
    id: str
    score: int
    shade: int
    mark: str
    title: str
    chosen: bool
    best: bool


Rows = tuple[tuple[str, tuple[Cell | None, ...]], ...]
Board = tuple[tuple[str, ...], Rows]


def _mark(sizing: Sizing, rated: Rated) -> str:
    part = rated.fits.limiting
    if part is None:
        return "none"
    if part == "depth":
        below = feet(rated.tuned.mean_m) > 0.5 * sum(sizing.targets.depth_ft)
        return runs(sizing, rated) or ("deep" if below else "high")
    return part


def _row_label(rated: Rated) -> str:
    """A trailer as the board names its row: its shape. A cell shows the length that does best."""
    return rated.rig.trailer.name + (", joined" if rated.rig.fused else "")


def board_of(sizing: Sizing, chosen: Rated, best: Rated) -> Board:
    """The chosen family's best rig for every trailer and weight: rows slim to bulky, columns light to heavy.

    A large box shows the trailers and weights that do best; the chosen rig is always there.
    """
    same = [r for r in sizing.rigs if r.rig.family == chosen.rig.family]
    places: dict[tuple[str, float], Rated] = {}
    for r in [chosen, *same]:
        places.setdefault((_row_label(r), r.rig.head_oz), r)
    labels = list(dict.fromkeys(label for label, _ in places))[:MOST_ROWS]
    weights = sorted(list(dict.fromkeys(oz for label, oz in places if label in labels))[:MOST_COLUMNS])
    bulk = {_row_label(r): r.rig.bulk_cm2 for r in (*same, chosen)}
    rows = []
    for k, label in enumerate(sorted(labels, key=lambda x: (bulk[x], x))):
        cells = tuple(
            _cell(sizing, places.get((label, oz)), row=k, oz=oz, chosen=chosen, best=best) for oz in weights
        )
        rows.append((label, cells))
    return tuple(ounces_as_written(oz) for oz in weights), tuple(rows)


def leading(rows: Rows) -> tuple[str, ...]:
    """The trailers that a small screen shows first: those of the best scores, and the chosen one's."""
    best = {label: max((c.score for c in cells if c), default=0) for label, cells in rows}
    first = sorted(best, key=lambda label: -best[label])[:LEADING]
    chosen = [label for label, cells in rows if any(c and c.chosen for c in cells)]
    return tuple(label for label in best if label in first or label in chosen)


def _cell(sizing: Sizing, r: Rated | None, row: int, oz: float, chosen: Rated, best: Rated) -> Cell | None:
    """One place on the board; None where the box has no such pair."""
    if r is None:
        return None
    score = round(r.fits.score * 100)
    length = "" if r.rig.trailer.bare else f" {inches_said(r.rig.trailer_length_in)} in"
    said = f"{ounces_as_written(oz)} oz, {_row_label(r)}{length}: {score} of 100. {limit_sentence(sizing, r)}"
    shade = sum(score >= least for least in SHADES)
    place = f"{r.rig.trailer.id}-{row}" if r.rig.fused else r.rig.trailer.id
    return Cell(
        key=r.key,
        id=f"cell-{place}-{int(oz * 10000)}",
        score=score,
        shade=shade,
        mark=_mark(sizing, r),
        title=said,
        chosen=r.key == chosen.key,
        best=r is best,
    )
