"""Plans as kept: changed, named anew, deleted and back."""

from __future__ import annotations

import pytest
from sqlalchemy.orm import Session

from heathdrop.errors import BadInput
from heathdrop.store import plans

STOP = {"name": "Bay", "conditions": {"water_temp_f": 58, "bottom_depth_ft": 9, "fish_depth_ft": 6}}


def test_a_plan_is_kept_and_changed(session: Session) -> None:
    row = plans.keep(session, " A  day", {"stops": [STOP], "rods": 2}, "d" * 36)
    assert (row.name, row.uid, row.version) == ("A day", "d" * 36, 1)
    assert plans.request_of(row).rods == 2
    assert plans.change(session, row.id, {"stops": [STOP], "rods": 3}) is row
    assert (row.name, plans.body_of(row)["rods"]) == ("A day", 3)
    plans.change(session, row.id, {"stops": []}, "Another")
    assert (row.name, plans.fetch(session, row.id)) == ("Another", row)
    with pytest.raises(BadInput):
        plans.change(session, row.id, {}, "")
    assert plans.delete(session, row.id) is row
    assert (plans.fetch(session, row.id), plans.change(session, row.id, {})) == (None, None)
    assert plans.undelete(session, row.id) is row
    assert [p.id for p in plans.listed(session)] == [row.id]
