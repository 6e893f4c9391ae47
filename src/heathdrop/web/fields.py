"""The page's controls: one row of data each, and the way between the address and a scenario."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from heathdrop.errors import BadInput
from heathdrop.sizing.scenario import (
    DENSITIES,
    DETAILS,
    FORAGES,
    FRONTS,
    LIGHTS,
    MAKEUPS,
    SEASONS,
    TEXTURES,
    TRENDS,
    WITH_TOP,
)


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
    cover: tuple[str, ...] = ()

    def shown(self, cover: str) -> bool:
        """Whether the control belongs to this kind of cover."""
        return not self.cover or cover in self.cover


def _same(*words: str) -> tuple[tuple[str, str], ...]:
    return tuple((w, w.replace("-", " ")) for w in words)


#: The controls. Group "first": the four answers a beginner needs (and what their cover asks besides).
CONTROLS: tuple[Control, ...] = (
    Control("water_temp_f", "conditions.water_temp_f", "Water", "58", "°F", group="first"),
    Control("bottom_depth_ft", "conditions.bottom_depth_ft", "Bottom", "9", "ft", group="first"),
    Control("fish_depth_ft", "conditions.fish_depth_ft", "Fish at", "6", "ft", "0.5", group="first"),
    Control(
        "cover",
        "conditions.cover.kind",
        "Cover",
        "submerged-grass",
        options=_same("open", "submerged-grass", "matted-grass", "pads", "reeds", "wood", "rock", "docks"),
        group="first",
    ),
    Control("top_depth_ft", "conditions.cover.top_depth_ft", "Grass tops at", "7", "ft", "0.5", group="first", cover=WITH_TOP),
    Control(
        "density",
        "conditions.cover.density",
        "It stands",
        "moderate",
        options=_same(*DENSITIES),
        group="first",
        cover=("submerged-grass", "pads", "reeds", "wood", "docks"),
    ),
    Control("thickness_in", "conditions.cover.thickness_in", "Mat", "3", "in thick", group="first", cover=("matted-grass",)),
    Control(
        "texture",
        "conditions.cover.texture",
        "Mat of",
        "milfoil",
        options=_same(*TEXTURES),
        group="first",
        cover=("matted-grass",),
    ),
    Control("wood", "conditions.cover.detail", "Kind", "laydown", options=_same(*DETAILS["wood"]), group="first", cover=("wood",)),
    Control("rock", "conditions.cover.detail", "Kind", "chunk", options=_same(*DETAILS["rock"]), group="first", cover=("rock",)),
    Control(
        "posture",
        "conditions.posture",
        "Fish are",
        "auto",
        options=(
            ("auto", "as depth says"),
            ("on-bottom", "on the bottom"),
            ("suspended", "hanging"),
            ("under-cover", "under cover"),
            ("cruising-high", "cruising high"),
        ),
    ),
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
    Control("trend", "conditions.trend", "Trend", "rising", options=_same(*TRENDS)),
    Control("season", "conditions.season", "Season", "fall", options=_same(*SEASONS)),
    Control("clarity_ft", "conditions.clarity_ft", "Visibility", "3", "ft", "0.5"),
    Control("light", "conditions.light", "Light", "overcast", options=_same(*LIGHTS)),
    Control("wind_mph", "conditions.wind_mph", "Wind", "8", "mph"),
    Control("forage", "conditions.forage", "Forage", "bluegill", options=_same(*FORAGES)),
    Control("bottom", "conditions.bottom", "Bottom of", "sand", options=_same(*MAKEUPS)),
    Control(
        "bottom_shape",
        "conditions.bottom_shape",
        "Bottom runs",
        "level",
        options=(("level", "level"), ("slope", "up a slope"), ("steps", "up in ledges")),
    ),
    Control("front", "conditions.front", "Cold front", "none", options=_same(*FRONTS)),
    Control(
        "pressure",
        "conditions.pressure",
        "Fished",
        "normal",
        options=(("light", "little"), ("normal", "as usual"), ("heavy", "hard")),
    ),
    Control(
        "box",
        "box",
        "Size from",
        "standard",
        options=(("standard", "the standard set"), ("mine", "my box"), ("both", "both")),
        group="gear",
    ),
    Control("line", "gear.line.material", "Line", "fluorocarbon", options=_same("fluorocarbon", "nylon", "braid"), group="gear"),
    Control("test_lb", "gear.line.test_lb", "Test", "15", "lb", group="gear"),
    Control("inches_per_turn", "gear.reel.inches_per_turn", "Reel", "29", "in/turn", group="gear"),
    Control("cast_ft", "gear.cast_ft", "Cast", "80", "ft", "5", group="gear"),
    Control("rod_tip_height_ft", "gear.rod_tip_height_ft", "Rod tip", "2", "ft up", "0.5", group="gear"),
)
BY_NAME = {c.name: c for c in CONTROLS}
#: "call": the family is called for the water.
CALLED = "call"
#: State that is no part of a scenario: what is looked at, how the lure is worked, what went wrong.
VIEW = {"view": "size", "way": "", "lift_in": "", "hold_s": "", "vs1": "", "vs2": "", "wrong": ""}
VIEWS = ("water", "size", "rig", "cast")
SCHOOL = "s_"
DEFAULTS = {c.name: c.default for c in CONTROLS} | {"family": CALLED, "pick": ""} | VIEW


def values_from(query: Mapping[str, str]) -> dict[str, str]:
    """The controls' texts: what the address says, defaults for the rest."""
    values = {name: str(query.get(name, default)).strip()[:60] for name, default in DEFAULTS.items()}
    return values | {k: str(v).strip()[:60] for k, v in query.items() if k.startswith(SCHOOL) and len(k) < 40 and v}


def schools_in(values: Mapping[str, str]) -> dict[str, str]:
    """The chosen schools by topic."""
    return {k.removeprefix(SCHOOL): v for k, v in values.items() if k.startswith(SCHOOL) and v}


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
    body: dict[str, Any] = {"schools": schools_in(values)}
    if values["family"] != CALLED:
        body["families"] = [values["family"]]
    for control in CONTROLS:
        text = values[control.name]
        if not control.shown(values["cover"]):
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
        if not control.shown(values["cover"]):
            continue
        values[control.name] = "" if at is None else f"{at:g}" if isinstance(at, int | float) else str(at)
    families = body.get("families") or [DEFAULTS["family"]]
    schools = {SCHOOL + topic: str(school) for topic, school in (body.get("schools") or {}).items()}
    return values | schools | {"family": str(families[0]), "pick": pick}


def control_for(refusal: BadInput, cover: str) -> str:
    """The control that a refusal belongs beside; the first one when it names none."""
    for control in CONTROLS:
        if refusal.field == control.path and control.shown(cover):
            return control.name
    if refusal.field in VIEW:
        return refusal.field
    return "family" if refusal.field.startswith("families") else CONTROLS[0].name
