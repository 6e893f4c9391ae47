"""A large box: opening, filtering, editing, and sizing from it, through the real app."""

import itertools
import re
from pathlib import Path

import httpx2 as httpx

from heathdrop import catalog as catalogue
from heathdrop.store import items
from heathdrop.store.database import Database

HEADS, TRAILERS = 400, 600


def fill_box(path: Path) -> None:
    """400 heads and 600 trailers, no two quite alike."""
    cat = catalogue.load()
    families = itertools.cycle([f for f in cat.families.values() if f.id != "punch-rig"])
    shapes = itertools.cycle([t for t in cat.trailers.values() if t.standard])
    database = Database(path)
    with database.session() as session:
        for k in range(HEADS):
            family = next(families)
            oz = family.weights_oz[k // 11 % len(family.weights_oz)]
            items.add(
                session,
                "head",
                {"family": family.id, "weight_oz": oz, "mass_g": round(oz * 28.35 + k % 7 * 0.11, 2)},
            )
        for k in range(TRAILERS):
            shape = next(shapes)
            length = round(shape.length_in * (0.7 + 0.05 * (k // 9 % 12)), 2)
            items.add(
                session,
                "trailer",
                {"shape": shape.id, "length_in": length, "mass_g": round(shape.mass_g * (1 + k % 5 / 50), 2)},
            )
    database.close()


def token_of(web: httpx.Client) -> str:
    """The form token of the running app."""
    found = re.search(r'name="token" value="(\w+)"', web.get("/box").text)
    assert found
    return found[1]
