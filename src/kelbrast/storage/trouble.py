"""SQLite's failures in a person's words: cause, what is safe, what to do."""

import errno
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Final

from sqlalchemy.exc import DBAPIError, TimeoutError

from kelbrast.core.errors import Cause, StoreTrouble

_LEAST_ROOM: Final = 256 * 1024  # bytes
_NOTHING_WRITTEN: Final = "Nothing of this was written; everything kept before is as it was."
_WORDS: Final[dict[Cause, tuple[str, str]]] = {
    "full": ("The disk is full", "Make room on the disk, then do it again."),
    "locked": ("Another program holds the database", "Close what has the file open (a copy, a backup), then do it again."),
    "read-only": ("The database cannot be written to", "Give the program the right to write to the file and to its folder."),
    "damaged": (
        "The database is damaged",
        "Stop the program and restore the newest backup: kelbrast restore BACKUP --yes sets the damaged file aside.",
    ),
    "unreachable": ("The database cannot be reached", "Look whether the disk and the folder are there and may be opened."),
}
# https://www.sqlite.org/rescode.html: the primary code is the lowest byte.
_CAUSES: Final[dict[int, Cause]] = {
    sqlite3.SQLITE_FULL: "full",
    sqlite3.SQLITE_BUSY: "locked",
    sqlite3.SQLITE_LOCKED: "locked",
    sqlite3.SQLITE_READONLY: "read-only",
    sqlite3.SQLITE_PERM: "read-only",
    sqlite3.SQLITE_CORRUPT: "damaged",
    sqlite3.SQLITE_NOTADB: "damaged",
    sqlite3.SQLITE_IOERR: "unreachable",
    sqlite3.SQLITE_CANTOPEN: "unreachable",
}


def trouble(cause: Cause, where: Path | None = None) -> StoreTrouble:
    """One of the causes in words; `where` the file lies."""
    title, mend = _WORDS[cause]
    return StoreTrouble(cause, f"{title} ({where})" if where is not None else title, safe=_NOTHING_WRITTEN, mend=mend)


def trouble_of(problem: BaseException, where: Path | None = None) -> StoreTrouble | None:
    """The trouble behind an error of SQLite or of the file system; None when it is something else."""
    if isinstance(problem, DBAPIError):
        return trouble_of(problem.orig, where) if problem.orig is not None else None
    if isinstance(problem, TimeoutError):  # no connection became free
        return trouble("locked", where)
    if isinstance(problem, sqlite3.Error):
        cause = _CAUSES.get((getattr(problem, "sqlite_errorcode", None) or 0) & 0xFF)
        if cause == "unreachable" and _no_room(where):
            cause = "full"
        return trouble(cause, where) if cause is not None else None
    if isinstance(problem, PermissionError):
        return trouble("read-only", where)
    if isinstance(problem, OSError):
        return trouble("full" if problem.errno == errno.ENOSPC else "unreachable", where)
    return None


def _no_room(where: Path | None) -> bool:
    """On a full disk SQLite cannot even make the files beside the database, and says only that reading or writing failed."""
    try:
        return where is not None and shutil.disk_usage(where.parent).free < _LEAST_ROOM
    except OSError:
        return False


@contextmanager
def told(where: Path | None = None) -> Iterator[None]:
    """Whatever the store cannot do in this block is raised as a `StoreTrouble`."""
    try:
        yield
    except (DBAPIError, TimeoutError, sqlite3.Error, OSError) as problem:
        store_trouble = trouble_of(problem, where)
        if store_trouble is None:
            raise
        raise store_trouble from problem
