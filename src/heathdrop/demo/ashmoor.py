"""Ashmoor Water: the made-up drowned moorland valley of the demo. Early autumn, turnover beginning."""

import json
from functools import cache
from importlib import resources
from typing import Any

from heathdrop import catalog as catalogue
from heathdrop.demo.season import season
from heathdrop.store import casts, items, observations, plans, scenarios
from heathdrop.store.database import Database
from heathdrop.store.files.entry import parsed

#: Two drop tests off the mill's dock, one try of them odd.
DROPS: tuple[dict[str, Any], ...] = (
    {
        "family": "swim-jig",
        "head_oz": 0.375,
        "head_g": 10.9,
        "trailer": "craw",
        "trailer_length_in": 4.0,
        "trailer_g": 9.8,
        "depth_ft": 8.0,
        "times_s": [4.35, 4.5, 4.4],
        "water_temp_f": 61.0,
        "note": "dock",
    },
    {
        "family": "swim-jig",
        "head_oz": 0.375,
        "head_g": 10.9,
        "trailer": "craw",
        "trailer_length_in": 4.0,
        "trailer_g": 9.8,
        "depth_ft": 13.0,
        "times_s": [7.2, 7.0, 9.9, 7.3],
        "water_temp_f": 61.0,
        "note": "dock, far end",
    },
)


@cache
def worked() -> list[dict[str, Any]]:
    """Worked scenarios across seasons and covers: name, note, the body of a size request, and what is
    expected."""
    text = resources.files("heathdrop.demo").joinpath("worked.json").read_text("utf-8")
    rows: list[dict[str, Any]] = json.loads(text)
    return rows


def day() -> dict[str, Any]:
    """The plan of a day on Ashmoor Water: six stops."""
    text = resources.files("heathdrop.demo").joinpath("plan.json").read_text("utf-8")
    body: dict[str, Any] = json.loads(text)
    return body


def fill(database: Database, with_season: bool = False) -> None:
    """Put Ashmoor Water into an empty data file, with its season of casts where that is asked for; leave any
    other alone."""
    with database.session() as session:
        if scenarios.listed(session):
            return
        text = resources.files("heathdrop.demo").joinpath("scenarios.json").read_text("utf-8")
        catalog = catalogue.load()
        for line in resources.files("heathdrop.demo").joinpath("box.txt").read_text("utf-8").splitlines():
            items.add(session, *parsed(catalog, line))
        for drop in DROPS:
            observations.add(session, observations.checked(catalog, "drop", drop))
        for row in json.loads(text):
            scenarios.save(session, row["name"], row["body"], note=row["note"])
        plans.keep(session, "A day on Ashmoor Water", day())
        if with_season:
            casts.keep(session, season())
