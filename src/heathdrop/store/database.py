"""The data file: opened with the settings a logbook wants, backed up before it is migrated or imported
into."""

import os
import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from importlib import resources
from pathlib import Path
from threading import Lock
from typing import Any

from sqlalchemy import URL, Engine, create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session, sessionmaker

from heathdrop.errors import BadInput
from heathdrop.logs import logger
from heathdrop.store.backups import OURS, backup, for_the_owner, is_sound, newest, put_aside, reading

SECRET_BYTES = 32
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
    """The schema's revision in the file, None for a new one. Raises BadInput for another program's file."""
    if not path.exists() or path.stat().st_size == 0:
        return None
    try:
        _recover(path)
        with closing(reading(path)) as connection:
            tables = {
                name for (name,) in connection.execute("select name from sqlite_master where type = 'table'")
            }
            if not tables:
                return None
            if "alembic_version" not in tables or not OURS & tables:
                raise BadInput(
                    "the data file", path.name, "a data file of Heathdrop; this is another program's"
                )
            row = connection.execute("select version_num from alembic_version").fetchone()
    except sqlite3.DatabaseError as error:
        if unwritable(error):
            raise
        raise BadInput("the data file", path.name, "a data file of Heathdrop; this is not one") from error
    if row is not None and str(row[0]) > newest():
        raise BadInput("the data file", path.name, "of this version of Heathdrop or an older one")
    return row[0] if row else None


def _recover(path: Path) -> None:
    """Let SQLite finish what a kill left half done. A connection that only reads cannot roll a hot journal
    back, and would call the file broken; one that may write does so with its first read."""
    journal = path.with_name(path.name + "-journal")
    if journal.exists() and os.access(path, os.W_OK) and os.access(path.parent, os.W_OK):
        with closing(sqlite3.connect(path)) as connection:
            connection.execute("select count(*) from sqlite_master").fetchone()


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


def restore(path: Path, copy: Path) -> Path:
    """Put ``copy`` in the place of the data file, backing that up first. Raises BadInput for no data file.

    The copy is looked at and read into memory before anything is touched, so that making room among the
    backups cannot take it away. Returns the backup of what was there.
    """
    if not copy.is_file() or not is_sound(copy):
        raise BadInput(
            "the backup", copy.name, "a whole backup made by this version of Heathdrop or an older one"
        )
    with closing(sqlite3.connect(":memory:")) as memory:
        with closing(reading(copy)) as source:
            source.backup(memory)
        # Who was sent off stays out: every phone pairs anew. Ended before anything is written, so that no
        # kill on the way lets one in.
        if memory.execute("select 1 from sqlite_master where name = 'device'").fetchone():
            memory.execute("update device set gone_at = current_timestamp where gone_at is null")
            memory.commit()
        saved = put_aside(path, copy) if path.exists() else copy
        with closing(sqlite3.connect(path)) as target:
            memory.backup(target)
    migrate(path)
    LOG.info("restored from %s", copy.name)
    return saved


class Replaced(Exception):
    """The data file was removed, written over, or another one put in its place, while it was open."""


