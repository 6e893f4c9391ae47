"""A sized water, and the forms' token."""

import pytest
from fastapi.testclient import TestClient

from heathdrop.catalog import Catalog
from heathdrop.conditions.scenario import Scenario
from heathdrop.sizing.size import Sizing, size
from tests.web import shown


@pytest.fixture(scope="session")
def sizing(cat: Catalog) -> Sizing:
    return size(cat, Scenario(shown.DAY, families=("swim-jig",)))


@pytest.fixture
def token(client: TestClient) -> str:
    return shown.token(client)
