"""Refusals in the screen's words, to the letter."""

from __future__ import annotations

import pytest

from heathdrop.errors import BadInput
from heathdrop.web.shell.fields import values_from
from heathdrop.web.shell.refusal import control_at, in_words

VALUES = values_from({})
FISH, TEMP = "conditions.fish_depth_ft", "conditions.water_temp_f"


@pytest.mark.parametrize(
    ("refusal", "sentence"),
    [
        (
            BadInput(FISH, 6.0, "no deeper than the bottom at 4 ft"),
            "Fish at 6 ft is deeper than the bottom at 4 ft.",
        ),
        (BadInput(FISH, "", "from 0 to 60 ft"), "Fish at is empty; it must be from 0 to 60 ft."),
        (BadInput(TEMP, 120.0, "from 32 to 100 °F"), "Water 120 °F cannot be; it must be from 32 to 100 °F."),
        (
            BadInput(TEMP, "warm", "from 32 to 100 °F"),
            "Water “warm” cannot be; it must be from 32 to 100 °F.",
        ),
        (BadInput("pick", "toad", "a rig's name"), "That rig “toad” cannot be; it must be a rig's name."),
        (
            BadInput("count_s", 200.0, "from 0 to 120 s"),
            "The count 200 s cannot be; it must be from 0 to 120 s.",
        ),
        (BadInput("missed_ft", None, "given"), "How far it missed is empty; it must be given."),
        (
            BadInput("odd_thing[3].inner_part", "x" * 50, "less"),
            f"Inner part “{'x' * 40}” cannot be; it must be less.",
        ),
        (BadInput("bottom", "mud", "another one: rock"), "Rock."),
        (BadInput("x", 1, "left out: there is no such field"), "There is no such field."),
    ],
)
def test_one_sentence_without_a_name_of_the_programs(refusal: BadInput, sentence: str) -> None:
    assert in_words(refusal, VALUES) == sentence


def test_the_control_it_stands_beside() -> None:
    found = control_at(BadInput(TEMP, 120.0, "less"), VALUES)
    assert found is not None
    assert found.name == "water_temp_f"
    assert control_at(BadInput("nowhere", 1, "less"), VALUES) is None
    mat = BadInput("conditions.cover.thickness_in", 90.0, "less")
    assert control_at(mat, VALUES) is None  # no mat here, so no such control
    shown = control_at(mat, values_from({"cover": "matted-grass"}))
    assert shown is not None
    assert shown.name == "thickness_in"
