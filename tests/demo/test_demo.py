"""Ashmoor Water fills an empty data file once, every example opens, and its log says no more than is true."""

from collections import Counter
from pathlib import Path

import pytest
from fastapi.testclient import TestClient

from heathdrop.answers.lessons import lessons_of
from heathdrop.answers.thrown import bitten
from heathdrop.demo import ashmoor
from heathdrop.demo.season import TRIP, season
from heathdrop.store import casts, scenarios
from heathdrop.store.database import Database
from heathdrop.web.app import create_app
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


def test_a_season_is_the_same_each_time_and_says_that_it_is_made_up() -> None:
    made = season()
    assert len(made) == 468
    assert sum(bitten(c) for c in made) == 83
    assert len({c.id for c in made}) == 468
    assert all(c.trip.startswith(TRIP) for c in made)
    assert [c.time for c in made] == sorted(c.time for c in made)
    assert Counter(c.outcome for c in made)["fish"] == 48


@pytest.mark.slow
def test_what_the_log_says_of_it_is_true_of_these_fish() -> None:
    """They like the tables' paces, and lighter heads in the cold alone: no such shift may be said of the
    whole. Every one of its stops holds fish, they bite more in low light, and no less in the cold, where the
    table has them shut down: that may be said."""
    found = lessons_of(season())
    assert found.among
    told = {s.what: s for s in found.own if s.sure}
    assert set(told) == {"bite rate", "empty stops", "mood in cold water"}
    assert told["empty stops"].high < 0.25
    assert told["mood in cold water"].low > 0.0
    assert 1 < told["bite rate"].low < told["bite rate"].high < 2.6
    assert [r for r in found.rates if r.differs] == []
    assert {t.words for t in found.schools} <= {"too few", "leans against it", "leans for it"}


@pytest.mark.slow
def test_it_is_there_in_the_demo_alone(tmp_path: Path) -> None:
    with TestClient(
        create_app(tmp_path / "a.sqlite", demo=True, season=True), base_url="http://127.0.0.1"
    ) as client:
        page = client.get("/log").text
        assert "83 bites in 468 casts on record" in page
        day = client.get("/log/day/2026-09-26").text
        assert "Mill bay" in day
        assert "2 bites in 26 casts" in day
        assert "3/8 oz swim jig, craw 4 in" in day
        assert "bites with the lure at" in day
        water = client.get(
            "/last?water_temp_f=64&clarity_ft=4&season=fall&light=low&bottom_depth_ft=9&fish_depth_ft=6"
            "&cover=submerged-grass&forage=bluegill"
        ).text
        assert "2026-09-26, Mill bay" in water
    plain = create_app(tmp_path / "b.sqlite", demo=True)
    database: Database = plain.state.database
    with database.session() as session:
        assert casts.listed(session) == []
    database.close()
