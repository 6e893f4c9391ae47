"""Sentences to figures: published forms, units, garbage and figures that cannot be."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from heathdrop.feeds.nmea import LONGEST, checksummed, figures_of


@pytest.mark.parametrize(
    ("body", "name", "value"),
    [
        ("SDDPT,4.2,0.3", "depth_ft", 14.7638),
        ("SDDPT,4.2,-0.5", "depth_ft", 13.7795),
        ("SDDPT,4.2,", "depth_ft", 13.7795),
        ("SDDBT,13.8,f,4.2,M,2.3,F", "depth_ft", 13.7795),
        ("YXMTW,15.0,C", "water_temp_f", 59.0),
        ("WIMWV,214.0,T,10.0,N,A", "wind_mph", 11.5078),
        ("WIMWV,214.0,T,5.0,M,A", "wind_mph", 11.1847),
        ("WIMWV,214.0,T,36.0,K,A", "wind_mph", 22.3694),
        ("WIMDA,29.9,I,1.0125,B,12.1,C,,,,,,,,,,,,,,", "pressure_hpa", 1012.5),
        ("GPRMC,061200.00,A,5006.0720,N,00400.1860,W,5.0,320.0,250927,,,A", "speed_mph", 5.7539),
    ],
)
def test_each_sentence_gives_its_figure(body: str, name: str, value: float) -> None:
    assert figures_of(checksummed(body))[name] == pytest.approx(value, rel=1e-4)


def test_positions_have_their_signs() -> None:
    found = figures_of(checksummed("GPGGA,061200.00,5006.0720,N,00400.1860,W,1,08,0.9,54.0,M,46.9,M,,"))
    assert found["position"] == {"lat": 50.1012, "lon": -4.0031}


@pytest.mark.parametrize(
    "line",
    [
        "",
        "hello",
        "$SDDPT,4.2,0.3*00",
        "$SDDPT,4.2,0.3",
        checksummed("SDDPT,,"),
        checksummed("SDDPT,-3,0"),
        checksummed("SDDPT,9999,0"),
        checksummed("SDDPT,nan,0"),
        checksummed("YXMTW,15.0,F"),
        checksummed("YXMTW,400,C"),
        checksummed("WIMWV,214.0,T,10.0,N,V"),
        checksummed("WIMWV,214.0,R,10.0,N,A"),
        checksummed("WIMWV,214.0,T,10.0,X,A"),
        checksummed("GPRMC,061200.00,V,,,,,,,250927,,,N"),
        checksummed("GPGGA,061200.00,,,,,0,00,,,,,,,"),
        checksummed("XXYYY,1,2,3"),
        "$" + "A" * LONGEST,
    ],
)
def test_what_is_no_figure_gives_none(line: str) -> None:
    assert figures_of(line) == {}


@given(st.text(max_size=120))
def test_garbage_never_stops_it(text: str) -> None:
    assert isinstance(figures_of(text), dict)
    assert isinstance(figures_of("$" + text), dict)


@given(
    st.sampled_from(["SDDPT,4.2,0.3", "YXMTW,15.0,C", "WIMWV,2.0,R,5.0,M,A"]),
    st.integers(0, 30),
    st.integers(1, 127),
)
def test_one_changed_letter_is_noticed(body: str, place: int, by: int) -> None:
    line = checksummed(body)
    k = 1 + place % (len(body) - 1)
    changed = line[:k] + chr(ord(line[k]) ^ by) + line[k + 1 :]
    assert figures_of(changed) == {}
