"""What am I missing: the one or two purchases that would raise the worst fits most, and what never gets
used."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from heathdrop.advice.call import call
from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, Tackle
from heathdrop.sizing.knowledge import UNTAUGHT, Knowledge
from heathdrop.sizing.size import size
from heathdrop.units import ounces_as_written

#: Families tried for each scenario, scenarios looked at, purchases suggested.
FAMILIES, MOST_SCENARIOS, PURCHASES = 2, 8, 2
#: A purchase must raise the sum of the fits by at least this to be worth saying; a rig this near the best is
#: used.
WORTH_SAYING, USED_WITHIN = 0.03, 0.05

Piece = tuple[str, str, float]
"""A purchase: ("head", family, oz) or ("trailer", shape, 0)."""


@dataclass(frozen=True)
class Purchase:
    """One purchase: what, and each scenario's fit before and after it."""

    what: str
    gains: tuple[tuple[str, float, float], ...]


@dataclass(frozen=True)
class Missing:
    """Purchases in order, the fits as they are, and what no scenario would pick."""

    purchases: tuple[Purchase, ...]
    now: tuple[tuple[str, float], ...]
    unused_heads: tuple[OwnedHead, ...]
    unused_trailers: tuple[OwnedTrailer, ...]


Grid = dict[tuple[Piece, Piece], float]


def _grid(catalog: Catalog, scenario: Scenario, knowledge: Knowledge, tackle: Tackle) -> Grid:
    """Fit of every standard pair, and of every own one, of the families called for a scenario and of those
    that the box holds: what is owned counts though another lure stands first."""
    standard = replace(scenario, families=(), box="standard")
    ranked = call(
        catalog, standard, lambda one: size(catalog, one, knowledge=knowledge), knowledge, places=FAMILIES
    )
    called = (s.family.id for s in ranked.standings)
    families = tuple(dict.fromkeys((*called, *(h.family for h in tackle.heads))))
    both = replace(standard, families=families, box="both")
    sizing = size(catalog, both, knowledge=knowledge, tackle=tackle)
    grid: Grid = {}
    for r in sizing.rigs:
        key = ("head", r.rig.family.id, r.rig.head_oz), ("trailer", r.rig.trailer.id, 0.0)
        grid[key] = max(grid.get(key, 0.0), r.fits.score)
    return grid


def _best(grid: Grid, owned: set[Piece]) -> float:
    """The best fit that these pieces allow."""
    return max(
        (score for (head, tail), score in grid.items() if head in owned and tail in owned), default=0.0
    )


def _words(catalog: Catalog, piece: Piece) -> str:
    kind, name, oz = piece
    if kind == "head":
        return f"a {ounces_as_written(oz)} oz {catalog.families[name].name}"
    return f"a {catalog.trailers[name].name}, {catalog.trailers[name].length_in:g} in"


def missing(
    catalog: Catalog, tackle: Tackle, named: Sequence[tuple[str, Scenario]], knowledge: Knowledge = UNTAUGHT
) -> Missing:
    """Over the saved scenarios: purchases by how much they raise the fits, the worst counting double."""
    rows = named[:MOST_SCENARIOS]
    grids = [(name, _grid(catalog, scenario, knowledge, tackle)) for name, scenario in rows]
    owned: set[Piece] = {("head", h.family, h.weight_oz) for h in tackle.heads}
    owned |= {("trailer", t.shape, 0.0) for t in tackle.trailers}
    now = tuple((name, _best(grid, owned)) for name, grid in grids)
    candidates = sorted({piece for _, grid in grids for pair in grid for piece in pair} - owned)
    purchases = []
    have = set(owned)
    for _ in range(PURCHASES):
        before = [_best(grid, have) for _, grid in grids]
        scored = [(_gain(grids, have, piece, before), piece) for piece in candidates if piece not in have]
        if not scored:
            break
        gain, piece = max(scored, key=lambda x: (x[0], x[1]))
        if gain < WORTH_SAYING:
            break
        have.add(piece)
        after = [_best(grid, have) for _, grid in grids]
        gains = tuple(
            (name, b, a) for (name, _), b, a in zip(grids, before, after, strict=True) if a > b + 0.005
        )
        purchases.append(Purchase(_words(catalog, piece), gains))
    used = {piece for _, grid in grids for piece in _used(grid, owned)}
    return Missing(
        tuple(purchases),
        now,
        tuple(h for h in tackle.heads if ("head", h.family, h.weight_oz) not in used),
        tuple(t for t in tackle.trailers if ("trailer", t.shape, 0.0) not in used),
    )


def _gain(
    grids: Sequence[tuple[str, Grid]], have: set[Piece], piece: Piece, before: Sequence[float]
) -> float:
    """How much a piece raises the fits: the sum of rises, and the rise of the worst once more.

    A head alone is worth nothing without a trailer: its rise counts with what is there.
    """
    after = [_best(grid, have | {piece}) for _, grid in grids]
    rises = [a - b for a, b in zip(after, before, strict=True)]
    return sum(rises) + (min(after) - min(before))


def _used(grid: Grid, owned: set[Piece]) -> set[Piece]:
    """Owned pieces in a rig near the best that the box allows here."""
    near = _best(grid, owned) - USED_WITHIN
    pairs = [pair for pair, score in grid.items() if score >= near and owned.issuperset(pair)]
    return {piece for pair in pairs for piece in pair}
