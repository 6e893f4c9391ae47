"""Cover as it is said, and what stands where nobody said."""

from __future__ import annotations

import pytest
from pydantic import TypeAdapter, ValidationError

from heathdrop.conditions.cover import OPEN, TEXTURES, WITH_TOP, Cover


def test_open_water_is_the_start_of_all() -> None:
    assert Cover() == OPEN
    assert (OPEN.kind, OPEN.top_depth_ft, OPEN.thickness_in, OPEN.texture, OPEN.detail) == (
        "open",
        None,
        None,
        None,
        None,
    )
    assert WITH_TOP == ("submerged-grass",)
    assert len(TEXTURES) == 6


@pytest.mark.parametrize(
    ("density", "stands"), [(None, "moderate"), ("sparse", "sparse"), ("thick", "thick")]
)
def test_it_stands_as_usual_where_nobody_said(density: str | None, stands: str) -> None:
    assert Cover(kind="pads", density=density).stands == stands


def test_a_field_that_is_none_is_refused() -> None:
    with pytest.raises(ValidationError):
        TypeAdapter(Cover).validate_python({"kind": "pads", "depth": 3})
