"""Backups of the data file: whole copies beside it, which of them are sound, and what is told of damage."""

import os
import re
import sqlite3
import time
from contextlib import closing, suppress
from datetime import UTC, datetime
from glob import escape as glob_escape
from importlib import resources
from pathlib import Path
from threading import Lock

from heathdrop.errors import BadInput
from heathdrop.logs import logger

#: Backups kept beside the data file; older ones make room.
MOST_BACKUPS = 20
#: A backup's stamp (UTC), as written and as it is recognised after the data file's own name.
STAMP = "%Y%m%d-%H%M%S-%f"
STAMPED = r"-\d{8}-\d{6}-\d{6}-(before-migration-from-\d{4}|before-import|before-restore)\.sqlite"
#: One of these tables makes a file ours.
OURS = {"scenario", "item", "setting", "observation"}
#: SQLite's primary result codes for a file that is broken, or is no database.
DAMAGED = {sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB}
#: A backup in the making that is older (s) was cut short.
STALE_S = 60.0
#: One backup at a time in this process.
_BACKING_UP = Lock()
LOG = logger("store")


def newest() -> str:
    """The newest revision of the schema: the last of the migrations by their numbers."""
    names = (f.name for f in resources.files("heathdrop.store.migrations.versions").iterdir())
    return max(name[:4] for name in names if name[:4].isdigit())


def backup(path: Path, why: str, keep: Path | None = None) -> Path:
    """A dated, consistent copy of the data file in ``backups``, whole or not there at all.

    Only whole copies of this very file make room, the oldest first by when they were written; what was just
    made and ``keep`` never do. Raises sqlite3.OperationalError when it cannot be written.
    """
    folder = backups_of(path)
    try:
        folder.mkdir(mode=0o700, exist_ok=True)
    except OSError as error:
        wanted = "a folder" if isinstance(error, FileExistsError) else f"writable ({error.strerror})"
        raise BadInput("the folder of backups", folder.name, wanted) from error
    with _BACKING_UP:
        for stale in folder.glob(f"{glob_escape(path.stem)}-*.part*"):
            # A backup that a kill cut short: another process may be making one that is younger.
            if time.time() - stale.stat().st_mtime > STALE_S:
                stale.unlink(missing_ok=True)
        stamp = datetime.now(UTC).strftime(STAMP)
        copy = folder / f"{path.stem}-{stamp}-{why}.sqlite"
        part = copy.with_suffix(".part")
        try:
            with closing(reading(path)) as source, closing(sqlite3.connect(part)) as target:
                source.backup(target)
                if target.execute("pragma quick_check").fetchone() != ("ok",):
                    raise sqlite3.DatabaseError("the data file is damaged: no backup of it makes room")
            for_the_owner(part)
            part.replace(copy)
        finally:
            part.unlink(missing_ok=True)
        whole = [f for f in stamped_backups(path) if f != copy and f.stat().st_size > 0]
        for old in whole[: max(0, len(whole) + 1 - MOST_BACKUPS)]:
            if keep is None or old.resolve() != keep.resolve():
                old.unlink()
    LOG.info("backed up: %s", copy.name)
    return copy


def backups_of(path: Path) -> Path:
    """The folder of a data file's backups."""
    return path.parent / "backups"


def stamped_backups(path: Path) -> list[Path]:
    """The backups of a data file that its own program made, the oldest first."""
    ours, folder = re.compile(re.escape(path.stem) + STAMPED), backups_of(path)
    backups = [f for f in folder.iterdir() if ours.fullmatch(f.name)] if folder.is_dir() else []
    return sorted(backups, key=lambda f: (f.stat().st_mtime, f.name))


def newest_sound(path: Path) -> Path | None:
    """The newest backup of a data file that is whole; None where there is none."""
    return next((copy for copy in reversed(stamped_backups(path)) if is_sound(copy)), None)


def damaged(error: BaseException | None) -> bool:
    """Whether an error says that the data file is broken or is none."""
    cause = getattr(error, "orig", error)
    code = getattr(cause, "sqlite_errorcode", None)
    return isinstance(cause, sqlite3.DatabaseError) and (
        (code is not None and code & 0xFF in DAMAGED) or "is damaged" in str(cause)
    )


def reading(path: Path) -> sqlite3.Connection:
    """A connection that only reads, whatever characters the name holds; where its folder cannot be written
    (a write-ahead log would need it) the file is taken as it stands."""
    still = "" if os.access(path.parent, os.W_OK) else "&immutable=1"
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro{still}", uri=True)


def is_sound(path: Path) -> bool:
    """Whether a file is a whole data file of ours, of a revision that this program knows."""
    try:
        with closing(reading(path)) as connection:
            whole = connection.execute("pragma integrity_check").fetchone() == ("ok",)
            row = connection.execute("select version_num from alembic_version").fetchone()
            tables = {
                name for (name,) in connection.execute("select name from sqlite_master where type = 'table'")
            }
    except sqlite3.Error:
        return False
    ours = bool(OURS & tables)
    return whole and ours and row is not None and str(row[0]) <= newest()


def put_aside(path: Path, keep: Path) -> Path:
    """A backup of a data file that another takes the place of; a damaged one is put there as it is."""
    try:
        return backup(path, "before-restore", keep=keep)
    except sqlite3.DatabaseError as error:
        if not damaged(error):
            raise
    aside = backups_of(path) / f"{path.stem}-{datetime.now(UTC).strftime(STAMP)}.damaged"
    path.replace(aside)
    for beside in ("-wal", "-shm", "-journal"):
        path.with_name(path.name + beside).unlink(missing_ok=True)
    return aside


def state_of(path: Path) -> tuple[str, list[tuple[str, bool]]]:
    """What a data file is (sound, damaged, missing); its backups, the newest first, and whether each is
    sound."""
    backups = [(copy.name, is_sound(copy)) for copy in reversed(stamped_backups(path))]
    if not path.exists():
        return "missing", backups
    return ("sound" if is_sound(path) else "damaged"), backups


def damage_said(path: Path) -> str:
    """What is told of a damaged data file: which backup to put back, and how."""
    copy = newest_sound(path)
    way = f"`heathdrop restore {copy.name}`" if copy else "there is no sound backup of it"
    newest_said = f"the newest sound backup is {copy.name}: stop Heathdrop, then {way}" if copy else way
    return f"The data file is damaged and nothing of this was kept; {newest_said}."


def for_the_owner(path: Path) -> None:
    """A file readable by its owner alone: positions and catches are nobody else's."""
    with suppress(OSError):
        path.chmod(0o600)
