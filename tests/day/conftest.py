"""A trip under way, with one stop and one rod, and a plan that has another stop."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from sqlalchemy.orm import Session

from heathdrop.conditions.trip import TripBody
from heathdrop.store import plans, trips
from heathdrop.store.database import Database
from tests.day.under_way import ROD, WATER


@pytest.fixture
def session(tmp_path: Path) -> Iterator[Session]:
    """A trip under way with one stop and one rod, and a plan that has another stop."""
    database = Database(tmp_path / "d.sqlite")
    with database.session() as session:
        stop = {"name": "Bay", "conditions": WATER, "cast_ft": 70}
        body = TripBody.model_validate({"date": "2027-09-25", "stops": [stop], "rods": [ROD]})
        trips.begin(session, "Today", body)
        plans.keep(session, "Day", {"stops": [{"name": "Cove", "conditions": WATER}], "rods": 1})
        yield session
    database.close()
