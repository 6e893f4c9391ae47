"""Refusals in the screen's words: the control's label, what was typed, what would do."""

from __future__ import annotations

from collections.abc import Mapping

from heathdrop.errors import BadInput
from heathdrop.reading import unit_of
from heathdrop.web.shell.fields import FISH, Control, control_at

#: How a refusal that compares says it: its words, and what stands in their place.
COMPARED = {
    "no deeper than ": "is deeper than ",
    "no thicker than ": "is thicker than ",
    "another one: ": "",
    "left out: ": "",
}
#: Parts of the address that are no control, in words.
NAMED = {
    "pick": "That rig",
    "compare": "The rig to compare with",
    "families": "The lure",
    "view": "The view",
    "way": "The way of working",
    "wrong": "What went wrong",
    "missed_ft": "How far it missed",
    "count_s": "The count",
    "pace_ft_s": "The pace",
    "lift_in": "The lift",
    "hold_s": "The hold",
}


def in_words(refusal: BadInput, values: Mapping[str, str]) -> str:
    """One sentence without a name of the program's: ``Fish at 6 ft is deeper than the bottom at 4 ft.``"""
    control = control_at(refusal.field, values)
    if control is not None:
        label, unit = control.label, "" if control.options else control.unit
    else:
        root = refusal.field.split(".")[0].split("[")[0]
        label = NAMED.get(root, refusal.field.rsplit(".", 1)[-1].replace("_", " ").capitalize())
        unit = unit_of(root)
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
    told = figure or f" “{str(refusal.given)[:40]}”"
    words = "" if figure or control is None else _words_for(control)
    return f"{label}{told} cannot be; it must be {refusal.allowed}{words}."


def _words_for(control: Control) -> str:
    """What else than a number may be typed into a control, as the end of a sentence."""
    if control.name == FISH:
        return ", a range (4 to 10), ? or bottom"
    return f" or one of: {', '.join(control.spoken)}" if control.spoken else ""
