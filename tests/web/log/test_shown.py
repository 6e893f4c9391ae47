"""The log's rows, days and stops."""

from __future__ import annotations

from heathdrop.answers.last_time import thrown_said
from heathdrop.units import count_said
from heathdrop.web.log.shown import day_rows, stops_of_day
from tests.answers.logged import WATER, cast


def test_a_day_s_casts_stand_along_its_hours() -> None:
    made = [cast(0), cast(30, "fish"), cast(60)]
    (row,) = day_rows(made)
    assert row.marks == ((0.0, False), (0.5, True), (1.0, False))
    assert (row.casts, row.bites, row.stops) == (3, 1, "Bay")


def test_conditions_that_make_no_water_stop_no_page() -> None:
    """A bottom at nothing, a fish depth in words: what is known is drawn, what is not is left out."""
    odd = cast(0, "fish", conditions={**WATER, "bottom_depth_ft": 0, "fish_depth_ft": "deep", "light": ["x"]})
    (stop,) = stops_of_day([odd, cast(1)])
    assert stop.drawing is not None
    assert len(stop.drawing.dots) == 1
    assert stop.drawing.fish is None
    assert " to " not in stop.drawing.said
    assert stop.drawing.said.startswith("1 cast at ")
    assert "58 °F" in stop.water
    (bare,) = stops_of_day([cast(0, conditions=None, trailer="toad")])
    assert (bare.drawing, bare.water, bare.rigs[0].rig) == (None, "", "3/8 oz swim jig")


def test_a_stop_says_its_hours_its_fish_and_its_notes() -> None:
    made = [cast(0, note="mist"), cast(45, "fish", fish={"length_in": 15.5}), cast(61, "bump", stop="Point")]
    bay, point = stops_of_day(made)
    assert (bay.name, bay.hours, bay.bites, bay.notes) == ("Bay", "06:00 to 06:45", 1, ("06:00 mist",))
    count = count_said(made[1].countdown_s)
    assert bay.fish == (f"06:45 15.5 in: {thrown_said(made[1])}, count {count}",)
    (heavy,) = stops_of_day([cast(0, "fish", fish={"weight_lb": 3.2}, pace_ft_s=0.0)])
    assert heavy.fish == (f"06:00 not measured, 3.2 lb: {thrown_said(made[1])}",)
    assert (point.hours, point.bites, point.fish) == ("07:01", 1, ())
    assert stops_of_day([cast(0, stop="")])[0].name == "No stop named"
