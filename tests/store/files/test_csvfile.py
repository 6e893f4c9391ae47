"""Files saved by people: every row, every fault, every refusal."""

from __future__ import annotations

from typing import Any

import pytest

from heathdrop.catalog import Catalog
from heathdrop.errors import BadInput
from heathdrop.store.files.csvfile import (
    MOST_CELL,
    MOST_COLUMNS,
    MOST_ROWS,
    TACKLE_COLUMNS,
    cast_cells,
    read_casts,
    read_drops,
    read_tackle,
    written,
)
from tests.golden_file import holds_to
from tests.said import all_said
from tests.store.test_casts import made

TACKLE = (
    "kind,family,weight_oz,mass_g\nhead,swim-jig,3/8,10\nhead,swim-jig,heavy,10\nhead,toad,1/2,\ntrailer,,,\n",
    "Kind;Family;Weight oz;Mass g;Colour;Shelf\r\nhead;swim-jig;3/8;10,9 g;black;left\r\n"
    ";bladed-jig;1/2 oz;;;\r\n",
    "shape\tlength_in\tsplit\tquantity\tappendages\ncraw\t10 cm\tno\t3\t2\n"
    "chunk\t3\tYes\t2.5\t\nnone\t2\t\t\t\n",
    "shape,length_in,split\ncraw,4,perhaps\ncraw,4,N\ncraw,4,1\ncraw,1/0,\n",
    "test_lb,material,diameter_mm\n15,nylon,0.4 mm\n15,hemp,\n1,braid,\n",
    "inches_per_turn,name\n29,'=quick\n74 cm,\n5,\n",
    "length_ft,colour\n7.5,\n2 m,blue\n,\n",
    "kind,family,weight_oz\nspoon,swim-jig,1\n\n,,\n",
    "kind,family,weight_oz,id\nhead,swim-jig,1,00000000-0000-0000-0000-000000000001\nhead,swim-jig,1,mine\n",
    "a,b\n1,2\n",
    "",
    'kind,family\n"head,swim-jig\n',
    "kind\n" + "x" * (MOST_CELL + 1),
    "kind\n" + "," * MOST_COLUMNS,
)
DROPS = (
    "family,head_oz,trailer,trailer_length_in,depth_ft,times_s,off_reel\n"
    "swim-jig,3/8,craw,4,10,4.9 5.1;5,yes\nswim-jig,3/8,craw,4,3 m,5,no\nswim-jig,3/8,craw,4,10,,\n"
    "swim-jig,3/8,craw,4,10,0.1,\nswim-jig,3/8,craw,4,10,fast,\nswim-jig,3/8,toad,4,10,5,\n",
    "family,head_oz,trailer,trailer_length_in,depth_ft,times_s,water_temp_f,id\n"
    "swim-jig,10 g,craw,4,10,5,15 C,00000000-0000-0000-0000-000000000002\nswim-jig,1,craw,4,99,5,60,x\n",
)


def test_tackle_and_drops(cat: Catalog) -> None:
    holds_to(
        "store.csvfile",
        {
            "tackle": all_said(lambda text: read_tackle(text.encode()), TACKLE),
            "drops": all_said(lambda text: read_drops(cat, text.encode()), DROPS),
        },
    )


@pytest.mark.slow
def test_too_many_rows_are_refused() -> None:
    with pytest.raises(BadInput, match=rf"the file was “{MOST_ROWS + 2} lines long”; it must be at most"):
        read_tackle(("kind\n" + "head\n" * (MOST_ROWS + 1)).encode())
    assert len(read_tackle(("kind\n" + "head\n" * MOST_ROWS).encode()).faults) == MOST_ROWS


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "cp1252", "utf-16"])
def test_as_other_programs_save_it(encoding: str) -> None:
    raw = "kind,family,weight_oz,colour\nhead,swim-jig,1/2,rosé\n".encode(encoding)
    assert read_tackle(raw).rows[0]["colour"] == "rosé"


def test_bytes_that_are_no_text_are_refused() -> None:
    with pytest.raises(BadInput) as refusal:
        read_tackle(b"kind\n\x81\x8d\x8f\n")
    assert str(refusal.value) == "the file was “not text”; it must be a CSV file in UTF-8."


def test_what_is_written_comes_back() -> None:
    rows: list[dict[str, Any]] = [
        {"kind": "head", "family": "swim-jig", "weight_oz": 0.375, "material": "lead", "colour": "=black"},
        {
            "kind": "trailer",
            "shape": "craw",
            "length_in": 4.0,
            "split": False,
            "name": "'mine",
            "quantity": 2,
        },
    ]
    text = written(TACKLE_COLUMNS, rows)
    assert text.splitlines()[1] == "head,swim-jig,0.375,,,,lead,,,,,,,,,,,,,,,'=black,,,"
    assert text.splitlines()[2] == "trailer,,,craw,4.0,,,,,,,,no,,,,,,,,,,''mine,2,"
    back = read_tackle(text.encode()).rows
    assert [{k: b[k] for k in r} for b, r in zip(back, rows, strict=True)] == rows


def test_casts_come_back_and_faults_are_named() -> None:
    from heathdrop.store.files.csvfile import CAST_COLUMNS

    one = {k: v for k, v in made(3, head_g=11.2, fused=True).items() if v is not None}
    text = written(CAST_COLUMNS, [cast_cells(one)])
    back = read_casts(text.encode())
    assert back.faults == []
    assert {k: back.rows[0][k] for k in ("id", "stop", "line", "countdown_s", "head_g", "fused")} == {
        k: one[k] for k in ("id", "stop", "line", "countdown_s", "head_g", "fused")
    }
    bad = written(
        CAST_COLUMNS, [cast_cells({**one, "line": "{no", "id": ""}), cast_cells({**one, "outcome": "ate"})]
    )
    holds_to("store.csvfile.casts", read_casts(bad.encode()).faults)
