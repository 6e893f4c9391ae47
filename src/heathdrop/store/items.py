"""Tackle the angler owns: what a head, a trailer, a line, a reel or a rod holds, and where it is kept."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Any, ClassVar, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError
from sqlalchemy import text
from sqlalchemy.orm import Session

from heathdrop import catalog as catalogue
from heathdrop.conditions.limits import OneOf, refused
from heathdrop.errors import BadInput, plain_text
from heathdrop.store import rows
from heathdrop.store.database import at_once
from heathdrop.store.models import Item, new_uid
from heathdrop.store.versions import CURRENT, upgraded

Text = Annotated[str, Field(max_length=80), AfterValidator(plain_text)]
Grams = Annotated[float, Field(ge=0.2, le=200.0)]
Family = Annotated[str, OneOf(tuple(catalogue.load().families))]
Shape = Annotated[str, OneOf(tuple(t.id for t in catalogue.load().trailers.values() if not t.bare))]


class ItemBody(BaseModel):
    """What every piece of tackle has."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    kind: ClassVar[str] = ""
    name: Text = ""
    colour: Text = ""
    quantity: Annotated[int, Field(ge=0, le=999)] = 1


class HeadItem(ItemBody):
    """A head, dressed or bare: the lure family it is for, nominal ounces, and its weight on a kitchen
    scale."""

    kind: ClassVar[str] = "head"
    family: Family
    weight_oz: Annotated[float, Field(ge=1 / 32, le=4.0)]
    material: Literal["lead", "tungsten", "brass", "bismuth-tin", "zinc"] = "lead"
    mass_g: Grams | None = None
    skirt: Literal["full", "trimmed", "thin", "none"] | None = None


class TrailerItem(ItemBody):
    """A trailer: shape, length and width by the ruler, mass by the scale, whether it floats, split or
    fused."""

    kind: ClassVar[str] = "trailer"
    shape: Shape
    length_in: Annotated[float, Field(ge=0.5, le=10.0)]
    width_in: Annotated[float, Field(ge=0.05, le=4.0)] | None = None
    mass_g: Grams | None = None
    plastic: Literal["neutral", "salted", "floating"] = "neutral"
    softness: Literal["soft", "dense"] = "soft"
    appendages: Annotated[int, Field(ge=0, le=12)] | None = None
    split: bool = True


class LineItem(ItemBody):
    kind: ClassVar[str] = "line"
    material: Literal["fluorocarbon", "nylon", "braid"]
    test_lb: Annotated[float, Field(ge=2, le=100)]
    diameter_mm: Annotated[float, Field(ge=0.05, le=2.0)] | None = None


class ReelItem(ItemBody):
    kind: ClassVar[str] = "reel"
    inches_per_turn: Annotated[float, Field(ge=10, le=45)]


class RodItem(ItemBody):
    """A rod: its length, and what is written on it: casting or spinning, power, the weights it is rated
    for."""

    kind: ClassVar[str] = "rod"
    length_ft: Annotated[float, Field(ge=4, le=10)]
    style: Literal["casting", "spinning"] | None = None
    power: Literal["light", "medium-light", "medium", "medium-heavy", "heavy", "extra-heavy"] | None = None
    low_oz: Annotated[float, Field(ge=0.02, le=4)] | None = None
    high_oz: Annotated[float, Field(ge=0.05, le=8)] | None = None


KINDS: dict[str, type[ItemBody]] = {k.kind: k for k in (HeadItem, TrailerItem, LineItem, ReelItem, RodItem)}


def checked(kind: str, data: dict[str, Any], at: str = "") -> ItemBody:
    """The typed body of an item; BadInput names the field (``at`` before it), what was given, what is
    allowed."""
    if kind not in KINDS:
        raise BadInput(f"{at}kind", kind, "one of " + ", ".join(KINDS))
    try:
        return KINDS[kind].model_validate(data)
    except ValidationError as error:
        raise refused(KINDS[kind], error, f"a {kind}", at) from error


@dataclass(frozen=True, eq=False)
class Kept:
    """A kept item, light: its id, kind and body."""

    id: int
    kind: str
    body: ItemBody


@lru_cache(maxsize=8192)
def _kept(id_: int, kind: str, version: int, data: str) -> Kept:
    return Kept(id_, kind, KINDS[kind].model_construct(**upgraded("item", kind, version, json.loads(data))))


def body_of(row: Item) -> dict[str, Any]:
    """A row's fields, in today's form."""
    return upgraded("item", row.kind, row.version, row.body)


def light(row: Item) -> Kept:
    """A row as a light item."""
    return Kept(row.id, row.kind, KINDS[row.kind].model_construct(**body_of(row)))


def light_items(session: Session) -> list[Kept]:
    """Every item not deleted, read lightly: a box of a thousand pieces opens at once."""
    query = text("select id, kind, version, cast(body as text) from item where gone_at is null order by id")
    return [_kept(int(i), str(kind), int(v), str(data)) for i, kind, v, data in session.execute(query)]


def add(session: Session, kind: str, data: dict[str, Any], uid: str | None = None) -> Item:
    """Keep a new item, under its name for good when it has one. Raises BadInput."""
    body = checked(kind, data).model_dump(exclude_none=True)
    row = Item(kind=kind, body=body, version=CURRENT["item"], uid=uid or new_uid())
    session.add(row)
    session.flush()
    return row


def listed(session: Session) -> Sequence[Item]:
    """Items not deleted, in the order they came."""
    return rows.listed(session, Item)


def edit(session: Session, id_: int, changes: dict[str, Any]) -> Item | None:
    """Change some fields; an empty text clears one. None when there is no such item. Raises BadInput."""
    at_once(session)
    row = rows.fetch(session, Item, id_)
    if row is None:
        return None
    merged = {**body_of(row), **changes}
    row.body = checked(row.kind, {k: v for k, v in merged.items() if v not in ("", None)}).model_dump(
        exclude_none=True
    )
    row.version = CURRENT["item"]
    return row


def duplicate(session: Session, id_: int) -> Item | None:
    """A copy of an item."""
    row = rows.fetch(session, Item, id_)
    return None if row is None else add(session, row.kind, body_of(row))


def delete(session: Session, id_: int) -> Item | None:
    """Mark an item deleted."""
    return rows.put_away(session, Item, id_)


def undelete(session: Session, id_: int) -> Item | None:
    """Take a deletion back."""
    return rows.take_back(session, Item, id_)
