"""A rig as it is given: what may be left out, and what is no rig."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from heathdrop.conditions.given import RIG_FIELDS, RigGiven


def test_what_is_left_out_is_as_usual_and_nothing_else_is_taken() -> None:
    plain = RigGiven(family="swim-jig", head_oz=0.5, trailer="craw").model_dump()
    assert tuple(plain) == RIG_FIELDS
    assert {k for k, v in plain.items() if v is not None} == {"family", "head_oz", "trailer", "head_material"}
    for wrong in ({"head_oz": "heavy"}, {"weight": 1}, {"fused": "perhaps"}):
        with pytest.raises(ValidationError):
            RigGiven.model_validate({**plain, **wrong})
