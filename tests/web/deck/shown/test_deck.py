"""What the deck's script is given: conditions that can be changed, rods as tied, nothing that breaks out."""

from __future__ import annotations

import json
from typing import Any

import pytest

from heathdrop.conditions.made import OUTCOMES
from heathdrop.conditions.trip import TripBody, TripStop
from heathdrop.measures import said_in
from heathdrop.web.deck.shown.deck import ANSWERS, conditions_with, deck_data, water_rows
from heathdrop.web.shell.fields import body_from

STOP = TripStop(
    name="Bay",
    conditions={
        "water_temp_f": 58,
        "bottom_depth_ft": 9,
        "fish_depth_ft": 9,
        "cover": {"kind": "submerged-grass", "top_depth_ft": 7},
    },
    by={"water_temp_f": "sounder"},
)


def test_every_outcome_has_its_button_in_words() -> None:
    assert [id_ for id_, _ in ANSWERS] == list(OUTCOMES)
    assert dict(ANSWERS)["ticked-top"] == "Ticked top"
    assert dict(ANSWERS)["fouled"] == "Fouled"


def test_conditions_as_they_can_be_changed() -> None:
    rows = {row.name: row for row in water_rows(STOP)}
    assert list(rows)[:4] == ["fish_depth_ft", "bottom_depth_ft", "top_depth_ft", "water_temp_f"]
    temp = rows["water_temp_f"]
    assert (temp.value, temp.unit, temp.step, temp.by, temp.options) == ("58", "°F", "1", "sounder", ())
    light = rows["light"]
    assert (light.unit, light.step) == ("", "")
    assert light.value in [word for word, _ in light.options]
    with said_in("metric"):
        metric = {row.name: row for row in water_rows(STOP)}
    assert (metric["bottom_depth_ft"].unit, metric["water_temp_f"].unit) == ("m", "°C")
    assert float(metric["bottom_depth_ft"].value) == pytest.approx(2.74, abs=0.05)
    open_water = STOP.model_copy(update={"conditions": {**STOP.conditions, "cover": {"kind": "open"}}})
    assert "top_depth_ft" not in {row.name for row in water_rows(open_water)}


@pytest.mark.parametrize(
    ("change", "found"),
    [
        (("bottom_depth_ft", "6"), {"bottom_depth_ft": 6.0, "fish_depth_ft": 6.0, "top_depth_ft": 6.0}),
        (("bottom_depth_ft", "12"), {"bottom_depth_ft": 12.0, "fish_depth_ft": 12.0, "top_depth_ft": 7.0}),
        (("fish_depth_ft", "4"), {"bottom_depth_ft": 9.0, "fish_depth_ft": 4.0, "top_depth_ft": 7.0}),
        (("wind_mph", "20"), {"bottom_depth_ft": 9.0, "fish_depth_ft": 9.0, "wind_mph": 20.0}),
    ],
)
def test_what_is_on_the_bottom_stays_on_it(change: tuple[str, str], found: dict[str, float]) -> None:
    values = conditions_with(STOP, *change, units="imperial")
    conditions: dict[str, Any] = body_from(values)["conditions"]
    flat = {**conditions, **conditions["cover"]}
    assert {k: flat[k] for k in found} == found


def test_a_metric_figure_is_turned() -> None:
    values = conditions_with(STOP, "fish_depth_ft", "2", "metric")
    assert float(values["fish_depth_ft"]) == pytest.approx(6.56, abs=0.01)


def test_nothing_breaks_out_of_its_element() -> None:
    body = TripBody(date="2027-04-03", stops=[STOP.model_copy(update={"name": "</script>"})])
    text = str(deck_data("</script><b>", body, [{"name": "</script>"}], {}, [], False))
    assert "<" not in text
    found = json.loads(text)
    assert found["trip"] == "</script><b>"
    assert found["units"] == "imperial"
    assert found["instruments"] is False
    assert [a[0] for a in found["answers"]] == list(OUTCOMES)
