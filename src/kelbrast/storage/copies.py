"""Copies of the database: complete and checked, or absent; never over another file."""

import errno
import filecmp
import os
import sqlite3
import time
from collections.abc import Iterable
from contextlib import closing
from datetime import datetime
from pathlib import Path
from typing import Final

from kelbrast.core.errors import BadInput
from kelbrast.storage.trouble import told, trouble

_NO_LINKS: Final = (errno.EPERM, errno.EOPNOTSUPP, errno.ENOTSUP)  # a memory stick has none
_WAIT_S: Final = 10.0
_PART: Final = ".part"
_ABANDONED_S: Final = 600.0  # a copy in the making is written to all the time
_BEFORE_MIGRATION_KEPT: Final = 3


def back_up(path: Path, target: Path) -> Path:
    """Copy a database, also while it is in use (SQLite's own backup). The copy gets its name when it is complete.

    Raises:
        BadInput: there is something of that name already.
        StoreTrouble: it cannot be read or written, or it is damaged: a damaged copy is worse than none.
    """
    part = target.with_name(target.name + _PART)
    with told(target):
        part.unlink(missing_ok=True)  # left by a copy that was interrupted
        try:
            _copy(path, part)
            check_whole(part)
            _name(part, target)
        except FileExistsError:
            raise BadInput.one("--to", f"{target} exists already; it is left as it is") from None
        finally:
            part.unlink(missing_ok=True)
    return target


def back_up_before_migration(path: Path, newest: str) -> Path:
    """Copy a database beside itself before its tables are changed. A copy that holds the same already is used again.

    Only the newest few of these copies are kept.

    Raises:
        StoreTrouble: it cannot be read or written, or it is damaged.
    """
    target = path.with_name(f"{path.stem}-before-{newest}{path.suffix}")
    made = back_up(path, free_name(target))
    known = [one for one in path.parent.glob(f"{path.stem}-before-*{path.suffix}") if one != made]
    same = next((one for one in known if filecmp.cmp(one, made, shallow=False)), None)
    if same is not None:
        made.unlink()
        return same
    oldest_first = sorted(known, key=lambda one: one.stat().st_mtime)
    for one in oldest_first[: max(0, len(known) + 1 - _BEFORE_MIGRATION_KEPT)]:
        one.unlink(missing_ok=True)
    return made


def check_whole(path: Path) -> None:
    """Let SQLite look through a database, without changing it.

    Raises:
        StoreTrouble: it is damaged.  sqlite3.Error: it cannot be read.
    """
    with closing(sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=_WAIT_S)) as connection:
        (found,) = connection.execute("PRAGMA quick_check(1)").fetchone()
    if found != "ok":
        raise trouble("damaged", path)


def remove_parts(folders: Iterable[Path]) -> None:
    """Remove copies that were interrupted: unnamed ones that nobody has written to for a while."""
    now = time.time()
    for folder in folders:
        for part in folder.glob(f"*.sqlite{_PART}"):
            try:
                if part.is_file() and now - part.stat().st_mtime > _ABANDONED_S:
                    part.unlink()
            except OSError:  # gone already, or not ours to remove
                continue


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
