"""The page's controls and the way between the address and a scenario, there and back."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathdrop.conditions.quantity import value_at
from heathdrop.conditions.request import SizeRequest
from heathdrop.errors import BadInput
from heathdrop.web.shell.fields import (
    ANSWERS,
    BY_NAME,
    CONTROLS,
    DEFAULTS,
    body_from,
    given_in,
    number_or_none,
    profile_in,
    profile_text,
    values_from,
    values_of,
)


def test_every_control_has_its_row_and_its_default() -> None:
    assert len(BY_NAME) == len(CONTROLS)
    assert [c.name for c in CONTROLS if c.name in ANSWERS] == sorted(ANSWERS, key=list(BY_NAME).index)
    for control in CONTROLS:
        assert DEFAULTS[control.name] == control.default
        if control.options:
            assert control.default in [word for word, _ in control.options]
            assert control.unit == ""
    assert SizeRequest.model_validate(body_from(values_from({}))).scenario()


def test_what_was_answered() -> None:
    assert given_in(values_from({})) == frozenset()
    assert given_in(values_from({"water_temp_f": DEFAULTS["water_temp_f"]})) == {"water_temp_f"}
    assert given_in(values_from({"given": "cover", "water_temp_f": DEFAULTS["water_temp_f"]})) == {"cover"}
    assert given_in(values_from({"given": "", "wind_mph": "19"})) == {"wind_mph"}


def test_words_stand_for_numbers_where_anglers_use_them() -> None:
    said = {
        "clarity_ft": "Muddy",
        "wind_mph": "10 kts",
        "bottom_depth_ft": "12' 6\"",
        "fish_depth_ft": "bottom",
    }
    conditions = body_from(values_from(said))["conditions"]
    assert conditions["clarity_ft"] == 0.5
    assert conditions["wind_mph"] == pytest.approx(11.5078, abs=1e-4)
    assert conditions["bottom_depth_ft"] == conditions["fish_depth_ft"] == 12.5
    either = body_from(values_from({"fish_depth_ft": "5 or 6"}))["conditions"]
    assert either["fish_depth_ft"] == {"low": 5.0, "high": 6.0}
    assert body_from(values_from({"wind_mph": "breezy"}))["conditions"]["wind_mph"] == 10.0


def test_metric_numbers_are_turned_and_what_has_its_unit_is_not() -> None:
    values = values_from({"units": "metric", "fish_depth_ft": "2", "water_temp_f": "15", "cast_ft": "70 ft"})
    assert float(values["fish_depth_ft"]) == pytest.approx(6.56168, abs=1e-4)
    assert float(values["water_temp_f"]) == pytest.approx(59.0)
    assert values["cast_ft"] == "70 ft"
    span = values_from({"units": "metric", "fish_depth_ft": "1 to 2"})["fish_depth_ft"]
    assert span == "3.28084 to 6.56168"
    assert values_from({"units": "metric", "fish_depth_ft": "deep"})["fish_depth_ft"] == "deep"


def test_what_is_compared_is_put_in_and_taken_off() -> None:
    """Two at most, the newest stay; older addresses name them apart."""
    assert values_from({"vs1": "line:nylon:20", "vs2": "a"})["compare"] == "line:nylon:20,a"
    assert values_from({"compare": "a,b", "touched": "c"})["compare"] == "b,c"
    assert values_from({"compare": "a,b", "touched": "a"})["compare"] == "b"
    assert "touched" not in values_from({"touched": "a"})


def test_a_driven_bottom_is_text_and_back() -> None:
    profile = [[0.0, 9.0], [40.5, 14.0]]
    assert profile_text(profile) == "0:9 40.5:14"
    assert profile_in("0:9 40.5:14") == profile
    assert profile_in("0:9 deep") == "0:9 deep"
    values = values_from({"driven": "0:9 40.5:14"})
    assert body_from(values)["conditions"]["bottom_ft"] == profile
    assert values_of(body_from(values))["driven"] == "0:9 40.5:14"


def test_numbers_of_the_view() -> None:
    assert number_or_none("count_s", "", 0, 120, "s") is None
    assert number_or_none("lift_in", "10 cm", 0, 60, "in") == pytest.approx(3.937, abs=1e-3)
    for text in ("soon", "121", "-1"):
        with pytest.raises(BadInput, match=rf"count_s was “{text}”; it must be from 0 to 120 s"):
            number_or_none("count_s", text, 0, 120, "s")


@given(st.sampled_from([c for c in CONTROLS if c.options and c.name not in ("leader",)]), st.data())
def test_every_choice_goes_there_and_back(control: Any, data: st.DataObject) -> None:
    word = data.draw(st.sampled_from([w for w, _ in control.options]))
    state = {control.name: word} | ({"cover": control.cover[0]} if control.cover else {})
    state |= {control.needs: BY_NAME[control.needs].options[1][0]} if control.needs else {}
    values = values_from(state)
    body = body_from(values)
    assert values_of(body)[control.name] == word
    if control.flag:
        assert bool(value_at(body, control.path)) is (word == "yes" and control.shown(values))
    elif word and control.shown(values):
        assert value_at(body, control.path) in (word, float(word) if word.isdigit() else word)


@pytest.mark.parametrize(
    ("name", "typed", "meant"),
    [
        ("want_depth", "4 to 6", (4.0, 6.0)),
        ("want_depth", "5", (4.0, 6.0)),
        ("want_depth", "0.5", (0.0, 1.5)),
        ("want_fall", "1-1.5", (1.0, 1.5)),
        ("want_fall", "2", (1.8, 2.2)),
        ("want_fall", "slow", (1.0, 1.7)),
        ("want_fall", "Quick", (2.4, 3.6)),
        ("want_pace", "1.5 to 1", (1.0, 1.5)),
        ("want_passes", "90", 0.9),
        ("want_depth", "deep", "deep"),
    ],
)
def test_a_target_as_it_is_typed(name: str, typed: str, meant: object) -> None:
    """A range, or about one figure; it goes into the body and comes back as it was saved."""
    body = body_from(values_from({name: typed}))
    found = body["targets"]
    assert list(found) == [BY_NAME[name].path.split(".")[1]]
    value = next(iter(found.values()))
    assert value == (meant if isinstance(meant, str) else pytest.approx(meant))
    if not isinstance(meant, str):
        again = body_from(values_of(body))["targets"]
        assert next(iter(again.values())) == pytest.approx(meant)
    assert "targets" not in body_from(values_from({"want_fall": "as they like"}))
