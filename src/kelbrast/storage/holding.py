"""One server for a database: the second is refused, naming the first; and how a database file begins."""

import json
import os
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Final

from filelock import FileLock, Timeout

from kelbrast.core.errors import StoreTrouble
from kelbrast.storage.trouble import told

HEADER_BYTES: Final = 20
_MAGIC: Final = b"SQLite format 3\x00"
_WITH_LOG: Final = b"\x02\x02"  # the last of them: 2 and 2 in a file with a write-ahead log, as this program keeps it


def is_database(path: Path) -> bool:
    """Whether a file is a database, by how it begins; an empty one is not, although SQLite would take it.

    Never ask this of a database that is open in this process: closing the file would drop SQLite's locks on it.
    """
    try:
        with path.open("rb", buffering=0) as file:
            return file.read(HEADER_BYTES).startswith(_MAGIC)
    except OSError:
        return False


def has_log(header: bytes) -> bool:
    """Whether a database that begins so is kept with a write-ahead log: a backup that was copied over it is not."""
    return header.startswith(_MAGIC) and header.endswith(_WITH_LOG)


_UNKNOWN: Final = "address not known"


@contextmanager
def held_by_server(database: Path, address: str) -> Iterator[None]:
    """Hold a database for the server at this address, until the block ends or the process does.

    Raises:
        StoreTrouble: another server holds it, or its folder cannot be written to.
    """
    path = database.resolve()
    lock, about = path.with_name(f"{path.name}.served"), path.with_name(f"{path.name}.server.json")
    with told(database):
        path.parent.mkdir(parents=True, exist_ok=True)
        held = FileLock(lock, thread_local=False)
        try:
            held.acquire(blocking=False)
        except Timeout:
            raise StoreTrouble(
                "locked",
                f"Kelbrast already runs on {database}: {_who(about)}",
                safe="Nothing was changed.",
                mend="Use that one, or stop it first.",
            ) from None
        about.write_text(json.dumps({"address": address, "process": os.getpid()}), encoding="utf-8")
    try:
        yield
    finally:
        about.unlink(missing_ok=True)
        held.release()


def _who(about: Path) -> str:
    try:
        told_there = json.loads(about.read_text(encoding="utf-8"))
        return f"{told_there['address']} (process {int(told_there['process'])})"
    except (OSError, ValueError, KeyError, TypeError):
        return _UNKNOWN
