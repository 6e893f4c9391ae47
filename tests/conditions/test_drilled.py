"""An answer that was kept: its bounds."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from heathdrop.conditions.drilled import Drilled

ROW = {
    "id": "8d0b2b52-31f3-4c0e-8a8e-0d7f3f9f1a01",
    "question": "eye.nylon.3",
    "time": "2026-11-01T19:00:00Z",
}


def test_an_answer_and_what_it_may_not_be() -> None:
    done = Drilled.model_validate({**ROW, "mark": 0.5, "off": -1.5})
    assert (done.mark, done.off, done.asked_s) == (0.5, -1.5, None)
    for wrong in (
        {"mark": 1.2},
        {"mark": 0.5, "asked_s": 40},
        {"mark": 0.5, "more": 1},
        {"mark": 0.5, "tapped_s": 0},
    ):
        with pytest.raises(ValidationError):
            Drilled.model_validate({**ROW, **wrong})
