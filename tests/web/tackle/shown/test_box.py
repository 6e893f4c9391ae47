"""Tackle as rows and the shelf from slim to bulky, in the trade's words."""

from __future__ import annotations

from typing import Any

import pytest

from heathdrop.catalog import Catalog
from heathdrop.measures import said_in
from heathdrop.store.items import Kept, checked
from heathdrop.web.tackle.shown import box
from heathdrop.web.tackle.shown.box import SHELF_MOST, bulk_cm2, item_row, shelf_of
from tests.golden_file import holds_to

PIECES: list[tuple[str, dict[str, Any]]] = [
    ("head", {"family": "swim-jig", "weight_oz": 0.375}),
    (
        "head",
        {
            "family": "football-jig",
            "weight_oz": 0.75,
            "material": "tungsten",
            "mass_g": 20.4,
            "colour": "brown",
        },
    ),
    ("trailer", {"shape": "craw", "length_in": 4.0}),
    ("trailer", {"shape": "craw", "length_in": 4.0, "width_in": 1.4, "mass_g": 9.8, "plastic": "floating"}),
    (
        "trailer",
        {"shape": "creature", "length_in": 3.5, "split": False, "softness": "dense", "plastic": "salted"},
    ),
    ("trailer", {"shape": "pin-tail", "length_in": 3.0, "quantity": 7, "name": "old bag"}),
    ("line", {"material": "braid", "test_lb": 30}),
    ("line", {"material": "nylon", "test_lb": 12, "diameter_mm": 0.33}),
    ("reel", {"inches_per_turn": 31.0}),
    ("rod", {"length_ft": 7.2}),
]


def kept() -> list[Kept]:
    return [Kept(k, kind, checked(kind, data)) for k, (kind, data) in enumerate(PIECES, 1)]


@pytest.mark.parametrize("system", ["imperial", "metric"])
def test_rows_of_every_kind(system: str) -> None:
    box._row.cache_clear()
    with said_in(system):
        found = [item_row(row) for row in kept()]
    box._row.cache_clear()
    if system == "imperial":
        holds_to("web.box", found)
    else:
        assert any("cm" in f.hint for row in found for f in row.fields)


def test_a_shelf_from_slim_to_bulky(cat: Catalog) -> None:
    shelf = shelf_of(cat, kept())
    assert shelf is not None
    bulks = [float(p.bulk) for p in shelf.pieces]
    assert bulks == sorted(bulks)
    assert len(bulks) == 4
    places = [p.x for p in shelf.pieces]
    assert places == sorted(places)
    assert places[-1] < shelf.width
    assert shelf.said.startswith("Trailers slim to bulky: pin-tail")
    assert shelf_of(cat, [r for r in kept() if r.kind != "trailer"]) is None


def test_a_wider_trailer_is_bulkier_in_proportion(cat: Catalog) -> None:
    plain, wide = (checked("trailer", data) for _, data in PIECES[2:4])
    share = cat.trailers["craw"].width_share * 4.0
    assert bulk_cm2(cat, wide) / bulk_cm2(cat, plain) == pytest.approx(1.4 / share)  # type: ignore[arg-type]


def test_a_crowded_shelf_keeps_its_ends(cat: Catalog) -> None:
    many = [
        Kept(k, "trailer", checked("trailer", {"shape": "craw", "length_in": 2.0 + 0.05 * k}))
        for k in range(90)
    ]
    shelf = shelf_of(cat, many)
    assert shelf is not None
    assert len(shelf.pieces) == SHELF_MOST
    assert (shelf.pieces[0].label, shelf.pieces[-1].label) == ("craw 2 in", "craw 6.45 in")
