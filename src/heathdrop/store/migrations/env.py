"""Alembic's environment: one SQLite file, foreign keys off while tables are rebuilt, one transaction for all.

The driver commits before each statement that changes the schema; here it is told not to, so that a
migration cut short at any moment leaves the file as it was.
"""

import sqlite3
from typing import Any

from alembic import context
from sqlalchemy import URL, create_engine, event, text

from heathdrop.store.models import Base


def run() -> None:
    """Migrate the file named in the configuration, then check its foreign keys."""
    engine = create_engine(URL.create("sqlite", database=str(context.config.attributes["path"])))

    @event.listens_for(engine, "connect")
    def _no_commits_of_its_own(connection: sqlite3.Connection, _record: Any) -> None:
        connection.isolation_level = None

    @event.listens_for(engine, "begin")
    def _begin(connection: Any) -> None:
        connection.exec_driver_sql("BEGIN IMMEDIATE")

    with engine.connect() as connection:
        context.configure(
            connection=connection,
            target_metadata=Base.metadata,
            render_as_batch=True,
            transactional_ddl=True,
        )
        with context.begin_transaction():
            context.run_migrations()
        broken = connection.execute(text("PRAGMA foreign_key_check")).fetchall()
        if broken:
            raise sqlite3.IntegrityError(f"{len(broken)} rows point nowhere after the migration")
    engine.dispose()


run()
