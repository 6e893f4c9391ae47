"""Ashmoor Water: the made-up drowned moorland valley of the demo. Early autumn, turnover beginning."""

from __future__ import annotations

import json
from functools import cache
from importlib import resources
from typing import Any

from heathdrop.store import scenarios
from heathdrop.store.database import Database


@cache
def worked() -> list[dict[str, Any]]:
    """Worked scenarios across seasons and covers: name, note, the body of a size request, and what is expected."""
    text = resources.files("heathdrop.demo").joinpath("worked.json").read_text("utf-8")
    rows: list[dict[str, Any]] = json.loads(text)
    return rows


def fill(database: Database) -> None:
    """Put Ashmoor Water's scenarios into an empty data file; leave any other alone."""
    with database.session() as session:
        if scenarios.listed(session):
            return
        text = resources.files("heathdrop.demo").joinpath("scenarios.json").read_text("utf-8")
        for row in json.loads(text):
            scenarios.save(session, row["name"], row["body"], note=row["note"])