class Database:
    """A user's data file. Sessions commit on success and roll back on error.

    A file that cannot be written is opened for reading; ``read_only`` says so until a write goes through.
    After each write the write-ahead log is folded back, so that the one file holds everything.
    """

    def __init__(self, path: Path) -> None:
        if path.is_dir():
            raise BadInput("the data file", path.name, "a file; this is a folder")
        try:
            path.parent.mkdir(parents=True, exist_ok=True)
        except OSError as error:
            raise BadInput(
                "the data file", str(path), f"in a folder that can be made ({error.strerror})"
            ) from error
        self.path = path
        self._lock, self._opening, self._to_say = Lock(), Lock(), False
        self.read_only = self._reading_only = False
        try:
            migrate(path)
        except (OperationalError, sqlite3.OperationalError) as error:
            if not unwritable(error) or _revision(path) is None:
                raise
            self.read_only = self._reading_only = True
        if not self._can_write():
            self.read_only = self._reading_only = True
        else:
            for_the_owner(path)
        self._open()

    def _can_write(self) -> bool:
        """Whether file and folder may be written: the write-ahead log stands beside the file."""
        return os.access(self.path, os.W_OK) and os.access(self.path.parent, os.W_OK)

    def _open(self) -> None:
        """An engine that writes, or one that only reads where nothing can be written."""
        if self._reading_only:
            self.engine: Engine = create_engine("sqlite://", creator=lambda: reading(self.path))
        else:
            self.engine = create_engine(URL.create("sqlite", database=str(self.path)))
            event.listen(self.engine, "connect", _settings)
        self._sessions = sessionmaker(self.engine, expire_on_commit=False)
        event.listen(self._sessions, "after_flush", lambda session, _: session.info.update(wrote=True))
        self._opened = self._identity()
        # Sees whether a program of SQLite's wrote: a file that was copied over in place changes without that.
        self._watch = None if self._reading_only else sqlite3.connect(self.path, check_same_thread=False)
        self._left = self._state()

    def _identity(self) -> tuple[int, int] | None:
        """Which file stands at the path: device and inode; None for none."""
        try:
            stat = self.path.stat()
        except OSError:
            return None
        return stat.st_dev, stat.st_ino

    def _pending(self) -> bool:
        """Whether the write-ahead log holds anything that is not folded back yet."""
        try:
            return self.path.with_name(f"{self.path.name}-wal").stat().st_size > 0
        except OSError:
            return False

    def _state(self) -> tuple[tuple[int, int], int, bool] | None:
        """The file as it stands: size and time of its last change, SQLite's count of commits, and whether a
        part of its log is still to be folded back; None where it cannot be told."""
        if self._watch is None:
            return None
        try:
            before = self._pending()
            stat = self.path.stat()
            commits = self._watch.execute("PRAGMA data_version").fetchone()[0]
        except (OSError, sqlite3.Error):
            return None
        return (stat.st_size, stat.st_mtime_ns), commits, before or self._pending()

    def _elsewise(self) -> bool:
        """Whether the path leads to another file than the open one, or somebody wrote over that in place."""
        if self._identity() != self._opened:
            return True
        with self._lock:
            now = self._state()
            if now is None or self._left is None or now[0] == self._left[0]:
                return False
            if now[1] == self._left[1] and not self._left[2]:
                return True
            self._left = now  # another program of ours wrote, or folded back what it wrote
            return False

    def _reopen(self) -> None:
        """Give the file up that was open, and open what stands there now. Raises Replaced where nothing of
        ours does."""
        self.engine.dispose()
        if self._watch is not None:
            self._watch.close()
        if self._identity() is None:
            raise Replaced("The data file was removed while Heathdrop ran")
        try:
            migrate(self.path)
        except (BadInput, sqlite3.Error, OperationalError) as error:
            raise Replaced("What stands in the place of the data file is none of Heathdrop's") from error
        self._open()

    @contextmanager
    def session(self) -> Iterator[Session]:
        """A session for one unit of work; a write that goes through ends ``read_only``."""
        if self._reading_only and self._can_write():
            self.engine.dispose()
            self._reading_only = False
            self._open()
        with self._opening:
            if self._elsewise():
                self._to_say = True
                self._reopen()
        with self._sessions.begin() as session:
            yield session
            session.flush()
            if session.info.get("wrote") and (self._to_say or self._elsewise()):
                # Said once, before anything is taken: what was on record may not be in what stands here now.
                self._to_say = False
                raise Replaced("Another file was put in the place of the data file while Heathdrop ran")
        if session.info.get("wrote"):
            self.read_only = False
            self.fold()

    def fold(self) -> None:
        """Fold the write-ahead log back into the file; another reader's lock only puts it off."""
        if self._reading_only:
            return
        with self._lock:
            with suppress(OperationalError), self.engine.connect() as connection:
                connection.exec_driver_sql("PRAGMA busy_timeout=0")
                try:
                    connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
                finally:
                    connection.exec_driver_sql("PRAGMA busy_timeout=5000")
            self._left = self._state()

    def close(self) -> None:
        """Give the file back, whole."""
        if not self._elsewise():
            self.fold()
        self.engine.dispose()
        if self._watch is not None:
            self._watch.close()


def at_once(session: Session) -> None:
    """Begin writing now: nobody changes between what this session reads and what it writes."""
    if not session.connection().connection.dbapi_connection.in_transaction:  # type: ignore[union-attr]
        session.connection().exec_driver_sql("BEGIN IMMEDIATE")


def install_secret(path: Path) -> bytes:
    """This installation's secret, made on first run beside the data file, readable by its owner alone.

    It is written whole or not at all; a broken one is made anew. Where nothing can be written it lasts as
    long as the process.
    """
    keeper = path.with_suffix(".key")
    if keeper == path:
        keeper = path.with_name(path.name + ".key")
    try:
        if keeper.exists() and len(stored := keeper.read_bytes()) == SECRET_BYTES:
            return stored
        secret, part = secrets.token_bytes(SECRET_BYTES), keeper.with_name(keeper.name + ".part")
        part.unlink(missing_ok=True)
        with os.fdopen(os.open(part, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o600), "wb") as out:
            out.write(secret)
        part.replace(keeper)
        return keeper.read_bytes()
    except OSError:
        return secrets.token_bytes(SECRET_BYTES)
