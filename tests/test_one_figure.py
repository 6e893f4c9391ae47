"""Whatever two places say of one rig is one figure and one ranking."""

import html
import json
import random
import re
from dataclasses import replace
from pathlib import Path
from typing import Any
from urllib.parse import urlencode

import pytest
from fastapi.testclient import TestClient
from typer.testing import CliRunner

from bench.steady import random_water, scenario_of
from heathdrop.answers.own import Own
from heathdrop.answers.water import call_of, family_called, size_water
from heathdrop.cli import app
from heathdrop.sizing.box import OwnedHead, OwnedTrailer, tackle_of
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


@pytest.mark.slow
@pytest.mark.long
def test_every_door_gives_the_same_first_rig(tmp_path: Path) -> None:
    rng, runner = random.Random(41), CliRunner()
    for k in range(40):
        body: dict[str, Any] = {**random_water(rng), "limit": 20}
        scenario = scenario_of(body)
        rows = size_water(scenario).rows
        first = rows[0]
        family = family_called(scenario)
        page = size_water(replace(scenario, families=(family,))).rows[0]
        assert first.rated.rig.family.id == family
        assert (first.rated.key, first.rated.fits, first.rated.tuned) == (
            page.rated.key,
            page.rated.fits,
            page.rated.tuned,
        )
        assert first.band == page.band
        shown = [(s.family.id, s.best.key, s.fit) for s in call_of(scenario, places=5).standings]
        families = list(dict.fromkeys(r.rated.rig.family.id for r in rows))
        assert families == [f for f, _, _ in shown[:4]]
        assert max(sum(r.rated.rig.family.id == f for r in rows) for f in families) <= 5
        if k % 8 == 0:
            whole = [(s.family.id, s.best.key, s.fit) for s in call_of(scenario).standings]
            assert shown == whole[:5]
            case = tmp_path / f"{k}.json"
            case.write_text(json.dumps(body), "utf-8")
            done = runner.invoke(app, ["size", str(case), "--data", str(tmp_path / "d.sqlite")])
            assert done.exit_code == 0
            said = json.loads(done.stdout)["rigs"][0]
            assert (said["name"], said["score"]) == (page.rated.key, round(page.rated.fits.score, 3))


def test_a_small_limit_still_shows_the_families_called() -> None:
    scenario = scenario_of(random_water(random.Random(5)))
    for limit, families in ((1, 1), (3, 3), (4, 4), (8, 4)):
        rows = size_water(scenario, limit=limit).rows
        assert len(rows) == limit
        assert len({r.rated.rig.family.id for r in rows}) == families


def test_what_is_owned_goes_first_within_the_noise() -> None:
    """The same water from the standard set and a box: an owned rig as good as the best is the first."""
    scenario = replace(scenario_of(random_water(random.Random(5))), families=("swim-jig",))
    standard = size_water(scenario).rows
    near = [r.rated for r in standard if r.rated.fits.score >= standard[0].rated.fits.score - 0.015]
    own = near[-1].rig
    tackle = tackle_of(
        [OwnedHead("swim-jig", own.head_oz)], [OwnedTrailer(own.trailer.id, own.trailer_length_in)]
    )
    both = size_water(replace(scenario, box="both"), Own(tackle=tackle)).rows[0].rated.rig
    assert (both.head_oz, both.trailer.id) == (own.head_oz, own.trailer.id)
