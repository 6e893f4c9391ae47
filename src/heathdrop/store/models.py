"""The tables of a user's data file.

Bodies are JSON with a ``version``: :mod:`heathdrop.store.versions` brings an older one up to date when
it is read. Kinds are checked in code, so that a new kind is no new table. ``uid`` names a row for good.
"""

import uuid
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, DateTime, MetaData, String
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

NAMING = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


def now() -> datetime:
    """This moment, UTC, as the data file keeps it."""
    return datetime.now(UTC).replace(tzinfo=None)


def new_uid() -> str:
    """A new row's name for good."""
    return str(uuid.uuid4())


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMING)


class Kept(Base):
    """What every kept row has: an id, a name for good, when it was made, when it was put away (None: it
    counts)."""

    __abstract__ = True

    id: Mapped[int] = mapped_column(primary_key=True)
    uid: Mapped[str] = mapped_column(String(36), unique=True, default=new_uid)
    version: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(DateTime, default=now)
    gone_at: Mapped[datetime | None] = mapped_column(DateTime, default=None)


class SavedScenario(Kept):
    """A scenario the angler named. ``body`` is the JSON of a size request, ``pick`` the chosen rig's name."""

    __tablename__ = "scenario"

    name: Mapped[str] = mapped_column(String(80))
    note: Mapped[str] = mapped_column(String(400), default="")
    body: Mapped[dict[str, Any]] = mapped_column(JSON)
    pick: Mapped[str] = mapped_column(String(200), default="")


class SavedPlan(Kept):
    """A day the angler planned. ``body`` is the JSON of a plan request."""

    __tablename__ = "plan"

    name: Mapped[str] = mapped_column(String(80))
    body: Mapped[dict[str, Any]] = mapped_column(JSON)


class Trip(Kept):
    """A day on the water. ``body`` is a :class:`heathdrop.conditions.trip.TripBody`."""

    __tablename__ = "trip"

    name: Mapped[str] = mapped_column(String(120))
    body: Mapped[dict[str, Any]] = mapped_column(JSON)


class Device(Kept):
    """A phone that was paired."""

    __tablename__ = "device"

    name: Mapped[str] = mapped_column(String(40))
    seen_at: Mapped[datetime] = mapped_column(DateTime, default=now)


class DrillDone(Kept):
    """An answer to a question of the trainer. ``body`` is a :class:`heathdrop.conditions.drilled.Drilled`
    without its id, which is the row's ``uid``."""

    __tablename__ = "drill"

    body: Mapped[dict[str, Any]] = mapped_column(JSON)


class CastMade(Kept):
    """A cast that was made. ``body`` is a :class:`heathdrop.conditions.made.MadeCast` without its id, which
    is the row's ``uid``."""

    __tablename__ = "cast_made"

    stop: Mapped[str] = mapped_column(String(200), default="", index=True)
    body: Mapped[dict[str, Any]] = mapped_column(JSON)


class Item(Kept):
    """A piece of tackle the angler owns. ``body`` holds the fields of its kind (see
    :mod:`heathdrop.store.items`)."""

    __tablename__ = "item"

    kind: Mapped[str] = mapped_column(String(20), index=True)
    body: Mapped[dict[str, Any]] = mapped_column(JSON)


class Observation(Kept):
    """Something seen on the water: a timed drop, a depth check, a mat. Withdrawn ones teach nothing."""

    __tablename__ = "observation"

    kind: Mapped[str] = mapped_column(String(20))
    body: Mapped[dict[str, Any]] = mapped_column(JSON)


class Setting(Base):
    """A choice that persists: the angler's schools, for one."""

    __tablename__ = "setting"

    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[Any] = mapped_column(JSON)
