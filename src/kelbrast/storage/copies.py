"""Copies of the database: whole or not there, and never over another file."""

import errno
import os
import sqlite3
from datetime import datetime
from pathlib import Path
from typing import Final

from kelbrast.core.errors import BadInput
from kelbrast.storage.trouble import told

_NO_LINKS: Final = (errno.EPERM, errno.EOPNOTSUPP, errno.ENOTSUP)  # a memory stick has none
_WAIT_S: Final = 10.0


def back_up(path: Path, target: Path) -> Path:
    """Copy a database, also while it is in use (SQLite's own backup). The copy gets its name when it is complete.

    Raises:
        BadInput: there is something of that name already.  StoreTrouble: it can not be read or written.
    """
    part = target.with_name(target.name + ".part")
    with told(target):
        part.unlink(missing_ok=True)  # left by a copy that was interrupted
        try:
            _copy(path, part)
            _name(part, target)
        except FileExistsError:
            raise BadInput.one("--to", f"{target} exists already; it is left as it is") from None
        finally:
            part.unlink(missing_ok=True)
    return target


def backup_name(path: Path) -> Path:
    """A name with the time in it, beside the database."""
    return free_name(path.with_name(f"{path.stem}-{datetime.now():%Y%m%d-%H%M%S}{path.suffix}"))


def free_name(path: Path) -> Path:
    """The name, or the same with a number where it is taken."""
    at, found = 2, path
    while found.exists():
        found, at = path.with_name(f"{path.stem}-{at}{path.suffix}"), at + 1
    return found


def _name(part: Path, target: Path) -> None:
    """Give a finished file its name; unlike a rename, a link never takes the place of another file."""
    try:
        os.link(part, target)
    except OSError as problem:
        if problem.errno not in _NO_LINKS:
            raise
        if target.exists():
            raise FileExistsError(target) from None
        part.rename(target)


def _copy(path: Path, target: Path) -> None:
    source, copy = sqlite3.connect(path, timeout=_WAIT_S), sqlite3.connect(target)
    try:
        source.execute("select count(*) from sqlite_master").close()  # says so when the file is held; the copy would wait
        source.backup(copy)
        copy.execute("PRAGMA journal_mode=DELETE")  # all of it in the one file
    finally:
        copy.close()
        source.close()
    with target.open("rb") as file:
        os.fsync(file.fileno())
