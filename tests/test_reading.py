"""One reader for every number that people type."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st

from heathdrop.reading import ENDINGS, SAME, number_of, read, span_of, unit_of


@pytest.mark.parametrize(
    ("text", "value"),
    [
        *(("3/8", 0.375), ("1 1/2", 1.5), ("1-1/2", 1.5), ("½", 0.5), ("1½", 1.5), ("1 ⅜", 1.375)),
        *((".5", 0.5), ("5,5", 5.5), ("5.", 5.0), ("-3", -3.0), ("+2.5", 2.5), ("1⁄4", 0.25), (" 7 ", 7.0)),
    ],
)
def test_numbers_as_written(text: str, value: float) -> None:
    assert number_of(text) == value
    assert read(text, "ft") == value


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


def test_fields_say_their_unit_by_their_name() -> None:
    assert [
        unit_of(n) for n in ("water_temp_f", "conditions.fish_depth_ft", "pace_ft_s", "inches_per_turn")
    ] == [
        "°f",
        "ft",
        "ft/s",
        "in/turn",
    ]
    assert (unit_of("wind_mph"), unit_of("weight_oz"), unit_of("name")) == ("mph", "oz", "")
    assert not set(SAME) & set(ENDINGS.values())


@given(
    st.floats(0.01, 900.0),
    st.sampled_from([("ft", "m"), ("in", "cm"), ("oz", "g"), ("lb", "kg"), ("°F", "C")]),
)
def test_there_and_back(value: float, pair: tuple[str, str]) -> None:
    there = read(f"{value:.6f} {pair[1]}", pair[0])
    assert read(f"{there:.9f} {pair[0]}", pair[1]) == pytest.approx(value, abs=2e-5)


def test_the_sheet_takes_either_system(client: TestClient) -> None:
    """15 °C and 59 °F, 1.8288 m and 6 ft: the same answer; another kind of unit is refused."""
    asked = {"water_temp_f": "59", "bottom_depth_ft": "9", "fish_depth_ft": "6", "view": "size"}
    metric = asked | {"water_temp_f": "15 C", "fish_depth_ft": "1,8288 m"}
    pages = [client.get("/", params=p).text for p in (asked, metric)]
    strips = [p[p.index('class="figures"') : p.index("</dl>")] for p in pages]
    assert strips[0] == strips[1]
    refused = client.get("/", params=asked | {"fish_depth_ft": "6 oz"}).text
    assert "Fish at “6 oz” cannot be; it must be from 0 to 60 ft, a range (4 to 10), ? or bottom." in refused


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
