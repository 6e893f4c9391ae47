"""What the tests of the pages share: a water, the sheet as it is shown, the token of a form."""

import re

from fastapi.testclient import TestClient

from heathdrop.catalog import Catalog
from heathdrop.conditions.cover import Cover
from heathdrop.conditions.scenario import Conditions
from heathdrop.sizing.box import EMPTY
from heathdrop.sizing.size import Sizing
from heathdrop.web.sheet.page import address, choices_from
from heathdrop.web.sheet.shown.sheet import Sheet, present
from heathdrop.web.shell.fields import values_from

HX = {"hx-request": "true"}
DAY = Conditions(
    water_temp_f=58,
    bottom_depth_ft=9,
    fish_depth_ft=6,
    clarity_ft=3,
    trend="rising",
    activity=None,
    season="pre-spawn",
    light="overcast",
    wind_mph=8,
    forage="bluegill",
    cover=Cover(kind="submerged-grass", top_depth_ft=7),
)


def token(client: TestClient) -> str:
    """The token of this installation's forms."""
    found = re.search(r'name="token" value="(\w+)"', client.get("/box").text)
    assert found
    return found[1]


def rows(client: TestClient) -> int:
    """How many pieces of tackle the Box page lists."""
    return client.get("/box").text.count("<tr id=")


def shown(cat: Catalog, sizing: Sizing, **state: str) -> Sheet:
    """The sheet of a sized water, with what the address says besides."""
    values = values_from(state)
    return present(
        cat, sizing, EMPTY, values, choices_from(values), lambda **changed: address({**values, **changed})
    )
