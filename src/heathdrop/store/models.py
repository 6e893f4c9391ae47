"""The tables of a user's data file."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, CheckConstraint, DateTime, MetaData, String
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

NAMING = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMING)


class SavedScenario(Base):
    """A scenario the angler named. ``body`` is the JSON of a size request, ``pick`` the chosen rig.

    A deleted scenario keeps its row and its ``deleted_at`` so that deleting can be undone.
    """

    __tablename__ = "scenario"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    note: Mapped[str] = mapped_column(String(400), default="")
    body: Mapped[dict[str, Any]] = mapped_column(JSON)
    pick: Mapped[str] = mapped_column(String(120), default="")
    created_at: Mapped[datetime] = mapped_column(DateTime)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class Setting(Base):
    """A choice that persists: the angler's schools, for one."""

    __tablename__ = "setting"

    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[Any] = mapped_column(JSON)


class Item(Base):
    """A piece of tackle the angler owns. ``data`` holds the fields of its kind (see :mod:`heathdrop.store.items`)."""

    __tablename__ = "item"
    __table_args__ = (CheckConstraint("kind in ('head', 'trailer', 'line', 'reel', 'rod')", name="kind"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(10), index=True)
    data: Mapped[dict[str, Any]] = mapped_column(JSON)
    created_at: Mapped[datetime] = mapped_column(DateTime)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class Observation(Base):
    """Something seen on the water: a timed drop, a depth check, a mat. Withdrawn ones teach nothing."""

    __tablename__ = "observation"
    __table_args__ = (CheckConstraint("kind in ('drop', 'depth', 'mat')", name="kind"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    kind: Mapped[str] = mapped_column(String(10))
    data: Mapped[dict[str, Any]] = mapped_column(JSON)
    made_at: Mapped[datetime] = mapped_column(DateTime)
    withdrawn_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)
