"""Refusals in the screen's words, to the letter."""

from __future__ import annotations

import pytest

from heathdrop.errors import BadInput
from heathdrop.web.shell.fields import control_at, values_from
from heathdrop.web.shell.refusal import in_words, plain_words

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
        (
            BadInput("conditions.clarity_ft", "murk", "from 0.1 to 60 ft"),
            "Visibility “murk” cannot be; it must be from 0.1 to 60 ft or one of: muddy, dirty, stained, "
            "clear, very clear.",
        ),
        (
            BadInput(FISH, "deep", "from 0 to 60 ft"),
            "Fish at “deep” cannot be; it must be from 0 to 60 ft, a range (4 to 10), ? or bottom.",
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
    found = control_at(TEMP, VALUES)
    assert found is not None
    assert found.name == "water_temp_f"
    assert control_at("nowhere", VALUES) is None
    mat = "conditions.cover.thickness_in"
    high = control_at(f"{FISH}.high", VALUES)  # an end of a range is its control's
    assert high is not None
    assert high.name == "fish_depth_ft"
    assert control_at(mat, VALUES) is None  # no mat here, so no such control
    shown = control_at(mat, values_from({"cover": "matted-grass"}))
    assert shown is not None
    assert shown.name == "thickness_in"


@pytest.mark.parametrize(
    ("refusal", "sentence"),
    [
        (BadInput("rods", "0", "from 1 to 12"), "Rods to tie on “0” cannot be; it must be from 1 to 12."),
        (
            BadInput("stops[1].conditions.water_temp_f", 200.0, "from 32 to 100 °F"),
            "Stop 2: Water 200 °F cannot be; it must be from 32 to 100 °F.",
        ),
        (
            BadInput("rods[0].line.test_lb", 3.0, "from 4 to 25 lb for nylon"),
            "Test 3 lb cannot be; it must be from 4 to 25 lb for nylon.",
        ),
        (BadInput("the line", "swim jig", "a weight too"), "“swim jig” needs a weight too."),
        (
            BadInput("the file", "not a whole zip", "an export made by Heathdrop"),
            "The file (not a whole zip) will not do; it must be an export made by Heathdrop.",
        ),
        (
            BadInput("plans.json, plans[0].rods", 99, "from 1 to 12"),
            "plans.json, plans[0]: Rods to tie on 99 cannot be; it must be from 1 to 12.",
        ),
    ],
)
def test_pages_without_the_sheets_controls(refusal: BadInput, sentence: str) -> None:
    assert plain_words(refusal) == sentence
