"""Lessons through the door, on the page and on the command line say the same."""

from __future__ import annotations

import json
from pathlib import Path

from fastapi.testclient import TestClient
from typer.testing import CliRunner

from heathdrop.cli import app
from tests.answers.logged import cast


def sent(client: TestClient, count: int = 40) -> None:
    made = [cast(k, "fish" if k % 5 == 0 else "nothing", head_oz=(0.25, 0.5)[k % 2]) for k in range(count)]
    body = [c.model_dump(mode="json", exclude_none=True) for c in made]
    assert client.post("/api/v1/casts", json=body).status_code == 200


def test_an_empty_log_says_so_everywhere(visitor: TestClient) -> None:
    found = visitor.get("/api/v1/lessons").json()
    assert found == {"casts": 0, "bites": 0, "like_today": [], "rates": [], "schools": [], "own": []}
    assert "Nothing is on record yet" in visitor.get("/log").text


def test_the_door_the_page_and_the_command_line_agree(client: TestClient) -> None:
    sent(client)
    found = client.get("/api/v1/lessons").json()
    assert (found["casts"], found["bites"]) == (40, 8)
    heads = {r["bin"]: r for r in found["rates"] if r["by"] == "head"}
    assert heads["1/4 oz"]["casts"] == heads["1/2 oz"]["casts"] == 20
    assert heads["1/4 oz"]["low"] < heads["1/4 oz"]["per_hour"] < heads["1/4 oz"]["high"]
    page = client.get("/log").text
    assert "8 bites in 40 casts on record" in page
    assert "By head" in client.get("/log/taught").text
    database = client.app.state.database  # type: ignore[attr-defined]
    database.fold()
    said = CliRunner().invoke(app, ["lessons", "--data", str(database.path)])
    assert said.exit_code == 0, said.output
    assert json.loads(said.stdout) == found


def test_days_like_a_stop_of_a_plan(client: TestClient) -> None:
    sent(client)
    found = client.get("/api/v1/lessons", params={"stop": "Mill bay milfoil"}).json()
    assert isinstance(found["like_today"], list)
    assert client.get("/api/v1/lessons", params={"stop": "Nowhere"}).status_code == 422


def test_a_data_file_that_is_not_there_is_refused(tmp_path: Path) -> None:
    said = CliRunner().invoke(app, ["lessons", "--data", str(tmp_path / "none.sqlite")])
    assert said.exit_code == 2
