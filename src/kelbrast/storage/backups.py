"""Backups beside the database: made now or every day, kept for a fortnight, compared with what is there, and put back."""

import re
import shutil
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import datetime, timedelta
from pathlib import Path
from typing import Final, Literal, get_args

from kelbrast.core.errors import BadInput, NotFound
from kelbrast.storage.copies import back_up, free_name
from kelbrast.storage.database import close_database, open_database
from kelbrast.storage.trouble import told

BackupKind = Literal["daily", "asked", "before-restore", "brought"]
KEPT_FOR: Final = timedelta(days=14)  # daily ones; what a person asked for is theirs to delete
_TIME: Final = "%Y%m%d-%H%M%S"
_KINDS: Final[dict[str, BackupKind]] = {kind: kind for kind in get_args(BackupKind)}
_NAME: Final = re.compile(rf"(?P<at>\d{{8}}-\d{{6}})-(?P<kind>{'|'.join(_KINDS)})(-\d+)?\.sqlite")


@dataclass(frozen=True, slots=True)
class Backup:
    """A copy of the database."""

    name: str
    at: datetime
    kind: BackupKind
    size: int


@dataclass(frozen=True, slots=True)
class TableChange:
    """What putting a backup back would do to a table: rows that come back, rows that go, rows that are otherwise."""

    table: str
    come: int
    go: int
    other: int


class Backups:
    """The backups of the database at this path, in a folder beside it."""

    def __init__(self, path: Path) -> None:
        self.path = path
        self.folder = path.with_name(f"{path.stem}-backups")

    def all(self) -> list[Backup]:
        """Every backup, the newest first."""
        if not self.folder.is_dir():
            return []
        found = [(one, _NAME.fullmatch(one.name)) for one in self.folder.iterdir()]
        backups = [
            Backup(file.name, datetime.strptime(told["at"], _TIME), _KINDS[told["kind"]], file.stat().st_size)
            for file, told in found
            if told is not None
        ]
        return sorted(backups, key=lambda one: (one.at, one.name), reverse=True)

    def make(self, kind: BackupKind, now: datetime) -> Backup:
        """Copy the database as it is now.

        Raises:
            StoreTrouble: there is no room, or no right to write there.
        """
        return self._copy(self.path, kind, now)

    def take_in(self, database: Path, now: datetime) -> Backup:
        """Put a copy from elsewhere among the backups.

        Raises:
            StoreTrouble: there is no room, or no right to write there.
        """
        return self._copy(database, "brought", now)

    def remove(self, name: str) -> None:
        """Forget a backup.

        Raises:
            NotFound: there is none of that name.  StoreTrouble: there is no right to.
        """
        with told(self.folder):
            self.file(name).unlink(missing_ok=True)

    def _copy(self, database: Path, kind: BackupKind, now: datetime) -> Backup:
        with told(self.folder):
            self.folder.mkdir(exist_ok=True)
        target = back_up(database, free_name(self.folder / f"{now:{_TIME}}-{kind}.sqlite"))
        return next(one for one in self.all() if one.name == target.name)

    def every_day(self, now: datetime) -> Backup | None:
        """Today's backup, if there is none yet; daily ones older than a fortnight go once there is a newer one."""
        if any(one.kind == "daily" and one.at.date() == now.date() for one in self.all()):
            return None
        made = self.make("daily", now)
        for one in self.all():
            if one.kind == "daily" and one.at < now - KEPT_FOR:
                (self.folder / one.name).unlink(missing_ok=True)
        return made

    def file(self, name: str) -> Path:
        """Where a backup is.

        Raises:
            NotFound: there is none of that name.
        """
        if _NAME.fullmatch(name) is None or not (self.folder / name).is_file():
            raise NotFound("backup", name, [one.name for one in self.all()])
        return self.folder / name

    def changes(self, source: Path) -> list[TableChange]:
        """What putting this copy back would change, by table; the database stays as it is.

        Raises:
            StoreTrouble: the copy is damaged, foreign or of a newer version.
        """
        with _brought_up_to_date(source) as copy, told(self.path), closing(_reader(self.path)) as here:
            here.execute("attach ? as there", (copy.resolve().as_uri() + "?mode=ro",))
            found = [_compared(here, table) for table in _tables(here)]
        return [one for one in found if one.come or one.go or one.other]

    def restore(self, source: Path, now: datetime) -> Backup:
        """Put a copy in the place of everything; what was there is kept as a backup first.

        Raises:
            StoreTrouble: the copy or the database can not be used; the database is as it was.
        """
        if source.resolve() == self.path.resolve():
            raise BadInput.one("backup", "is the database itself")
        with _brought_up_to_date(source) as copy:
            before = self.make("before-restore", now)
            with told(self.path), closing(_reader(copy)) as there, closing(sqlite3.connect(self.path, timeout=10)) as here:
                there.backup(here)
        return before


@contextmanager
def _brought_up_to_date(source: Path) -> Iterator[Path]:
    """A copy of it with the newest tables, checked as every database is; the file itself is only read."""
    with tempfile.TemporaryDirectory(prefix="kelbrast-restore-") as folder:
        copy = Path(folder) / "copy.sqlite"
        with told(source):
            shutil.copyfile(source, copy)
        close_database(open_database(copy))
        yield copy


def _reader(path: Path) -> sqlite3.Connection:
    return sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True, timeout=10)


def _tables(connection: sqlite3.Connection) -> list[str]:
    rows = connection.execute("select name from sqlite_master where type = 'table' order by name")
    return [name for (name,) in rows if name != "alembic_version" and not name.startswith("sqlite_")]


def _compared(here: sqlite3.Connection, table: str) -> TableChange:
    """Counted by the database itself: photos are large, and a log of years is long."""
    columns = [name for _, name, *_ in here.execute(f'PRAGMA main.table_info("{table}")')]
    (key,) = (name for _, name, _, _, _, primary in here.execute(f'PRAGMA main.table_info("{table}")') if primary)
    other = " or ".join(f'old."{name}" is not new."{name}"' for name in columns)

    def count(query: str) -> int:
        (found,) = here.execute(f"select count(*) from {query}").fetchone()
        return int(found)

    there, now = f'there."{table}"', f'main."{table}"'
    return TableChange(
        table,
        come=count(f'{there} where "{key}" not in (select "{key}" from {now})'),
        go=count(f'{now} where "{key}" not in (select "{key}" from {there})'),
        other=count(f'{there} old join {now} new using ("{key}") where {other}'),
    )
