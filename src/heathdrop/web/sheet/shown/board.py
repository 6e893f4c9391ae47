"""The size board: head weights across, trailers down, what each pair does and what holds it back."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from heathdrop.advice.why import limit_sentence, runs
from heathdrop.answers.lens import FIT, LENS, Lens, Sight, lenses_for, sights, wanted_through
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


#: Marks of a figure's side of what is wanted: under it, within it, over it; depths have marks of their own.
SIDES = {-1: "under", 0: "within", 1: "over"}
DEPTH_SIDES = {-1: "high", 0: "within", 1: "deep"}
SIDE_WORDS = {
    "under": "under it",
    "within": "as wanted",
    "over": "over it",
    "high": "above it",
    "deep": "below it",
}
#: Shades of a figure within what is wanted and outside of it.
WITHIN, OUTSIDE = 4, 1


@dataclass(frozen=True)
class Cell:
    """One pair on the board: its figure as said, shade step 0..5, its mark (what holds it back, or the side
    of what is wanted), the letter it is compared under; ``edges`` where its neighbours right (r) and below
    (b) are on another side: there the contour runs."""

    key: str
    id: str
    figure: str
    shade: int
    mark: str
    title: str
    chosen: bool
    best: bool
    letter: str = ""
    edges: str = ""


Rows = tuple[tuple[str, tuple[Cell | None, ...]], ...]


@dataclass(frozen=True)
class Board:
    """The board through a lens: heads across, trailers down, slim to bulky; the trailers that a small screen
    shows first; marks with their words; what is wanted of the figure, in words."""

    lens: Lens
    lenses: tuple[Lens, ...]
    heads: tuple[str, ...]
    rows: Rows
    leading: tuple[str, ...]
    marks: tuple[tuple[str, str], ...]
    wanted: str


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


def board_of(
    sizing: Sizing, chosen: Rated, best: Rated, lens: str = FIT, compared: Mapping[str, str] | None = None
) -> Board:
    """The chosen family's best rig for every trailer and weight, seen through a lens (the fit where another
    shows nothing of this family); ``compared`` the letters of the rigs beside it.

    A large box shows the trailers and weights that do best; the chosen rig is always there.
    """
    lenses = lenses_for(sizing, chosen)
    through = next((one for one in lenses if one.id == lens), LENS[FIT])
    same = [r for r in sizing.rigs if r.rig.family == chosen.rig.family]
    places: dict[tuple[str, float], Rated] = {}
    for r in [chosen, *same]:
        places.setdefault((_row_label(r), r.rig.head_oz), r)
    labels = list(dict.fromkeys(label for label, _ in places))[:MOST_ROWS]
    weights = sorted(list(dict.fromkeys(oz for label, oz in places if label in labels))[:MOST_COLUMNS])
    bulk = {_row_label(r): r.rig.bulk_cm2 for r in (*same, chosen)}
    labels.sort(key=lambda x: (bulk[x], x))
    grid = [[places.get((label, oz)) for oz in weights] for label in labels]
    seen = sights(sizing, chosen, through.id, [r for row in grid for r in row if r is not None])

    def side(k: int, n: int) -> int | None:
        at = grid[k][n] if k < len(grid) and n < len(weights) else None
        return None if at is None else seen[at.key].side

    def cell(k: int, n: int) -> Cell | None:
        r = grid[k][n]
        if r is None:
            return None
        here = seen[r.key].side
        edges = "".join(
            e for e, other in (("r", side(k, n + 1)), ("b", side(k + 1, n))) if other not in (None, here)
        )
        plain = _cell(sizing, r, row=k, chosen=chosen, best=best)
        plain = replace(plain, letter=(compared or {}).get(r.key, ""))
        return plain if through.id == FIT else _seen_through(plain, through, seen[r.key], edges)

    rows = tuple((label, tuple(cell(k, n) for n in range(len(weights)))) for k, label in enumerate(labels))
    vocabulary = MARKS if through.id == FIT else SIDE_WORDS
    used = {c.mark for _, cells in rows for c in cells if c is not None}
    return Board(
        lens=through,
        lenses=lenses,
        heads=tuple(ounces_as_written(oz) for oz in weights),
        rows=rows,
        leading=leading(rows, {r.key: r.fits.score for row in grid for r in row if r is not None}),
        marks=tuple((k, said) for k, said in vocabulary.items() if k in used and k != "none"),
        wanted=_wanted_said(sizing, through),
    )


def _wanted_said(sizing: Sizing, lens: Lens) -> str:
    """What is wanted of a lens's figure: ``4 to 6 ft wanted``; nothing for the fit."""
    low, high = wanted_through(sizing, lens.id)
    if lens.id == FIT:
        return ""
    ends = f"{low:g} or more" if high == math.inf else f"{low:.1f} to {high:.1f}"
    return f"{ends} {lens.unit} wanted"


def leading(rows: Rows, scores: Mapping[str, float]) -> tuple[str, ...]:
    """The trailers that a small screen shows first: those of the best scores, and the chosen one's."""
    best = {label: max((scores[c.key] for c in cells if c), default=0) for label, cells in rows}
    first = sorted(best, key=lambda label: -best[label])[:LEADING]
    chosen = [label for label, cells in rows if any(c and c.chosen for c in cells)]
    return tuple(label for label in best if label in first or label in chosen)


def _cell(sizing: Sizing, r: Rated, row: int, chosen: Rated, best: Rated) -> Cell:
    """One pair on the board with its fit."""
    score, oz = round(r.fits.score * 100), r.rig.head_oz
    said = f"{_pair_said(r)}: {score} of 100. {limit_sentence(sizing, r)}"
    shade = sum(score >= least for least in SHADES)
    place = f"{r.rig.trailer.id}-{row}" if r.rig.fused else r.rig.trailer.id
    return Cell(
        key=r.key,
        id=f"cell-{place}-{int(oz * 10000)}",
        figure=f"{score}",
        shade=shade,
        mark=_mark(sizing, r),
        title=said,
        chosen=r.key == chosen.key,
        best=r is best,
    )


def _pair_said(r: Rated) -> str:
    length = "" if r.rig.trailer.bare else f" {inches_said(r.rig.trailer_length_in)} in"
    return f"{ounces_as_written(r.rig.head_oz)} oz, {_row_label(r)}{length}"


def _seen_through(cell: Cell, lens: Lens, sight: Sight, edges: str) -> Cell:
    """A pair's cell with the lens's figure in place of its fit."""
    figure = f"{sight.value:.{lens.digits}f}"
    mark = (DEPTH_SIDES if lens.unit == "ft" else SIDES)[sight.side]
    return replace(
        cell,
        figure=figure,
        shade=WITHIN if sight.side == 0 else OUTSIDE,
        mark=mark,
        title=f"{cell.title.split(':')[0]}: {figure} {lens.unit}, {SIDE_WORDS[mark]}",
        edges=edges,
    )
