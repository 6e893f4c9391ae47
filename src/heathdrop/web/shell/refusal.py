"""Refusals in the screen's words: the control's label, what was typed, what would do."""

import re
from collections.abc import Mapping

from heathdrop.errors import BadInput
from heathdrop.reading import unit_of
from heathdrop.web.shell.fields import DEFAULTS, FISH, Control, control_at

#: How a refusal that compares says it: its words, and what stands in their place.
COMPARED = {
    "no deeper than ": "is deeper than ",
    "no thicker than ": "is thicker than ",
    "another one: ": "",
    "left out: ": "",
}
#: What fields are called that are no control of the sheet, by their names in requests and files.
NAMED = {
    "pick": "That rig",
    "compare": "The rig to compare with",
    "families": "The lure",
    "family": "The lure",
    "view": "The view",
    "way": "The way of working",
    "wrong": "What went wrong",
    "missed_ft": "How far it missed",
    "count_s": "The count",
    "countdown_s": "The count",
    "pace_ft_s": "The pace",
    "turns": "Turns in 20 s",
    "went": "What went wrong",
    "by_ft": "How far it missed",
    "lift_in": "The lift",
    "hold_s": "The hold",
    "rods": "Rods to tie on",
    "date": "The day",
    "minutes": "Minutes",
    "importance": "How much it matters",
    "stops": "Stops",
    "scenario": "The saved water",
    "mass_g": "Weight on the scale",
    "head_g": "The head's weight on the scale",
    "trailer_g": "The trailer's weight on the scale",
    "quantity": "How many",
    "weight_oz": "Head weight",
    "head_oz": "Head weight",
    "low_oz": "Rated from",
    "high_oz": "Rated to",
    "inches_per_turn": "Line a turn takes in",
    "length_ft": "Length",
    "length_in": "Length",
    "trailer_length_in": "Trailer length",
    "width_in": "Width",
    "diameter_mm": "Diameter",
    "test_lb": "Test",
    "times_s": "Times",
    "depth_ft": "Depth",
    "water_temp_f": "Water",
    "cast_ft": "Cast",
    "colour": "Colour or name",
    "thickness_in": "Thickness of the mat",
}


def _quotable(given: object) -> str:
    """What was given, in characters that a page can hold."""
    return str(given).encode("utf-8", "replace").decode()


_STOP = re.compile(r"stops\[(\d+)\]\.(.+)")


def plain_words(refusal: BadInput) -> str:
    """One sentence for a page without the sheet's controls: ``Stop 2: Water 200 °F cannot be; ...``"""
    stop = _STOP.fullmatch(refusal.field)
    if stop:
        inner = BadInput(stop[2], refusal.given, refusal.allowed)
        return f"Stop {int(stop[1]) + 1}: {plain_words(inner)}"
    where, dot, name = refusal.field.rpartition(".")
    if dot and ", " in where:  # a file and a place in it
        return f"{where}: {plain_words(BadInput(name, refusal.given, refusal.allowed))}"
    if refusal.field.startswith("the "):
        given = _quotable(refusal.given)[:60]
        if refusal.field == "the line":
            return f"“{given}” needs {refusal.allowed}."
        given_said = f" ({given})" if given else ""
        field = f"{refusal.field[:1].upper()}{refusal.field[1:]}"
        return f"{field}{given_said} will not do; it must be {refusal.allowed}."
    return in_words(refusal, DEFAULTS)


def in_words(refusal: BadInput, values: Mapping[str, str]) -> str:
    """One sentence without a name of the program's: ``Fish at 6 ft is deeper than the bottom at 4 ft.``"""
    control = control_at(refusal.field, values)
    if control is not None:
        label, unit = control.label, "" if control.options else control.unit
    else:
        parts = [part.split("[")[0] for part in refusal.field.split(".")]
        name = next((part for part in (parts[-1], parts[0]) if part in NAMED), parts[-1])
        label = NAMED.get(name, name.replace("_", " ").capitalize())
        unit = unit_of(name)
    given = f"{refusal.given:g}" if isinstance(refusal.given, int | float) else ""
    if "e" in given and control is not None:
        given = values[control.name]
    figure = f" {given} {unit}".rstrip() if given else ""
    for start, said in COMPARED.items():
        if refusal.allowed.startswith(start):
            rest = refusal.allowed.removeprefix(start)
            return f"{label}{figure} {said}{rest}." if said else f"{rest[:1].upper()}{rest[1:]}."
    if refusal.given is None or refusal.given == "":
        return f"{label} is empty; it must be {refusal.allowed}."
    given_said = figure or f" “{_quotable(refusal.given)[:40]}”"
    listed = "" if figure or control is None else _words_for(control)
    return f"{label} must be {refusal.allowed}{listed}, not{given_said}."


def _words_for(control: Control) -> str:
    """What else than a number may be typed into a control, as the end of a sentence."""
    if control.name == FISH:
        return ", a range (4 to 10), ? or bottom"
    return f" or one of: {', '.join(control.spoken)}" if control.spoken else ""
