"""Drops, depths and mats as kept: refused in words, seen by the learning in SI, withdrawn and back."""

from __future__ import annotations

import pytest
from sqlalchemy.orm import Session

from heathdrop.catalog import Catalog
from heathdrop.store import observations
from tests.golden_file import holds_to
from tests.said import all_said

RIG = {"family": "swim-jig", "head_oz": 0.375, "trailer": "craw", "trailer_length_in": 4}
DROP = {**RIG, "depth_ft": 10, "times_s": [5.0, 5.2], "off_reel": True, "diameter_mm": 0.3, "head_g": 11}
DEPTH = {**RIG, "pace_ft_s": 2, "count_s": 3, "depth_ft": 4, "line_material": "braid", "test_lb": 30}
MAT = {**RIG, "family": "punch-rig", "thickness_in": 4, "through": False, "texture": "hyacinth"}


def test_each_kind_or_its_refusal(cat: Catalog) -> None:
    given = [
        ("drop", DROP),
        ("depth", DEPTH),
        ("mat", MAT),
        ("splash", DROP),
        ("drop", {**DROP, "times_s": []}),
        ("drop", {**DROP, "times_s": [0.1, 300]}),
        ("drop", {**DROP, "depth_ft": 0.5}),
        ("drop", {**DROP, "trailer": "toad"}),
        ("drop", {**DROP, "line_material": "hemp"}),
        ("drop", {**DROP, "colour": "red"}),
        ("drop", RIG),
        ("depth", {**DEPTH, "pace_ft_s": 9}),
        ("depth", {**DEPTH, "test_lb": 200}),
        ("depth", {**DEPTH, "head_material": "gold"}),
        ("mat", {**MAT, "texture": "snow"}),
        ("mat", {**MAT, "note": "x" * 201}),
        ("mat", {**MAT, "through": "perhaps"}),
    ]
    holds_to(
        "store.observations", all_said(lambda g: observations.checked(cat, g[0], g[1], "row 3, "), given)
    )


def test_as_the_learning_sees_them(cat: Catalog) -> None:
    drop = observations.DropRecord.model_validate(DROP).seen(cat)
    assert (drop.depth_m, drop.surface_line_m) == pytest.approx((3.048, 1.524))
    assert drop.line.diameter_m == pytest.approx(0.3e-3)
    assert (drop.rig.measured.head_g, drop.times_s, drop.line_material) == (11.0, (5.0, 5.2), "fluorocarbon")
    thrown = observations.DropRecord.model_validate({**DROP, "off_reel": False}).seen(cat)
    assert thrown.surface_line_m == 0.0
    depth = observations.DepthRecord.model_validate(DEPTH).seen(cat)
    seen = (depth.pace_m_s, depth.count_s, depth.cast_m, depth.depth_m, depth.rod_tip_m, depth.temperature_f)
    assert seen == pytest.approx((0.6096, 3.0, 24.384, 1.2192, 0.6096, 60.0))
    assert depth.line.density_kg_m3 == 970
    mat = observations.MatRecord.model_validate(MAT).seen(cat)
    assert (mat.texture, mat.through) == ("hyacinth", False)
    assert (mat.weight_oz, mat.halfway_oz) == pytest.approx((0.28125, 1.2))


def test_kept_withdrawn_and_back(session: Session, cat: Catalog) -> None:
    row = observations.add(session, observations.checked(cat, "drop", DROP), "a" * 36)
    other = observations.add(session, observations.checked(cat, "mat", MAT))
    assert (row.uid, row.kind, row.version) == ("a" * 36, "drop", 1)
    assert len(other.uid) == 36
    assert observations.body_of(row)["times_s"] == [5.0, 5.2]
    assert observations.record_of(row) == observations.DropRecord.model_validate(DROP)
    assert observations.withdraw(session, row.id) is row
    assert [o.id for o in observations.listed(session)] == [other.id]
    assert [o.id for o in observations.listed(session, with_withdrawn=True)] == [row.id, other.id]
    assert observations.withdraw(session, row.id) is None
    assert observations.withdraw(session, row.id, back=True) is row
    assert len(observations.listed(session)) == 2
    assert observations.withdraw(session, 99) is None
