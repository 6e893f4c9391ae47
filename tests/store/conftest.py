"""Data files that the tests of the store share: an empty one, and one with a row of each table."""

import pytest
from sqlalchemy.orm import Session

from heathdrop.catalog import Catalog
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.trip import TripBody
from heathdrop.store import casts, items, observations, plans, scenarios, settings, trips

UID = "00000000-0000-0000-0000-0000000000{:02}"
STOP = {"name": "Bay", "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6}}
WATER = {"conditions": STOP["conditions"], "families": ["swim-jig"]}


@pytest.fixture
def whole(session: Session, cat: Catalog) -> Session:
    """One row of each table, named for good by number."""
    from tests.store.test_casts import DEPTH, DROP, MAT, made
    from tests.store.test_rows import CRAW, HEAD

    items.add(session, "head", HEAD, UID.format(1))
    items.add(session, "trailer", CRAW, UID.format(2))
    for n, (kind, row) in enumerate((("drop", DROP), ("depth", DEPTH), ("mat", MAT))):
        observations.add(session, observations.checked(cat, kind, row), UID.format(3 + n))
    scenarios.save(session, "Bay", WATER, "swim-jig:0.375:craw", "a note", UID.format(6))
    scenarios.save(session, "Cove", WATER, "no rig at all", "", UID.format(7))
    plans.keep(session, "A day", {"stops": [STOP], "rods": 2}, UID.format(8))
    body = TripBody.model_validate({"date": "2027-09-25", "stops": [STOP]})
    trips.begin(session, "A trip", body, UID.format(9))
    casts.keep(session, [MadeCast.model_validate(made(1, fish={"length_in": 16.5}, outcome="fish"))])
    settings.keep(session, settings.SCHOOLS, {"weight-lean": "lighter"})
    settings.keep(session, settings.MEASURES, "metric")
    return session
