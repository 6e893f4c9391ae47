"""The views, in the order of work, the first among them."""

from __future__ import annotations

from fastapi.testclient import TestClient

from heathdrop.web.shell.views import FIRST, VIEW_IDS, VIEWS


def test_ids_are_the_labels_and_one_is_first(client: TestClient) -> None:
    assert VIEW_IDS == ("water", "size", "rig", "cast", "search")
    assert FIRST in VIEW_IDS
    page = client.get("/").text
    places = [page.index(f">{label}<") for _, label in VIEWS if f">{label}<" in page]
    assert places == sorted(places)
    for view in VIEW_IDS:
        assert client.get(f"/?view={view}").status_code == 200
    assert client.get("/?view=attic").status_code == 422
