"""Everything that is kept, as one archive in the open: a line of JSON for every row, a file for every picture.

What is in it and how it is read is told in docs/archive.md. The devices that were paired are not in it.
"""

import hashlib
import json
import shutil
import sqlite3
import zipfile
import zlib
from collections.abc import Iterator, Sequence
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from typing import Any, Final

from kelbrast import __version__
from kelbrast.core.errors import BadInput, StoreTrouble
from kelbrast.storage import text_search
from kelbrast.storage.copies import back_up
from kelbrast.storage.database import make_tables
from kelbrast.storage.scratch import scratch
from kelbrast.storage.trouble import told

FORMAT: Final = "everything/1"
ABOUT: Final = "kelbrast.json"
ROWS: Final = "rows.json"  # count and hash of every table's rows
LARGEST_LINE: Final = 64 * 1024 * 1024  # bytes; a plan of a thousand steps has less than three million
LARGEST_SETTING: Final = 4 * 1024 * 1024  # bytes of a line of `settings`, which every screen asks for
MOST_FILES: Final = 200_000
# Rows that a table may have: of events there are some hundreds in a run, of most things far fewer.
MOST_ROWS: Final = 200_000
MOST_EVENTS: Final = 20_000_000
_OF_EVENTS: Final = ("run_events", "rack_events", "run_steps", "observations", "job_states")
_DOCUMENT: Final = "JSON"
_PICTURE: Final = "BLOB"
_NOT_KEPT: Final = frozenset({"alembic_version", *text_search.TABLES})  # the index fills itself as rows are written
# Damage shows itself in the directory, in what is packed, or in the text; what is locked is a RuntimeError.
_UNREADABLE: Final = (
    zipfile.BadZipFile, zlib.error, EOFError, ValueError, RuntimeError, KeyError, TypeError, AttributeError, OverflowError,
    sqlite3.Error,
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class _Column:
    """A column by the kind that its table declares. What is NULL is left out of a row; `null` is a document that says so."""

    name: str
    kind: str

    def told(self, value: Any) -> Any:
        return json.loads(value) if self.kind == _DOCUMENT else value

    def kept(self, value: Any) -> Any:
        if self.kind == _DOCUMENT:
            return json.dumps(value)
        if isinstance(value, dict | list):
            raise BadInput.one("archive", f"{self.name} must be a number or a text")
        return value


def write_everything(database: Path, target: Path) -> Path:
    """Write the archive of a database, also while it is in use; it gets its name when it is complete.

    Raises:
        BadInput: there is something of that name already.  StoreTrouble: it cannot be read or written.
    """
    if target.exists():
        raise BadInput.one("--to", f"{target} exists already; it is left as it is")
    with scratch() as folder, told(target):
        copy = back_up(database, folder / "copy.sqlite")  # of one moment, whatever is tapped meanwhile
        part = target.with_name(target.name + ".part")
        try:
            with closing(sqlite3.connect(copy)) as kept, zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED) as archive:
                _write(kept, archive)
            part.replace(target)
        finally:
            part.unlink(missing_ok=True)
    return target


def read_everything(archive: Path, target: Path) -> None:
    """Make a database of an archive, with the tables of the version that wrote it; nothing else is touched.

    Raises:
        BadInput: it is no such archive, is damaged, or is of a newer version.  StoreTrouble: there is no room.
    """
    try:
        with told(target), zipfile.ZipFile(archive) as packed:
            _must_have_room(packed, target)
            about = json.loads(packed.read(ABOUT))
            if about["kelbrast"] != FORMAT:
                raise BadInput.one("archive", f'is "{about["kelbrast"]}", and this program reads "{FORMAT}"')
            make_tables(target, str(about["tables"]))
            with closing(sqlite3.connect(target)) as made:
                _read(packed, made, dict(about["ever"]), json.loads(packed.read(ROWS)) if about.get("rows") else None)
    except StoreTrouble as trouble:
        if trouble.cause != "unreachable":
            raise
        raise BadInput.one("archive", "is damaged and cannot be read") from None
    except _UNREADABLE as problem:
        raise BadInput.one("archive", f"is not an archive of everything that can be read: {problem}") from None


def is_archive(file: Path) -> bool:
    """Whether a file is packed as an archive is; a database begins otherwise."""
    return zipfile.is_zipfile(file)


def _write(kept: sqlite3.Connection, archive: zipfile.ZipFile) -> None:
    (tables,) = kept.execute("select version_num from alembic_version").fetchone()
    about = {
        "kelbrast": FORMAT,
        "version": __version__,
        "made_at": datetime.now(UTC).isoformat(),
        "tables": tables,
        "ever": dict(kept.execute("select name, seq from sqlite_sequence")),
        "rows": ROWS,
    }
    archive.writestr(ABOUT, json.dumps(about, indent=2))  # first: by it a screen knows what the archive is
    rows: dict[str, dict[str, Any]] = {}
    for table in _tables(kept):
        columns = _columns(kept, table)
        plain = [column for column in columns if column.kind != _PICTURE]
        written = _Rows()
        with archive.open(f"{table}.jsonl", "w", force_zip64=True) as file:
            for row in kept.execute(f'select {_named(plain)} from "{table}" order by 1'):
                told_row = {
                    column.name: column.told(value) for column, value in zip(plain, row, strict=True) if value is not None
                }
                file.write(written.counted((json.dumps(told_row, ensure_ascii=False) + "\n").encode()))
        rows[table] = written.told()
        for column in (column for column in columns if column.kind == _PICTURE):
            # One at a time: ten years of photos do not fit into memory. A JPEG is packed already.
            for key, data in kept.execute(f'select id, "{column.name}" from "{table}"'):
                archive.writestr(zipfile.ZipInfo(_picture_of(table, key)), data)
    archive.writestr(ROWS, json.dumps(rows, indent=2))


