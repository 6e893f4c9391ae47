"""Alembic's environment: one SQLite file, foreign keys off while tables are rebuilt."""

from __future__ import annotations

import sqlite3

from alembic import context
from sqlalchemy import create_engine, text

from heathdrop.store.models import Base


def run() -> None:
    """Migrate the file named in the configuration, then check its foreign keys."""
    engine = create_engine(f"sqlite:///{context.config.attributes['path']}")
    with engine.connect() as connection:
        context.configure(connection=connection, target_metadata=Base.metadata, render_as_batch=True)
        with context.begin_transaction():
            context.run_migrations()
        broken = connection.execute(text("PRAGMA foreign_key_check")).fetchall()
        if broken:
            raise sqlite3.IntegrityError(f"{len(broken)} rows point nowhere after the migration")
    engine.dispose()


run()
