"""Pieces of tackle: checked, kept, edited, copied, deleted and back; and the box they make."""

from __future__ import annotations

from typing import Any

import pytest
from sqlalchemy.orm import Session

from heathdrop.errors import BadInput
from heathdrop.store import items
from heathdrop.store.files import csvfile
from tests.golden_file import holds_to
from tests.said import all_said

HEAD: dict[str, Any] = {"family": "swim-jig", "weight_oz": 0.375, "colour": "black", "quantity": 4}


CRAW: dict[str, Any] = {
    "shape": "craw",
    "length_in": 4.0,
    "mass_g": 9.8,
    "width_in": 0.9,
}


def test_each_kind_or_its_refusal() -> None:
    given = [
        ("head", HEAD),
        ("trailer", CRAW),
        ("line", {"material": "braid", "test_lb": 30}),
        ("reel", {"inches_per_turn": 29}),
        ("rod", {"length_ft": 7.5}),
        ("spoon", {}),
        ("head", {**HEAD, "family": "toad"}),
        ("head", {**HEAD, "weight_oz": 5}),
        ("head", {**HEAD, "mass_g": 0.1}),
        ("head", {**HEAD, "skirt": "kilt"}),
        ("head", {**HEAD, "length_in": 3}),
        ("head", {**HEAD, "colour": "x" * 81}),
        ("head", {**HEAD, "quantity": 1000}),
        ("head", {"weight_oz": 1}),
        ("trailer", {**CRAW, "shape": "none"}),
        ("trailer", {**CRAW, "length_in": 11}),
        ("trailer", {**CRAW, "width_in": 5}),
        ("trailer", {**CRAW, "plastic": "wood"}),
        ("trailer", {**CRAW, "appendages": 13}),
        ("line", {"material": "hemp", "test_lb": 30}),
        ("line", {"material": "braid", "test_lb": 1}),
        ("reel", {"inches_per_turn": 9}),
        ("rod", {"length_ft": 3}),
    ]
    holds_to("store.items", all_said(lambda g: items.checked(g[0], g[1], "row 3, "), given))


def test_kept_edited_copied_and_deleted(session: Session) -> None:
    row = items.add(session, "head", HEAD, "b" * 36)
    assert (row.uid, row.kind, row.version) == ("b" * 36, "head", 1)
    copy = items.duplicate(session, row.id)
    assert copy is not None
    assert (items.body_of(copy), copy.uid != row.uid) == (items.body_of(row), True)
    edited = items.edit(session, copy.id, {"colour": "", "weight_oz": 0.5})
    assert edited is copy
    assert items.body_of(copy) == {"name": "", "colour": "", "quantity": 4, "family": "swim-jig"} | {
        "weight_oz": 0.5,
        "material": "lead",
    }
    with pytest.raises(BadInput, match="weight_oz was 9"):
        items.edit(session, row.id, {"weight_oz": 9})
    assert items.delete(session, row.id) is row
    assert (items.duplicate(session, row.id), items.edit(session, row.id, {})) == (None, None)
    assert [i.id for i in items.listed(session)] == [copy.id]
    session.flush()
    assert [(k.id, k.kind) for k in items.kept(session)] == [(copy.id, "head")]
    assert items.undelete(session, row.id) is row
    assert items.light(row).body == items.checked("head", HEAD)


def test_kinds_of_tackle_and_the_words_for_their_limits() -> None:
    for kind in items.KINDS.values():
        for name in kind.model_fields:
            assert name in items.ALLOWED or name in ("name", "colour"), name
    assert set(csvfile.TACKLE_COLUMNS) == {"kind", "id"} | {
        f for k in items.KINDS.values() for f in k.model_fields
    }