class _Rows:
    """Counts the rows of a table and hashes their lines, so that an archive that lost some is known as incomplete."""

    def __init__(self) -> None:
        self._count, self._hash = 0, hashlib.sha256()

    @property
    def count(self) -> int:
        return self._count

    def counted(self, line: bytes) -> bytes:
        self._count += 1
        self._hash.update(line)
        return line

    def told(self) -> dict[str, Any]:
        return {"count": self._count, "sha256": self._hash.hexdigest()}


def _read(packed: zipfile.ZipFile, made: sqlite3.Connection, ever: dict[str, int], said: Any) -> None:
    """`said`: count and hash of every table's rows, as the archive has them; None in those of older versions."""
    for table in _tables(made):
        columns = {column.name: column for column in _columns(made, table)}
        pictures = [column.name for column in columns.values() if column.kind == _PICTURE]
        read = _Rows()
        for row in _rows(packed, table, read):
            if strange := set(row) - set(columns):
                raise BadInput.one("archive", f"{table} has no {', '.join(sorted(strange))}")
            kept = {name: columns[name].kept(value) for name, value in row.items()}
            kept |= {name: packed.read(_picture_of(table, row["id"])) for name in pictures}
            names, holes = ", ".join(f'"{name}"' for name in kept), ", ".join("?" * len(kept))
            made.execute(f'insert into "{table}" ({names}) values ({holes})', list(kept.values()))
        if said is not None and said.get(table, _Rows().told()) != read.told():
            raise BadInput.one("archive", f"is incomplete: {table} does not have the rows that it was written with")
    for table, last in ever.items():  # numbers of what was deleted are not given again
        if made.execute("update sqlite_sequence set seq = max(seq, ?) where name = ?", (int(last), table)).rowcount == 0:
            made.execute("insert into sqlite_sequence (name, seq) values (?, ?)", (table, int(last)))
    if (broken := made.execute("PRAGMA foreign_key_check").fetchone()) is not None:
        raise BadInput.one("archive", f"{broken[0]} has a row that belongs to nothing in {broken[2]}")
    made.commit()


def _must_have_room(packed: zipfile.ZipFile, target: Path) -> None:
    """What is small when packed may be larger than the disk when it is not."""
    inside = packed.infolist()
    large = next(
        (
            zip_info.filename
            for zip_info in inside
            if zip_info.file_size > LARGEST_LINE and not zip_info.filename.endswith(".jsonl")
        ),
        None,
    )
    if large is not None:
        raise BadInput.one("archive", f"{large} is larger than a picture can be")
    if len(inside) > MOST_FILES:
        raise BadInput.one("archive", f"holds more than {MOST_FILES} files")
    if sum(zip_info.file_size for zip_info in inside) > shutil.disk_usage(target.parent).free:
        raise BadInput.one("archive", "would need more room than the disk has")


def _rows(packed: zipfile.ZipFile, table: str, read: _Rows) -> Iterator[dict[str, Any]]:
    """The rows of a table, a line each; a table that this version did not have yet is empty."""
    if f"{table}.jsonl" not in packed.namelist():
        return
    longest = LARGEST_SETTING if table == "settings" else LARGEST_LINE
    most = MOST_EVENTS if table in _OF_EVENTS else MOST_ROWS
    with packed.open(f"{table}.jsonl") as file:
        while line := file.readline(longest):
            if len(line) == longest:
                raise BadInput.one("archive", f"{table} has a line that is longer than any can be")
            if read.count >= most:
                raise BadInput.one("archive", f"{table} has more than {most} rows")
            row = json.loads(read.counted(line))
            if not isinstance(row, dict):
                raise BadInput.one("archive", f"{table} has a line that is no row")
            yield row


def _picture_of(table: str, key: Any) -> str:
    return f"{table}/{key}.jpg"


def _tables(connection: sqlite3.Connection) -> list[str]:
    """Those that hold something, what is pointed at before what points at it."""
    rows = connection.execute("select name from sqlite_master where type = 'table' order by rowid")
    return [name for (name,) in rows if name not in _NOT_KEPT and not name.startswith("sqlite_")]


def _columns(connection: sqlite3.Connection, table: str) -> list[_Column]:
    return [_Column(name, kind.upper()) for _, name, kind, *_ in connection.execute(f'PRAGMA table_info("{table}")')]


def _named(columns: Sequence[_Column]) -> str:
    return ", ".join(f'"{column.name}"' for column in columns)
