"""Exact factors, there and back, and ounces as anglers write them."""

from __future__ import annotations

import doctest

import pytest

from heathdrop import units


def test_what_the_docstrings_show() -> None:
    assert doctest.testmod(units) == (0, 4)


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
    ("oz", "written"),
    [
        (1 / 32, "1/32"),
        (3 / 16, "3/16"),
        (0.375, "3/8"),
        (0.4375, "7/16"),
        (1.0, "1"),
        (1.125, "1 1/8"),
        (2.0, "2"),
        (0.3745, "3/8"),
        (0.37, "0.37"),
        (0.01, "0.01"),
        (0.0, "0"),
    ],
)
def test_ounces_as_written(oz: float, written: str) -> None:
    assert units.ounces_as_written(oz) == written


@pytest.mark.parametrize(
    ("ft", "said"), [(6.0, "6"), (5.96, "6"), (5.94, "5.9"), (0.3333, "0.3"), (0.04, "0")]
)
def test_feet_to_a_tenth(ft: float, said: str) -> None:
    assert units.feet_said(ft) == said


@pytest.mark.parametrize(("inches", "said"), [(2.75, "2.75"), (4.0, "4"), (3.937, "3.94"), (6.0001, "6")])
def test_lengths_as_sold_or_to_a_hundredth(inches: float, said: str) -> None:
    assert units.inches_said(inches) == said


@pytest.mark.parametrize(
    ("s", "said"),
    [(2.48, "2.5"), (7.0, "7"), (0.94, "at once"), (1.0, "1"), (0.0, "at once"), (6.96, "7"), (10.04, "10")],
)
def test_counts_to_a_tenth(s: float, said: str) -> None:
    assert units.count_said(s) == said


@pytest.mark.parametrize(("s", "said"), [(2.48, "count 2.5"), (1.0, "count 1"), (0.99, "reel at once")])
def test_what_to_do_after_the_splash(s: float, said: str) -> None:
    assert units.counted(s) == said


@pytest.mark.parametrize(("per_s", "said"), [(0.956, "19"), (0.96, "19"), (0.97, "19.5"), (0.5, "10")])
def test_turns_to_the_half(per_s: float, said: str) -> None:
    assert units.turns_said(per_s) == said
