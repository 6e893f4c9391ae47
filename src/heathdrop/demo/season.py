"""A season on Ashmoor Water: casts of a made-up angler over made-up fish, every one of them simulated.

``scripts/season.py`` made them. What is true of these fish, and is not in the tables, is written here,
so that what the log says of them can be held against it.
"""

import json
import uuid
from datetime import datetime, timedelta
from functools import cache
from importlib import resources

from heathdrop import catalog as catalogue
from heathdrop.conditions.made import MadeCast
from heathdrop.physics.rig_name import RigName

#: While the water is under so much (°F), the fish want a head of so much of the tables' weight.
COLD_F, LIGHTER = 55.0, 0.7
#: Bites a second among fish that like what they see, and by how much more readily they bite in low light.
#: Every stop holds some, and they do not tire.
PER_S, LOW_LIGHT = 0.012, 1.8
#: The names of its trips begin so.
TRIP = "Made-up season"


@cache
def season() -> tuple[MadeCast, ...]:
    """Every cast of the season, in the order of time."""
    catalog = catalogue.load()
    rows = json.loads(resources.files("heathdrop.demo").joinpath("season.json").read_text("utf-8"))
    made = []
    for d, day in enumerate(rows):
        rigs = [RigName.parse(r["rig"]).rig(catalog) for r in day["rigs"]]
        begun = datetime.fromisoformat(f"{day['begun']}:00+00:00")
        for k, (minute, r, n, outcome, at_s, length) in enumerate(day["casts"]):
            rig, setting = rigs[r], day["rigs"][r]
            made.append(
                MadeCast(
                    id=uuid.uuid5(uuid.NAMESPACE_OID, f"ashmoor season {d} {k}"),
                    time=begun + timedelta(minutes=minute),
                    trip=f"{TRIP} {day['begun'][:10]}",
                    stop=day["stop"],
                    family=rig.family.id,
                    head_oz=rig.head_oz,
                    head_material=rig.head_material.id,
                    trailer=rig.trailer.id,
                    trailer_length_in=0.0 if rig.trailer.bare else rig.trailer_length_in,
                    countdown_s=setting["counts"][n],
                    pace_ft_s=setting["pace_ft_s"],
                    work=setting["work"],
                    outcome=outcome,
                    at_s=at_s or None,
                    fish={"length_in": length} if length else None,  # type: ignore[arg-type]
                    conditions=day["conditions"],
                )
            )
    return tuple(made)
