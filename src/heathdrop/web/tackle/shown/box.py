"""The Box view: tackle as rows, and the shelf that shows at a glance what is slim and what is bulky."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from heathdrop import catalog as catalogue
from heathdrop.catalog import Catalog
from heathdrop.measures import unit_said
from heathdrop.store.items import HeadItem, ItemBody, Kept, LineItem, ReelItem, RodItem, TrailerItem
from heathdrop.store.own import trailer_of
from heathdrop.units import KG_PER_OZ, inches_said, ounces_as_written

#: Rows shown at once; the filter finds the rest.
MOST_ROWS = 120
SHELF_HEIGHT, SHELF_GAP, SHELF_MOST = 118.0, 12.0, 40
#: Width of a letter of a label, as drawn.
LETTER = 6.4
PER_IN = 19.0


@dataclass(frozen=True)
class EditField:
    """A field that is edited where it stands: its name, text, hint, and whether this kind of piece has it."""

    name: str
    value: str
    hint: str
    shown: bool
    unit: str = ""


@dataclass(frozen=True)
class ItemRow:
    """One piece: what it is, its measures in words, and its editable fields."""

    id: int
    kind: str
    what: str
    measures: str
    colour: str
    fields: tuple[EditField, ...]


@dataclass(frozen=True)
class ShelfPiece:
    """A trailer on the shelf: its outline, where it stands, its label and how much bulk it adds."""

    path: str
    transform: str
    x: float
    label: str
    bulk: str


@dataclass(frozen=True)
class Shelf:
    width: float
    height: float
    pieces: tuple[ShelfPiece, ...]
    said: str


@lru_cache(maxsize=8192)
def _row(row: Kept) -> ItemRow:
    return _item_row(catalogue.load(), row)


def item_row(row: Kept) -> ItemRow:
    """A kept item as a row (remembered until it changes)."""
    return _row(row)


def _item_row(catalog: Catalog, row: Kept) -> ItemRow:
    body = row.body
    what, measures = _words(catalog, body)
    mass = getattr(body, "mass_g", None)
    colour = " ".join(x for x in (body.colour, body.name) if x)
    tail = isinstance(body, TrailerItem)
    length = f"{body.length_in:g}" if isinstance(body, TrailerItem) else ""
    width = f"{body.width_in:g}" if isinstance(body, TrailerItem) and body.width_in else ""
    fields = (
        EditField("mass_g", "" if mass is None else f"{mass:g}", "g", tail or isinstance(body, HeadItem)),
        EditField("length_in", length, f"{unit_said('in')} long", tail, "in"),
        EditField("width_in", width, f"{unit_said('in')} wide", tail, "in"),
        EditField("colour", colour, "colour", True),
        EditField("quantity", str(body.quantity), "how many", True),
    )
    return ItemRow(id=row.id, kind=row.kind, what=what, measures=measures, colour=colour, fields=fields)


def _words(catalog: Catalog, body: ItemBody) -> tuple[str, str]:
    """What a piece is, and its measures."""
    if isinstance(body, HeadItem):
        what = f"{ounces_as_written(body.weight_oz)} oz {catalog.families[body.family].name}"
        nominal = body.weight_oz * KG_PER_OZ * 1000.0
        weighed = (
            f"weighs {body.mass_g:g} g ({body.mass_g - nominal:+.1f})"
            if body.mass_g
            else f"{nominal:.1f} g nominal"
        )
        return what, f"{body.material}, {weighed}"
    if isinstance(body, TrailerItem):
        float_ = {"floating": "floats", "salted": "sinks", "neutral": "neutral"}[body.plastic]
        parts = [
            float_,
            body.softness,
            "split" if body.split else "fused",
            f"{body.mass_g:g} g" if body.mass_g else "",
        ]
        return f"{catalog.trailers[body.shape].name} {inches_said(body.length_in)} in", ", ".join(
            p for p in parts if p
        )
    if isinstance(body, LineItem):
        return (
            f"{body.test_lb:g} lb {body.material}",
            f"{body.diameter_mm:g} mm" if body.diameter_mm else "not measured",
        )
    if isinstance(body, ReelItem):
        return "reel", f"{body.inches_per_turn:g} in per turn"
    assert isinstance(body, RodItem)
    said = [f"{body.length_ft:g} ft", (body.power or "").replace("-", " "), body.style or ""]
    if body.low_oz and body.high_oz:
        said.append(f"{ounces_as_written(body.low_oz)} to {ounces_as_written(body.high_oz)} oz")
    return "rod", ", ".join(s for s in said if s)


def bulk_cm2(catalog: Catalog, body: TrailerItem) -> float:
    """What a trailer adds to the drag on the move, cm²: the rig's own figure."""
    return trailer_of(body).bulk_cm2(catalog)


def shelf_of(catalog: Catalog, rows: Sequence[Kept]) -> Shelf | None:
    """The trailers in the box in order of bulk, slim to bulky, drawn to one scale."""
    bodies = [r.body for r in rows if isinstance(r.body, TrailerItem)]
    distinct = {(b.shape, b.length_in, b.width_in): b for b in bodies}
    ordered = sorted(distinct.values(), key=lambda b: bulk_cm2(catalog, b))
    if len(ordered) > SHELF_MOST:
        ordered = [ordered[round(k * (len(ordered) - 1) / (SHELF_MOST - 1))] for k in range(SHELF_MOST)]
    if not ordered:
        return None
    x, pieces = SHELF_GAP, []
    for b in ordered:
        shape = catalog.trailers[b.shape]
        long = b.length_in * PER_IN
        deep = (b.width_in or shape.deep * b.length_in) * PER_IN
        label = f"{catalog.trailers[b.shape].name} {inches_said(b.length_in)} in"
        wide = max(deep, LETTER * len(label))
        middle = x + 0.5 * wide
        at = f"translate({middle:.1f} 8) rotate(90) scale({long:.1f} {deep:.1f})"
        pieces.append(ShelfPiece(shape.outline, at, middle, label, f"{bulk_cm2(catalog, b):.1f}"))
        x += wide + SHELF_GAP
    said = "Trailers slim to bulky: " + "; ".join(f"{p.label}, {p.bulk} cm²" for p in pieces) + "."
    return Shelf(max(x, 300.0), SHELF_HEIGHT + 42.0, tuple(pieces), said)
