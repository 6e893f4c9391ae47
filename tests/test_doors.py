"""The command line, the API and the page: the same answers and the same words."""

import copy
import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from heathdrop.catalog.vocabulary import PARTS

SCENARIO: dict[str, Any] = {
    "conditions": {
        "water_temp_f": 58,
        "trend": "rising",
        "activity": None,
        "season": "pre-spawn",
        "clarity_ft": 3,
        "light": "overcast",
        "wind_mph": 8,
        "forage": "bluegill",
        "bottom_depth_ft": 9,
        "fish_depth_ft": 6,
        "cover": {
            "kind": "submerged-grass",
            "top_depth_ft": 7,
            "density": "moderate",
            "thickness_in": None,
            "texture": None,
        },
    },
    "gear": {
        "line": {"material": "fluorocarbon", "test_lb": 15},
        "reel": {"inches_per_turn": 29},
        "cast_ft": 80,
        "rod_tip_height_ft": 2,
    },
    "families": ["swim-jig", "bladed-jig"],
    "schools": {},
    "box": "standard",
    "limit": 20,
}
CASE: dict[str, Any] = {
    "water": {"temperature_f": 58},
    "lure": {
        "mass_g": 14,
        "net_weight_n": 0.115,
        "fall_drag_area_cm2": 10,
        "run_drag_area_cm2": 10,
        "run_lift_area_cm2": 2.6,
        "glide_ratio": 0,
    },
    "line": {"diameter_mm": 0.37, "density_kg_m3": 1780},
    "cast": {"distance_ft": 82.0, "rod_tip_height_ft": 2.0, "bottom_depth_ft": 30},
    "program": [{"do": "fall", "line": "slack", "to_depth_ft": 6.6}, {"do": "retrieve", "speed_ft_s": 2.0}],
}
RIG_KEYS = {
    "family",
    "head_oz",
    "head_material",
    "trailer",
    "trailer_length_in",
    "skirt",
    "pace_ft_s",
    "turns_per_s",
    "countdown_s",
    "depth_ft",
    "fall_ft_s",
    "cover",
    "fits",
    "score",
    "limiting",
    "why",
}


def run(
    command: str, body: object, path: Path | None = None, *flags: str
) -> subprocess.CompletedProcess[str]:
    text = body if isinstance(body, str) else json.dumps(body)
    if path is not None:
        path.write_text(text)
    argv = [sys.executable, "-m", "heathdrop.cli", command, str(path) if path else "-", *flags]
    return subprocess.run(argv, input=None if path else text, capture_output=True, text=True, check=False)


@pytest.mark.slow
def test_size_is_the_same_through_both_doors(client: TestClient, tmp_path: Path) -> None:
    app: Any = client.app
    done = run("size", SCENARIO, tmp_path / "s.json", "--data", str(app.state.database.path))
    assert done.returncode == 0
    assert done.stderr == ""
    answer = json.loads(done.stdout)
    assert client.post("/api/v1/size", json=SCENARIO).json() == answer
    assert set(answer) == {"targets", "rigs", "finish", "doubt", "gives", "advice", "cautions"}
    assert len(answer["rigs"]) == 20
    for rig in answer["rigs"]:
        assert set(rig) >= RIG_KEYS
        assert rig["depth_ft"]["low"] <= rig["depth_ft"]["mean"] <= rig["depth_ft"]["high"]
        assert rig["fall_ft_s"]["low"] < rig["fall_ft_s"]["value"] < rig["fall_ft_s"]["high"]
        assert rig["turns_per_s"] == pytest.approx(rig["pace_ft_s"] * 12 / 29, abs=1e-3)
        assert set(rig["fits"]) == set(PARTS)
    assert any("life jacket" in c for c in answer["cautions"])


@pytest.mark.slow
def test_simulate_is_the_same_through_both_doors(client: TestClient) -> None:
    done = run("simulate", CASE)
    assert done.returncode == 0
    answer = json.loads(done.stdout)
    assert client.post("/api/v1/simulate", json=CASE).json() == answer
    times = [s["t_s"] for s in answer["samples"]]
    assert max(b - a for a, b in zip(times, times[1:], strict=False)) <= 0.25
    assert times == sorted(times)
    assert answer["samples"][0] == {
        "t_s": 0.0,
        "distance_ft": 82.0,
        "depth_ft": 0.0,
        "tension_n": 0.0,
        "phase": 0,
        "on_bottom": False,
    }
    summary = answer["summary"]
    assert summary["min_depth_ft"] <= summary["mean_depth_ft"] <= summary["max_depth_ft"]
    assert summary["fall_ft_s"] == pytest.approx(6.6 / summary["fall_s"], rel=0.01)


