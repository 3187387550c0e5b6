"""How a database file begins: https://www.sqlite.org/fileformat2.html. Loads nothing, so that every command may ask."""

from pathlib import Path
from typing import Final

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
