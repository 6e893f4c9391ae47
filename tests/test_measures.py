"""Anglers' units and metric ones: sentences, fields, axes, and what a typed number means."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathdrop import measures
from heathdrop.conditions.scenario import ROWS
from heathdrop.measures import METRIC, TURNS, in_metric, marks, meant, said_in


@pytest.mark.parametrize(
    ("said", "metric"),
    [
        ("3/8 oz swim jig", "10.6 g swim jig"),
        ("1 1/8 oz head", "31.9 g head"),
        ("58 °F water starts at 2.0", "14.4 °C water starts at 2.0"),
        ("runs at 6.0 ft, 5.1 to 6.9 ft", "runs at 1.83 m, 1.55 to 2.10 m"),
        ("target 4–6 ft", "target 1.2–1.8 m"),
        ("an 80 ft cast", "a 24 m cast"),
        ("then 2.1 ft a second, 9 turns in 10 s", "then 0.64 m/s, 9 turns in 10 s"),
        ("Falls 2.1 ft/s on slack line", "Falls 0.64 m/s on slack line"),
        ("Slow by 8 in/s", "Slow by 20 cm/s"),
        ("on a 29 in reel", "on a 74 cm reel"),
        ("craw 4 in", "craw 10 cm"),
        ("a 3.5 in tail", "an 8.9 cm tail"),
        ("A 60 ft cast, an 85 ft one", "An 18.3 m cast, a 26 m one"),
        ("a 2.7 lb fish, a banana of 3 oz", "a 1.2 kg fish, a banana of 85 g"),
        ("runs 3 in deeper", "runs 7.6 cm deeper"),
        ("15 lb fluorocarbon", "6.8 kg fluorocarbon"),
        ("10 to 12 lb fluorocarbon", "4.5 to 5.4 kg fluorocarbon"),
        ("12 mph of wind", "5.4 m/s of wind"),
        ("8 turns in 10 s, 3 in the box, 2 in 5", "8 turns in 10 s, 3 in the box, 2 in 5"),
        ("a foot in about 2 s", "a metre in about 7 s"),
        ("a foot of sweep in about 3 s", "a metre of sweep in about 10 s"),
        ("fit 96 of 100, count 4.3 s", "fit 96 of 100, count 4.3 s"),
        ("cell-2-3750 oz2", "cell-2-3750 oz2"),
        ("1/2 oz from 4 ft, 5/8 oz from 6 ft", "14.2 g from 1.2 m, 17.7 g from 1.8 m"),
    ],
)
def test_sentences(said: str, metric: str) -> None:
    assert in_metric(said) == metric
    assert in_metric(metric) == metric


def test_nothing_is_turned_unless_it_is_asked() -> None:
    assert measures.sentence("6 ft") == "6 ft"
    with said_in(METRIC):
        assert measures.sentence("6 ft") == "1.8 m"
    assert measures.sentence("6 ft") == "6 ft"


@pytest.mark.parametrize(
    ("text", "unit", "metric"),
    [
        *(("6.0", "ft", "1.83"), ("5.1 to 6.9", "ft", "1.55 to 2.10"), ("9 turns in 10 s", "ft/s", None)),
        *(("2", "s a foot", "7"), ("along the floor", "ft", None), ("96", "%", None)),
    ],
)
def test_figures_apart_from_their_unit(text: str, unit: str, metric: str | None) -> None:
    assert measures.bare(text, unit) == text
    with said_in(METRIC):
        assert measures.bare(text, unit) == (metric or text)


@pytest.mark.parametrize(
    ("unit", "field", "shown", "step", "stepped"),
    [
        *(
            ("°F", "58", "14.4", "1", "0.5"),
            ("ft", "6", "1.83", "0.5", "0.1"),
            ("ft", "80", "24.38", "5", "1"),
        ),
        *(
            ("mph", "8", "3.6", "1", "0.5"),
            ("lb", "15", "6.8", "1", "0.5"),
            ("in/turn", "29", "73.7", "1", "2"),
        ),
        *(
            ("in", "3/8", "1", "1", "2"),
            ("ft", "1.5 m", "1.5 m", "1", "0.2"),
            ("ft", "deep", "deep", "1", "0.2"),
        ),
    ],
)
def test_fields(unit: str, field: str, shown: str, step: str, stepped: str) -> None:
    assert (measures.field_said(unit, field), measures.step_said(unit, step)) == (field, step)
    with said_in(METRIC):
        assert (measures.field_said(unit, field), measures.step_said(unit, step)) == (shown, stepped)


@given(row=st.sampled_from([r for r in ROWS if r.quantity.unit in TURNS]), share=st.floats(0.0, 1.0))
def test_a_figure_shown_in_metric_comes_back_as_it_was(row, share: float) -> None:  # type: ignore[no-untyped-def]
    """Whatever round figure a field holds, showing it in metric and sending it back leaves it alone."""
    q = row.quantity
    low, high = max(q.low, -1e3), min(q.high, 1e3)
    value = round((low + share * (high - low)) / q.step) * q.step
    with said_in(METRIC):
        shown = measures.field_said(q.unit, f"{value:g}")
    assert meant(shown, q.unit, METRIC) == pytest.approx(value, abs=1e-9)


def test_a_typed_number_is_in_the_system_of_its_form() -> None:
    assert meant("6", "ft", "imperial") == 6.0
    assert meant("2", "ft", METRIC) == pytest.approx(6.56168, abs=1e-4)
    assert meant("6 ft", "ft", METRIC) == 6.0
    assert meant("15", "°F", METRIC) == 59.0
    assert meant("3.5", "g", METRIC) == 3.5
    with pytest.raises(ValueError, match="not a number"):
        meant("deep", "ft", METRIC)


def test_axes_have_round_marks_in_the_units_said() -> None:
    steps = (1.0, 2.0, 5.0, 10.0)
    assert marks(9.0, "ft", steps, 10) == [(float(k), str(k)) for k in range(10)]
    assert marks(20.0, "ft", steps, 10)[1] == (2.0, "2")
    with said_in(METRIC):
        found = marks(9.0, "ft", steps, 10)
    assert [said for _, said in found] == ["0", "1", "2"]
    assert found[1][0] == pytest.approx(3.28084, abs=1e-4)
