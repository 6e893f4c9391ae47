"""The angler's own: the box and the schools as they are now."""

from __future__ import annotations

from typing import Any

from sqlalchemy.orm import Session

from heathdrop.sizing.box import OwnedTrailer
from heathdrop.store import items, settings
from heathdrop.store.own import own_of, trailer_of

HEAD: dict[str, Any] = {"family": "swim-jig", "weight_oz": 0.375, "colour": "black", "quantity": 4}
CRAW: dict[str, Any] = {
    "shape": "craw",
    "length_in": 4.0,
    "mass_g": 9.8,
    "width_in": 0.9,
}


def test_a_trailer_left_joined_has_a_shape_of_its_own() -> None:
    def owned(**more: Any) -> OwnedTrailer:
        return trailer_of(items.TrailerItem.model_validate({**CRAW, **more}))

    assert owned() == OwnedTrailer("craw", 4.0, 9.8, 0.9, "neutral", "soft", False)
    assert owned(split=False) == OwnedTrailer("craw", 4.0, 9.8, 0.9, "neutral", "soft", True)
    assert owned(shape="creature", split=False).shape == "creature-fused"
    assert owned(shape="creature", split=False).fused is False
    assert owned(shape="creature").shape == "creature"


def test_the_box_is_what_is_owned_now(session: Session) -> None:
    assert own_of(session).tackle.heads == ()
    items.add(session, "head", {**HEAD, "mass_g": 11.0, "skirt": "thin"})
    items.add(session, "head", {**HEAD, "weight_oz": 0.5, "quantity": 0})
    items.add(session, "trailer", CRAW)
    items.add(session, "rod", {"length_ft": 7})
    settings.keep(session, settings.SCHOOLS, {"weight-lean": "lighter", "gone": "x", "tip-on-bottom": "y"})
    own = own_of(session)
    assert [(h.family, h.weight_oz, h.material, h.mass_g, h.skirt) for h in own.tackle.heads] == [
        ("swim-jig", 0.375, "lead", 11.0, "thin")
    ]
    assert [t.shape for t in own.tackle.trailers] == ["craw"]
    assert own.schools == (("weight-lean", "lighter"),)
