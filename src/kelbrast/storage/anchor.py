"""Whether the file that a database was opened from still lies at its path: a copy tool or a hand may have put another there.

SQLite goes on writing into the file that it opened, also when that has no name any more: whatever is written then is lost with
the program. So it is checked before a write begins and before it is committed.
"""

import os
import sqlite3
import threading
from contextlib import closing
from pathlib import Path
from typing import Any

from kelbrast.core.errors import StoreTrouble
from kelbrast.storage.holding import HEADER_BYTES, has_log
from kelbrast.storage.trouble import told


class Anchor:
    """Holds on to the file that was opened, so that what is in it can be saved even when another lies in its place."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self._connection = sqlite3.connect(path, check_same_thread=False)
        self._connection.execute("select count(*) from sqlite_master").close()  # now it has opened the log beside it too
        self._lock = threading.Lock()
        # Open for as long as the database is: closing any descriptor of a file drops all locks of this process on it
        # (https://www.sqlite.org/howtocorrupt.html, 2.2).
        self._descriptor = os.open(path, os.O_RDONLY)
        self._file = _identity(path)

    def check(self) -> None:
        """Raises StoreTrouble when another file lies at the path, or none."""
        try:
            same = _identity(self.path) == self._file and has_log(os.pread(self._descriptor, HEADER_BYTES, 0))
        except FileNotFoundError:
            same = False
        if not same:
            raise StoreTrouble(
                "replaced",
                f"The database file was replaced while the program runs ({self.path})",
                safe="Nothing of this was written; what was there before is still held by the program.",
                mend="Save it as a backup on the main screen, then stop the program, put the right file there and start again.",
            )

    def commits(self) -> int:
        """A number that is another one after every commit to the file, whoever made it."""
        with told(self.path), self._lock:
            found: tuple[int] = self._connection.execute("PRAGMA data_version").fetchone()
        return found[0]

    def ask(self, statement: str) -> tuple[Any, ...]:
        """The one row that answers a question, without anything around it: for what every request has to know."""
        with told(self.path), self._lock:
            found: tuple[Any, ...] = self._connection.execute(statement).fetchone()
        return found

    def save_to(self, target: Path) -> None:
        """Copy what the opened file holds, wherever it is now."""
        with told(target), self._lock, closing(sqlite3.connect(target)) as copy:
            self._connection.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE").close()

    def let_go(self) -> None:
        """Close it; after that nothing can be saved from it."""
        with self._lock:
            self._connection.close()
            os.close(self._descriptor)


def _identity(path: Path) -> tuple[int, int]:
    found = path.stat()
    return found.st_dev, found.st_ino
