"""Units, figures as said and numbers as typed, in either system."""

import doctest

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathdrop import measures, units
from heathdrop.conditions.scenario import ROWS
from heathdrop.measures import METRIC, TURNS, in_metric, meant, said_in
from heathdrop.reading import read, span_of


def test_what_the_docstrings_show() -> None:
    assert doctest.testmod(units) == (0, 5)


def test_factors_by_definition() -> None:
    assert units.metres(1.0) == 0.3048
    assert units.feet(0.3048) == 1.0
    assert units.kilograms(16.0) == pytest.approx(0.45359237, rel=1e-12)
    assert pytest.approx(units.M_PER_FT) == units.M_PER_IN * 12
    assert pytest.approx(5280 * 0.3048 / 3600) == units.M_S_PER_MPH
    assert pytest.approx(16 * units.KG_PER_OZ, rel=1e-12) == units.KG_PER_LB
    assert (
        pytest.approx(1000 * units.KG_PER_OZ),
        pytest.approx(100 * units.M_PER_IN),
    ) == (units.G_PER_OZ, units.CM_PER_IN)
    assert units.celsius(212.0) == pytest.approx(100.0)
    assert units.celsius(32.0) == 0.0
    assert units.square_metres(1.0) == 1e-4


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
        ("4 lb 2 oz, 5 lb", "1.9 kg, 2.3 kg"),
        ("runs 3 in deeper", "runs 7.6 cm deeper"),
        ("15 lb fluorocarbon", "6.8 kg fluorocarbon"),
        ("10 to 12 lb fluorocarbon", "4.5 to 5.4 kg fluorocarbon"),
        ("12 mph of wind", "5.4 m/s of wind"),
        ("8 turns in 10 s, 3 in the box, 2 in 5", "8 turns in 10 s, 3 in the box, 2 in 5"),
        ("cut an eighth of an inch past the bend", "cut 3 mm past the bend"),
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


@pytest.mark.parametrize(
    ("text", "unit", "value"),
    [
        ("15 C", "°F", 59.0),
        ("15°C", "°F", 59.0),
        ("59 f", "°F", 59.0),
        ("1.5 m", "ft", 4.92126),
        ("6 ft", "ft", 6.0),
        ("6'", "ft", 6.0),
        ("18 in", "ft", 1.5),
        ("10 cm", "in", 3.93701),
        ('4"', "in", 4.0),
        ("10 g", "oz", 0.352740),
        ("3/8 oz.", "oz", 0.375),
        ("½oz", "oz", 0.5),
        ("0.5 oz", "g", 14.17476),
        ("7 kg", "lb", 15.43236),
        ("0.3 mm", "mm", 0.3),
        ("0.6 m/s", "ft/s", 1.96850),
        ("20 km/h", "mph", 12.42742),
        ("10 kn", "mph", 11.50779),
        ("74 cm/turn", "in/turn", 29.13386),
        ("1,5 m", "ft", 4.92126),
    ],
)
def test_a_typed_unit_is_turned_into_the_fields(text: str, unit: str, value: float) -> None:
    assert read(text, unit) == pytest.approx(value, rel=1e-5)


@pytest.mark.parametrize(
    ("text", "unit"),
    [
        ("6 ft", "°F"),
        ("10 C", "ft"),
        ("3 stone", "oz"),
        ("2 mm", "g"),
        ("five", "ft"),
        ("", "ft"),
        ("3 s", ""),
        *((text, "oz") for text in ("1_0", "1 2 3 4", "3/0", "1e5", "nan", "inf", "٣", "1 1 3/8", "9" * 30)),
    ],
)
def test_a_unit_of_another_kind_and_no_number_are_refused(text: str, unit: str) -> None:
    with pytest.raises(ValueError):
        read(text, unit)


@given(
    st.floats(0.01, 900.0),
    st.sampled_from([("ft", "m"), ("in", "cm"), ("oz", "g"), ("lb", "kg"), ("°F", "C")]),
)
def test_there_and_back(value: float, pair: tuple[str, str]) -> None:
    there = read(f"{value:.6f} {pair[1]}", pair[0])
    assert read(f"{there:.9f} {pair[0]}", pair[1]) == pytest.approx(value, abs=2e-5)


@pytest.mark.parametrize(
    ("text", "ends"),
    [
        ("about 6, give or take 2", (4.0, 8.0)),
        ("6 give or take 2", (4.0, 8.0)),
        ("about 6 ± 1", (5.0, 7.0)),
        ("6+-1", (5.0, 7.0)),
        ("about 6", (4.0, 8.0)),
        ("~1", (0.0, 3.0)),
        ("10 to 4", (4.0, 10.0)),
        ("4-10", (4.0, 10.0)),
        ("about 2 m, give or take 0.5 m", (pytest.approx(4.9213, abs=1e-4), pytest.approx(8.2021, abs=1e-4))),
        ("2 – 3 m", (pytest.approx(6.5617, abs=1e-4), pytest.approx(9.8425, abs=1e-4))),
        ("?", None),
        ("don't know", None),
    ],
)
def test_a_depth_that_is_not_known_exactly(text: str, ends: object) -> None:
    assert span_of(text) == ends


@pytest.mark.parametrize("text", ["deep", "about deep", "4 to deep", "6 ± much", "", "4 to 5 lb"])
def test_what_is_no_depth(text: str) -> None:
    with pytest.raises(ValueError, match=r"not a|another unit"):
        span_of(text)
