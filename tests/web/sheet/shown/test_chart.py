"""The chart's page says for what it holds."""

from __future__ import annotations

from datetime import date

from fastapi.testclient import TestClient

from heathdrop.catalog import Catalog
from heathdrop.sizing.size import Sizing
from heathdrop.web.sheet.shown.chart import PLACES, chart_page

ASKED = "water_temp_f=58&bottom_depth_ft=9&fish_depth_ft=6&cover=submerged-grass&top_depth_ft=7"


def test_rig_gear_band_and_board(cat: Catalog, sizing: Sizing) -> None:
    page = chart_page(cat, sizing, "", date(2027, 4, 3))
    assert (page.day, page.wanted) == ("3 April 2027", "4 to 6 ft")
    assert "15 lb fluorocarbon, 29 in a turn" in page.gear
    assert page.bands.startswith("Eight casts of ten run within ")
    assert page.board is not None
    assert [c.chosen for _, cells in page.board.rows for c in cells if c].count(True) == 1
    for k, row in enumerate(page.rows):
        for n, (at, edges) in enumerate(row.cells):
            right = row.cells[n + 1][0] if n + 1 < len(row.cells) else at
            below = page.rows[k + 1].cells[n][0] if k + 1 < len(page.rows) else at
            ends = [("r", right), ("b", below)]
            assert edges == "".join(e for e, a in ends if (a.place == "band") != (at.place == "band"))
    assert dict(page.places).items() <= PLACES.items()


def test_the_page_and_a_refusal(client: TestClient) -> None:
    page = client.get(f"/chart?{ASKED}").text
    assert "Depth half-way home" in page
    assert "Every bladed jig at count" in page
    assert all(f'<symbol id="m-{place}"' in page for place in PLACES)
    pick = "football-jig:0.5:chunk"
    assert "Depth after a count" in client.get(f"/chart?{ASKED}&family=football-jig&pick={pick}").text
    assert client.get(f"/chart?{ASKED}&pick=toad").status_code == 422
