"""The page's controls: one row of data each, and the way between the address and a scenario."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from heathdrop.errors import BadInput


@dataclass(frozen=True)
class Control:
    """One control: its name in the address, its place in a scenario, and how it looks."""

    name: str
    path: str
    label: str
    default: str
    unit: str = ""
    step: str = "1"
    options: tuple[tuple[str, str], ...] = ()
    blank: str = ""
    group: str = "water"


def _same(*words: str) -> tuple[tuple[str, str], ...]:
    return tuple((w, w.replace("-", " ")) for w in words)


CONTROLS: tuple[Control, ...] = (
    Control("water_temp_f", "conditions.water_temp_f", "Water", "58", "°F"),
    Control("trend", "conditions.trend", "Trend", "rising", options=_same("rising", "steady", "falling")),
    Control("fish_depth_ft", "conditions.fish_depth_ft", "Fish at", "6", "ft", "0.5"),
    Control("bottom_depth_ft", "conditions.bottom_depth_ft", "Bottom", "9", "ft"),
    Control(
        "cover",
        "conditions.cover.kind",
        "Cover",
        "submerged-grass",
        options=(("open", "open water"), ("submerged-grass", "submerged grass")),
    ),
    Control("top_depth_ft", "conditions.cover.top_depth_ft", "Grass tops at", "7", "ft", "0.5"),
    Control("density", "conditions.cover.density", "Grass", "moderate", options=_same("sparse", "moderate", "thick")),
    Control(
        "bottom_shape",
        "conditions.bottom_shape",
        "Bottom runs",
        "level",
        options=(("level", "level"), ("slope", "up a slope"), ("steps", "up in ledges")),
    ),
    Control("clarity_ft", "conditions.clarity_ft", "Visibility", "3", "ft", "0.5"),
    Control("light", "conditions.light", "Light", "overcast", options=_same("sunny", "mixed", "overcast", "low")),
    Control("wind_mph", "conditions.wind_mph", "Wind", "8", "mph"),
    Control(
        "activity",
        "conditions.activity",
        "Fish mood",
        "",
        options=(
            ("", "judge it for me"),
            ("0", "dormant"),
            ("1", "slow"),
            ("2", "willing"),
            ("3", "active"),
            ("4", "chasing"),
        ),
        blank="null",
    ),
    Control(
        "season",
        "conditions.season",
        "Season",
        "fall",
        options=_same("winter", "pre-spawn", "spawn", "post-spawn", "summer", "fall"),
    ),
    Control("forage", "conditions.forage", "Forage", "bluegill", options=_same("crawfish", "bluegill", "baitfish")),
    Control(
        "line",
        "gear.line.material",
        "Line",
        "fluorocarbon",
        options=_same("fluorocarbon", "nylon", "braid"),
        group="gear",
    ),
    Control("test_lb", "gear.line.test_lb", "Test", "15", "lb", group="gear"),
    Control("inches_per_turn", "gear.reel.inches_per_turn", "Reel", "29", "in/turn", group="gear"),
    Control("cast_ft", "gear.cast_ft", "Cast", "80", "ft", "5", group="gear"),
    Control("rod_tip_height_ft", "gear.rod_tip_height_ft", "Rod tip", "2", "ft up", "0.5", group="gear"),
)
BY_NAME = {c.name: c for c in CONTROLS}
#: State that is no part of a scenario: what is looked at, and how the lure is worked.
VIEW = {"view": "size", "way": "", "lift_in": "", "hold_s": "", "vs1": "", "vs2": ""}
DEFAULTS = {c.name: c.default for c in CONTROLS} | {"family": "bladed-jig", "pick": ""} | VIEW


def values_from(query: Mapping[str, str]) -> dict[str, str]:
    """The controls' texts: what the address says, defaults for the rest."""
    return {name: str(query.get(name, default)).strip()[:60] for name, default in DEFAULTS.items()}


def number_or_none(name: str, text: str, low: float, high: float, unit: str) -> float | None:
    """A typed number of the view's own state; None when empty. Raises BadInput."""
    if not text:
        return None
    value = _number(text)
    if not isinstance(value, float) or not low <= value <= high:
        raise BadInput(name, text, f"from {low:g} to {high:g} {unit}")
    return value


def _number(text: str) -> Any:
    """A typed text as JSON would have it: a number when it is one, a null when empty."""
    if not text:
        return None
    try:
        return float(text.replace(",", "."))
    except ValueError:
        return text


def body_from(values: Mapping[str, str]) -> dict[str, Any]:
    """The size request that the controls' texts mean. Raises BadInput for an emptied number."""
    body: dict[str, Any] = {"families": [values["family"]]}
    for control in CONTROLS:
        text = values[control.name]
        hidden = control.name in ("top_depth_ft", "density") and values["cover"] == "open"
        if hidden:
            continue
        value: Any = text if control.options and not control.blank else _number(text)
        if value is None and not control.options:
            value = ""
        *parents, leaf = control.path.split(".")
        place = body
        for parent in parents:
            place = place.setdefault(parent, {})
        place[leaf] = value
    return body


def values_of(body: Mapping[str, Any], pick: str = "") -> dict[str, str]:
    """The controls' texts for a saved scenario's body."""
    values = dict(DEFAULTS)
    for control in CONTROLS:
        at: Any = body
        for part in control.path.split("."):
            at = at.get(part) if isinstance(at, Mapping) else None
        if at is None and not control.blank:
            continue
        values[control.name] = "" if at is None else f"{at:g}" if isinstance(at, int | float) else str(at)
    families = body.get("families") or [DEFAULTS["family"]]
    return values | {"family": str(families[0]), "pick": pick}


def control_for(refusal: BadInput) -> str:
    """The control that a refusal belongs beside; the first one when it names none."""
    for control in CONTROLS:
        if refusal.field == control.path:
            return control.name
    if refusal.field in VIEW:
        return refusal.field
    return "family" if refusal.field.startswith("families") else CONTROLS[0].name
