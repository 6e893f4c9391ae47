"""Kernel records mean what they say: the order of fields is the order of columns."""

from __future__ import annotations

import pytest

from heathdrop.physics.kernels.records import (
    Leg,
    Limits,
    LineParams,
    LureParams,
    Tuned,
    leg_at,
    limits_at,
    line_at,
    lure_at,
    rows_of,
)


@pytest.mark.parametrize(
    ("kind", "read"), [(LureParams, lure_at), (LineParams, line_at), (Leg, leg_at), (Limits, limits_at)]
)
def test_a_record_comes_back_from_its_row(kind: type, read: object) -> None:
    """The order of the fields is the order of the columns, on both sides."""
    records = [kind(*(10.0 * row + k for k in range(len(kind._fields)))) for row in range(3)]  # type: ignore[attr-defined]
    assert read(rows_of(records), 1) == records[1]  # type: ignore[operator]


def test_the_search_writes_a_setting_in_the_order_of_its_fields() -> None:
    assert Tuned._fields == (
        "pace_m_s",
        "start_depth_m",
        "soft_share",
        "in_band",
        "mean_m",
        "shallowest_m",
        "deepest_m",
        "in_cover",
        "comfort",
        "near_band",
        "useful_s",
    )
