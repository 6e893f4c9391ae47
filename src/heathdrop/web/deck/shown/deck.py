"""The deck: what its script needs of the trip, stop by stop, every figure and sentence ready to show."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any

from markupsafe import Markup

from heathdrop import catalog as catalogue
from heathdrop.answers.last_time import Day
from heathdrop.answers.plan import rig_said
from heathdrop.api.casting import NextAnswer
from heathdrop.conditions import outcome
from heathdrop.conditions.made import MadeCast
from heathdrop.conditions.trip import TripBody, TripStop
from heathdrop.measures import field_said, sentence, step_said, system, unit_said
from heathdrop.units import CM_PER_IN, KG_PER_LB, counted, many
from heathdrop.web.shell.fields import BY_NAME, DRIVEN, values_from, values_of

#: What is changed on the deck, the likeliest first.
WATER = (
    "fish_depth_ft",
    "bottom_depth_ft",
    "top_depth_ft",
    "water_temp_f",
    "clarity_ft",
    "wind_mph",
    "light",
    "trend",
    "activity",
)
#: The conditions that the sounder fills by itself until they are typed, and those it only offers: the boat's
#: depth is not the depth where the lure goes.
SOUNDED = {"water_temp_f": "fills", "wind_mph": "fills", "bottom_depth_ft": "offers"}
#: The answers as the buttons say them.
ANSWERS = tuple((row.id, row.button) for row in outcome.ROWS)
#: Those whose buttons stand behind the others.
RARE = frozenset(row.id for row in outcome.ROWS if row.rare)
#: Outcomes that a fish gave: the same cast stands.
BITTEN = tuple(row.id for row in outcome.ROWS if row.bitten)


@dataclass(frozen=True)
class WaterRow:
    """A condition on the deck: its name, label, text, unit, step (empty: words to choose from)."""

    name: str
    label: str
    value: str
    unit: str
    step: str
    options: tuple[tuple[str, str], ...]
    by: str


def water_rows(stop: TripStop) -> list[WaterRow]:
    """The conditions of a stop as they can be changed on the deck."""
    values = values_of({"conditions": stop.conditions})
    return [
        WaterRow(
            name=c.name,
            label=c.label,
            value=field_said(c.unit, values[c.name]) if not c.options else values[c.name],
            unit=unit_said(c.unit.partition(" (")[0]) if not c.options else "",
            step="" if c.options else step_said(c.unit, c.step),
            options=tuple(c.options),
            by=stop.by.get(c.name, ""),
        )
        for c in (BY_NAME[name] for name in WATER)
        if c.shown(values)
    ]


def conditions_with(stop: TripStop, name: str, text: str, units: str) -> dict[str, Any]:
    """The conditions of a stop after one change, as texts that
    :func:`heathdrop.web.shell.fields.body_from` reads.
    What is on the bottom stays on it; what would be below it comes up with it."""
    values = values_of({"conditions": stop.conditions})
    typed = values_from({name: text, "units": units})[name]
    old = values["bottom_depth_ft"]
    values[name] = typed
    if name == "bottom_depth_ft":
        values[DRIVEN] = ""
        for deep in ("fish_depth_ft", "top_depth_ft", "tops_ft"):
            if values[deep] == old or _below(values[deep], typed):
                values[deep] = typed
    return values


def _below(depth: str, bottom: str) -> bool:
    try:
        return float(depth) > float(bottom)
    except ValueError:
        return False


def stop_data(stop: TripStop, following: NextAnswer) -> dict[str, Any]:
    """A stop as the deck's script takes it."""
    return {
        "name": stop.name,
        "water": [row.__dict__ for row in water_rows(stop)],
        "conditions": stop.conditions,
        "next": following.model_dump(mode="json", exclude={"belief"}),
    }


def last_rigs(days: Sequence[Day]) -> list[dict[str, str]]:
    """The rig that was bitten most on each day like this one, with what it came to, each rig once."""
    catalog = catalogue.load()
    rigs: dict[str, dict[str, str]] = {}
    for day in days:
        if day.take is not None:
            rig, count, pace = day.take
            thrown = f", {counted(count)}" if pace > 0.0 else ""
            when = f"{day.date}, {day.stop}" if day.stop else day.date
            small = f"{when}: {many(day.bites, 'bite')} in {many(day.casts, 'cast')}{thrown}"
            said = sentence(rig_said(rig.rig(catalog)))
            rigs.setdefault(rig.text(), {"rig": rig.text(), "said": said, "small": small})
    return list(rigs.values())


def _rods_data(body: TripBody, said: dict[str, str]) -> list[dict[str, str]]:
    """The rods as tied: name, rig in words, line, the rig's name."""
    return [
        {"name": r.name, "rig": r.rig, "said": sentence(said[r.rig]), "line": sentence(r.line.said)}
        for r in body.rods
    ]


def deck_data(
    name: str,
    body: TripBody,
    stops: list[dict[str, Any]],
    said: dict[str, str],
    made: list[MadeCast],
    instruments: bool,
) -> Markup:
    """All of the trip for the deck's script, safe inside its element."""
    payload = {
        "page_at": datetime.now(UTC).isoformat(),
        "trip": name,
        "units": system(),
        "per": {"cm": CM_PER_IN, "kg": KG_PER_LB},
        "rods": _rods_data(body, said),
        "stops": stops,
        "made": [c.model_dump(mode="json", exclude_none=True, exclude={"conditions"}) for c in made],
        "answers": ANSWERS,
        "bitten": BITTEN,
        "sounded": SOUNDED,
        "instruments": instruments,
    }
    return Markup(json.dumps(payload, separators=(",", ":")).replace("<", "\\u003c"))
