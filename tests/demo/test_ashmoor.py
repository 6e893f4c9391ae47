"""Ashmoor Water fills an empty data file once, and every worked example opens."""

from __future__ import annotations

from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from heathdrop.demo import ashmoor
from heathdrop.store import scenarios
from heathdrop.store.database import Database
from heathdrop.web.sheet.page import address
from heathdrop.web.shell.fields import body_from, values_from, values_of


def test_demo_supplies_three_scenarios_once(tmp_path: Path) -> None:
    database = Database(tmp_path / "demo.sqlite")
    for _ in range(2):
        ashmoor.fill(database)
    with database.session() as session:
        rows = scenarios.listed(session)
    assert len(rows) == 3
    for row in rows:
        assert (
            body_from(values_of(row.body))["conditions"].items()
            >= {k: v for k, v in row.body["conditions"].items() if k != "cover"}.items()
        )
    database.close()


@pytest.mark.slow
@pytest.mark.parametrize("view", ["water", "size", "rig", "cast"])
def test_every_worked_example_opens_in_every_view(client: TestClient, view: str) -> None:
    for row in ashmoor.worked():
        values = values_of(row["body"])
        assert (
            body_from(values_from(values))["conditions"]["water_temp_f"]
            == row["body"]["conditions"]["water_temp_f"]
        )
        page = client.get(address({**values, "view": view}))
        assert page.status_code == 200, (row["name"], page.text[:300])
        assert "NaN" not in page.text
        assert 'aria-label="Side view' in page.text
