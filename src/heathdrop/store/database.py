"""The data file: opened with the settings a logbook wants, migrated before use."""

from __future__ import annotations

import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import resources
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, create_engine, event
from sqlalchemy.orm import Session, sessionmaker


def _settings(connection: sqlite3.Connection, _record: Any) -> None:
    """WAL, full sync (writes are few and matter), foreign keys, patience with a lock."""
    cursor = connection.cursor()
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", "busy_timeout=5000"):
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()


def migrate(path: Path) -> None:
    """Bring the data file at ``path`` to the newest schema, creating it when missing."""
    config = Config()
    config.set_main_option("script_location", str(resources.files("heathdrop.store") / "migrations"))
    config.attributes["path"] = path
    command.upgrade(config, "head")


class Database:
    """A user's data file. Sessions commit on success and roll back on error."""

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        migrate(path)
        self.path = path
        self.engine: Engine = create_engine(f"sqlite:///{path}")
        event.listen(self.engine, "connect", _settings)
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)

    @contextmanager
    def session(self) -> Iterator[Session]:
        """A session for one unit of work."""
        with self._sessions.begin() as session:
            yield session

    def close(self) -> None:
        """Give the file back."""
        self.engine.dispose()


def install_secret(path: Path) -> bytes:
    """This installation's secret, made on first run beside the data file, readable by its owner alone."""
    keeper = path.with_suffix(".key")
    if not keeper.exists():
        keeper.touch(mode=0o600)
        keeper.write_bytes(secrets.token_bytes(32))
    return keeper.read_bytes()
