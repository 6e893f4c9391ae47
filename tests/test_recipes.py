"""The recipes of CONTRIBUTING.md, carried out as written in a copy, give what they promise."""

import os
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).parent.parent
ASKED = """
import re, sys
from pathlib import Path
import heathdrop
assert str(Path(heathdrop.__file__)).startswith(sys.argv[1]), heathdrop.__file__
from fastapi.testclient import TestClient
from heathdrop import catalog
from heathdrop.web.app import create_app
cat = catalog.load()
assert "ribbon-tail" in cat.trailers and cat.rules["moonlight"].favours == {"swim-jig": 0.3}
web = TestClient(create_app(Path(sys.argv[1]) / "d.sqlite", demo=True), base_url="http://127.0.0.1")
page = web.get("/?family=swim-jig&light=low").text
assert "ribbon-tail" in page, "not on the board"
assert "Under a moon, a silhouette" in page, "the rule is silent"
assert 'name="current_mph"' in page and "Current" in page, "no control"
answer = web.get("/?current_mph=9")
assert "from 0 to 6 mph" in answer.text
rig = web.get("/?family=swim-jig&light=low&view=rig").text
assert "black" in rig
token = re.search(r'name="token" value="(\\w+)"', web.get("/box").text)[1]
added = web.post("/box", data={"token": token, "entry": "ribbon 4 in black"})
assert added.status_code == 200 and "ribbon-tail" in added.text
assert "Remarks" in web.get("/").text
assert web.post("/remarks", data={"text": "no token"}).status_code == 403
assert "high water" in web.post("/remarks", data={"token": token, "text": "high water"}).text
import io, zipfile
names = zipfile.ZipFile(io.BytesIO(web.get("/export.zip").content)).namelist()
assert "remarks.json" in names
begun = web.post("/deck", data={"token": token})
assert "Followed" in begun.text, "no button"
cast = {"id": "8d0b2b52-31f3-4c0e-8a8e-0d7f3f9f1a01", "time": "2027-04-03T06:12:00Z", "family": "swim-jig",
    "head_oz": 0.375, "trailer": "craw", "countdown_s": 2, "pace_ft_s": 2.2, "outcome": "followed",
    "conditions": {"wind_mph": 8}}
assert web.post("/api/v1/casts", json=cast).status_code == 200
assert "1 bite in 1 cast on record" in web.get("/log").text
assert "followed" in web.get("/export/casts.csv").text
assert ">hybrid</option>" in page, "not among the lines"
assert "hybrid" in web.post("/box", data={"token": token, "entry": "copolymer 15 lb"}).text
thick = web.get("/?family=swim-jig&line=hybrid&test_lb=15")
assert thick.status_code == 200
hair = web.get("/?family=hair-jig&bottom_depth_ft=8&fish_depth_ft=8&cover=open")
assert hair.status_code == 200 and "hair jig" in hair.text, "no family"
assert "hair jig" in web.post("/box", data={"token": token, "entry": "1/8 hair jig"}).text
bushes = web.get("/?cover=flooded-bushes&family=flipping-jig&bottom_depth_ft=6&fish_depth_ft=5")
assert bushes.status_code == 200 and ">flooded bushes</option>" in bushes.text, "no cover"
sized = {"conditions": {"water_temp_f": 60, "bottom_depth_ft": 8, "fish_depth_ft": 6,
    "cover": {"kind": "flooded-bushes"}}, "families": ["swim-jig"]}
assert web.post("/api/v1/size", json=sized).json()["rigs"][0]["cover"]["hangs"] > 0
from heathdrop.feeds.nmea import checksummed, figures_of
assert 11 < figures_of(checksummed("WIMWD,270.0,T,265.0,M,10.0,N,5.1,M"))["wind_mph"] < 12
rates = web.get("/api/v1/lessons").json()["rates"]
assert any(r["by"] == "wind" for r in rates), {r["by"] for r in rates}
print("all there")
"""


@pytest.mark.slow
@pytest.mark.long
def test_the_recipes_do_what_they_say(tmp_path: Path) -> None:
    done = subprocess.run(
        [sys.executable, str(ROOT / "scripts" / "recipes.py"), str(tmp_path)],
        check=False,
        capture_output=True,
        text=True,
    )
    assert done.returncode == 0, done.stderr
    asked = subprocess.run(
        [sys.executable, "-c", ASKED, str(tmp_path)],
        check=False,
        capture_output=True,
        text=True,
        cwd=tmp_path,
        env={**os.environ, "PYTHONPATH": str(tmp_path / "src")},
    )
    assert asked.stdout.strip() == "all there", asked.stderr[-2000:]