def test_a_named_rig_is_fished_and_areas_do_what_is_written(client: TestClient) -> None:
    """Slack is taken up before a named rig's retrieve unless it says otherwise; never for bare areas."""
    named = CASE | {"lure": {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw"}}

    def mean(case: dict[str, Any], take_up: bool | None) -> float:
        asked = changed(case, "program.1.take_up", take_up)
        answer = client.post("/api/v1/simulate", json=asked)
        assert answer.status_code == 200, answer.text
        return float(answer.json()["summary"]["mean_depth_ft"])

    assert mean(named, None) == mean(named, True) != mean(named, False)
    assert mean(CASE, None) == mean(CASE, False) != mean(CASE, True)
    refused = client.post("/api/v1/simulate", json=changed(CASE, "program.0.take_up", True))
    assert refused.status_code == 422
    only = "program[0].take_up was True; it must be left out: only retrieve, slow-roll, burn-and-drop"
    assert only in refused.text


def test_a_leader_comes_through_both_doors(client: TestClient) -> None:
    tied = {
        "material": "braid",
        "test_lb": 15,
        "leader": {"material": "fluorocarbon", "test_lb": 8, "length_ft": 8},
    }
    depths = [
        client.post("/api/v1/simulate", json=CASE | {"line": line}).json()["summary"]["mean_depth_ft"]
        for line in (tied, {"material": "braid", "test_lb": 15})
    ]
    assert depths[0] != depths[1]
    sized = client.post("/api/v1/size", json=changed(SCENARIO, "gear.line", tied))
    assert sized.status_code == 200
    assert sized.json()["rigs"]
    for door, path, value, sentence in (
        ("simulate", "line.leader.test_lb", 90, "line.leader.test_lb was 90; it must be from 4 to 25 lb"),
        ("simulate", "line.leader.length_ft", 0, "line.leader.length_ft was 0; it must be from 0.5 to 60 ft"),
        ("size", "gear.line.leader.test_lb", 90, "gear.line.leader.test_lb was 90; it must be from 4 to 25"),
        ("size", "gear.line.leader.length_ft", 0, "gear.line.leader.length_ft was 0; it must be from 0.5"),
        (
            "size",
            "gear.line.leader.material",
            "braid",
            "gear.line.leader.material was “braid”; it must be one",
        ),
    ):
        base = changed(SCENARIO, "gear.line", tied) if door == "size" else CASE | {"line": tied}
        refused = client.post(f"/api/v1/{door}", json=changed(base, path, value))
        assert refused.status_code == 422
        assert sentence in refused.text


def changed(base: dict[str, Any], path: str, value: Any) -> dict[str, Any]:
    body = copy.deepcopy(base)
    *parents, leaf = path.split(".")
    place = body
    for part in parents:
        place = place[int(part)] if part.isdigit() else place[part]  # type: ignore[index]
    if value is ...:
        del place[leaf]
    else:
        place[leaf] = value
    return body


BAD = [
    (
        "size",
        "conditions.water_temp_f",
        400,
        "conditions.water_temp_f was 400; it must be from 32 to 100 °F.",
    ),
    (
        "size",
        "conditions.water_temp_f",
        ...,
        "conditions.water_temp_f was not given; it must be from 32 to 100 °F.",
    ),
    (
        "size",
        "conditions.water_temp_f",
        "warm",
        "conditions.water_temp_f was “warm”; it must be from 32 to 100 °F.",
    ),
    ("size", "conditions.fish_depth_ft", -3, "conditions.fish_depth_ft was -3; it must be from 0 to 60 ft."),
    (
        "size",
        "conditions.fish_depth_ft",
        12,
        "conditions.fish_depth_ft was 12; it must be no deeper than the bottom at 9 ft.",
    ),
    (
        "size",
        "conditions.bottom_depth_ft",
        float("nan"),
        "conditions.bottom_depth_ft was nan; it must be from 1 to 60 ft.",
    ),
    (
        "size",
        "conditions.trend",
        "up",
        "conditions.trend was “up”; it must be one of rising, steady, falling.",
    ),
    ("size", "gear.line.test_lb", 0, "gear.line.test_lb was 0; it must be from 4 to 25 lb for fluorocarbon."),
    ("size", "conditions.depth", 4, "conditions.depth was 4; it must be left out: there is no such field."),
    ("simulate", "line.diameter_mm", 0, "line.diameter_mm was 0; it must be from 0.05 to 2 mm."),
    ("simulate", "lure.net_weight_n", ..., "lure.net_weight_n was not given; it must be given."),
    ("simulate", "program.1.speed_ft_s", -1, "program[1].speed_ft_s was -1; it must be from 0.1 to 15 ft/s."),
    ("simulate", "program.0.to_depth_ft", -1, "program[0].to_depth_ft was -1; it must be from 0 to 200 ft."),
]


@pytest.mark.parametrize(("door", "path", "value", "sentence"), BAD)
def test_refusals_have_the_same_words(
    visitor: TestClient, door: str, path: str, value: Any, sentence: str
) -> None:
    body = changed(SCENARIO if door == "size" else CASE, path, value)
    answer = visitor.post(
        f"/api/v1/{door}", content=json.dumps(body), headers={"content-type": "application/json"}
    )
    assert answer.status_code == 422
    assert answer.json()["detail"] == sentence


@pytest.mark.slow
def test_the_command_line_refuses_in_the_same_words(tmp_path: Path) -> None:
    _, path, value, sentence = BAD[0]
    done = run("size", changed(SCENARIO, path, value))
    assert (done.returncode, done.stdout, done.stderr.strip()) == (2, "", sentence)
    assert run("size", "[").stderr.strip() == "the request was “not JSON”; it must be a JSON object."
    assert run("size", " " * 300_000).stderr.startswith("the request was “300000 bytes long”")
    missing = subprocess.run(
        [sys.executable, "-m", "heathdrop.cli", "size", str(tmp_path / "none.json")],
        capture_output=True,
        text=True,
        check=False,
    )
    assert missing.returncode == 2
    assert "readable" in missing.stderr


def test_the_page_says_it_beside_the_field_and_keeps_what_was_typed(client: TestClient) -> None:
    page = client.get("/", params={"water_temp_f": "400", "fish_depth_ft": "5.5"})
    assert page.status_code == 422
    assert "Water must be from 32 to 100 °F, not 400 °F." in page.text
    assert "conditions." not in page.text
    assert 'value="400"' in page.text
    assert 'value="5.5"' in page.text
    partial = client.get("/", params={"water_temp_f": "400"}, headers={"HX-Request": "true"})
    assert partial.headers["hx-reswap"] == "none"
    assert "innerHTML:#err-water_temp_f" in partial.text
