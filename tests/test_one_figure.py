"""One figure: depth, turns and count of a rig in a water are the same at every door that says them."""

from __future__ import annotations

import html
import re
from typing import Any
from urllib.parse import urlencode

import pytest
from fastapi.testclient import TestClient

from heathdrop.units import count_said, turns_said

#: Waters as the sheet's address has them, °F, bottom, fish and cover; a family that is swum in each.
WATERS = [
    (58, 9, 6, "submerged-grass", "bladed-jig"),
    (64, 12, 4, "open", "swim-jig"),
    (60, 26, 15, "open", "underspin"),
    (57, 14, 10, "rock", "spinnerbait"),
    (70, 7, 3, "wood", "spinnerbait"),
    (74, 6, 1.5, "open", "swim-jig"),
    (66, 20, 14, "open", "swim-jig"),
    (62, 11, 8, "open", "bladed-jig"),
    (52, 18, 10, "open", "underspin"),
    (68, 9, 5, "docks", "swim-jig"),
]


def read(pattern: str, text: str) -> str:
    """The first group of a pattern in a text without its tags."""
    plain = re.sub(r"\s+", " ", html.unescape(re.sub(r"<[^>]+>", " ", text)))
    found = re.search(pattern, plain)
    assert found, pattern
    return found[1]


@pytest.mark.slow
@pytest.mark.parametrize(("temp", "bottom", "fish", "cover", "family"), WATERS)
def test_every_door_says_one_depth_one_count_and_the_same_turns(
    visitor: TestClient, temp: float, bottom: float, fish: float, cover: str, family: str
) -> None:
    tops = {"top_depth_ft": 7.0, "density": "moderate"} if cover == "submerged-grass" else {}
    detail = {"rock": {"detail": "gravel"}, "wood": {"detail": "laydown", "density": "moderate"}}.get(
        cover, {}
    )
    water = {
        "water_temp_f": temp, "bottom_depth_ft": bottom, "fish_depth_ft": fish, "bottom": "sand",
        "cover": {"kind": cover, **tops, **detail},
    }  # fmt: skip
    body: dict[str, Any] = {"conditions": water, "families": [family], "limit": 1}
    rig = visitor.post("/api/v1/size", json=body).json()["rigs"][0]
    count = count_said(rig["countdown_s"])
    turns = turns_said(rig["turns_per_s"])
    # The sheet's strip, its reasons, its printed card.
    values = {
        "water_temp_f": temp, "bottom_depth_ft": bottom, "fish_depth_ft": fish, "cover": cover,
        "family": family, "pick": rig["name"],
    }  # fmt: skip
    sheet = visitor.get(f"/?{urlencode({**values, 'view': 'size'})}").text
    assert float(read(r"Runs at ([\d.]+) ft", sheet)) == pytest.approx(rig["depth_ft"]["mean"], abs=0.051)
    runs = read(r"Runs at ([\d.]+) ft", sheet)
    if rig["cadence"] is None:
        assert read(r"Pace [\d.]+ ft/s ([\d.]+) turns in 20 s", sheet) == turns
    said = f"on average at {runs} ft"
    assert said in " ".join(rig["why"]) or rig["cadence"]
    card = visitor.get(f"/card?{urlencode(values)}").text
    assert read(r"Runs at ([\d.]+) ft", card) == runs
    # What a change starts from, and the search's first cast.
    field_names = ("family", "head_oz", "head_material", "trailer", "trailer_length_in", "skirt", "plastic",
                   "orientation", "blades")  # fmt: skip
    fields = {name: rig[name] for name in field_names}
    changes = visitor.post("/api/v1/changes", json={**body, "rig": fields, "went": "fish"}).json()
    assert changes["ran_ft"] == pytest.approx(float(runs), abs=0.06)
    cast = visitor.post("/api/v1/search", json={**body, "rods": [fields], "limit": 1}).json()["casts"][0]
    assert cast["runs_ft"] == pytest.approx(float(runs), abs=0.06)
    assert (count_said(cast["countdown_s"]), turns_said(cast["turns_per_s"])) == (count, turns)
    # The plan's stop, its order and what it is prepared for: of the rig that it ties on.
    day = {"version": 1, "date": "2027-04-03", "rods": 1, "stops": [{"name": "a", "conditions": water}]}
    stop = visitor.post("/api/v1/plan", json=day).json()["stops"][0]
    tied = stop["with"]
    if tied["rig"]["name"].startswith(family) and tied["change"] == "none":
        first = stop["search"][0]
        assert f"{first['runs_ft']:.1f}" == f"{tied['runs_ft']:.1f}"
        assert turns_said(first["turns_per_s"]) == turns_said(tied["turns_per_s"])
