"""The data file: opened with the settings a logbook wants, backed up before it is migrated or imported
into."""

from __future__ import annotations

import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import datetime
from importlib import resources
from pathlib import Path
from typing import Any

from sqlalchemy import Engine, create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session, sessionmaker

from heathdrop.errors import BadInput
from heathdrop.logs import logger

#: Backups kept beside the data file; older ones make room.
MOST_BACKUPS = 20
#: SQLite's primary result codes for a file that cannot be written now.
UNWRITABLE = {
    sqlite3.SQLITE_READONLY,
    sqlite3.SQLITE_FULL,
    sqlite3.SQLITE_BUSY,
    sqlite3.SQLITE_LOCKED,
    sqlite3.SQLITE_CANTOPEN,
    sqlite3.SQLITE_IOERR,
}
LOG = logger("store")


def newest() -> str:
    """The newest revision of the schema: the last of the migrations by their numbers."""
    names = (f.name for f in resources.files("heathdrop.store.migrations.versions").iterdir())
    return max(name[:4] for name in names if name[:4].isdigit())


def _settings(connection: sqlite3.Connection, _record: Any) -> None:
    """WAL, full sync (writes are few and matter), foreign keys, patience with a lock."""
    cursor = connection.cursor()
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", "busy_timeout=5000"):
        cursor.execute(f"PRAGMA {pragma}")
    cursor.close()


def unwritable(error: BaseException | None) -> bool:
    """Whether an error means that the file cannot be written now (full, locked, read-only), by its code."""
    cause = error.orig if isinstance(error, OperationalError) else error
    code = getattr(cause, "sqlite_errorcode", None)
    return isinstance(cause, sqlite3.OperationalError) and code is not None and code & 0xFF in UNWRITABLE


def _revision(path: Path) -> str | None:
    """The schema's revision in the file, None for a new one."""
    if not path.exists() or path.stat().st_size == 0:
        return None
    with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as connection:
        try:
            row = connection.execute("select version_num from alembic_version").fetchone()
        except sqlite3.OperationalError:
            return None
    return row[0] if row else None


def migrate(path: Path, to: str = "head") -> None:
    """Bring the data file at ``path`` to the newest schema, creating it when missing; a dated backup comes
    first."""
    at = _revision(path)
    if at == newest() and to == "head":
        return
    from alembic import command  # slow to import, and rarely needed
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(resources.files("heathdrop.store") / "migrations"))
    config.attributes["path"] = path
    if at is not None and to == "head":
        backup(path, f"before-migration-from-{at}")
    command.upgrade(config, to)
    LOG.info("migrated from %s to %s", at, to)


def backup(path: Path, why: str, keep: Path | None = None) -> Path:
    """A dated, consistent copy of the data file in ``backups``. Old ones make room, ``keep`` never does."""
    folder = path.parent / "backups"
    folder.mkdir(exist_ok=True)
    stamp = datetime.now().strftime("%Y%m%d-%H%M%S-%f")
    copy = folder / f"{path.stem}-{stamp}-{why}.sqlite"
    with closing(sqlite3.connect(path)) as source, closing(sqlite3.connect(copy)) as target:
        source.backup(target)
    for old in sorted(folder.glob(f"{path.stem}-*.sqlite"))[:-MOST_BACKUPS]:
        if old != copy and (keep is None or old.resolve() != keep.resolve()):
            old.unlink()
    LOG.info("backed up: %s", copy.name)
    return copy


def _sound(path: Path) -> bool:
    """Whether a file is a whole data file of ours, of a revision that this program knows."""
    try:
        with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)) as connection:
            whole = connection.execute("pragma integrity_check").fetchone() == ("ok",)
            row = connection.execute("select version_num from alembic_version").fetchone()
    except sqlite3.Error:
        return False
    return whole and row is not None and str(row[0]) <= newest()


def restore(path: Path, copy: Path) -> Path:
    """Put ``copy`` in the place of the data file, backing that up first. Raises BadInput for no data file.

    The copy is looked at and read into memory before anything is touched, so that making room among the
    backups cannot take it away. Returns the backup of what was there.
    """
    if not copy.is_file() or not _sound(copy):
        raise BadInput(
            "the backup", copy.name, "a whole backup made by this version of Heathdrop or an older one"
        )
    with closing(sqlite3.connect(":memory:")) as kept:
        with closing(sqlite3.connect(f"{copy.resolve().as_uri()}?mode=ro", uri=True)) as source:
            source.backup(kept)
        saved = backup(path, "before-restore", keep=copy) if path.exists() else copy
        with closing(sqlite3.connect(path)) as target:
            kept.backup(target)
    migrate(path)
    LOG.info("restored from %s", copy.name)
    return saved


class Database:
    """A user's data file. Sessions commit on success and roll back on error.

    A file that cannot be written is opened for reading; ``read_only`` says so until a write goes through.
    """

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.path = path
        self.read_only = False
        try:
            migrate(path)
        except (OperationalError, sqlite3.OperationalError) as error:
            if not unwritable(error) or _revision(path) is None:
                raise
            self.read_only = True
        if self.read_only:
            self.engine: Engine = create_engine(f"sqlite:///file:{path}?mode=ro&uri=true")
        else:
            self.engine = create_engine(f"sqlite:///{path}")
            event.listen(self.engine, "connect", _settings)
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)
        event.listen(self._sessions, "after_flush", lambda session, _: session.info.update(wrote=True))

    @contextmanager
    def session(self) -> Iterator[Session]:
        """A session for one unit of work; a write that goes through ends ``read_only``."""
        with self._sessions.begin() as session:
            yield session
        if session.info.get("wrote"):
            self.read_only = False

    def close(self) -> None:
        """Give the file back."""
        self.engine.dispose()


def install_secret(path: Path) -> bytes:
    """This installation's secret, made on first run beside the data file, readable by its owner alone.

    Where nothing can be written it lasts as long as the process.
    """
    keeper = path.with_suffix(".key")
    try:
        if not keeper.exists():
            keeper.touch(mode=0o600)
            keeper.write_bytes(secrets.token_bytes(32))
        return keeper.read_bytes()
    except OSError:
        return secrets.token_bytes(32)
